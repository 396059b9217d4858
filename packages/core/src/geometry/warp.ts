/** Maps of the plane by a fine grid, and whatever else a picture is bent by. */
import type { Point } from '../document/types';
import type { Box } from './bounds';
import {
  applyHomography,
  boxBent,
  composed,
  flatHomography,
  type Homography,
  invertedHomography,
  matrixNear,
} from './homography';
import { apply, inverted, type Matrix } from './matrix';
import { applyThrough, isMatrix, type Through } from './through';

/** A grid of upright and level lines, in rising order, and where its crossings go: x and y, row by row. Each cell is two triangles. */
export interface Warp {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
  readonly to: Float64Array;
}

/** How a picture is bent. */
export type Bend = Homography | Warp;
export const isWarp = (bend: Bend): bend is Warp => 'xs' in bend;

type Triangle = readonly [Point, Point, Point];

/** The matrix that takes three points to three others; null for points in a line. */
export const triangleTo = ([p, q, r]: Triangle, [s, t, u]: Triangle): Matrix | null => {
  const from: Matrix = [q[0] - p[0], q[1] - p[1], r[0] - p[0], r[1] - p[1], p[0], p[1]];
  const back = inverted(from);
  if (!back) return null;
  const [a, b, c, d] = [t[0] - s[0], t[1] - s[1], u[0] - s[0], u[1] - s[1]];
  return [
    a * back[0] + c * back[1],
    b * back[0] + d * back[1],
    a * back[2] + c * back[3],
    b * back[2] + d * back[3],
    a * back[4] + c * back[5] + s[0],
    b * back[4] + d * back[5] + s[1],
  ];
};

/** A warp along lines by what is done to their crossings. */
export const warpBy = (xs: readonly number[], ys: readonly number[], by: (at: Point) => Point): Warp => ({
  xs,
  ys,
  to: Float64Array.from(ys.flatMap((y) => xs.flatMap((x) => by([x, y])))),
});

const placeOf = ({ xs, ys }: Warp, column: number, row: number): Point => [xs[column] as number, ys[row] as number];

const goesTo = ({ xs, to }: Warp, column: number, row: number): Point => {
  const i = 2 * (row * xs.length + column);
  return [to[i] as number, to[i + 1] as number];
};

/** A triangle of a warp as it is, and where it goes. */
export interface WarpedTriangle {
  readonly from: Triangle;
  readonly to: Triangle;
}

/** The two triangles of a cell: above and below its diagonal. */
const trianglesAt = (warp: Warp, column: number, row: number): readonly [WarpedTriangle, WarpedTriangle] => {
  const corners = (of: (column: number, row: number) => Point) =>
    [of(column, row), of(column + 1, row), of(column + 1, row + 1), of(column, row + 1)] as const;
  const [a, b, c, d] = corners((x, y) => placeOf(warp, x, y));
  const [p, q, r, s] = corners((x, y) => goesTo(warp, x, y));
  return [
    { from: [a, b, c], to: [p, q, r] },
    { from: [a, c, d], to: [p, r, s] },
  ];
};

/** All triangles of a warp, row by row. */
export const trianglesOf = (warp: Warp): readonly WarpedTriangle[] => {
  const found: WarpedTriangle[] = [];
  for (let row = 0; row + 1 < warp.ys.length; row++) {
    for (let column = 0; column + 1 < warp.xs.length; column++) found.push(...trianglesAt(warp, column, row));
  }
  return found;
};

/** How far what a fine grid takes along may lie from where a map takes it, in pixels. */
const TOLERANCE = 0.25;

const mid = ([x, y]: Point, [p, q]: Point): Point => [(x + p) / 2, (y + q) / 2];

/** A warp over a box by a smooth map, of 4 × 1 cells to 64 × 16, until the middles of all their sides are near where the map has them. */
export const warpOver = ({ left, top, right, bottom }: Box, by: (at: Point) => Point): Warp => {
  const lines = (from: number, to: number, count: number) =>
    Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
  for (let rows = 1; ; rows *= 2) {
    const warp = warpBy(lines(left, right, 4 * rows), lines(top, bottom, rows), by);
    const isNear = trianglesOf(warp).every(({ from, to }) =>
      from.every((corner, i) => {
        const next = (i + 1) % 3;
        const [x, y] = by(mid(corner, from[next]!));
        const [u, v] = mid(to[i]!, to[next]!);
        return Math.hypot(x - u, y - v) <= TOLERANCE;
      }),
    );
    if (isNear || rows === 16) return warp;
  }
};

/** The piece between two of some lines in which a place lies, the first or the last of them beyond their ends. */
const pieceOf = (lines: readonly number[], at: number): number => {
  const after = lines.findIndex((line) => line > at);
  return Math.min(lines.length - 2, Math.max(0, (after < 0 ? lines.length : after) - 1));
};

/** Where a warp takes a point; beyond its lines as its nearest cell goes on. */
const warped = (warp: Warp, [x, y]: Point): Point => {
  const { xs, ys } = warp;
  const [column, row] = [pieceOf(xs, x), pieceOf(ys, y)];
  const share = (lines: readonly number[], i: number, at: number): number =>
    (at - (lines[i] as number)) / ((lines[i + 1] as number) - (lines[i] as number));
  const [upper, lower] = trianglesAt(warp, column, row);
  const { from, to } = share(xs, column, x) >= share(ys, row, y) ? upper : lower;
  const matrix = triangleTo(from, to);
  return matrix ? apply(matrix, [x, y]) : to[0];
};

/** The point of a warp's own pixels that is seen at a place: the foremost; null where it shows nothing. */
const unwarped = (warp: Warp, at: Point): Point | null => {
  for (const { from, to } of trianglesOf(warp).toReversed()) {
    const back = triangleTo(to, [
      [0, 0],
      [1, 0],
      [0, 1],
    ]);
    const [s, t] = back ? apply(back, at) : [-1, -1];
    if (s < 0 || t < 0 || s + t > 1) continue;
    const [[px, py], [qx, qy], [rx, ry]] = from;
    return [px + s * (qx - px) + t * (rx - px), py + s * (qy - py) + t * (ry - py)];
  }
  return null;
};

export const bentPoint = (bend: Bend, at: Point): Point =>
  isWarp(bend) ? warped(bend, at) : applyHomography(bend, at);

/** Where a point that is seen comes from; null where nothing is seen there. */
export const unbentPoint = (bend: Bend, at: Point): Point | null => {
  if (isWarp(bend)) return unwarped(bend, at);
  const back = invertedHomography(bend);
  return back && applyHomography(back, at);
};

/** A map after a bend. */
export const bentThrough = (through: Through, bend: Bend): Bend => {
  if (!isWarp(bend)) return composed(isMatrix(through) ? flatHomography(through) : through, bend);
  const to = new Float64Array(bend.to.length);
  for (let i = 0; i < to.length; i += 2) {
    const [x, y] = applyThrough(through, [bend.to[i] as number, bend.to[i + 1] as number]);
    to[i] = x;
    to[i + 1] = y;
  }
  return { ...bend, to };
};

/** A box that holds all that is seen of a box; null for nothing. */
export const boxThroughBend = (bend: Bend, box: Box): Box | null => {
  if (!isWarp(bend)) return boxBent(bend, box);
  const found = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (let i = 0; i < bend.to.length; i += 2) {
    const [x, y] = [bend.to[i] as number, bend.to[i + 1] as number];
    found.left = Math.min(found.left, x);
    found.right = Math.max(found.right, x);
    found.top = Math.min(found.top, y);
    found.bottom = Math.max(found.bottom, y);
  }
  return found;
};

/** The matrix that comes nearest to a bend about a point. */
export const matrixOfBend = (bend: Bend, at: Point): Matrix => {
  if (!isWarp(bend)) return matrixNear(bend, at);
  const [x, y] = at;
  const [o, a, b] = [at, [x + 1, y] as const, [x, y + 1] as const].map((p) => warped(bend, p)) as [Point, Point, Point];
  const [p, q, r, s] = [a[0] - o[0], a[1] - o[1], b[0] - o[0], b[1] - o[1]];
  return [p, q, r, s, o[0] - p * x - r * y, o[1] - q * x - s * y];
};
