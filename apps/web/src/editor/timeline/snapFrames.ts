/** Frames that beads, bars and markers snap to while they are dragged. */
import { isKeyed, type PropertyRef } from '@kite/core/document/types';
import { keyedCurvesOf, propertyAt, refKey } from '@kite/core/properties/find';
import type { KeyChoice } from '@kite/core/edits/keyframes';
import type { Editor } from '../store/editor';
import { rowsElsewhere } from './rows';
import type { TimeScale } from './scale';

/** Pixels within which a frame snaps. */
const NEAR = 6;

/** The playhead, the markers, the ends of layers, and the beads in sight but for those that are dragged. */
export const snapFrames = (editor: Editor, dragged: readonly KeyChoice[]): number[] => {
  const { scene } = editor;
  const { frame, opened } = editor.state;
  const moving = new Map(dragged.map((c) => [refKey(c.ref), new Set(c.frames)]));
  const movingLayers = new Set(dragged.map((c) => c.ref.layer));
  const found = new Set([frame, 0, scene.length - 1, ...scene.markers.map((m) => m.frame)]);
  const addBeads = (ref: PropertyRef): void => {
    const property = propertyAt(editor.state.doc, ref);
    const mine = moving.get(refKey(ref));
    if (isKeyed(property)) for (const key of property.keys) if (!mine?.has(key.frame)) found.add(key.frame);
  };
  for (const id of scene.order) {
    const layer = scene.layers[id];
    if (!layer || layer.tucked) continue;
    if (!movingLayers.has(id)) found.add(layer.from).add(layer.to);
    if (!opened.has(id)) continue;
    keyedCurvesOf(scene.id, layer).forEach(addBeads);
  }
  if (editor.state.allScenes) {
    const elsewhere = rowsElsewhere(editor.state.doc, scene.id, opened);
    for (const row of elsewhere) if (row.kind === 'ribbon') addBeads(row.ref);
  }
  return [...found];
};

/** How far things at some frames go when they are dragged so far, and the frame that drew them there. */
export const snappedBy = (
  frames: readonly number[],
  by: number,
  targets: readonly number[],
  scale: TimeScale,
  free: boolean,
): { readonly by: number; readonly at: number | null } => {
  const plain = { by: Math.round(by), at: null };
  if (free) return plain;
  let best: { by: number; at: number } | null = null;
  let near = scale.frames(NEAR);
  for (const frame of frames) {
    for (const target of targets) {
      const off = Math.abs(frame + by - target);
      if (off < near) [near, best] = [off, { by: target - frame, at: target }];
    }
  }
  return best ?? plain;
};
