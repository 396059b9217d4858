/** Outlines: runs of cubic Béziers in typed arrays. */
import { remembered } from '../document/remembered';
import type { PathValue, Point, Vertex } from '../document/types';
import type { Matrix } from './matrix';

export interface Outline {
  readonly closed: boolean;
  /** x0 y0, then six numbers for each cubic: two control points and the end. Straight cubics have theirs on the thirds. */
  readonly points: Float64Array;
}

export const cubicCount = (outline: Outline): number => (outline.points.length - 2) / 6;

/** Writes an outline; closing it adds the straight way back where there is one. */
export class OutlineWriter {
  private readonly out: number[] = [];

  constructor(x: number, y: number) {
    this.out.push(x, y);
  }

  private get x(): number {
    return this.out[this.out.length - 2] as number;
  }
  private get y(): number {
    return this.out[this.out.length - 1] as number;
  }

  line(x: number, y: number): this {
    const dx = (x - this.x) / 3;
    const dy = (y - this.y) / 3;
    this.out.push(this.x + dx, this.y + dy, x - dx, y - dy, x, y);
    return this;
  }

  cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): this {
    this.out.push(x1, y1, x2, y2, x, y);
    return this;
  }

  /** A quarter of an ellipse to (x, y), its corner at (cx, cy). */
  quarter(cx: number, cy: number, x: number, y: number): this {
    const { x: x0, y: y0 } = this;
    return this.cubic(x0 + (cx - x0) * KAPPA, y0 + (cy - y0) * KAPPA, x + (cx - x) * KAPPA, y + (cy - y) * KAPPA, x, y);
  }

  /** Goes on along an outline that begins where this one has come to. */
  along({ points }: Outline): this {
    for (let k = 2; k < points.length; k++) this.out.push(points[k] as number);
    return this;
  }

  open(): Outline {
    return { closed: false, points: Float64Array.from(this.out) };
  }

  close(): Outline {
    const [x, y] = [this.out[0] as number, this.out[1] as number];
    if (Math.hypot(x - this.x, y - this.y) > 1e-9) this.line(x, y);
    return { closed: true, points: Float64Array.from(this.out) };
  }
}

/** Handle length of a quarter circle of radius 1, off by at most 2.7e-4 of it: 4/3 (sqrt 2 - 1). */
export const KAPPA = (4 / 3) * (Math.SQRT2 - 1);

/**
 * Which way a closed outline turns that has no dents, as far as its control points show: 1 clockwise on the screen, -1 the other
 * way; 0 for one that is open, has dents, or goes round more than once. Within it the winding number is this.
 */
export const turnOf = remembered(({ closed, points: p }: Outline): -1 | 0 | 1 => {
  if (!closed) return 0;
  const ways: Point[] = [];
  for (let k = 0; k + 3 < p.length; k += 2) {
    const [dx, dy] = [p[k + 2]! - p[k]!, p[k + 3]! - p[k + 1]!];
    if (Math.hypot(dx, dy) > 1e-9) ways.push([dx, dy]);
  }
  let [left, right, round] = [false, false, 0];
  ways.forEach(([ax, ay], i) => {
    const [bx, by] = ways[(i + 1) % ways.length] as Point;
    const angle = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    round += angle;
    if (angle > 1e-6) right = true;
    if (angle < -1e-6) left = true;
  });
  if (left === right || Math.abs(Math.abs(round) - 2 * Math.PI) > 1e-3) return 0;
  return right ? 1 : -1;
});

/** A polygon through points. */
export const polygon = (corners: readonly Point[]): Outline => {
  const [first, ...rest] = corners as [Point, ...Point[]];
  const writer = new OutlineWriter(first[0], first[1]);
  for (const [x, y] of rest) writer.line(x, y);
  return writer.close();
};

/** A smooth curve through points (uniform Catmull-Rom). */
export const smoothThrough = (points: readonly Point[], closed: boolean): Outline => {
  const count = points.length;
  const at = (i: number): Point => points[closed ? (i + count) % count : Math.min(count - 1, Math.max(0, i))] as Point;
  const [x, y] = at(0);
  const writer = new OutlineWriter(x, y);
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    writer.cubic(
      b[0] + (c[0] - a[0]) / 6,
      b[1] + (c[1] - a[1]) / 6,
      c[0] - (d[0] - b[0]) / 6,
      c[1] - (d[1] - b[1]) / 6,
      c[0],
      c[1],
    );
  }
  return closed ? writer.close() : writer.open();
};

/**
 * A smooth curve through points of rising x that swings nowhere beyond them (Steffen, A simple method for monotonic interpolation in
 * one dimension, 1990; at its ends the slope that lets the curve bend evenly).
 */
export const monotoneThrough = (points: readonly Point[]): Outline => {
  const ways = points.slice(1).map(([x, y], i) => {
    const [fromX, fromY] = points[i] as Point;
    return { width: x - fromX, slope: x > fromX ? (y - fromY) / (x - fromX) : 0 };
  });
  const inside = ways.slice(1).map((next, i) => {
    const last = ways[i] as (typeof ways)[number];
    const both = last.width + next.width;
    const mean = both > 0 ? (last.slope * next.width + next.slope * last.width) / both : 0;
    const most = Math.min(Math.abs(last.slope), Math.abs(next.slope), Math.abs(mean) / 2);
    return (Math.sign(last.slope) + Math.sign(next.slope)) * most;
  });
  const atEnd = (slope: number, beside: number | undefined) =>
    beside === undefined ? slope : (3 * slope - beside) / 2;
  const [first, last] = [ways[0]?.slope ?? 0, ways.at(-1)?.slope ?? 0];
  const slopes = [atEnd(first, inside[0]), ...inside, atEnd(last, inside.at(-1))];
  const writer = new OutlineWriter(...(points[0] as Point));
  ways.forEach(({ width }, i) => {
    const [[ax, ay], [bx, by]] = [points[i] as Point, points[i + 1] as Point];
    const third = width / 3;
    writer.cubic(ax + third, ay + (slopes[i] ?? 0) * third, bx - third, by - (slopes[i + 1] ?? 0) * third, bx, by);
  });
  return writer.open();
};

/** Straight lines through points. */
export const straightThrough = (points: readonly Point[], closed: boolean): Outline => {
  if (closed) return polygon(points);
  const [first, ...rest] = points as [Point, ...Point[]];
  const writer = new OutlineWriter(first[0], first[1]);
  for (const [x, y] of rest) writer.line(x, y);
  return writer.open();
};

export const reversed = ({ closed, points }: Outline): Outline => {
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    out[i] = points[points.length - 2 - i]!;
    out[i + 1] = points[points.length - 1 - i]!;
  }
  return { closed, points: out };
};

/** null for a path without a span. */
export const outlineOfPath = ({ closed, vertices }: PathValue): Outline | null => {
  if (vertices.length < 2) return null;
  const first = vertices[0] as Vertex;
  const writer = new OutlineWriter(first[0], first[1]);
  const spans = closed ? vertices.length : vertices.length - 1;
  for (let i = 0; i < spans; i++) {
    const p = vertices[i] as Vertex;
    const q = vertices[(i + 1) % vertices.length] as Vertex;
    if (p[4] === 0 && p[5] === 0 && q[2] === 0 && q[3] === 0) writer.line(q[0], q[1]);
    else writer.cubic(p[0] + p[4], p[1] + p[5], q[0] + q[2], q[1] + q[3], q[0], q[1]);
  }
  return closed ? writer.close() : writer.open();
};

/** Whether cubic `i` is a straight line run through evenly. */
export const isLine = (p: Float64Array, i: number): boolean => {
  const k = i * 6;
  const dx = (p[k + 6]! - p[k]!) / 3;
  const dy = (p[k + 7]! - p[k + 1]!) / 3;
  const near = 1e-7 * (1 + Math.abs(dx) + Math.abs(dy));
  return (
    Math.abs(p[k + 2]! - p[k]! - dx) < near &&
    Math.abs(p[k + 3]! - p[k + 1]! - dy) < near &&
    Math.abs(p[k + 6]! - p[k + 4]! - dx) < near &&
    Math.abs(p[k + 7]! - p[k + 5]! - dy) < near
  );
};

export const transformed = (m: Matrix, { closed, points }: Outline): Outline => {
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i]!;
    const y = points[i + 1]!;
    out[i] = m[0] * x + m[2] * y + m[4];
    out[i + 1] = m[1] * x + m[3] * y + m[5];
  }
  return { closed, points: out };
};
