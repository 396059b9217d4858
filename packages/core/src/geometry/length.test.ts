import { describe, expect, it } from 'vitest';
import { outlineBox } from './bounds';
import { along, arcLength, part } from './length';
import { type Outline, OutlineWriter, polygon } from './outline';

const line = new OutlineWriter(0, 0).line(300, 400).open();
const square = polygon([
  [0, 0],
  [100, 0],
  [100, 100],
  [0, 100],
]);
/** y = x² from 0 to 1 as a cubic: a parabola has a closed-form arc length. */
const parabola = new OutlineWriter(0, 0).cubic(1 / 3, 0, 2 / 3, 1 / 3, 1, 1).open();
const PARABOLA = Math.sqrt(5) / 2 + Math.asinh(2) / 4;

const first = (o: Outline) => [o.points[0], o.points[1]];
const last = (o: Outline) => [o.points.at(-2), o.points.at(-1)];

describe('arc length', () => {
  it('of lines and polygons is exact', () => {
    expect(arcLength(line)).toBeCloseTo(500, 9);
    expect(arcLength(square)).toBeCloseTo(400, 9);
  });
  it('of a parabola is its closed form', () => {
    expect(arcLength(parabola)).toBeCloseTo(PARABOLA, 10);
  });
  it('of four quarter arcs is the circle within their own error of 2.7e-4', () => {
    const circle = new OutlineWriter(0, -100)
      .quarter(100, -100, 100, 0)
      .quarter(100, 100, 0, 100)
      .quarter(-100, 100, -100, 0)
      .quarter(-100, -100, 0, -100)
      .close();
    expect(Math.abs(arcLength(circle) / (2 * Math.PI * 100) - 1)).toBeLessThan(2.7e-4);
  });
});

describe('a place at a length', () => {
  it('has the direction of the curve there, at the ends of its pieces too', () => {
    const arc = new OutlineWriter(0, -100).quarter(100, -100, 100, 0).quarter(100, 100, 0, 100).open();
    const half = arcLength(arc) / 2;
    for (const [length, way] of [
      [0, [1, 0]],
      [half - 1e-7, [0, 1]],
      [half, [0, 1]],
      [2 * half, [-1, 0]],
    ] as const) {
      const { dx, dy } = along(arc, length);
      expect(dx).toBeCloseTo(way[0], 6);
      expect(dy).toBeCloseTo(way[1], 6);
    }
    const { x, y, dx, dy } = along(parabola, PARABOLA);
    expect([x, y, dx, dy].map((v) => Number(v.toFixed(9)))).toEqual([1, 1, 0.447213595, 0.894427191]);
  });
  it('has a direction where a handle has no length', () => {
    const eased = new OutlineWriter(0, 0).cubic(0, 0, 30, 40, 30, 40).open();
    for (const length of [0, 50]) {
      const { dx, dy } = along(eased, length);
      expect([dx, dy]).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.8, 9)]);
    }
  });
});

describe('a part of an outline', () => {
  it('starts and ends where its lengths say', () => {
    const middle = part(line, 100, 250) as Outline;
    expect(first(middle).map((v) => v?.toFixed(6))).toEqual(['60.000000', '80.000000']);
    expect(last(middle).map((v) => v?.toFixed(6))).toEqual(['150.000000', '200.000000']);
  });
  it('has the length asked for, on curves too', () => {
    for (const [a, b] of [
      [0, 0.3],
      [0.2, 0.9],
      [0.5, 1],
    ] as const) {
      expect(arcLength(part(parabola, a * PARABOLA, b * PARABOLA) as Outline)).toBeCloseTo((b - a) * PARABOLA, 7);
    }
  });
  it('runs on over the seam of a closed outline in one piece', () => {
    const corner = part(square, 350, 450) as Outline;
    const near = (p: (number | undefined)[]) => p.map((v) => Math.round((v ?? 0) * 1e6) / 1e6);
    expect([near(first(corner)), near(last(corner))]).toEqual([
      [0, 50],
      [50, 0],
    ]);
    expect(arcLength(corner)).toBeCloseTo(100, 9);
  });
  it('of nothing is nothing', () => {
    expect(part(line, 100, 100)).toBeNull();
  });
});

it('a tight box holds the bulge of a curve, not its control points', () => {
  // A half-turn of a cubic whose top is at three quarters of its handles' height.
  const arch = new OutlineWriter(0, 0).cubic(0, -100, 100, -100, 100, 0).open();
  expect(outlineBox(arch)).toEqual({ left: 0, top: -75, right: 100, bottom: 0 });
});
