/** Outlines through any smooth map of the plane. */
import type { Point } from '../document/types';
import type { Outline } from './outline';

/** How far a curve may lie from the exact one, in pixels. */
const TOLERANCE = 0.05;
const MOST_HALVINGS = 6;
const PROBES = [0.25, 0.5, 0.75] as const;
/** A share of a curve over which its direction at an end is measured. */
const NEAR = 1e-4;

type Curve = readonly [Point, Point, Point, Point];

const at = ([a, b, c, d]: Curve, t: number): Point => {
  const u = 1 - t;
  const along = (i: 0 | 1): number => u * u * (u * a[i] + 3 * t * b[i]) + t * t * (3 * u * c[i] + t * d[i]);
  return [along(0), along(1)];
};

const halves = (curve: Curve): readonly [Curve, Curve] => {
  const mid = ([x, y]: Point, [p, q]: Point): Point => [(x + p) / 2, (y + q) / 2];
  const [a, b, c, d] = curve;
  const [ab, bc, cd] = [mid(a, b), mid(b, c), mid(c, d)];
  const [abc, bcd] = [mid(ab, bc), mid(bc, cd)];
  const middle = mid(abc, bcd);
  return [
    [a, ab, abc, middle],
    [middle, bcd, cd, d],
  ];
};

/** A cubic with the ends and the tangents of a mapped one, which is divided until that is as good. */
const warpCurve = (curve: Curve, to: (p: Point) => Point, depth: number, out: number[]): void => {
  const [from, end] = [to(curve[0]), to(curve[3])];
  const tangent = (t: number, near: number): Point => {
    const [p, q] = [to(at(curve, t)), to(at(curve, near))];
    const by = near - t;
    return [(q[0] - p[0]) / by / 3, (q[1] - p[1]) / by / 3];
  };
  const [out0, in1] = [tangent(0, NEAR), tangent(1, 1 - NEAR)];
  const made: Curve = [from, [from[0] + out0[0], from[1] + out0[1]], [end[0] - in1[0], end[1] - in1[1]], end];
  const isNear = PROBES.every((t) => {
    const [[x, y], [u, v]] = [at(made, t), to(at(curve, t))];
    return Math.hypot(x - u, y - v) <= TOLERANCE;
  });
  if (isNear || depth >= MOST_HALVINGS) {
    out.push(...made[1], ...made[2], ...made[3]);
    return;
  }
  for (const half of halves(curve)) warpCurve(half, to, depth + 1, out);
};

/** An outline through a map, within a twentieth of a pixel. */
export const warpedOutline = ({ closed, points: p }: Outline, to: (at: Point) => Point): Outline => {
  const point = (i: number): Point => [p[i] as number, p[i + 1] as number];
  const out: number[] = [...to(point(0))];
  for (let k = 0; k + 6 < p.length; k += 6) {
    warpCurve([point(k), point(k + 2), point(k + 4), point(k + 6)], to, 0, out);
  }
  return { closed, points: Float64Array.from(out) };
};
