/** Maps of the plane that keep straight lines straight: what a flat picture in depth shows, or one that is pinned by its corners. */
import type { Point } from '../document/types';
import { type Box, cornersOf } from './bounds';
import { cutByLine } from './convex';
import { isLine, type Outline } from './outline';
import type { Eye, Space } from './space';
import { chained } from './space';
import type { Matrix } from './matrix';

/** Rows of three: x, y and weight, of x, y and 1. A point goes to x and y divided by the weight. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/** What lies nearer to the eye than this share of its distance, or behind it, is not shown. */
export const NEAREST = 0.02;

export const flatHomography = ([a, b, c, d, e, f]: Matrix): Homography => [a, c, e, b, d, f, 0, 0, 1];

/** `m` after `n`. */
export const composed = (m: Homography, n: Homography): Homography =>
  Array.from({ length: 9 }, (_, i) => {
    const [row, column] = [i - (i % 3), i % 3];
    return m[row]! * n[column]! + m[row + 1]! * n[3 + column]! + m[row + 2]! * n[6 + column]!;
  }) as unknown as Homography;

export const weightAt = (h: Homography, [x, y]: Point): number => h[6] * x + h[7] * y + h[8];

export const applyHomography = (h: Homography, [x, y]: Point): Point => {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
};

export const homographyDeterminant = ([a, b, c, d, e, f, g, h, i]: Homography): number =>
  a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);

/** null for one that flattens the plane. */
export const invertedHomography = (m: Homography): Homography | null => {
  const [a, b, c, d, e, f, g, h, i] = m;
  const whole = homographyDeterminant(m);
  if (!(Math.abs(whole) > 1e-18)) return null;
  return [
    (e * i - f * h) / whole,
    (c * h - b * i) / whole,
    (b * f - c * e) / whole,
    (f * g - d * i) / whole,
    (a * i - c * g) / whole,
    (c * d - a * f) / whole,
    (d * h - e * g) / whole,
    (b * g - a * h) / whole,
    (a * e - b * d) / whole,
  ];
};

/** The same as a matrix, where its weight is the same everywhere; else null. */
export const asMatrix = (h: Homography): Matrix | null => {
  const [a, c, e, b, d, f, g, k, w] = h;
  if (Math.abs(g) + Math.abs(k) > 1e-12 * Math.abs(w) || !(w > 0)) return null;
  return [a / w, b / w, c / w, d / w, e / w, f / w];
};

/** The matrix that comes nearest to it about a point: what is small there is shown as by the map itself. */
export const matrixNear = (h: Homography, at: Point): Matrix => {
  const [x, y] = applyHomography(h, at);
  const w = weightAt(h, at);
  const [a, b] = [(h[0] - x * h[6]) / w, (h[3] - y * h[6]) / w];
  const [c, d] = [(h[1] - x * h[7]) / w, (h[4] - y * h[7]) / w];
  return [a, b, c, d, x - a * at[0] - c * at[1], y - b * at[0] - d * at[1]];
};

/** How much larger areas become at a point: negative where they are seen from behind. */
export const areaScaleAt = (h: Homography, at: Point): number => homographyDeterminant(h) / weightAt(h, at) ** 3;

/** Where the eye sees the points of a plane in space: those whose z is 0. */
export const seenFrom = ({ to, middle: [cx, cy], distance }: Eye, plane: Space): Homography => {
  const m = chained(to, plane);
  const near = 1 / distance;
  const row = (x: number, y: number, z: number, c: number) => [x + c * z * near, y + c * z * near];
  const [a, b] = row(m[0], m[1], 0, 0) as [number, number];
  const [d, e] = row(m[4], m[5], 0, 0) as [number, number];
  const [g, h, i] = [m[8] * near, m[9] * near, 1 + m[11] * near];
  return [a + cx * g, b + cx * h, m[3] + cx * (i - 1), d + cy * g, e + cy * h, m[7] + cy * (i - 1), g, h, i];
};

/** The map of a box to four points, clockwise from its top left (Heckbert, Fundamentals of Texture Mapping, 1989, 2.2.3); null where three of them lie on a line, or one
 * within the triangle of the others. */
export const boxTo = (
  { left, top, right, bottom }: Box,
  corners: readonly [Point, Point, Point, Point],
): Homography | null => {
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = corners;
  const [dx1, dx2, sx] = [x1 - x2, x3 - x2, x0 - x1 + x2 - x3];
  const [dy1, dy2, sy] = [y1 - y2, y3 - y2, y0 - y1 + y2 - y3];
  const whole = dx1 * dy2 - dx2 * dy1;
  if (!(Math.abs(whole) > 1e-9)) return null;
  const g = (sx * dy2 - dx2 * sy) / whole;
  const h = (dx1 * sy - sx * dy1) / whole;
  // Where a corner would lie beyond the horizon the map is none of the whole box.
  if (!(Math.min(1 + g, 1 + h, 1 + g + h) > 1e-6)) return null;
  const square: Homography = [x1 - x0 + g * x1, x3 - x0 + h * x3, x0, y1 - y0 + g * y1, y3 - y0 + h * y3, y0, g, h, 1];
  const [width, height] = [right - left, bottom - top];
  if (!(width > 0 && height > 0)) return null;
  return composed(square, [1 / width, 0, -left / width, 0, 1 / height, -top / height, 0, 0, 1]);
};

/** What of a polygon lies far enough before the eye. */
export const beforeEye = (h: Homography, corners: readonly Point[]): readonly Point[] =>
  corners.every((at) => weightAt(h, at) >= NEAREST) ? corners : cutByLine(corners, h[6], h[7], h[8] - NEAREST);

/** The box round what is seen of a box through a map; null for nothing. */
export const boxBent = (h: Homography, box: Box): Box | null => {
  const seen = beforeEye(h, cornersOf(box)).map((at) => applyHomography(h, at));
  if (seen.length < 3) return null;
  const xs = seen.map((at) => at[0]);
  const ys = seen.map((at) => at[1]);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
};

/** How far a projected curve may lie from the exact one, in pixels. */
const TOLERANCE = 0.05;
const MOST_HALVINGS = 6;
const PROBES = [0.25, 0.5, 0.75] as const;

const bezier = (a: number, b: number, c: number, d: number, t: number): number => {
  const u = 1 - t;
  return u * u * (u * a + 3 * t * b) + t * t * (3 * u * c + t * d);
};

/**
 * A cubic through the map: eight numbers in, its end and control points out. It is a rational curve, which is divided until a
 * plain one with the same ends and tangents is as good.
 */
const projectCubic = (h: Homography, c: readonly number[], depth: number, out: number[]): void => {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = c as [number, number, number, number, number, number, number, number];
  const w0 = weightAt(h, [x0, y0]);
  const w3 = weightAt(h, [x3, y3]);
  const from = applyHomography(h, [x0, y0]);
  const to = applyHomography(h, [x3, y3]);
  // Derivatives of the quotient at both ends, from those of the homogeneous curve.
  const homogeneous = (x: number, y: number): readonly [number, number, number] => [
    h[0] * x + h[1] * y,
    h[3] * x + h[4] * y,
    h[6] * x + h[7] * y,
  ];
  const [ax, ay, aw] = homogeneous(x1 - x0, y1 - y0);
  const [bx, by, bw] = homogeneous(x3 - x2, y3 - y2);
  const p1: Point = [from[0] + (ax - from[0] * aw) / w0, from[1] + (ay - from[1] * aw) / w0];
  const p2: Point = [to[0] - (bx - to[0] * bw) / w3, to[1] - (by - to[1] * bw) / w3];
  const isNear = PROBES.every((t) => {
    const [x, y] = applyHomography(h, [bezier(x0, x1, x2, x3, t), bezier(y0, y1, y2, y3, t)]);
    const there = [bezier(from[0], p1[0], p2[0], to[0], t), bezier(from[1], p1[1], p2[1], to[1], t)] as const;
    return Math.hypot(x - there[0], y - there[1]) < TOLERANCE;
  });
  if (isNear || depth >= MOST_HALVINGS) {
    out.push(p1[0], p1[1], p2[0], p2[1], to[0], to[1]);
    return;
  }
  const half = (a: number, b: number) => (a + b) / 2;
  const [ax1, ay1, bx1, by1, cx1, cy1] = [
    half(x0, x1),
    half(y0, y1),
    half(x1, x2),
    half(y1, y2),
    half(x2, x3),
    half(y2, y3),
  ];
  const [ax2, ay2, bx2, by2] = [half(ax1, bx1), half(ay1, by1), half(bx1, cx1), half(by1, cy1)];
  const [mx, my] = [half(ax2, bx2), half(ay2, by2)];
  projectCubic(h, [x0, y0, ax1, ay1, ax2, ay2, mx, my], depth + 1, out);
  projectCubic(h, [mx, my, bx2, by2, cx1, cy1, x3, y3], depth + 1, out);
};

/** An outline through a map whose weight is positive wherever the outline is. */
export const projected = (h: Homography, outline: Outline): Outline => {
  const p = outline.points;
  const [x, y] = applyHomography(h, [p[0]!, p[1]!]);
  const out: number[] = [x, y];
  for (let i = 0; i * 6 + 6 < p.length; i++) {
    const k = i * 6;
    if (!isLine(p, i)) {
      projectCubic(h, Array.from(p.subarray(k, k + 8)), 0, out);
      continue;
    }
    const [fx, fy] = [out[out.length - 2]!, out[out.length - 1]!];
    const [tx, ty] = applyHomography(h, [p[k + 6]!, p[k + 7]!]);
    const [dx, dy] = [(tx - fx) / 3, (ty - fy) / 3];
    out.push(fx + dx, fy + dy, tx - dx, ty - dy, tx, ty);
  }
  return { closed: outline.closed, points: Float64Array.from(out) };
};
