import type { Point } from '../document/types';

/** Column-major like the canvas: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** `m` after `n`: the point goes through `n` first. */
export const multiply = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];

/** The same both ways, about the origin. */
export const scaling = (by: number): Matrix => [by, 0, 0, by, 0, 0];
export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

export const apply = (m: Matrix, [x, y]: Point): Point => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];

export const determinant = (m: Matrix): number => m[0] * m[3] - m[1] * m[2];

/** How far a matrix turns the x axis, in radians. */
export const turnOf = ([a, b]: Matrix): number => Math.atan2(b, a);

/** How much longer a matrix makes lengths, in the mean of both ways. */
export const meanScale = (m: Matrix): number => Math.sqrt(Math.abs(determinant(m)));

/** How much longer a matrix makes what it does so most to. */
export const longestOf = ([a, b, c, d]: Matrix): number => {
  const [sum, whole] = [a * a + b * b + c * c + d * d, a * d - b * c];
  return Math.sqrt((sum + Math.sqrt(Math.max(0, sum * sum - 4 * whole * whole))) / 2);
};

/**
 * What a matrix does but for moving: a turn, then a stretch along the axes, then another turn (its singular values). Turns in
 * radians; the second stretch is no longer than the first, and below 0 where the matrix mirrors.
 */
export const turnsAndStretch = ([a, b, c, d]: Matrix): {
  readonly first: number;
  readonly stretch: Point;
  readonly then: number;
} => {
  const [e, f, g, h] = [(a + d) / 2, (a - d) / 2, (b + c) / 2, (b - c) / 2];
  const [q, r] = [Math.hypot(e, h), Math.hypot(f, g)];
  const [along, across] = [Math.atan2(g, f), Math.atan2(h, e)];
  return { first: (across - along) / 2, stretch: [q + r, q - r], then: (across + along) / 2 };
};

/** null for a matrix that flattens the plane. */
export const inverted = (m: Matrix): Matrix | null => {
  const d = determinant(m);
  if (Math.abs(d) < 1e-12) return null;
  return [m[3] / d, -m[1] / d, -m[2] / d, m[0] / d, (m[2] * m[5] - m[3] * m[4]) / d, (m[1] * m[4] - m[0] * m[5]) / d];
};

const RIGHT_ANGLES: readonly (readonly [cos: number, sin: number])[] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
];

/** Cosine and sine of degrees, exact at right angles. */
export const turn = (degrees: number): readonly [cos: number, sin: number] => {
  const quarters = degrees / 90;
  if (Number.isInteger(quarters)) return RIGHT_ANGLES[((quarters % 4) + 4) % 4] as readonly [number, number];
  const r = (degrees * Math.PI) / 180;
  return [Math.cos(r), Math.sin(r)];
};

export interface Placement {
  readonly position: Point;
  readonly pivot: Point;
  readonly scale: Point;
  /** Degrees, clockwise. */
  readonly rotation: number;
}

/** Moves the pivot to the origin, scales, turns, then moves to the position. */
export const placed = ({ position, pivot, scale, rotation }: Placement): Matrix => {
  const [cos, sin] = turn(rotation);
  const [a, b, c, d] = [cos * scale[0], sin * scale[0], -sin * scale[1], cos * scale[1]];
  return [a, b, c, d, position[0] - a * pivot[0] - c * pivot[1], position[1] - b * pivot[0] - d * pivot[1]];
};
