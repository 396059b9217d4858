/** Outlines through any smooth map of the plane. */
import type { Point } from '../document/types';
import type { Outline } from './outline';

/** How far a curve may lie from the exact one, in pixels. */
const TOLERANCE = 0.05;
const MOST_HALVINGS = 6;
/** Where it is tried besides its middle. */
const ASIDE = [0.25, 0.75] as const;
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

/** A cubic with the ends, which are known, and the tangents of a mapped one, which is divided until that is as good. */
const warpCurve = (
  curve: Curve,
  from: Point,
  end: Point,
  to: (p: Point) => Point,
  depth: number,
  out: number[],
): void => {
  const handle = ([x, y]: Point, t: number): Point => {
    const [u, v] = to(at(curve, t));
    return [x + (u - x) / NEAR / 3, y + (v - y) / NEAR / 3];
  };
  const made: Curve = [from, handle(from, NEAR), handle(end, 1 - NEAR), end];
  const isNear = (t: number, [u, v]: Point): boolean => {
    const [x, y] = at(made, t);
    return Math.hypot(x - u, y - v) <= TOLERANCE;
  };
  const middle = to(at(curve, 0.5));
  if (depth >= MOST_HALVINGS || (isNear(0.5, middle) && ASIDE.every((t) => isNear(t, to(at(curve, t)))))) {
    out.push(...made[1], ...made[2], ...made[3]);
    return;
  }
  const [first, second] = halves(curve);
  warpCurve(first, from, middle, to, depth + 1, out);
  warpCurve(second, middle, end, to, depth + 1, out);
};

/** An outline through a map, within a twentieth of a pixel. */
export const warpedOutline = ({ closed, points: p }: Outline, to: (at: Point) => Point): Outline => {
  const point = (i: number): Point => [p[i] as number, p[i + 1] as number];
  let from = to(point(0));
  const out: number[] = [...from];
  for (let k = 0; k + 6 < p.length; k += 6) {
    const end = to(point(k + 6));
    warpCurve([point(k), point(k + 2), point(k + 4), point(k + 6)], from, end, to, 0, out);
    from = end;
  }
  return { closed, points: Float64Array.from(out) };
};
