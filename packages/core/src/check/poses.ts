/** What poses and their strip must be. */
import * as yup from 'yup';
import { isNumber, isObject } from '../document/is';
import { LIMITS, POSE_LIMITS } from '../document/limits';
import { areSound, flag, idRule, list, mapOf, nameRule, object, type Rule, rule, whole } from './rules';
import { easeRule } from './values';

/** Deep enough for every kind of value. */
const DEEPEST = 6;

const isValue = (v: unknown, depth = 0): boolean => {
  if (typeof v === 'boolean' || typeof v === 'string' || isNumber(v)) return true;
  return (
    typeof v === 'object' && v !== null && depth < DEEPEST && Object.values(v).every((own) => isValue(own, depth + 1))
  );
};

/** Of which kind a value has to be, its property says: a pose may be older than that. */
const valuesRule = rule(
  'an object of values',
  (v) => isObject(v) && areSound(v) && Object.values(v).every((own) => isValue(own)),
);

const posedLayerRule = () =>
  object({ own: valuesRule, parts: mapOf(() => valuesRule, LIMITS.items) as unknown as Rule });

const frame = whole(-LIMITS.frame, LIMITS.frame);

const posesRule = object({
  kept: list(
    object({ id: idRule, name: nameRule, frame, layers: mapOf(posedLayerRule, LIMITS.layers) as unknown as Rule }),
    LIMITS.poses,
  ),
  strip: object({
    from: whole(0, LIMITS.length),
    held: list(
      object({
        id: idRule,
        pose: idRule,
        hold: whole(...POSE_LIMITS.hold),
        between: whole(...POSE_LIMITS.between),
        each: whole(...POSE_LIMITS.each),
      }),
      LIMITS.held,
    ),
    ease: easeRule as unknown as Rule,
    loops: flag,
    fits: flag,
  }),
}) as unknown as Rule;

/** The poses of a scene, or nothing. */
export const maybePosesRule = yup.lazy((value: unknown) =>
  value === undefined ? rule('nothing', () => true) : posesRule,
) as unknown as Rule;
