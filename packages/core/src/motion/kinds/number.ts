import { isNumber } from '../../document/is';
import { clamped } from '../../document/fitting';
import { type Kind, lerp, short } from './types';

export const number: Kind<'number'> = {
  kind: 'number',
  wanted: ({ whole, min, max }) => `a ${whole ? 'whole ' : ''}number from ${min} to ${max}`,
  is: ({ whole, min, max }, v) => isNumber(v) && (!whole || Number.isInteger(v)) && v >= min && v <= max,
  fitted: ({ whole, min, max, default: otherwise }, v) => {
    const within = clamped(v, min, max, otherwise);
    return whole ? Math.round(within) : within;
  },
  accept:
    ({ min, max }) =>
    (v) =>
      v >= min && v <= max ? v : clamped(v, min, max, null),
  mix: lerp,
  moved: (v, from, to) => v + to - from,
  heights: (v) => [v],
  says: ({ unit }, v) => (unit === 'percent' ? `${short(v * 100)} %` : `${short(v)}${unit === 'deg' ? '°' : ''}`),
};
