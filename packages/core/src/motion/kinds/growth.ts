import { clamped, each, withFields } from '../../document/fitting';
import { isNumber, isObject, isPoint } from '../../document/is';
import { GROWTH_LIMITS, LIMITS } from '../../document/limits';
import { FAR } from '../../document/params';
import type { GrowthPoint, GrowthValue, GuideStroke, Point } from '../../document/types';
import { type Kind, lerp } from './types';

const { wait: WAIT, pace: PACE } = GROWTH_LIMITS;
/** Milliseconds after which a stroke is over at the latest. */
const LONGEST = 3_600_000;
/** Numbers of one point of a stroke. */
const FIELDS = 3;

type Limits = readonly [number, number];
const within = (v: unknown, [min, max]: Limits): boolean => isNumber(v) && v >= min && v <= max;

const isGrowthPoint = (p: unknown): boolean =>
  isObject(p) &&
  Object.keys(p).sort().join() === 'at,pace,root,wait' &&
  isPoint(p.at, FAR) &&
  typeof p.root === 'boolean' &&
  within(p.wait, WAIT) &&
  within(p.pace, PACE);

const isStroke = (s: unknown): boolean =>
  Array.isArray(s) &&
  s.length >= FIELDS &&
  s.length % FIELDS === 0 &&
  s.length <= FIELDS * LIMITS.strokePoints &&
  s.every((x, i) => within(x, i % FIELDS === 2 ? [0, LONGEST] : [-FAR, FAR]));

const fittedPoint = (p: GrowthPoint): GrowthPoint =>
  withFields(p, {
    at: each(p.at, (x) => clamped(x, -FAR, FAR, 0)) as Point,
    wait: clamped(p.wait, ...WAIT, 0),
    pace: clamped(p.pace, ...PACE, 1),
  });
const fittedStroke = (s: GuideStroke): GuideStroke =>
  each(s, (x, i) => (i % FIELDS === 2 ? clamped(x, 0, LONGEST, 0) : clamped(x, -FAR, FAR, 0)));

/** Whether the points of both mean the same, one by one. */
const areAlike = (a: GrowthValue, b: GrowthValue): boolean =>
  a.points.length === b.points.length && a.points.every(({ root }, i) => root === b.points[i]?.root);

const between = (p: GrowthPoint, q: GrowthPoint, t: number): GrowthPoint => ({
  root: p.root,
  at: [lerp(p.at[0], q.at[0], t), lerp(p.at[1], q.at[1], t)],
  wait: clamped(lerp(p.wait, q.wait, t), ...WAIT, 0),
  pace: clamped(lerp(p.pace, q.pace, t), ...PACE, 1),
});

const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

export const growth: Kind<'growth'> = {
  kind: 'growth',
  wanted: () => 'points that something grows from or waits at, and strokes that it follows',
  is: (_param, v) =>
    isObject(v) &&
    Object.keys(v).sort().join() === 'points,strokes' &&
    Array.isArray(v.points) &&
    v.points.length <= LIMITS.growthPoints &&
    v.points.every(isGrowthPoint) &&
    Array.isArray(v.strokes) &&
    v.strokes.length <= LIMITS.growthStrokes &&
    v.strokes.every(isStroke),
  fitted: (_param, value) =>
    withFields(value, { points: each(value.points, fittedPoint), strokes: each(value.strokes, fittedStroke) }),
  excess: ({ points, strokes }) => {
    const owner = 'Growth';
    if (points.length > LIMITS.growthPoints) return { owner, most: LIMITS.growthPoints, what: 'points' };
    if (strokes.length > LIMITS.growthStrokes) return { owner, most: LIMITS.growthStrokes, what: 'strokes' };
    if (strokes.every((stroke) => stroke.length <= FIELDS * LIMITS.strokePoints)) return null;
    return { owner: 'A stroke of a growth', most: LIMITS.strokePoints, what: 'points' };
  },
  // Strokes change at the keyframe; points go along where there are as many of each sort.
  mix: (from, to, t) => {
    const now = t < 1 ? from : to;
    if (!areAlike(from, to)) return now;
    return { points: from.points.map((p, i) => between(p, to.points[i] as GrowthPoint, t)), strokes: now.strokes };
  },
  says: (_param, { points, strokes }) =>
    strokes.length > 0
      ? counted(strokes.length, 'stroke')
      : points.length > 0
        ? counted(points.length, 'point')
        : 'foot',
};
