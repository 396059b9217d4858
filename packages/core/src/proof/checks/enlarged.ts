import type { Id } from '../../document/types';
import { multiply } from '../../geometry/matrix';
import { eachMark } from '../../recipe/marks';
import { needsOf } from '../../recipe/needs';
import { isShown } from '../../scene/groups';
import type { CheckKind, Finding } from '../types';

const MOMENTS = 24;
/** What is larger than its pixels by less is not seen to be. */
const TOLERANCE = 1.05;

/** Pictures that are shown larger than they have pixels for. */
export const enlarged: CheckKind = {
  kind: 'enlarged',
  about: 'Pictures larger than their pixels',
  *find({ scene, program, deliveries }) {
    const largest = Math.max(
      1,
      ...deliveries.map(({ settings }) => (typeof settings.scale === 'number' ? settings.scale : 1)),
    );
    const worst = new Map<Id, { readonly ratio: number; readonly frame: number }>();
    for (const layer of Object.values(scene.layers)) {
      if (needsOf(layer).assets.size === 0) continue;
      for (let i = 0; i < MOMENTS; i++) {
        const frame = Math.round((i * (scene.length - 1)) / (MOMENTS - 1));
        yield;
        if (!isShown(scene, layer, frame)) continue;
        const place = program.matrixAt(layer.id, frame);
        eachMark(program.marksAt(layer.id, frame), (mark) => {
          if (mark.op !== 'picture') return;
          const [a, b, c, d] = multiply(place, mark.matrix);
          const ratio = Math.max(Math.hypot(a, b), Math.hypot(c, d)) * largest;
          if (ratio > Math.max(TOLERANCE, worst.get(layer.id)?.ratio ?? 0)) worst.set(layer.id, { ratio, frame });
        });
      }
    }
    return [...worst].map(([layer, { ratio, frame }]): Finding => {
      const message = `“${scene.layers[layer]?.name}” shows a picture ${ratio.toFixed(1)} times as large as it has pixels for.`;
      return { check: 'enlarged', message, scene: scene.id, layer, frame };
    });
  },
};
