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

/** A box in columns and rows of equal cells, and where the corners of these go: x and y, row by row. Each cell is two triangles. */
export interface Warp {
  readonly box: Box;
  readonly columns: number;
  readonly rows: number;
  readonly to: Float64Array;
}

/** How a picture is bent. */
export type Bend = Homography | Warp;
export const isWarp = (bend: Bend): bend is Warp => 'box' in bend;

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

/** A warp of a box in so many cells by what is done to its points. */
export const warpBy = (box: Box, columns: number, rows: number, by: (at: Point) => Point): Warp => {
  const to = new Float64Array(2 * (columns + 1) * (rows + 1));
  for (let row = 0, i = 0; row <= rows; row++) {
    for (let column = 0; column <= columns; column++, i += 2) {
      const [x, y] = by(placeOf({ box, columns, rows }, column, row));
      to[i] = x;
      to[i + 1] = y;
    }
  }
  return { box, columns, rows, to };
};

const placeOf = (
  { box, columns, rows }: Pick<Warp, 'box' | 'columns' | 'rows'>,
  column: number,
  row: number,
): Point => [box.left + ((box.right - box.left) * column) / columns, box.top + ((box.bottom - box.top) * row) / rows];

const goesTo = ({ columns, to }: Warp, column: number, row: number): Point => {
  const i = 2 * (row * (columns + 1) + column);
  return [to[i] as number, to[i + 1] as number];
};

/** The triangles of a warp, each as it is and where it goes. */
export const trianglesOf = (warp: Warp): readonly { readonly from: Triangle; readonly to: Triangle }[] => {
  const found: { from: Triangle; to: Triangle }[] = [];
  for (let row = 0; row < warp.rows; row++) {
    for (let column = 0; column < warp.columns; column++) found.push(...cellOf(warp, column, row));
  }
  return found;
};

const cellOf = (warp: Warp, column: number, row: number) => {
  const corners = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ].map(([c, r]) => [column + (c as number), row + (r as number)] as const);
  const three = (i: number, j: number, k: number) => {
    const some = [corners[i], corners[j], corners[k]] as (readonly [number, number])[];
    return {
      from: some.map(([c, r]) => placeOf(warp, c, r)) as unknown as Triangle,
      to: some.map(([c, r]) => goesTo(warp, c, r)) as unknown as Triangle,
    };
  };
  return [three(0, 1, 2), three(0, 2, 3)] as const;
};

/** Where a warp takes a point; beyond its box as its nearest cell goes on. */
const warped = (warp: Warp, [x, y]: Point): Point => {
  const { box, columns, rows } = warp;
  const across = ((x - box.left) / (box.right - box.left)) * columns;
  const down = ((y - box.top) / (box.bottom - box.top)) * rows;
  const column = Math.min(columns - 1, Math.max(0, Math.floor(across)));
  const row = Math.min(rows - 1, Math.max(0, Math.floor(down)));
  const [upper, lower] = cellOf(warp, column, row);
  const { from, to } = across - column >= down - row ? upper : lower;
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
