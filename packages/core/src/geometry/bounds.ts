import { remembered } from '../document/remembered';
import type { Point } from '../document/types';
import { apply, type Matrix } from './matrix';
import { type Outline, polygon } from './outline';

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export const union = (a: Box | null, b: Box | null): Box | null =>
  a && b
    ? {
        left: Math.min(a.left, b.left),
        top: Math.min(a.top, b.top),
        right: Math.max(a.right, b.right),
        bottom: Math.max(a.bottom, b.bottom),
      }
    : (a ?? b);

export const grown = (box: Box, by: number): Box => ({
  left: box.left - by,
  top: box.top - by,
  right: box.right + by,
  bottom: box.bottom + by,
});

/** null where boxes do not meet. */
export const intersection = (a: Box, b: Box): Box | null => {
  const box = {
    left: Math.max(a.left, b.left),
    top: Math.max(a.top, b.top),
    right: Math.min(a.right, b.right),
    bottom: Math.min(a.bottom, b.bottom),
  };
  return box.left < box.right && box.top < box.bottom ? box : null;
};

/** The box of points; null for none. */
export const boxOfPoints = (points: readonly Point[]): Box | null =>
  points.reduce<Box | null>((sum, [x, y]) => union(sum, { left: x, top: y, right: x, bottom: y }), null);

export const overlaps = (a: Box, b: Box): boolean =>
  a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;

/** The box round a box that went through a matrix. */
export const boxThrough = (m: Matrix, box: Box): Box => {
  const corners = (
    [
      [box.left, box.top],
      [box.right, box.top],
      [box.right, box.bottom],
      [box.left, box.bottom],
    ] as const
  ).map((p) => apply(m, p));
  const xs = corners.map((p) => p[0]);
  const ys = corners.map((p) => p[1]);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
};

/** The places 0 < t < 1 at which one coordinate of a cubic turns round. */
const extrema = (p0: number, p1: number, p2: number, p3: number): number[] => {
  const a = -p0 + 3 * p1 - 3 * p2 + p3;
  const b = 2 * (p0 - 2 * p1 + p2);
  const c = p1 - p0;
  if (Math.abs(a) < 1e-9) return Math.abs(b) < 1e-9 ? [] : [-c / b].filter((t) => t > 0 && t < 1);
  const root = Math.sqrt(b * b - 4 * a * c);
  return [(-b - root) / (2 * a), (-b + root) / (2 * a)].filter((t) => t > 0 && t < 1);
};

const at = (p0: number, p1: number, p2: number, p3: number, t: number) => {
  const u = 1 - t;
  return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3;
};

/** The tight box of an outline. */
export const outlineBox = remembered(({ points: p }: Outline): Box => {
  const low = [p[0]!, p[1]!];
  const high = [p[0]!, p[1]!];
  for (let k = 0; k + 6 < p.length; k += 6) {
    for (const axis of [0, 1] as const) {
      const [p0, p1, p2, p3] = [p[k + axis]!, p[k + 2 + axis]!, p[k + 4 + axis]!, p[k + 6 + axis]!];
      const inside = Math.min(p1, p2) >= Math.min(p0, p3) && Math.max(p1, p2) <= Math.max(p0, p3);
      const values = inside ? [p3] : [p3, ...extrema(p0, p1, p2, p3).map((t) => at(p0, p1, p2, p3, t))];
      for (const v of values) {
        if (v < low[axis]!) low[axis] = v;
        if (v > high[axis]!) high[axis] = v;
      }
    }
  }
  return { left: low[0]!, top: low[1]!, right: high[0]!, bottom: high[1]! };
});

/** A box as an outline, clockwise from its top left. */
export const boxOutline = ({ left, top, right, bottom }: Box): Outline =>
  polygon([
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ]);
