import { setLayers } from '../../edits/layers';
import type { Layer } from '../../document/types';
import { layerBoxInScene } from '../../scene/bounds';
import { isShown } from '../../scene/groups';
import { overlaps } from '../../geometry/bounds';
import type { Program } from '../../scene/compile';
import type { Mark } from '../../recipe/types';
import { framesPerSecond } from '../../time/rate';
import type { CheckKind, Finding } from '../types';

/** What is fainter than this is not seen. */
const FAINT = 0.02;

const strongest = (marks: readonly Mark[]): number =>
  marks.reduce((most, m) => Math.max(most, m.op === 'group' ? m.alpha * strongest(m.marks) : m.alpha), 0);

/** Whether anything of a layer is in the picture. */
const isSeen = (program: Program, layer: Layer, frame: number): boolean => {
  const { scene } = program;
  if (!isShown(scene, layer, frame)) return false;
  if (strongest(program.at(frame, (id) => id === layer.id).marks) < FAINT) return false;
  const box = layerBoxInScene(program, layer.id, frame);
  return box !== null && overlaps(box, { left: 0, top: 0, right: scene.width, bottom: scene.height });
};

/** Layers that are gone a moment before their scene ends. */
export const endsEarly: CheckKind = {
  kind: 'endsEarly',
  about: 'Layers that vanish shortly before their scene ends',
  *find({ scene, program }) {
    const found: Finding[] = [];
    for (const layer of Object.values(scene.layers)) {
      const gap = scene.length - layer.to;
      if (layer.kind !== 'drawing' || gap <= 0 || gap > framesPerSecond(scene.rate)) continue;
      yield;
      if (!isSeen(program, layer, layer.to - 1)) continue;
      const message = `“${layer.name}” vanishes ${gap} frame${gap === 1 ? '' : 's'} before its scene ends.`;
      found.push({
        check: 'endsEarly',
        message,
        scene: scene.id,
        layer: layer.id,
        frame: layer.to,
        mend: 'Let it stay',
        value: scene.length,
      });
    }
    return found;
  },
  mend: ({ scene, layer = '', value = 1 }) => setLayers(scene, [layer], { to: value as number }),
};

/** Layers that are there before they come in. */
export const early: CheckKind = {
  kind: 'early',
  about: 'Layers that are seen before their entrance',
  *find({ scene, program }) {
    const found: Finding[] = [];
    for (const layer of Object.values(scene.layers)) {
      const entrance = layer.moves.find(({ move }) => move.kind === 'entrance');
      if (layer.kind !== 'drawing' || !entrance || entrance.from <= Math.max(0, layer.from)) continue;
      yield;
      if (!isSeen(program, layer, entrance.from - 1)) continue;
      const message = `“${layer.name}” is seen before its entrance at frame ${entrance.from}.`;
      found.push({
        check: 'early',
        message,
        scene: scene.id,
        layer: layer.id,
        frame: entrance.from - 1,
        mend: 'Let it begin there',
        value: entrance.from,
      });
    }
    return found;
  },
  mend: ({ scene, layer = '', value = 0 }) => setLayers(scene, [layer], { from: value as number }),
};
