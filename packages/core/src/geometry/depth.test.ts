/** Projection and order in depth, beside closed forms and a picture drawn pixel by pixel. */
import { describe, expect, it } from 'vitest';
import type { Point } from '../document/types';
import { applyHomography, boxTo, invertedHomography, projected, seenFrom } from './homography';
import { cubicAt } from './flatten';
import { inDepth, projectedPoint } from './planes';
import {
  applySpace,
  chained,
  decomposedSpace,
  type DepthPlacement,
  type Eye,
  flatSpace,
  invertedSpace,
  placedInSpace,
  type Point3,
} from './space';
import { placed } from './matrix';
import { OutlineWriter } from './outline';

/** A generator of numbers from 0 to 1 (mulberry32). */
const random = (seed: number) => () => {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};

const FLAT: DepthPlacement = {
  ...{ position: [300, 200], pivot: [40, 10], scale: [1.2, 0.8], rotation: 25 },
  ...{ z: 0, pivotZ: 0, scaleZ: 1, turnX: 0, turnY: 0 },
};
const IDENTITY = flatSpace([1, 0, 0, 1, 0, 0]);
const EYE: Eye = { to: IDENTITY, middle: [320, 180], distance: 800 };

describe('places in space', () => {
  it('without depth are those of the plane', () => {
    placedInSpace(FLAT).forEach((v, i) => expect(v).toBeCloseTo(flatSpace(placed(FLAT))[i] as number, 12));
  });
  it('turn the top away about x, the right side away about y, clockwise about z', () => {
    const still = { ...FLAT, position: [0, 0] as Point, pivot: [0, 0] as Point, scale: [1, 1] as Point, rotation: 0 };
    const at = (turns: Partial<DepthPlacement>, p: Point3) => applySpace(placedInSpace({ ...still, ...turns }), p);
    expect(at({ turnX: 90 }, [0, -1, 0])).toEqual([0, expect.closeTo(0), 1]);
    expect(at({ turnY: 90 }, [1, 0, 0])).toEqual([expect.closeTo(0), expect.closeTo(0), 1]);
    expect(at({ rotation: 90 }, [1, 0, 0])).toEqual([expect.closeTo(0), 1, expect.closeTo(0)]);
  });
  it('are told apart again into position, turns and scale', () => {
    const next = random(3);
    for (let n = 0; n < 200; n++) {
      const own = {
        ...{ position: [next() * 90, next() * 90] as const, z: next() * 90, pivot: [0, 0] as const, pivotZ: 0 },
        ...{ scale: [0.2 + next(), 0.2 + next()] as const, scaleZ: n % 3 === 0 ? -1 : 0.5 },
        ...{ turnX: next() * 720 - 360, turnY: n % 5 === 0 ? 90 : next() * 360, rotation: next() * 360 },
      };
      const space = placedInSpace(own);
      const again = placedInSpace({ ...own, ...decomposedSpace(space) });
      again.forEach((v, i) => expect(v).toBeCloseTo(space[i] as number, 6));
    }
  });
  it('are undone by their inverse', () => {
    const space = placedInSpace({ ...FLAT, turnX: 33, turnY: -70, z: 90, pivotZ: 12, scaleZ: 2 });
    const back = chained(invertedSpace(space)!, space);
    back.forEach((v, i) => expect(v).toBeCloseTo(IDENTITY[i] as number, 10));
    expect(invertedSpace(placedInSpace({ ...FLAT, scale: [0, 1] }))).toBeNull();
  });
});

describe('what the eye sees of a plane', () => {
  it('is the projection of its points, and undone by the inverse', () => {
    const next = random(1);
    for (let n = 0; n < 200; n++) {
      const space = placedInSpace({ ...FLAT, turnX: next() * 360, turnY: next() * 360, z: next() * 400 - 100 });
      const p: Point = [next() * 100, next() * 100];
      const [x, y, z] = applySpace(space, [...p, 0]);
      const share = EYE.distance / (EYE.distance + z);
      const seen = applyHomography(seenFrom(EYE, space), p);
      expect(seen[0]).toBeCloseTo(320 + (x - 320) * share, 8);
      expect(seen[1]).toBeCloseTo(180 + (y - 180) * share, 8);
      const back = applyHomography(invertedHomography(seenFrom(EYE, space))!, seen);
      expect(Math.hypot(back[0] - p[0], back[1] - p[1])).toBeLessThan(1e-6);
    }
  });
  it('is the same as without depth in the plane of the scene, and without perspective', () => {
    expect(applyHomography(seenFrom(EYE, IDENTITY), [17, 40])).toEqual([17, 40]);
    const away = placedInSpace({ ...FLAT, z: 500, turnY: 60 });
    const [x, y] = applySpace(away, [30, 20, 0]);
    expect(applyHomography(seenFrom({ ...EYE, distance: Infinity }, away), [30, 20])).toEqual([
      expect.closeTo(x, 10),
      expect.closeTo(y, 10),
    ]);
  });
  it('bends curves to a tenth of a pixel', () => {
    const h = seenFrom(EYE, placedInSpace({ ...FLAT, turnX: 64, turnY: 30, scale: [3, 3] }));
    const circle = new OutlineWriter(60, 0)
      .quarter(60, 60, 0, 60)
      .quarter(-60, 60, -60, 0)
      .quarter(-60, -60, 0, -60)
      .quarter(60, -60, 60, 0)
      .close();
    const { points } = projected(h, circle);
    const back = invertedHomography(h)!;
    for (let k = 0; k + 6 < points.length; k += 6) {
      for (let t = 0; t <= 1; t += 0.1) {
        const at = cubicAt(points, k, t);
        const [x, y] = applyHomography(back, at);
        // As far from the circle as its own cubics are, and no more than a tenth of a pixel of the picture.
        const r = Math.hypot(x, y);
        const on = applyHomography(h, [(x / r) * 60, (y / r) * 60]);
        expect(Math.hypot(on[0] - at[0], on[1] - at[1])).toBeLessThan(0.1);
      }
    }
  });
  it('of a box takes its corners where they are wanted', () => {
    const corners: [Point, Point, Point, Point] = [
      [10, 20],
      [200, 5],
      [260, 180],
      [-30, 140],
    ];
    const h = boxTo({ left: -50, top: -20, right: 50, bottom: 20 }, corners)!;
    const shown = [
      [-50, -20],
      [50, -20],
      [50, 20],
      [-50, 20],
    ].map((p) => applyHomography(h, p as unknown as Point));
    shown.forEach(([x, y], i) => {
      expect(x).toBeCloseTo(corners[i]![0], 8);
      expect(y).toBeCloseTo(corners[i]![1], 8);
    });
    // The diagonals of the box meet where those of the corners do.
    const meet = (a: Point, b: Point, c: Point, d: Point): Point => {
      const k =
        ((c[0] - a[0]) * (d[1] - c[1]) - (c[1] - a[1]) * (d[0] - c[0])) /
        ((b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0]));
      return [a[0] + (b[0] - a[0]) * k, a[1] + (b[1] - a[1]) * k];
    };
    const middle = meet(corners[0], corners[2], corners[1], corners[3]);
    const own = applyHomography(h, [0, 0]);
    expect(Math.hypot(own[0] - middle[0], own[1] - middle[1])).toBeLessThan(1e-9);
    expect(
      boxTo({ left: 0, top: 0, right: 1, bottom: 1 }, [
        [0, 0],
        [1, 0],
        [2, 0],
        [0, 5],
      ]),
    ).toBeNull();
  });
});

/** A random square in the space before the eye. */
const squareBy = (next: () => number, size: number, reach: number): Point3[] => {
  const turns = { turnX: next() * 360, turnY: next() * 360, rotation: next() * 360 };
  const position: Point = [320 + (next() - 0.5) * reach, 180 + (next() - 0.5) * reach];
  const space = placedInSpace({ ...FLAT, pivot: [0, 0], scale: [1, 1], position, z: next() * reach, ...turns });
  const half = size / 2;
  return [
    [-half, -half],
    [half, -half],
    [half, half],
    [-half, half],
  ].map(([x, y]) => applySpace(space, [x!, y!, 0]));
};

const isInside = (polygon: readonly Point[], [x, y]: Point): boolean => {
  const sides = polygon.map(([ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % polygon.length] as Point;
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  });
  return sides.every((s) => s > 0) || sides.every((s) => s < 0);
};

/** The distance at which a line of sight through a point of the screen meets the plane of a polygon. */
const distanceAt = (corners: readonly Point3[], { middle: [cx, cy], distance }: Eye, [x, y]: Point): number => {
  const [a, b, c] = corners as [Point3, Point3, Point3];
  const [u, v] = [b.map((n, i) => n - a[i]!), c.map((n, i) => n - a[i]!)] as [number[], number[]];
  const n = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
  const way = [x - cx, y - cy, distance];
  const from = [cx, cy, -distance];
  const down = n.reduce((sum, k, i) => sum + k * (a[i]! - from[i]!), 0);
  return down / n.reduce((sum, k, i) => sum + k * way[i]!, 0);
};

describe('pieces in depth', () => {
  it('show at each point what is nearest there, in 500 scenes with crossings', () => {
    const next = random(7);
    let crossings = 0;
    for (let scene = 0; scene < 500; scene++) {
      const polygons = Array.from({ length: 6 }, () => squareBy(next, 160, 220));
      const pieces = inDepth(polygons, EYE);
      if (pieces.length > polygons.length) crossings++;
      const shown = polygons.map((corners) => corners.map((corner) => projectedPoint(EYE, corner)));
      const drawn = pieces.map((piece) => piece.corners.map((corner) => projectedPoint(EYE, corner)));
      for (let n = 0; n < 60; n++) {
        const at: Point = [180 + next() * 280, 40 + next() * 280];
        const depths = polygons.flatMap((corners, i) =>
          isInside(shown[i] as Point[], at) ? [{ i, far: distanceAt(corners, EYE, at) }] : [],
        );
        const [nearest, second] = depths.toSorted((p, q) => p.far - q.far);
        // Where two are as near, either may show.
        if (!nearest || (second && second.far - nearest.far < 1e-4)) continue;
        const top = drawn.findLastIndex((corners) => isInside(corners, at));
        // On the line of a cut a point is in neither part.
        if (top < 0 || !drawn.some((c, k) => pieces[k]!.of === nearest.i && isInside(c, at))) continue;
        expect(pieces[top]!.of).toBe(nearest.i);
      }
    }
    expect(crossings).toBeGreaterThan(400);
  });
  it('in one plane, and side by side, keep the order of the stack', () => {
    const at = (left: number, z: number): Point3[] => [
      [left, 0, z],
      [left + 50, 0, z],
      [left + 50, 50, z],
      [left, 50, z],
    ];
    expect(inDepth([at(0, 0), at(10, 0), at(200, -30), at(20, 0)], EYE).map(({ of }) => of)).toEqual([0, 1, 2, 3]);
    // The farther one goes first, wherever it stands.
    expect(inDepth([at(0, 0), at(10, 40)], EYE).map(({ of }) => of)).toEqual([1, 0]);
  });
  it('in a circle are divided', () => {
    // Three strips, each over the next.
    const strip = (a: Point3, b: Point3, c: Point3, d: Point3) => [a, b, c, d];
    const strips = [
      strip([100, 100, 0], [300, 100, 60], [300, 130, 60], [100, 130, 0]),
      strip([260, 80, 0], [290, 80, 0], [220, 300, 60], [190, 300, 60]),
      strip([100, 80, 60], [130, 80, 60], [230, 290, 0], [200, 290, 0]),
    ];
    const pieces = inDepth(strips, EYE);
    expect(new Set(pieces.map(({ of }) => of)).size).toBe(3);
    expect(pieces.some(({ cuts }) => cuts.includes(true))).toBe(true);
  });
  it('that are seen from the edge, or have no area, are left out', () => {
    const edge: Point3[] = [
      [320, 0, 0],
      [320, 100, 0],
      [320, 100, 90],
      [320, 0, 90],
    ];
    const nothing: Point3[] = [
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, 0],
    ];
    expect(inDepth([edge, nothing], EYE)).toEqual([]);
  });
});
