import { remembered } from '../document/remembered';
import type { Point } from '../document/types';
import { apply, IDENTITY, type Matrix } from './matrix';
import { cubicCount, type Outline, polygon } from './outline';
import type { Size } from './size';

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

/** The box of a size about its middle. */
export const boxAbout = ([x, y]: Point, { width, height }: Size): Box => ({
  left: x - width / 2,
  right: x + width / 2,
  top: y - height / 2,
  bottom: y + height / 2,
});

export const overlaps = (a: Box, b: Box): boolean =>
  a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;

/** Clockwise from the top left. */
export const cornersOf = ({ left, top, right, bottom }: Box): readonly Point[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];

/** The box round a box that went through a matrix. */
export const boxThrough = (m: Matrix, box: Box): Box => {
  const corners = cornersOf(box).map((p) => apply(m, p));
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

/** The tight box of what it is told of, seen through a matrix. */
export class Extent {
  private readonly low = [Infinity, Infinity];
  private readonly high = [-Infinity, -Infinity];
  /** How far a disc of radius 1 reaches along either axis. */
  private readonly round: Point;

  constructor(private readonly m: Matrix) {
    this.round = [Math.hypot(m[0], m[2]), Math.hypot(m[1], m[3])];
  }

  private take(axis: 0 | 1, value: number, radius: number): void {
    const by = radius * this.round[axis];
    if (value - by < this.low[axis]!) this.low[axis] = value - by;
    if (value + by > this.high[axis]!) this.high[axis] = value + by;
  }

  /** A point, or a disc about it. */
  point(x: number, y: number, radius = 0): void {
    for (const axis of [0, 1] as const) this.take(axis, mapped(this.m, axis, x, y), radius);
  }

  /** The cubic of an outline's points that begins at index `k`, with all that is so near to it. */
  cubic(p: Float64Array, k: number, radius = 0): void {
    for (const axis of [0, 1] as const) {
      const [p0, p1] = [mapped(this.m, axis, p[k]!, p[k + 1]!), mapped(this.m, axis, p[k + 2]!, p[k + 3]!)];
      const [p2, p3] = [mapped(this.m, axis, p[k + 4]!, p[k + 5]!), mapped(this.m, axis, p[k + 6]!, p[k + 7]!)];
      this.take(axis, p0, radius);
      this.take(axis, p3, radius);
      if (Math.min(p1, p2) >= Math.min(p0, p3) && Math.max(p1, p2) <= Math.max(p0, p3)) continue;
      for (const t of extrema(p0, p1, p2, p3)) this.take(axis, at(p0, p1, p2, p3, t), radius);
    }
  }

  get box(): Box {
    return { left: this.low[0]!, top: this.low[1]!, right: this.high[0]!, bottom: this.high[1]! };
  }
}
const mapped = (m: Matrix, axis: 0 | 1, x: number, y: number): number => m[axis] * x + m[axis + 2]! * y + m[axis + 4]!;

const outlineExtent = (outline: Outline, m: Matrix): Box => {
  const extent = new Extent(m);
  extent.point(outline.points[0]!, outline.points[1]!);
  for (let i = 0; i < cubicCount(outline); i++) extent.cubic(outline.points, i * 6);
  return extent.box;
};

/** The tight box of an outline. */
export const outlineBox = remembered((outline: Outline): Box => outlineExtent(outline, IDENTITY));

/** Whether what is upright is upright or level through a matrix: the box of what goes through is its box, gone through. */
const keepsAxes = (m: Matrix): boolean => (m[1] === 0 && m[2] === 0) || (m[0] === 0 && m[3] === 0);

/**
 * The tight box of parts that go through a matrix; null for none. Where that keeps axes their own boxes are joined and go through it
 * as one, else each part is boxed through it.
 */
export const boxOfParts = <T>(
  m: Matrix,
  parts: readonly T[],
  own: (part: T) => Box,
  through: (part: T, m: Matrix) => Box,
): Box | null => {
  const kept = keepsAxes(m);
  const box = parts.reduce<Box | null>((sum, part) => union(sum, kept ? own(part) : through(part, m)), null);
  return box && kept ? boxThrough(m, box) : box;
};

/** The tight box of outlines that went through a matrix; null for none. */
export const boxOfOutlines = (m: Matrix, outlines: readonly Outline[]): Box | null =>
  boxOfParts(m, outlines, outlineBox, outlineExtent);

/** A box as an outline, clockwise from its top left. */
export const boxOutline = ({ left, top, right, bottom }: Box): Outline =>
  polygon([
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ]);
