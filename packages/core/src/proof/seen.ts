/** Whether layers are seen. */
import type { Layer } from '../document/types';
import { overlaps } from '../geometry/bounds';
import type { Mark } from '../recipe/types';
import { layerBoxInScene } from '../scene/bounds';
import type { DisplayList, Program } from '../scene/program';
import { isShown } from '../scene/groups';
import type { View } from './types';

/** What is fainter than this is not seen. */
const FAINT = 0.02;

/** How opaque the most opaque of some marks is, 0..1. */
export const strongest = (marks: readonly Mark[]): number =>
  marks.reduce((most, m) => Math.max(most, m.op === 'group' ? m.alpha * strongest(m.marks) : m.alpha), 0);

/** Whether anything of a layer is in the picture. */
export const isSeen = (program: Program, layer: Layer, frame: number): boolean => {
  const { scene } = program;
  if (!isShown(scene, layer, frame)) return false;
  if (strongest(program.at(frame, (id) => id === layer.id).marks) < FAINT) return false;
  const box = layerBoxInScene(program, layer.id, frame);
  return box !== null && overlaps(box, { left: 0, top: 0, right: scene.width, bottom: scene.height });
};

/** What of a frame is looked at: all of the scene, or some layers on nothing. */
export const listSeen = (program: Program, frame: number, { only }: View): DisplayList =>
  only === undefined ? program.at(frame) : { ...program.at(frame, (id) => only.includes(id)), background: null };
