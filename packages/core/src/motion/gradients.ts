/** Colours within gradients, and between them. */
import type { Gradient, GradientStop } from '../document/types';
import { mixColors } from './color';
import { lerp } from './kinds/types';

/** The colour of a gradient at a place, mixed as between keyframes. */
export const gradientAt = ({ stops }: Gradient, at: number): string => {
  const next = stops.findIndex((s) => s.at >= at);
  if (next === 0) return (stops[0] as GradientStop).color;
  if (next < 0) return (stops.at(-1) as GradientStop).color;
  const p = stops[next - 1] as GradientStop;
  const q = stops[next] as GradientStop;
  return q.at === p.at ? q.color : mixColors(p.color, q.color, (at - p.at) / (q.at - p.at));
};

/** Between two gradients, `t` from 0 to 1: stop by stop where they have as many, else at the places of both. */
export const mixGradients = (from: Gradient, to: Gradient, t: number): Gradient => {
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
