/**
 * Arc length of outlines and the parts between two lengths.
 *
 * Length: each cubic in 16 intervals of 4-point Gauss-Legendre quadrature. Place at a length: binary
 * search in the table, then two Newton steps. Part of a cubic: its blossom at the two places.
 */
import { remembered } from '../document/remembered';
import { blossom, cubicAt } from './flatten';
import { cubicCount, type Outline } from './outline';

const INTERVALS = 16;
/** Abramowitz and Stegun, table 25.4, n = 4. */
const NODES = [-0.8611363115940526, -0.3399810435848563, 0.3399810435848563, 0.8611363115940526];
const WEIGHTS = [0.34785484513745385, 0.6521451548625461, 0.6521451548625461, 0.34785484513745385];

/** How fast one coordinate of a cubic that starts at p[k] changes at t. */
const rate = (p: Float64Array, k: number, t: number): number => {
  const u = 1 - t;
  return 3 * (u * u * (p[k + 2]! - p[k]!) + 2 * u * t * (p[k + 4]! - p[k + 2]!) + t * t * (p[k + 6]! - p[k + 4]!));
};

/** Speed |dB/dt| of cubic `i` at t. No outline is so large that a square could overflow. */
const speed = (p: Float64Array, i: number, t: number): number => {
  const dx = rate(p, 6 * i, t);
  const dy = rate(p, 6 * i + 1, t);
  return Math.sqrt(dx * dx + dy * dy);
};

const between = (p: Float64Array, i: number, from: number, to: number): number => {
  const half = (to - from) / 2;
  const middle = (from + to) / 2;
  let sum = 0;
  for (let n = 0; n < 4; n++) sum += WEIGHTS[n]! * speed(p, i, middle + half * NODES[n]!);
  return sum * half;
};

/** The length of cubic `i` where it is a line that is gone along at one speed, as the sides of polygons are; else null. */
const evenLength = (p: Float64Array, i: number): number | null => {
  const k = i * 6;
  const [dx, dy] = [p[k + 6]! - p[k]!, p[k + 7]! - p[k + 1]!];
  const near = 1e-9 * (Math.abs(dx) + Math.abs(dy));
  const off = (n: number, d: number) => Math.abs(p[n + 2]! - p[n]! - d / 3);
  const even = off(k, dx) <= near && off(k + 1, dy) <= near && off(k + 2, dx) <= near && off(k + 3, dy) <= near;
  return even ? Math.hypot(dx, dy) : null;
};

export interface LengthTable {
  readonly total: number;
  /** The length up to each sixteenth of each cubic, from 0 to `total`. */
  readonly upTo: Float64Array;
}

export const lengthTable = remembered((outline: Outline): LengthTable => {
  const count = cubicCount(outline);
  const upTo = new Float64Array(count * INTERVALS + 1);
  const { points } = outline;
  for (let i = 0, n = 0; i < count; i++) {
    const [start, even] = [upTo[n]!, evenLength(points, i)];
    for (let j = 1; j <= INTERVALS; j++, n++) {
      upTo[n + 1] =
        even === null
          ? upTo[n]! + between(points, i, (j - 1) / INTERVALS, j / INTERVALS)
          : start + (even * j) / INTERVALS;
    }
  }
  return { total: upTo[upTo.length - 1]!, upTo };
});

/** In pixels. */
export const arcLength = (outline: Outline): number => lengthTable(outline).total;

/** Where a length from the start falls: cubic and place in it. */
const placeAt = (outline: Outline, length: number): { cubic: number; t: number } => {
  const { upTo, total } = lengthTable(outline);
  const count = cubicCount(outline);
  if (length <= 0) return { cubic: 0, t: 0 };
  if (length >= total) return { cubic: count - 1, t: 1 };
  let low = 0;
  let high = upTo.length - 1;
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (upTo[mid]! <= length) low = mid;
    else high = mid;
  }
  const cubic = Math.floor(low / INTERVALS);
  const from = (low % INTERVALS) / INTERVALS;
  const share = (length - upTo[low]!) / (upTo[low + 1]! - upTo[low]!);
  let t = from + share / INTERVALS;
  for (let n = 0; n < 2; n++) {
    const v = speed(outline.points, cubic, t);
    if (v < 1e-9) break;
    const over = upTo[low]! + between(outline.points, cubic, from, t) - length;
    if (Math.abs(over) < 1e-9 * total) break;
    t -= over / v;
    t = Math.min(Math.max(t, from), from + 1 / INTERVALS);
  }
  return { cubic, t };
};

/** Appends cubic `i` from place a to place b, without its first point. */
const pushPart = (out: number[], p: Float64Array, i: number, a: number, b: number): void => {
  const k = i * 6;
  for (const [r, s, t] of [
    [a, a, b],
    [a, b, b],
    [b, b, b],
  ] as const) {
    out.push(
      blossom(p[k]!, p[k + 2]!, p[k + 4]!, p[k + 6]!, r, s, t),
      blossom(p[k + 1]!, p[k + 3]!, p[k + 5]!, p[k + 7]!, r, s, t),
    );
  }
};

/** Points of the part between two lengths, 0 <= from < to <= total. */
const partPoints = (outline: Outline, from: number, to: number): number[] => {
  const p = outline.points;
  const a = placeAt(outline, from);
  const b = placeAt(outline, to);
  const k = a.cubic * 6;
  const out = [
    blossom(p[k]!, p[k + 2]!, p[k + 4]!, p[k + 6]!, a.t, a.t, a.t),
    blossom(p[k + 1]!, p[k + 3]!, p[k + 5]!, p[k + 7]!, a.t, a.t, a.t),
  ];
  for (let i = a.cubic; i <= b.cubic; i++) {
    const start = i === a.cubic ? a.t : 0;
    const end = i === b.cubic ? b.t : 1;
    if (end > start) pushPart(out, p, i, start, end);
  }
  return out;
};

/**
 * The part of an outline between two lengths in pixels, as an open outline; null where nothing is
 * left. On a closed outline `to` may exceed the total: the part then runs on across the seam.
 */
export const part = (outline: Outline, from: number, to: number): Outline | null => {
  const { total } = lengthTable(outline);
  if (to - from <= 1e-9 || total <= 1e-9) return null;
  if (from <= 1e-9 && to >= total - 1e-9 && to - from <= total + 1e-9) return outline;
  const first = partPoints(outline, from, Math.min(to, total));
  const points = to > total + 1e-9 ? first.concat(partPoints(outline, 0, to - total).slice(2)) : first;
  return points.length > 2 ? { closed: false, points: Float64Array.from(points) } : null;
};

/** The lengths of an outline's cubics, in pixels. */
export const cubicLengths = (outline: Outline): number[] => {
  const { upTo } = lengthTable(outline);
  return Array.from({ length: cubicCount(outline) }, (_, i) => upTo[(i + 1) * INTERVALS]! - upTo[i * INTERVALS]!);
};

export interface Along {
  readonly x: number;
  readonly y: number;
  /** The direction of travel, of length 1. */
  readonly dx: number;
  readonly dy: number;
}

/** The point at a length from the start, in pixels, and the way the outline runs there. */
export const along = (outline: Outline, length: number): Along => {
  const { cubic, t } = placeAt(outline, length);
  const p = outline.points;
  const k = cubic * 6;
  const [x, y] = cubicAt(p, k, t);
  // Where a handle has no length the direction is found a little aside.
  const near = speed(p, cubic, t) < 1e-6 ? t + (t < 0.5 ? 1e-3 : -1e-3) : t;
  const dx = rate(p, k, near);
  const dy = rate(p, k + 1, near);
  const size = Math.sqrt(dx * dx + dy * dy) || 1;
  return { x, y, dx: dx / size, dy: dy / size };
};

/** Dashes along one outline, at the most. */
const MOST_DASHES = 2_000;

/** The stretches of an outline that dashes leave, as lengths from its start. */
export const stretches = (total: number, dashes: readonly number[], offset: number): (readonly [number, number])[] => {
  const pattern = dashes.length % 2 === 0 ? dashes : [...dashes, ...dashes];
  const round = pattern.reduce((sum, d) => sum + d, 0);
  if (round <= 0) return [[0, total]];
  const out: [number, number][] = [];
  let at = -(((offset % round) + round) % round);
  for (let i = 0; at < total && out.length < MOST_DASHES; i++) {
    const length = pattern[i % pattern.length] as number;
    if (i % 2 === 0 && at + length > 0) out.push([Math.max(0, at), Math.min(total, at + length)]);
    at += length;
  }
  return out;
};
