import type { EaseKind, StepsEase } from './types';

/** CSS Easing Functions Level 1, section 2.4: steps(). */
export const steps: EaseKind<StepsEase> = {
  kind: 'steps',
  label: 'Steps',
  curve: ({ count, jump }) => {
    const jumps = count + (jump === 'both' ? 1 : jump === 'none' ? -1 : 0);
    const first = jump === 'start' || jump === 'both' ? 1 : 0;
    return (t) => {
      if (t >= 1) return 1;
      if (t < 0) return 0;
      return Math.min(1, (Math.floor(t * count + 1e-9) + first) / Math.max(1, jumps));
    };
  },
};
