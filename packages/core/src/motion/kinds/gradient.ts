import { isColor, isNumber, isObject } from '../../document/is';
import { clamped } from '../../document/fitting';
import { MOST_STOPS } from '../../document/params';
import type { Gradient, GradientStop } from '../../document/types';
import { mixColors } from '../color';
import { type Kind, lerp } from './types';

/** The colour of a gradient at a place, mixed as between keyframes. */
export const gradientAt = ({ stops }: Gradient, at: number): string => {
  const next = stops.findIndex((s) => s.at >= at);
  if (next === 0) return (stops[0] as GradientStop).color;
  if (next < 0) return (stops.at(-1) as GradientStop).color;
  const p = stops[next - 1] as GradientStop;
  const q = stops[next] as GradientStop;
  return q.at === p.at ? q.color : mixColors(p.color, q.color, (at - p.at) / (q.at - p.at));
};

const mix = (from: Gradient, to: Gradient, t: number): Gradient => {
  if (from.stops.length === to.stops.length) {
    return {
      stops: from.stops.map((p, i) => {
        const q = to.stops[i] as GradientStop;
        return { at: lerp(p.at, q.at, t), color: mixColors(p.color, q.color, t) };
      }),
    };
  }
  const places = [...new Set([...from.stops, ...to.stops].map((s) => s.at))].sort((a, b) => a - b);
  return { stops: places.map((at) => ({ at, color: mixColors(gradientAt(from, at), gradientAt(to, at), t) })) };
};

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
  mix: (p, q, t) => mix(p, q, Math.min(1, Math.max(0, t))),
  color: ({ stops }) => stops[0]?.color ?? '#000000',
  says: (_param, { stops }) => `${stops.length} stops`,
};
