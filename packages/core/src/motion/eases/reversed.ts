import type { Ease } from '../../document/types';
import { curveOf } from './table';

const STEPS_BACK = { start: 'end', end: 'start', both: 'both', none: 'none' } as const;

/** Points of a curve that has no form of its own backwards. */
const SAMPLES = 64;

/** The ease of a span that runs backwards: 1 − ease(1 − t). A hold stays one: what it waits with is its first value. */
export const reversedEase = (ease: Ease): Ease => {
  switch (ease.kind) {
    case 'linear':
    case 'hold':
      return ease;
    case 'bezier':
      return { kind: 'bezier', x1: 1 - ease.x2, y1: 1 - ease.y2, x2: 1 - ease.x1, y2: 1 - ease.y1 };
    case 'steps':
      return { ...ease, jump: STEPS_BACK[ease.jump] };
    case 'drawn':
      return {
        kind: 'drawn',
        points: ease.points.map((p) => ({ ...p, x: 1 - p.x, y: 1 - p.y })).reverse(),
      };
    case 'spring':
    case 'bounce': {
      const curve = curveOf(ease);
      const points = Array.from({ length: SAMPLES - 1 }, (_, i) => {
        const x = (i + 1) / SAMPLES;
        return { x, y: 1 - curve(1 - x), corner: false };
      });
      return { kind: 'drawn', points };
    }
  }
};
