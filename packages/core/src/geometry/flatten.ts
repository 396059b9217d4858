/** Outlines as runs of straight lines, and as warped by a map of the plane. */
import type { Point } from '../document/types';
import { cubicCount, isLine, type Outline } from './outline';

/** How far a flattened outline may lie from the curve, in pixels. */
const TOLERANCE = 0.02;

/** Lines needed for a cubic that starts at p[k]: Wang's bound on its second differences (Sederberg, CAGD notes, 10.6). */
export const linesFor = (p: Float64Array, k: number, tolerance = TOLERANCE): number => {
  const bend = (a: number, b: number, c: number) =>
    Math.hypot(p[a]! - 2 * p[b]! + p[c]!, p[a + 1]! - 2 * p[b + 1]! + p[c + 1]!);
  const most = Math.max(bend(k, k + 2, k + 4), bend(k + 2, k + 4, k + 6));
  return Math.min(256, Math.max(1, Math.ceil(Math.sqrt((0.75 * most) / tolerance))));
};

/** Where a cubic that starts at p[k] is at t. */
export const cubicAt = (p: Float64Array, k: number, t: number): Point => {
  const u = 1 - t;
  const a = u * u * u;
  const b = 3 * u * u * t;
  const c = 3 * u * t * t;
  const d = t * t * t;
  return [
    a * p[k]! + b * p[k + 2]! + c * p[k + 4]! + d * p[k + 6]!,
    a * p[k + 1]! + b * p[k + 3]! + c * p[k + 5]! + d * p[k + 7]!,
  ];
};

/** The corners of an outline run through with straight lines; the last one of a closed outline is not the first again. */
export const flattened = ({ points: p, closed }: Outline): Point[] => {
  const out: Point[] = [[p[0]!, p[1]!]];
  const count = (p.length - 2) / 6;
  for (let i = 0; i < count; i++) {
    const k = i * 6;
    const lines = isLine(p, i) ? 1 : linesFor(p, k);
    for (let n = 1; n <= lines; n++) out.push(cubicAt(p, k, n / lines));
  }
  const [first, last] = [out[0]!, out.at(-1)!];
  if (closed && out.length > 1 && Math.hypot(first[0] - last[0], first[1] - last[1]) < 1e-9) out.pop();
  return out;
};

/** The outline with each cubic cut into `pieces` equal shares of its parameter. */
export const divided = (outline: Outline, pieces: number): Outline => {
  const p = outline.points;
  const out: number[] = [p[0]!, p[1]!];
  for (let i = 0; i < cubicCount(outline); i++) {
    const k = i * 6;
    for (let n = 0; n < pieces; n++) {
      const [from, to] = [n / pieces, (n + 1) / pieces];
      for (const [r, s, t] of [
        [from, from, to],
        [from, to, to],
        [to, to, to],
      ] as const) {
        for (const axis of [0, 1]) {
          out.push(blossom(p[k + axis]!, p[k + 2 + axis]!, p[k + 4 + axis]!, p[k + 6 + axis]!, r, s, t));
        }
      }
    }
  }
  return { closed: outline.closed, points: Float64Array.from(out) };
};

/** The blossom of a cubic's coordinate: symmetric, affine in each of r, s, t (Ramshaw). */
export const blossom = (p0: number, p1: number, p2: number, p3: number, r: number, s: number, t: number): number => {
  const a = p0 + (p1 - p0) * r;
  const b = p1 + (p2 - p1) * r;
  const c = p2 + (p3 - p2) * r;
  const d = a + (b - a) * s;
  return d + (b + (c - b) * s - d) * t;
};

const SMALL = 1e-4;

/** An outline through a smooth map of the plane: ends are mapped, handles by the map's derivative there. */
export const warped = (outline: Outline, pieces: number, map: (p: Point) => Point): Outline => {
  const fine = divided(outline, pieces);
  const p = fine.points;
  const out = new Float64Array(p.length);
  const put = (at: number, [x, y]: Point) => {
    out[at] = x;
    out[at + 1] = y;
  };
  const handle = (end: number, control: number) => {
    const from: Point = [p[end]!, p[end + 1]!];
    const way: Point = [p[control]! - from[0], p[control + 1]! - from[1]];
    const here = map(from);
    const there = map([from[0] + way[0] * SMALL, from[1] + way[1] * SMALL]);
    put(control, [here[0] + (there[0] - here[0]) / SMALL, here[1] + (there[1] - here[1]) / SMALL]);
  };
  put(0, map([p[0]!, p[1]!]));
  for (let k = 0; k + 6 < p.length; k += 6) {
    handle(k, k + 2);
    handle(k + 6, k + 4);
    put(k + 6, map([p[k + 6]!, p[k + 7]!]));
  }
  return { closed: fine.closed, points: out };
};
