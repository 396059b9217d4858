/** How values of each kind lie between two keyframes, and how a whole curve is moved. */
import type { Gradient, GradientStop, Point, Value, ValueKind, ValueTypes } from '../document/types';
import { mixColors } from './color';
import { mixPaths } from './morph';

type Mix<V> = (from: V, to: V, t: number) => V;

const lerp = (a: number, b: number, t: number) => a + (b - a) * t;

/** The colour of a gradient at a place, mixed as between keyframes. */
export const gradientAt = ({ stops }: Gradient, at: number): string => {
  const next = stops.findIndex((s) => s.at >= at);
  if (next === 0) return (stops[0] as GradientStop).color;
  if (next < 0) return (stops.at(-1) as GradientStop).color;
  const p = stops[next - 1] as GradientStop;
  const q = stops[next] as GradientStop;
  return q.at === p.at ? q.color : mixColors(p.color, q.color, (at - p.at) / (q.at - p.at));
};

const mixGradients: Mix<Gradient> = (from, to, t) => {
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

const step = <V>(from: V, to: V, t: number): V => (t < 1 ? from : to);

export const MIX: { readonly [K in ValueKind]: Mix<ValueTypes[K]> } = {
  number: lerp,
  point: (p, q, t) => [lerp(p[0], q[0], t), lerp(p[1], q[1], t)],
  color: (p, q, t) => mixColors(p, q, Math.min(1, Math.max(0, t))),
  gradient: (p, q, t) => mixGradients(p, q, Math.min(1, Math.max(0, t))),
  path: mixPaths,
  numbers: (p, q, t) => (p.length === q.length ? p.map((x, i) => lerp(x, q[i] as number, t)) : step(p, q, t)),
  switch: step,
  choice: step,
  text: step,
  font: step,
  asset: step,
  scene: step,
  cutout: step,
};

/** `value` moved by the way from `from` to `to`; kinds that cannot be added up take `to` as it is. */
export const movedBy = (kind: ValueKind, value: Value, from: Value, to: Value): Value => {
  if (kind === 'number') return (value as number) + (to as number) - (from as number);
  if (kind === 'point') {
    const [v, a, b] = [value as Point, from as Point, to as Point];
    return [v[0] + b[0] - a[0], v[1] + b[1] - a[1]];
  }
  return to;
};
