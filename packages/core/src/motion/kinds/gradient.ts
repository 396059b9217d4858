import { isColor, isNumber, isObject } from '../../document/is';
import { clamped } from '../../document/fitting';
import { MOST_STOPS } from '../../document/params';
import type { GradientStop } from '../../document/types';
import { mixGradients } from '../gradients';
import type { Kind } from './types';

const isStop = (s: unknown): s is GradientStop =>
  isObject(s) &&
  isNumber(s.at) &&
  s.at >= 0 &&
  s.at <= 1 &&
  isColor(s.color) &&
  (s.swatch === undefined || typeof s.swatch === 'string');

const areSane = (stops: readonly unknown[]): boolean =>
  stops.length >= 2 &&
  stops.length <= MOST_STOPS &&
  stops.every((s, i) => isStop(s) && (i === 0 || s.at >= (stops[i - 1] as GradientStop).at));

export const gradient: Kind<'gradient'> = {
  kind: 'gradient',
  wanted: () => `2 to ${MOST_STOPS} colour stops in rising order from 0 to 1`,
  is: (_param, v) => isObject(v) && Object.keys(v).length === 1 && Array.isArray(v.stops) && areSane(v.stops),
  fitted: (param, gradient) => {
    if (areSane(gradient.stops)) return gradient;
    const stops = gradient.stops
      .filter((s) => isColor(s.color))
      .slice(0, MOST_STOPS)
      .map((stop) => ({ ...stop, at: clamped(stop.at, 0, 1, 0) }))
      .sort((a, b) => a.at - b.at);
    return stops.length >= 2 ? { stops } : param.default;
  },
  mix: (p, q, t) => mixGradients(p, q, Math.min(1, Math.max(0, t))),
  color: ({ stops }) => stops[0]?.color ?? '#000000',
  says: (_param, { stops }) => `${stops.length} stops`,
};
