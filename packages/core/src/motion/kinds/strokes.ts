import { clamped, each, wholeWithin, withFields } from '../../document/fitting';
import { isColor, isNumber, isObject } from '../../document/is';
import { BRUSH_LIMITS, BRUSH_TIPS, LIMITS } from '../../document/limits';
import { FAR } from '../../document/params';
import { type Kind, step } from './types';

type Limits = readonly [number, number];
const within = (v: unknown, [min, max]: Limits): boolean => isNumber(v) && v >= min && v <= max;
/** Numbers of one point of a stroke: x, y, and how hard it was pressed. */
const FIELDS = 3;
const limitsOf = (i: number): Limits => (i % FIELDS === 2 ? [0, 1] : [-FAR, FAR]);

const OPTIONAL = ['opacity', 'seed'];

const isStroke = (s: unknown): boolean =>
  isObject(s) &&
  Object.keys(s)
    .filter((key) => !OPTIONAL.includes(key))
    .sort()
    .join() === 'color,erases,points,size,taper,thins,tip' &&
  Array.isArray(s.points) &&
  s.points.length >= FIELDS &&
  s.points.length % FIELDS === 0 &&
  s.points.length <= FIELDS * LIMITS.strokePoints &&
  s.points.every((x, i) => within(x, limitsOf(i))) &&
  isColor(s.color) &&
  within(s.size, BRUSH_LIMITS.size) &&
  within(s.thins, BRUSH_LIMITS.thins) &&
  within(s.taper, BRUSH_LIMITS.taper) &&
  BRUSH_TIPS.some((tip) => tip === s.tip) &&
  (s.opacity === undefined || within(s.opacity, BRUSH_LIMITS.opacity)) &&
  (s.seed === undefined || (Number.isInteger(s.seed) && within(s.seed, BRUSH_LIMITS.seed))) &&
  typeof s.erases === 'boolean';

export const strokes: Kind<'strokes'> = {
  kind: 'strokes',
  wanted: () =>
    `strokes of a brush, each with points, colour, size, tip (${BRUSH_TIPS.join(', ')}), thins, taper and whether it erases`,
  is: (_param, v) => Array.isArray(v) && v.length <= LIMITS.brushStrokes && v.every(isStroke),
  fitted: (_param, value) =>
    each(value, (s) =>
      withFields(s, {
        points: each(s.points, (x, i) => clamped(x, ...limitsOf(i), 0)),
        size: clamped(s.size, ...BRUSH_LIMITS.size, 1),
        thins: clamped(s.thins, ...BRUSH_LIMITS.thins, 0),
        taper: clamped(s.taper, ...BRUSH_LIMITS.taper, 0),
        ...(s.opacity !== undefined && { opacity: clamped(s.opacity, ...BRUSH_LIMITS.opacity, 1) }),
        ...(s.seed !== undefined && { seed: wholeWithin(s.seed, ...BRUSH_LIMITS.seed) }),
      }),
    ),
  excess: (value) => {
    if (value.length > LIMITS.brushStrokes) return { owner: 'A brush', most: LIMITS.brushStrokes, what: 'strokes' };
    if (value.every(({ points }) => points.length <= FIELDS * LIMITS.strokePoints)) return null;
    return { owner: 'A stroke of a brush', most: LIMITS.strokePoints, what: 'points' };
  },
  mix: step,
  says: (_param, value) => `${value.length} stroke${value.length === 1 ? '' : 's'}`,
};
