import { setLayers } from '../../edits/layers';
import { framesPerSecond } from '../../time/rate';
import { isSeen } from '../seen';
import type { CheckKind, Finding } from '../types';

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
      const where = { scene: scene.id, layer: layer.id, frame: layer.to };
      found.push({ check: 'endsEarly', message, ...where, mend: 'Let it stay', value: scene.length });
    }
    return found;
  },
  mend: ({ scene, layer = '', value = 1 }) => setLayers(scene, [layer], { to: value as number }),
};
