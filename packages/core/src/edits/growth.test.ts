import { describe, expect, it } from 'vitest';
import { LIMITS } from '../document/limits';
import { growth as param } from '../document/params';
import { rectangle } from '../recipe/sources/rectangle';
import { growth } from '../motion/kinds/growth';
import { middleOf } from '../geometry/middle';
import { type DrawnStroke, growthPoint, keptStroke, strokeLater, strokesAlong, withPoint, withStroke } from './growth';

const PARAM = param('From');
const pointsOf = (stroke: readonly number[]) =>
  Array.from({ length: stroke.length / 3 }, (_, i) => stroke.slice(3 * i, 3 * i + 3));

describe('strokes to grow along', () => {
  it('keep where they went and how fast, with few points', () => {
    // Straight on, ten times as fast from its middle on.
    const drawn: DrawnStroke = Array.from({ length: 201 }, (_, i) => [
      i,
      50,
      7_000 + (i < 100 ? i * 10 : 1_000 + i - 100),
    ]);
    expect(pointsOf(keptStroke(drawn))).toEqual([
      [0, 50, 0],
      [100, 50, 1_000],
      [200, 50, 1_100],
    ]);
  });

  it('of a million points are thinned to what a project may have', () => {
    const drawn: DrawnStroke = Array.from({ length: 1_000_000 }, (_, i) => [
      Math.round(400 * Math.sin(i * 1.7)),
      Math.round(400 * Math.cos(i * 0.9)),
      i,
    ]);
    const stroke = keptStroke(drawn);
    expect(stroke.length / 3).toBeLessThanOrEqual(LIMITS.strokePoints);
    expect(growth.is(PARAM, { points: [], strokes: [stroke] })).toBe(true);
  });

  it('of one press are a dot', () => {
    expect(keptStroke([[3.14159, 2, 55]])).toEqual([3.1, 2, 0]);
  });

  it('go along middle lines, all as fast', () => {
    const values = { width: 300, height: 20, radius: 0, centre: [0, 0] } as const;
    const [stroke, ...more] = strokesAlong(middleOf(rectangle.outlines(values, {} as never))!);
    expect(more).toEqual([]);
    const points = pointsOf(stroke!);
    expect(points[0]![0]).toBeLessThan(-140);
    expect(points.at(-1)![0]).toBeGreaterThan(140);
    expect(points.at(-1)![2]).toBeCloseTo(points.at(-1)![0]! - points[0]![0]!, -1);
  });

  it('are taken out, put in and moved among the others', () => {
    const value = {
      points: [growthPoint([1, 2], true)],
      strokes: [
        [1, 1, 0],
        [2, 2, 0],
        [3, 3, 0],
      ],
    };
    expect(strokeLater(value, 0, 1).strokes).toEqual([
      [2, 2, 0],
      [1, 1, 0],
      [3, 3, 0],
    ]);
    expect(strokeLater(value, 2, -1).strokes).toEqual([
      [1, 1, 0],
      [3, 3, 0],
      [2, 2, 0],
    ]);
    expect(withStroke(value, 1, null).strokes).toEqual([
      [1, 1, 0],
      [3, 3, 0],
    ]);
    expect(withPoint(value, 0, { ...growthPoint([5, 5], false), wait: 9 }).points).toEqual([
      { at: [5, 5], root: false, wait: 9, pace: 1 },
    ]);
  });
});

describe('how something grows, as a value', () => {
  it('goes from one to the other where both have the same points, and changes at the keyframe else', () => {
    const from = { points: [growthPoint([0, 0], true)], strokes: [] };
    const to = { points: [{ ...growthPoint([10, 20], true), wait: 8 }], strokes: [] };
    expect(growth.mix(from, to, 0.5).points[0]).toEqual({ at: [5, 10], root: true, wait: 4, pace: 1 });
    const other = { points: [growthPoint([10, 20], false)], strokes: [] };
    expect(growth.mix(from, other, 0.5)).toBe(from);
  });
});
