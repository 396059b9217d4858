import type { BounceEase, EaseKind } from './types';

/**
 * A ball that falls onto its end and rebounds, each time to a share of the height before. Under constant
 * gravity a rebound to height h lasts 2 √h times as long as the first fall.
 */
export const bounce: EaseKind<BounceEase> = {
  kind: 'bounce',
  label: 'Bounce',
  curve: ({ bounces, height }) => {
    const halves = Array.from({ length: bounces }, (_, i) => Math.sqrt(height) ** (i + 1));
    const total = 1 + 2 * halves.reduce((sum, half) => sum + half, 0);
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
};
