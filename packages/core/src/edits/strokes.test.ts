import { describe, expect, it } from 'vitest';
import { LIMITS } from '../document/limits';
import {
  type DrawnBrush,
  keptPoints,
  pressedBySpeed,
  steadied,
  strokeAt,
  strokePoint,
  strokesIn,
  strokesMoved,
  withStrokePoint,
} from './strokes';
import { testStroke as stroke } from '../test/strokes';

describe('a stroke', () => {
  it('is found where most of it lies, and moved', () => {
    const all = [stroke(), stroke({ points: [60, 0, 0.5, 80, 0, 0.5, 100, 0, 1] })];
    const right = strokesIn(all, ([x]) => x > 70);
    expect(right).toEqual([1]);
    expect(strokesMoved(all, right, [5, -7.04])).toEqual([
      all[0],
      { ...all[1], points: [65, -7, 0.5, 85, -7, 0.5, 105, -7, 1] },
    ]);
  });

  it('is found by a press on it, and has points that are moved, pressed otherwise and taken out', () => {
    const all = [stroke(), stroke({ points: [0, -40, 0.5, 0, 40, 0.5], size: 4 }), stroke({ points: [80, 80, 0.5] })];
    // Across each other the one in front is meant; a dot has its width alone.
    expect(
      [
        [-40, 4.9],
        [-40, 7],
        [0, 0],
        [1.9, 30],
        [84, 80],
        [90, 80],
      ].map(([x, y]) => strokeAt(all, [x!, y!], 0)),
    ).toEqual([0, -1, 0, 1, 2, -1]);
    expect(strokeAt(all, [-40, 7], 3)).toBe(0);
    const moved = withStrokePoint(all, 1, 1, [10, 44.44, 2]);
    expect(strokePoint(moved[1]!, 1)).toEqual([10, 44.4, 1]);
    expect([moved[0], moved[2]]).toEqual([all[0], all[2]]);
    expect(withStrokePoint(all, 1, 0, null)[1]!.points).toEqual([0, 40, 0.5]);
    // The last one stays.
    expect(withStrokePoint(all, 2, 0, null)).toEqual(all);
  });

  it('keeps few points of what was drawn, and no more than it may', () => {
    const circle: DrawnBrush = Array.from({ length: 400 }, (_, i) => [
      100 * Math.cos(i / 60),
      100 * Math.sin(i / 60),
      0.5,
    ]);
    const points = keptPoints(circle, 10);
    expect(points.length / 3).toBeLessThan(80);
    for (let i = 0; i < points.length; i += 3) expect(Math.hypot(points[i]!, points[i + 1]!)).toBeCloseTo(100, -0.5);
    const endless: DrawnBrush = Array.from({ length: 1_000_000 }, (_, i) => [
      400 * Math.sin(i * 1.7),
      400 * Math.cos(i * 0.9),
      0.5,
    ]);
    expect(keptPoints(endless, 4).length / 3).toBeLessThanOrEqual(LIMITS.strokePoints);
  });

  it('is steadied without being late at its end, and pressed less where it is fast', () => {
    const jagged: DrawnBrush = Array.from({ length: 50 }, (_, i) => [i * 4, i % 2 === 0 ? 3 : -3, 0.5]);
    const calm = steadied(jagged, 0.8);
    expect(Math.max(...calm.slice(10, -1).map(([, y]) => Math.abs(y)))).toBeLessThan(1);
    expect(calm.at(-1)).toEqual(jagged.at(-1));
    expect(steadied(jagged, 0).slice(0, -1)).toEqual(jagged);
    const fast = pressedBySpeed(
      Array.from({ length: 40 }, (_, i) => [i * 30, 0, 0]),
      20,
    );
    const slow = pressedBySpeed(
      Array.from({ length: 40 }, (_, i) => [i * 0.5, 0, 0]),
      20,
    );
    expect(fast.at(-1)![2]).toBeLessThan(0.1);
    expect(slow.at(-1)![2]).toBeGreaterThan(0.5);
  });
});
