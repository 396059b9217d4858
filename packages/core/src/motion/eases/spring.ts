import { EASE_LIMITS } from '../../document/limits';
import { number, percent } from '../../document/params';
import { type EaseKind, setting, type SpringEase } from './types';

const [min, max] = EASE_LIMITS.bounces;

/**
 * A damped swing about its end, in closed form: 1 − E(t) cos(2π n t) for n bounces, where the envelope
 * E(t) = (e^(−d t) − e^(−d)) / (1 − e^(−d)) falls from 1 to 0, so that both ends are hit exactly. Damping of
 * 0 to 1 gives d from 1 to 10.
 */
export const spring: EaseKind<SpringEase> = {
  kind: 'spring',
  label: 'Spring',
  settings: {
    bounces: setting(number('Bounces', min, { min, max, whole: true })),
    damping: setting(percent('Damping', 0, { step: 0.005 })),
  },
  curve: ({ bounces, damping }) => {
    const d = 1 + 9 * damping;
    const last = Math.exp(-d);
    return (t) => {
      if (t <= 0 || t >= 1) return t <= 0 ? 0 : 1;
      return 1 - ((Math.exp(-d * t) - last) / (1 - last)) * Math.cos(2 * Math.PI * bounces * t);
    };
  },
};
