/** Meshes: how far the points of a plain grid are moved, and what lies between them with them. */
import type { MeshValue, Point } from '../document/types';

/** How far one of its points is moved. */
export const wayOf = ({ columns, ways }: MeshValue, column: number, row: number): Point => {
  const i = 2 * (row * (columns + 1) + column);
  return [ways[i] ?? 0, ways[i + 1] ?? 0];
};

/** A mesh with one of its points moved elsewhere. */
export const withWay = (mesh: MeshValue, column: number, row: number, [x, y]: Point): MeshValue => {
  const i = 2 * (row * (mesh.columns + 1) + column);
  return { ...mesh, ways: mesh.ways.map((way, k) => (k === i ? x : k === i + 1 ? y : way)) };
};

/**
 * The shares that four values in a row have between the middle two: a cubic through them (Catmull and Rom, A Class of Local Interpolating
 * Splines, 1974), whose pieces are Bézier curves with a tangent in common, or straight lines, or what is between.
 */
const sharesAt = (t: number, smooth: number): readonly [number, number, number, number] => {
  const [t2, t3] = [t * t, t * t * t];
  const s = smooth / 2;
  return [
    s * (-t3 + 2 * t2 - t),
    s * (3 * t3 - 5 * t2 + 2) + (1 - smooth) * (1 - t),
    s * (-3 * t3 + 4 * t2 + t) + (1 - smooth) * t,
    s * (t3 - t2),
  ];
};

/** The piece of a row of points that a share of it lies in, and how far along. */
const pieceAt = (share: number, pieces: number): readonly [piece: number, t: number] => {
  const along = Math.min(1, Math.max(0, share)) * pieces;
  const piece = Math.min(pieces - 1, Math.floor(along));
  return [piece, along - piece];
};

/**
 * How far a mesh moves what lies at shares of its width and of its height; beyond its edges as much as there. `smooth` from 0 to 1:
 * straight edges between its points, or round ones through them. Beyond an end a row goes on as it ended.
 */
export const wayAt = (mesh: MeshValue, smooth: number, u: number, v: number): Point => {
  const [column, across] = pieceAt(u, mesh.columns);
  const [row, down] = pieceAt(v, mesh.rows);
  const [inRow, inColumn] = [sharesAt(across, smooth), sharesAt(down, smooth)];
  const at = (c: number, r: number): Point => {
    if (c < 0) return beyond(at(0, r), at(1, r));
    if (c > mesh.columns) return beyond(at(mesh.columns, r), at(mesh.columns - 1, r));
    if (r < 0) return beyond(at(c, 0), at(c, 1));
    if (r > mesh.rows) return beyond(at(c, mesh.rows), at(c, mesh.rows - 1));
    return wayOf(mesh, c, r);
  };
  let [x, y] = [0, 0];
  for (let j = 0; j < 4; j++) {
    for (let i = 0; i < 4; i++) {
      const share = (inRow[i] as number) * (inColumn[j] as number);
      if (share === 0) continue;
      const way = at(column + i - 1, row + j - 1);
      x += share * way[0];
      y += share * way[1];
    }
  }
  return [x, y];
};

const beyond = ([x, y]: Point, [px, py]: Point): Point => [2 * x - px, 2 * y - py];

/** The same mesh with other numbers of columns and rows: its new points lie where it was. */
export const resampled = (mesh: MeshValue, columns: number, rows: number): MeshValue => {
  if (columns === mesh.columns && rows === mesh.rows) return mesh;
  const ways = Array.from({ length: (columns + 1) * (rows + 1) }, (_, i) => {
    const column = i % (columns + 1);
    return wayAt(mesh, 1, column / columns, (i - column) / (columns + 1) / rows);
  });
  return { columns, rows, ways: ways.flat() };
};

/**
 * How far a mesh is from flat between its points, in pixels: the most that a point is beside the middle of two around it, along a row, along
 * a column, or in the cells between both.
 */
export const bendOf = (mesh: MeshValue): number => {
  let most = 0;
  const bend = (...signed: readonly (readonly [sign: number, column: number, row: number])[]): void => {
    if (signed.some(([, column, row]) => column > mesh.columns || row > mesh.rows)) return;
    const [x, y] = signed.reduce<Point>(
      ([sx, sy], [sign, column, row]) => {
        const [wx, wy] = wayOf(mesh, column, row);
        return [sx + sign * wx, sy + sign * wy];
      },
      [0, 0],
    );
    most = Math.max(most, Math.hypot(x, y));
  };
  for (let r = 0; r <= mesh.rows; r++) {
    for (let c = 0; c <= mesh.columns; c++) {
      bend([1, c, r], [-2, c + 1, r], [1, c + 2, r]);
      bend([1, c, r], [-2, c, r + 1], [1, c, r + 2]);
      bend([1, c, r], [-1, c + 1, r], [-1, c, r + 1], [1, c + 1, r + 1]);
    }
  }
  return most;
};
