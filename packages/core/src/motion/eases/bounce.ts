import { EASE_LIMITS } from '../../document/limits';
import { number, percent } from '../../document/params';
import { type BounceEase, type EaseKind, setting } from './types';

const [min, max] = EASE_LIMITS.bounces;

/** Half the time of each rebound, and the time of all, in times of the first fall. */
const falls = ({ bounces, height }: BounceEase) => {
  const halves = Array.from({ length: bounces }, (_, i) => Math.sqrt(height) ** (i + 1));
  return { halves, total: 1 + 2 * halves.reduce((sum, half) => sum + half, 0) };
};

/**
 * A ball that falls onto its end and rebounds, each time to a share of the height before. Under constant
 * gravity a rebound to height h lasts 2 √h times as long as the first fall.
 */
export const bounce: EaseKind<BounceEase> = {
  kind: 'bounce',
  label: 'Bounce',
  settings: {
    bounces: setting(number('Bounces', min, { min, max, whole: true })),
    height: setting(percent('Height kept', 0, { max: EASE_LIMITS.height[1], step: 0.005 })),
  },
  curve: (ease) => {
    const { halves, total } = falls(ease);
    return (t) => {
      if (t <= 0 || t >= 1) return t <= 0 ? 0 : 1;
      let at = t * total;
      if (at < 1) return at * at;
      at -= 1;
      for (const half of halves) {
        if (at < 2 * half) return 1 - (half * half - (at - half) ** 2);
        at -= 2 * half;
      }
      return 1;
    };
  },
  corners: (ease) => {
    const { halves, total } = falls(ease);
    let at = 1;
    // It is at rest after the last one.
    return [1, ...halves.map((half) => (at += 2 * half))].slice(0, -1).map((time) => time / total);
  },
};
