/** What values of parameters, keyframes and eases must be; built from the descriptions of the parameters. */
import { remembered } from '../document/remembered';
import * as yup from 'yup';
import { isNumber, isObject } from '../document/is';
import { LIMITS } from '../document/limits';
import { FAR, type Param, type Params } from '../document/params';
import { BEYOND } from '../document/types';
import { partParam } from '../motion/apart';
import { EASES } from '../motion/eases/table';
import type { Setting } from '../motion/eases/types';
import { kindOfValue } from '../motion/kinds/table';
import { shown } from './problem';
import { object, oneOf, type Rule, rule, whole } from './rules';

/** What a value of a parameter must be. */
export const valueRule = (param: Param): Rule => {
  const { wanted, is } = kindOfValue(param.kind);
  return rule(wanted(param), (v) => is(param, v));
};

const easeRules = Object.fromEntries(
  Object.entries(EASES).map(([kind, { settings }]) => {
    const rules = Object.entries(settings as Record<string, Setting>).map(([key, s]) => [key, rule(s.wanted, s.is)]);
    return [kind, object({ kind: oneOf([kind]), ...(Object.fromEntries(rules) as Record<string, Rule>) })];
  }),
);
const noEase = object({ kind: oneOf(Object.keys(EASES)) });

export const easeRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  return (Object.hasOwn(easeRules, String(kind)) ? easeRules[String(kind)] : undefined) ?? noEase;
});

const beyondRule = rule(`one of ${BEYOND.join(', ')}`, (v) => v === undefined || BEYOND.includes(v as never));

const handlesRule = rule(
  `four numbers within ${FAR}, the way in and the way out of a point`,
  (v) => v === undefined || (Array.isArray(v) && v.length === 4 && v.every((x) => isNumber(x) && Math.abs(x) <= FAR)),
);
const swatchRule = rule('the id of a swatch, or left out', (v) => v === undefined || typeof v === 'string');
const evenRule = rule('true, or left out', (v) => v === undefined || v === true);

/** NaN for what is no keyframe at all: it is above nothing. */
const frameOf = (key: unknown): number => {
  const frame = (key as { frame?: unknown } | null | undefined)?.frame;
  return isNumber(frame) ? frame : NaN;
};

const rising = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length >= 1 &&
  v.length <= LIMITS.keys &&
  v.every((key, i) => i === 0 || frameOf(key) > frameOf(v[i - 1]));

const curveRule = (param: Param): ((value: unknown) => Rule) => {
  const dyed = param.kind === 'color' && { swatch: swatchRule };
  const still = object({ value: valueRule(param), ...dyed });
  const keyed = object({
    keys: yup
      .array(
        object({
          frame: whole(-LIMITS.frame, LIMITS.frame),
          value: valueRule(param),
          ease: easeRule as unknown as Rule,
          ...(param.kind === 'point' && { handles: handlesRule }),
          ...dyed,
        }),
      )
      .strict()
      .test(
        'rising',
        ({ path, value }) =>
          `${path}: got ${shown(value)}, wanted 1 to ${LIMITS.keys} keyframes in rising order of frame`,
        rising,
      ) as unknown as Rule,
    before: beyondRule,
    after: beyondRule,
    ...(param.kind === 'point' && { even: evenRule }),
  });
  return (value) => (isObject(value) && 'keys' in value ? keyed : still);
};

const propertyRule = (param: Param): ((value: unknown) => Rule) => {
  const whole = curveRule(param);
  if (param.kind !== 'point') return whole;
  const parts = [curveRule(partParam(param, 0)), curveRule(partParam(param, 1))] as const;
  return (value) => {
    if (!isObject(value) || !('parts' in value)) return whole(value);
    const given: readonly unknown[] = Array.isArray(value.parts) ? value.parts : [];
    if (given.length !== 2) return object({ parts: rule('two parts, x and y', () => false) });
    const both = yup.tuple([parts[0](given[0]), parts[1](given[1])] as unknown as [yup.AnySchema, yup.AnySchema]);
    return object({ parts: both.strict().required() as unknown as Rule });
  };
};

const rulesOf = remembered(
  (params: Params) => new Map(Object.entries(params).map(([key, param]) => [key, propertyRule(param)])),
);

/** Any of a table's parameters, each of which may be missing. */
export const propertiesRule = (params: Params) => {
  const known = rulesOf(params);
  return yup.lazy((value: unknown) => {
    if (!isObject(value)) return rule('an object', () => false);
    const fields: Record<string, Rule> = {};
    for (const key of Object.keys(value)) {
      const of = known.get(key);
      if (of) fields[key] = of(value[key]);
    }
    return object(fields);
  });
};
