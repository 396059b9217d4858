/** What shapes stand for, moved along with them. */
import { apply, type Matrix } from '../geometry/matrix';
import type { Datum } from './types';

export const dataThrough = (m: Matrix, data: readonly Datum[]): readonly Datum[] =>
  data.map((datum) => {
    const [x, y] = datum.away;
    const [ax, ay] = [m[0] * x + m[2] * y, m[1] * x + m[3] * y];
    const length = Math.hypot(ax, ay) || 1;
    return { ...datum, foot: apply(m, datum.foot), end: apply(m, datum.end), away: [ax / length, ay / length] };
  });
