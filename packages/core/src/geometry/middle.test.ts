import { describe, expect, it } from 'vitest';
import type { Point } from '../document/types';
import { middleOf, type MiddleStroke } from './middle';
import { type Outline, OutlineWriter, polygon, reversed } from './outline';
import { distances, rastered } from './raster';

const circleOutline = (r: number): Outline =>
  new OutlineWriter(0, -r)
    .quarter(r, -r, r, 0)
    .quarter(r, r, 0, r)
    .quarter(-r, r, -r, 0)
    .quarter(-r, -r, 0, -r)
    .close();
const rectangleOutline = (w: number, h: number): Outline =>
  polygon([
    [-w / 2, -h / 2],
    [w / 2, -h / 2],
    [w / 2, h / 2],
    [-w / 2, h / 2],
  ]);

const lengthOf = ({ points, closed }: MiddleStroke): number => {
  const all = closed ? [...points, points[0]!] : points;
  return all.reduce((sum, [x, y], i) => (i === 0 ? 0 : sum + Math.hypot(x - all[i - 1]![0], y - all[i - 1]![1])), 0);
};

describe('a grid of cells', () => {
  it('has as many as the area is large, by the nonzero rule', () => {
    const box = { left: -50, top: -50, right: 50, bottom: 50 };
    const count = (grid: { cells: Uint8Array; side: number }) => grid.cells.reduce((s, c) => s + c, 0) * grid.side ** 2;
    const disc = circleOutline(50);
    expect(Math.abs(count(rastered([disc], box, 0.5)) - Math.PI * 2_500)).toBeLessThan(20);
    const ring = [disc, reversed(circleOutline(30))];
    expect(Math.abs(count(rastered(ring, box, 0.5)) - Math.PI * 1_600)).toBeLessThan(30);
    // Twice the same way round is no hole.
    expect(Math.abs(count(rastered([disc, circleOutline(30)], box, 0.5)) - Math.PI * 2_500)).toBeLessThan(20);
  });
  it('knows how far each is from the nearest that is wanted', () => {
    const wanted: readonly Point[] = [
      [3, 4],
      [17, 9],
      [8, 18],
    ];
    const far = distances({ width: 20, height: 20 }, (i) => wanted.some(([x, y]) => i === y * 20 + x));
    for (let i = 0; i < 400; i++) {
      const nearest = Math.min(...wanted.map(([x, y]) => Math.hypot((i % 20) - x, Math.floor(i / 20) - y)));
      expect(far[i]).toBeCloseTo(nearest, 9);
    }
  });
});

describe('middle lines', () => {
  it('of a bar are its axis, from edge to edge, and a stroke as wide as it is covers it', () => {
    const middle = middleOf([rectangleOutline(200, 20)]);
    expect(middle?.strokes).toHaveLength(1);
    const [stroke] = middle!.strokes as [MiddleStroke];
    expect(stroke.closed).toBe(false);
    for (const [, y] of stroke.points) expect(Math.abs(y)).toBeLessThan(2);
    expect(stroke.points[0]![0]).toBeLessThan(-96);
    expect(stroke.points.at(-1)![0]).toBeGreaterThan(96);
    // Its corners are √2 as far as its sides.
    expect([middle!.width > 20, middle!.width < 20 * Math.SQRT2 + 16]).toEqual([true, true]);
  });
  it('of a ring are one circle in its middle', () => {
    const middle = middleOf([circleOutline(60), reversed(circleOutline(40))]);
    const [stroke, ...more] = middle!.strokes as [MiddleStroke];
    expect([stroke.closed, more.length]).toEqual([true, 0]);
    for (const [x, y] of stroke.points) expect(Math.abs(Math.hypot(x, y) - 50)).toBeLessThan(2);
    expect(Math.abs(lengthOf(stroke) / (2 * Math.PI * 50) - 1)).toBeLessThan(0.03);
    expect([middle!.width > 20, middle!.width < 40]).toEqual([true, true]);
  });
  it('of a cross are two strokes straight on', () => {
    const [a, b] = [10, 100];
    const cross = polygon([
      [-a, -b],
      [a, -b],
      [a, -a],
      [b, -a],
      [b, a],
      [a, a],
      [a, b],
      [-a, b],
      [-a, a],
      [-b, a],
      [-b, -a],
      [-a, -a],
    ]);
    const { strokes } = middleOf([cross])!;
    expect(strokes.map((stroke) => Math.round(lengthOf(stroke) / 20))).toEqual([10, 10]);
  });
  it('of parts that do not touch are from left to right, each by itself', () => {
    const at = (x: number) =>
      polygon([
        [x, 0],
        [x + 10, 0],
        [x + 10, 60],
        [x, 60],
      ]);
    const { strokes } = middleOf([at(80), at(0), at(40)])!;
    expect(strokes.map(({ points }) => Math.round(points[0]![0] / 5) * 5)).toEqual([5, 45, 85]);
    // From top to bottom.
    for (const { points } of strokes) expect(points[0]![1]).toBeLessThan(points.at(-1)![1]);
  });
  it('of a dot are a dot, and of nothing none', () => {
    expect(middleOf([circleOutline(8)])?.strokes).toHaveLength(1);
    expect([
      middleOf([]),
      middleOf([
        polygon([
          [0, 0],
          [50, 0],
        ]),
      ]),
    ]).toEqual([null, null]);
  });
});
