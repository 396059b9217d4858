/** What something grows from, and what it follows. */
import { tenths, tenthsOf } from '../document/fitting';
import { LIMITS } from '../document/limits';
import type { GrowthPoint, GrowthValue, GuideStroke, Point } from '../document/types';
import { flattened } from '../geometry/flatten';
import type { Middle } from '../geometry/middle';
import { smoothThrough } from '../geometry/outline';
import { simplifiedTo } from '../geometry/simplify';

/** How far a stroke that is kept may lie from the one that was drawn, in its own pixels. */
const TOLERANCE = 0.75;

/** A stroke as it was drawn: x, y and milliseconds of each point. */
export type DrawnStroke = readonly (readonly [x: number, y: number, time: number])[];

const lengthOf = (stroke: DrawnStroke): number =>
  stroke.reduce((sum, [x, y], i) => (i === 0 ? 0 : sum + Math.hypot(x - stroke[i - 1]![0], y - stroke[i - 1]![1])), 0);

/** A stroke with as few points as say where it went and how fast; `least` is as fine as the hand that drew it. */
export const keptStroke = (drawn: DrawnStroke, least = TOLERANCE): GuideStroke => {
  const first = drawn[0]?.[2] ?? 0;
  const whole = (drawn.at(-1)?.[2] ?? 0) - first;
  // Times count as the pixels that it went in them, on the whole; four times as roughly.
  const by = whole > 0 ? lengthOf(drawn) / whole / 4 : 0;
  const points = drawn.map(([x, y, time]) => [x, y, Math.max(0, time - first) * by] as const);
  const kept = simplifiedTo(points, least, LIMITS.strokePoints);
  return kept.flatMap(([x, y, along]) => [tenths(x), tenths(y), by > 0 ? Math.round(along / by) : 0]);
};

/** Strokes along the middle lines of a shape, all as fast. */
export const strokesAlong = ({ strokes }: Middle): readonly GuideStroke[] =>
  strokes.slice(0, LIMITS.growthStrokes).map(({ points, closed }) => {
    let along = 0;
    const line = flattened(smoothThrough(points, closed));
    const all = closed ? [...line, line[0] as Point] : line;
    return keptStroke(
      all.map(([x, y], i) => {
        const [px, py] = all[Math.max(0, i - 1)] as Point;
        along += Math.hypot(x - px, y - py);
        return [x, y, along];
      }),
    );
  });

/** A point where it grows from, or waits. */
export const growthPoint = (at: Point, root: boolean): GrowthPoint => ({
  at: tenthsOf(at),
  root,
  wait: root ? 0 : FIRST_WAIT,
  pace: 1,
});
/** Pixels that a new place to wait at has it wait. */
const FIRST_WAIT = 50;

/** The list with one of its entries another, or gone. */
const withOne = <T>(list: readonly T[], i: number, entry: T | null): readonly T[] =>
  list.flatMap((own, k) => (k === i ? (entry === null ? [] : [entry]) : [own]));

export const withPoint = (value: GrowthValue, i: number, point: GrowthPoint | null): GrowthValue => ({
  ...value,
  points: withOne(value.points, i, point),
});
export const withStroke = (value: GrowthValue, i: number, stroke: GuideStroke | null): GrowthValue => ({
  ...value,
  strokes: withOne(value.strokes, i, stroke),
});
/** The strokes with one of them so many places later. */
export const strokeLater = (value: GrowthValue, i: number, by: number): GrowthValue => {
  const rest = value.strokes.toSpliced(i, 1);
  return { ...value, strokes: rest.toSpliced(Math.max(0, i + by), 0, value.strokes[i] as GuideStroke) };
};
