import { setLayers } from '../../edits/layers';
import { isSeen } from '../seen';
import type { CheckKind, Finding } from '../types';

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
      const where = { scene: scene.id, layer: layer.id, frame: entrance.from - 1 };
      found.push({ check: 'early', message, ...where, mend: 'Let it begin there', value: entrance.from });
    }
    return found;
  },
  mend: ({ scene, layer = '', value = 0 }) => setLayers(scene, [layer], { from: value as number }),
};
