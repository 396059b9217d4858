import { isNumber } from '../../document/is';
import { clamped } from '../../document/fitting';
import { type Kind, lerp, short, step } from './types';

export const numbers: Kind<'numbers'> = {
  kind: 'numbers',
  wanted: ({ most, min, max }) => `at most ${most} numbers from ${min} to ${max}`,
  is: ({ most, min, max }, v) =>
    Array.isArray(v) && v.length <= most && v.every((x) => isNumber(x) && x >= min && x <= max),
  fitted: ({ most, min, max }, list) => {
    const fitting = list.slice(0, most).map((x) => clamped(x, min, max, min));
    return fitting.length === list.length && fitting.every((x, i) => x === list[i]) ? list : fitting;
  },
  accept: ({ most, min, max }) => {
    return (list) => {
      if (list.length <= most && list.every((v) => v >= min && v <= max)) return list;
      const fitting = list.slice(0, most).map((v) => clamped(v, min, max, null));
      return fitting.every((v) => v !== null) ? fitting : null;
    };
  },
  mix: (p, q, t) => (p.length === q.length ? p.map((x, i) => lerp(x, q[i] as number, t)) : step(p, q, t)),
  says: (_param, list) => list.map(short).join(', ') || 'none',
};
