import { isNumber, isObject, isPoint } from '../../document/is';
import { clamped, each, withFields } from '../../document/fitting';
import { CUT_LIMITS, LIMITS } from '../../document/limits';
import { FAR, isUncut } from '../../document/params';
import type { Point } from '../../document/types';
import { type Kind, step } from './types';

type Limits = readonly [number, number];
const within = (v: unknown, [min, max]: Limits): boolean => isNumber(v) && v >= min && v <= max;

const isSeed = (s: unknown): boolean =>
  isObject(s) && [s.x, s.y].every((x) => within(x, [-FAR, FAR])) && within(s.tolerance, [0, 1]);

const isStroke = (s: unknown): boolean =>
  isObject(s) &&
  typeof s.keep === 'boolean' &&
  within(s.size, CUT_LIMITS.brush) &&
  Array.isArray(s.points) &&
  s.points.length <= LIMITS.cutPoints &&
  s.points.every((p) => isPoint(p, FAR));

const place = (x: number) => clamped(x, -FAR, FAR, 0);

export const cutout: Kind<'cutout'> = {
  kind: 'cutout',
  wanted: () => 'a cut: seeds, grow, soften and strokes',
  is: (_param, v) =>
    isObject(v) &&
    Object.keys(v).sort().join() === 'grow,seeds,soften,strokes' &&
    within(v.grow, CUT_LIMITS.grow) &&
    within(v.soften, CUT_LIMITS.soften) &&
    [v.seeds, v.strokes].every((list) => Array.isArray(list) && list.length <= LIMITS.cutSeeds) &&
    (v.seeds as readonly unknown[]).every(isSeed) &&
    (v.strokes as readonly unknown[]).every(isStroke),
  fitted: (_param, cut) =>
    withFields(cut, {
      grow: clamped(cut.grow, ...CUT_LIMITS.grow, 0),
      soften: clamped(cut.soften, ...CUT_LIMITS.soften, 0),
      seeds: each(cut.seeds, (s) =>
        withFields(s, { x: place(s.x), y: place(s.y), tolerance: clamped(s.tolerance, 0, 1, 0) }),
      ),
      strokes: each(cut.strokes, (s) =>
        withFields(s, {
          size: clamped(s.size, ...CUT_LIMITS.brush, 1),
          points: each(s.points, (p) => each(p, place) as Point),
        }),
      ),
    }),
  excess: ({ seeds, strokes }) => {
    const owner = 'A cut-out';
    if (seeds.length > LIMITS.cutSeeds) return { owner, most: LIMITS.cutSeeds, what: 'clicks' };
    if (strokes.length > LIMITS.cutSeeds) return { owner, most: LIMITS.cutSeeds, what: 'strokes' };
    if (strokes.every(({ points }) => points.length <= LIMITS.cutPoints)) return null;
    return { owner: 'A stroke of a cut-out', most: LIMITS.cutPoints, what: 'points' };
  },
  mix: step,
  says: (_param, v) => (isUncut(v) ? 'whole' : 'cut out'),
};
