import { isPoint } from '../../document/is';
import { clamped, each } from '../../document/fitting';
import type { Point } from '../../document/types';
import { type Kind, lerp, short } from './types';

export const point: Kind<'point'> = {
  kind: 'point',
  wanted: ({ limit }) => `two numbers from ${-limit} to ${limit}`,
  is: ({ limit }, v) => isPoint(v, limit),
  fitted: ({ limit, default: otherwise }, v) =>
    each(v, (x, i) => clamped(x, -limit, limit, otherwise[i] as number)) as Point,
  accept: ({ limit }) => {
    return (value) => {
      // Taken out one by one: this runs for every value of every follower.
      const x = value[0];
      const y = value[1];
      if (Math.abs(x) <= limit && Math.abs(y) <= limit) return value;
      const [left, top] = [clamped(x, -limit, limit, null), clamped(y, -limit, limit, null)];
      return left === null || top === null ? null : [left, top];
    };
  },
  mix: (p, q, t) => [lerp(p[0], q[0], t), lerp(p[1], q[1], t)],
  moved: (v, from, to) => [v[0] + to[0] - from[0], v[1] + to[1] - from[1]],
  heights: (v) => v,
  says: ({ unit }, [x, y]) =>
    unit === 'percent' ? `${short(x * 100)}, ${short(y * 100)} %` : `${short(x)}, ${short(y)}`,
};
