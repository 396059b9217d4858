import { EASE_LIMITS } from '../../document/limits';
import { choice, number } from '../../document/params';
import { type EaseKind, setting, type StepsEase } from './types';

const [min, max] = EASE_LIMITS.steps;
const JUMPS = [
  { value: 'end', label: 'At the end' },
  { value: 'start', label: 'At the start' },
  { value: 'both', label: 'At both' },
  { value: 'none', label: 'At neither' },
] as const;
const BACK = { start: 'end', end: 'start', both: 'both', none: 'none' } as const;

/** CSS Easing Functions Level 1, section 2.4: steps(). */
export const steps: EaseKind<StepsEase> = {
  kind: 'steps',
  label: 'Steps',
  settings: {
    count: setting(number('Steps', min, { min, max, whole: true })),
    jump: setting(choice('Jumps', JUMPS, 'end')),
  },
  curve: ({ count, jump }) => {
    const jumps = count + (jump === 'both' ? 1 : jump === 'none' ? -1 : 0);
    const first = jump === 'start' || jump === 'both' ? 1 : 0;
    return (t) => {
      if (t >= 1) return 1;
      if (t < 0) return 0;
      return Math.min(1, (Math.floor(t * count + 1e-9) + first) / Math.max(1, jumps));
    };
  },
  corners: ({ count }) => Array.from({ length: count - 1 }, (_, i) => (i + 1) / count),
  reversed: (ease) => ({ ...ease, jump: BACK[ease.jump] }),
};
