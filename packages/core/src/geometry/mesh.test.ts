/** Meshes and what is bent by them, beside closed forms. */
import { describe, expect, it } from 'vitest';
import type { MeshValue, Point } from '../document/types';
import { plainMesh } from '../document/params';
import { bendOf, resampled, wayAt, wayOf, withWay } from './mesh';
import { polygon } from './outline';
import {
  bentPoint,
  bentThrough,
  boxThroughBend,
  matrixOfBend,
  triangleTo,
  unbentPoint,
  warpBy,
  warpOver,
} from './warp';
import { warpedOutline } from './warpedOutline';

const near = (one: readonly number[], other: readonly number[], digits = 9) => {
  expect(one).toHaveLength(other.length);
  one.forEach((v, i) => expect(v).toBeCloseTo(other[i] as number, digits));
};
const uneven: MeshValue = {
  columns: 3,
  rows: 2,
  ways: Array.from({ length: 24 }, (_, i) => ((i * 37) % 23) - 11),
};
const nodes = ({ columns, rows }: MeshValue) =>
  Array.from(
    { length: (columns + 1) * (rows + 1) },
    (_, i) => [i % (columns + 1), Math.floor(i / (columns + 1))] as const,
  );

describe('a mesh', () => {
  it.each([0, 0.4, 1])('takes its points where they go, round by %s', (smooth) => {
    for (const [c, r] of nodes(uneven)) near(wayAt(uneven, smooth, c / 3, r / 2), wayOf(uneven, c, r));
  });
  it('with straight edges moves what is between its points as the mean of them', () => {
    const [a, b] = [wayOf(uneven, 1, 0), wayOf(uneven, 2, 0)];
    near(wayAt(uneven, 0, 1.25 / 3, 0), [a[0] + (b[0] - a[0]) / 4, a[1] + (b[1] - a[1]) / 4]);
  });
  it('has edges that are Bézier curves, whose tangents are half the way between the neighbours of a point', () => {
    // Along the upper edge between its points 1 and 2: P1, P1 + (P2 - P0) / 6, P2 - (P3 - P1) / 6, P2.
    const [p0, p1, p2, p3] = [0, 1, 2, 3].map((c) => wayOf(uneven, c, 0)) as [Point, Point, Point, Point];
    for (const t of [0.1, 0.5, 0.8]) {
      const u = 1 - t;
      const at = (i: 0 | 1) => {
        const [q1, q2] = [p1[i] + (p2[i] - p0[i]) / 6, p2[i] - (p3[i] - p1[i]) / 6];
        return u ** 3 * p1[i] + 3 * u * u * t * q1 + 3 * u * t * t * q2 + t ** 3 * p2[i];
      };
      near(wayAt(uneven, 1, (1 + t) / 3, 0), [at(0), at(1)]);
    }
  });
  it('leaves a plane a plane: slanted and stretched points give what a matrix gives', () => {
    const base = plainMesh(3, 2);
    const slanted = nodes(base).reduce((mesh, [c, r]) => withWay(mesh, c, r, [4 * c - 3 * r + 1, c + 5 * r]), base);
    for (const [u, v] of [
      [0.13, 0.9],
      [0.5, 0.5],
      [0.99, 0.01],
    ] as const) {
      near(wayAt(slanted, 1, u, v), [4 * 3 * u - 3 * 2 * v + 1, 3 * u + 5 * 2 * v]);
    }
    // Beyond its edges as much as there.
    near(wayAt(slanted, 1, 1.4, 0.5), wayAt(slanted, 1, 1, 0.5));
  });
  it('tells how far it is from flat', () => {
    const base = plainMesh(2, 2);
    expect(bendOf(nodes(base).reduce((mesh, [c, r]) => withWay(mesh, c, r, [4 * c - 3 * r, 5 * r]), base))).toBe(0);
    // A point that is 10 beside the middle of two is twice as far from both together.
    expect(bendOf(withWay(base, 1, 1, [6, 8]))).toBe(20);
    expect(bendOf(withWay(plainMesh(1, 1), 0, 0, [3, 4]))).toBe(5);
  });
  it('with more columns and rows is bent the same at its old points', () => {
    const finer = resampled(uneven, 6, 4);
    for (const [c, r] of nodes(uneven)) near(wayAt(finer, 1, c / 3, r / 2), wayOf(uneven, c, r));
    expect(resampled(uneven, 3, 2)).toBe(uneven);
  });
});

const BOX = { left: -50, top: -20, right: 70, bottom: 40 };
const swung = ([x, y]: Point): Point => [x + 8 * Math.sin(y / 30), y + 12 * Math.sin(x / 40) + x / 5];

describe('a warp', () => {
  const lines = (from: number, to: number, count: number) =>
    Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
  const [xs, ys] = [lines(BOX.left, BOX.right, 24), lines(BOX.top, BOX.bottom, 12)];
  const warp = warpBy(xs, ys, swung);
  it('takes points near where the map takes them, and back', () => {
    for (const at of [
      [-49, -19],
      [3.3, 7.7],
      [69, 39],
    ] as const) {
      near(bentPoint(warp, at), swung(at), 0);
      near(unbentPoint(warp, bentPoint(warp, at)) as Point, at, 6);
    }
    expect(unbentPoint(warp, [500, 0])).toBeNull();
  });
  it('holds all that is seen, and goes on through other maps', () => {
    const box = boxThroughBend(warp, BOX)!;
    const moved = bentThrough([2, 0, 0, 3, 5, 7], warp);
    const { left, bottom } = boxThroughBend(moved, BOX)!;
    near([left, bottom], [2 * box.left + 5, 3 * box.bottom + 7]);
    near(bentPoint(moved, [3, 4]), [2 * bentPoint(warp, [3, 4])[0] + 5, 3 * bentPoint(warp, [3, 4])[1] + 7]);
  });
  it('over a box has as many cells as bring it near to a map, one that is the same at both ends and in the middle too', () => {
    const wave = ([x, y]: Point): Point => [x, y + 20 * Math.sin((x - BOX.left) * ((2 * Math.PI) / 120))];
    for (const map of [swung, wave]) {
      const fine = warpOver(BOX, map);
      for (let x = BOX.left; x <= BOX.right; x += 7) {
        for (let y = BOX.top; y <= BOX.bottom; y += 7) {
          const [[a, b], [c, d]] = [bentPoint(fine, [x, y]), map([x, y])];
          expect(Math.hypot(a - c, b - d)).toBeLessThan(0.5);
        }
      }
    }
    expect(warpOver(BOX, ([x, y]) => [2 * x, y - x]).xs).toHaveLength(5);
  });
  it('is nearly a matrix about a point', () => {
    const plain = warpBy([-50, 0, 70], [-20, 10, 40], ([x, y]) => [2 * x - y + 3, x / 2 + y]);
    near(matrixOfBend(plain, [1, 2]), [2, 0.5, -1, 1, 3, 0]);
  });
  it('of three points in a line is none', () => {
    const line = [
      [0, 0],
      [1, 1],
      [2, 2],
    ] as const;
    expect(triangleTo(line, line)).toBeNull();
  });
});

describe('an outline through a map', () => {
  it('is within a twentieth of a pixel of it, with as many curves as that takes', () => {
    const square = polygon([
      [-40, -15],
      [60, -15],
      [60, 35],
      [-40, 35],
    ]);
    const { points, closed } = warpedOutline(square, swung);
    expect(closed).toBe(true);
    // The upper side goes from -40 to 60 at y -15: every point of its curves lies on the map of that line.
    for (let k = 0; k + 6 < points.length; k += 6) {
      for (const t of [0, 0.3, 0.5, 0.9]) {
        const u = 1 - t;
        const at = (i: number) =>
          u ** 3 * points[k + i]! +
          3 * u * u * t * points[k + 2 + i]! +
          3 * u * t * t * points[k + 4 + i]! +
          t ** 3 * points[k + 6 + i]!;
        const [x, y] = [at(0), at(1)];
        const away = sides(200).reduce((least, [sx, sy]) => Math.min(least, Math.hypot(sx - x, sy - y)), Infinity);
        expect(away).toBeLessThan(0.35);
      }
    }
    expect(points.length).toBeLessThan(6 * 60);
  });
});

/** Points of the map of the square's sides, close to each other. */
const sides = (count: number): readonly Point[] =>
  Array.from({ length: count }, (_, i) => i / count).flatMap((t) => [
    swung([-40 + 100 * t, -15]),
    swung([60, -15 + 50 * t]),
    swung([-40 + 100 * t, 35]),
    swung([-40, -15 + 50 * t]),
  ]);
