/**
 * The schema of the document, built from the descriptions of the parameters. Strict: nothing is
 * converted, nothing unknown passes. Every message names the field, what it got and the limit.
 */
import * as yup from 'yup';
import { FAR, MOST_STOPS, MOST_VERTICES, type Param, type Params, PLACE } from '../document/params';
import { BLEND_MODES, TAGS } from '../document/types';
import { KINDS, paramsOf } from '../recipe/table';
import { shown } from './problem';

export const LIMITS = {
  scenes: 200,
  layers: 2_000,
  items: 500,
  keys: 5_000,
  name: 200,
  side: 8_192,
  length: 200_000,
  frame: 1_000_000,
  rate: 240,
} as const;

type Rule = yup.Schema;

/** A test with a message of our own: `field: got ..., wanted ...`. */
export const rule = (wanted: string, fits: (value: unknown) => boolean): Rule =>
  yup
    .mixed()
    .nullable()
    .test('fits', ({ path, value }) => `${path}: got ${shown(value)}, wanted ${wanted}`, fits);

const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v);
const isObject = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

export const between = (min: number, max: number) =>
  rule(`a number from ${min} to ${max}`, (v) => isNumber(v) && v >= min && v <= max);
export const whole = (min: number, max: number) =>
  rule(
    `a whole number from ${min} to ${max}`,
    (v) => Number.isInteger(v) && (v as number) >= min && (v as number) <= max,
  );
const flag = rule('true or false', (v) => typeof v === 'boolean');
export const oneOf = (values: readonly string[]) =>
  rule(`one of ${values.join(', ')}`, (v) => values.includes(v as string));

const HEX = /^#([0-9a-f]{6}|[0-9a-f]{8})$/i;
const isColor = (v: unknown) => typeof v === 'string' && HEX.test(v);
const colorRule = rule('a colour such as #1B1F4B or #1B1F4BCC', isColor);

const ID = /^[A-Za-z0-9_-]{1,64}$/;
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);
const isId = (v: unknown) => typeof v === 'string' && ID.test(v) && !RESERVED.has(v);
const idRule = rule('an id of 1 to 64 letters, digits, - or _', isId);
export const nameRule = rule(
  `a text of 1 to ${LIMITS.name} characters`,
  (v) => typeof v === 'string' && v.trim().length > 0 && v.length <= LIMITS.name,
);
const ids = (most: number) =>
  rule(
    `a list of at most ${most} ids, each once`,
    (v) => Array.isArray(v) && v.length <= most && v.every(isId) && new Set(v).size === v.length,
  );

const isPoint = (v: unknown, limit: number) =>
  Array.isArray(v) && v.length === 2 && v.every((x) => isNumber(x) && Math.abs(x) <= limit);

const isGradient = (v: unknown): boolean =>
  isObject(v) &&
  Object.keys(v).length === 1 &&
  Array.isArray(v.stops) &&
  v.stops.length >= 2 &&
  v.stops.length <= MOST_STOPS &&
  v.stops.every(
    (s, i, all) =>
      isObject(s) &&
      isNumber(s.at) &&
      s.at >= 0 &&
      s.at <= 1 &&
      isColor(s.color) &&
      (i === 0 || s.at >= (all[i - 1] as { at: number }).at),
  );

const isPath = (v: unknown): boolean =>
  isObject(v) &&
  typeof v.closed === 'boolean' &&
  Array.isArray(v.vertices) &&
  v.vertices.length <= MOST_VERTICES &&
  v.vertices.every((p) => Array.isArray(p) && p.length === 6 && p.every((x) => isNumber(x) && Math.abs(x) <= FAR));

/** What a value of a parameter must be. */
export const valueRule = (param: Param): Rule => {
  switch (param.kind) {
    case 'number':
      return between(param.min, param.max);
    case 'point':
      return rule(`two numbers from ${-param.limit} to ${param.limit}`, (v) => isPoint(v, param.limit));
    case 'color':
      return colorRule;
    case 'gradient':
      return rule(`2 to ${MOST_STOPS} colour stops in rising order from 0 to 1`, isGradient);
    case 'path':
      return rule(`a path of at most ${MOST_VERTICES} vertices, each six numbers within ${FAR}`, isPath);
    case 'numbers':
      return rule(
        `at most ${param.most} numbers from ${param.min} to ${param.max}`,
        (v) =>
          Array.isArray(v) && v.length <= param.most && v.every((x) => isNumber(x) && x >= param.min && x <= param.max),
      );
    case 'switch':
      return flag;
    case 'choice':
      return oneOf(param.choices.map((c) => c.value));
  }
};

export const object = (fields: Record<string, Rule | yup.Lazy<unknown>>): yup.ObjectSchema<yup.AnyObject> =>
  yup
    .object(fields as Record<string, Rule>)
    .strict()
    .required(({ path, value }) => `${path}: got ${shown(value)}, wanted an object`)
    .typeError(({ path, value }) => `${path}: got ${shown(value)}, wanted an object`)
    .noUnknown(
      ({ path, unknown }: { path: string; unknown: string }) =>
        `${path || 'the project'}: has unknown fields: ${unknown}`,
    ) as yup.ObjectSchema<yup.AnyObject>;

/** A map by id, all of whose values fit one rule. */
const mapOf = (inner: (value: unknown) => Rule, most: number) =>
  yup.lazy((value: unknown) => {
    if (!isObject(value)) return rule('an object', () => false);
    const keys = Object.keys(value);
    if (keys.length > most) return rule(`at most ${most} entries`, () => false);
    const bad = keys.find((k) => !isId(k));
    if (bad !== undefined) return rule(`ids for keys, not "${bad.slice(0, 40)}"`, () => false);
    return object(Object.fromEntries(keys.map((k) => [k, inner(value[k])])));
  });

const easeRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  if (kind === 'bezier') {
    return object({
      kind: oneOf(['bezier']),
      x1: between(0, 1),
      y1: between(-100, 100),
      x2: between(0, 1),
      y2: between(-100, 100),
    });
  }
  return object({ kind: oneOf(['linear', 'hold', 'bezier']) });
});

const beyondRule = rule('one of hold, cycle, pingpong, continue', (v) =>
  [undefined, 'hold', 'cycle', 'pingpong', 'continue'].includes(v as string | undefined),
);

const rising = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length >= 1 &&
  v.length <= LIMITS.keys &&
  v.every((k, i) => i === 0 || (k as { frame: number })?.frame > (v[i - 1] as { frame: number })?.frame);

const propertyRule = (param: Param): ((value: unknown) => Rule) => {
  const still = object({ value: valueRule(param) });
  const keyed = object({
    keys: yup
      .array(
        object({
          frame: whole(-LIMITS.frame, LIMITS.frame),
          value: valueRule(param),
          ease: easeRule as unknown as Rule,
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
  });
  return (value) => (isObject(value) && 'keys' in value ? keyed : still);
};

const rulesOfParams = new WeakMap<Params, Map<string, (value: unknown) => Rule>>();

/** Any of a table's parameters, each of which may be missing. */
const propertiesRule = (params: Params) => {
  let rules = rulesOfParams.get(params);
  if (!rules) {
    rules = new Map(Object.entries(params).map(([key, param]) => [key, propertyRule(param)]));
    rulesOfParams.set(params, rules);
  }
  const known = rules;
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

const itemRule = (value: unknown): Rule => {
  const kind = isObject(value) ? value.kind : undefined;
  const fields: Record<string, Rule | yup.Lazy<unknown>> = {
    id: idRule,
    kind: oneOf([...KINDS.keys()]),
    on: flag,
    params: rule('an object', isObject),
  };
  if (typeof kind === 'string' && KINDS.has(kind)) fields.params = propertiesRule(paramsOf(kind));
  if (kind === 'group') fields.children = ids(LIMITS.items);
  if (isObject(value) && 'name' in value) fields.name = nameRule;
  return object(fields);
};

const layerFields = {
  id: idRule,
  name: nameRule,
  from: whole(-LIMITS.frame, LIMITS.frame),
  to: whole(-LIMITS.frame, LIMITS.frame),
  locked: flag,
  hidden: flag,
  tag: oneOf(TAGS),
  parent: rule('an id or null', (v) => v === null || isId(v)),
  blend: oneOf(BLEND_MODES),
  params: propertiesRule(PLACE),
};

export const layerRule = (value: unknown): Rule => {
  if (isObject(value) && value.kind === 'controller') {
    return object({ ...layerFields, kind: oneOf(['controller']) });
  }
  return object({
    ...layerFields,
    kind: oneOf(['drawing', 'controller']),
    items: mapOf(itemRule, LIMITS.items),
    recipe: ids(LIMITS.items),
  });
};

export const rateRule = rule(
  `a fraction of whole numbers, 1 to ${LIMITS.rate} frames per second`,
  (v) =>
    isObject(v) &&
    Object.keys(v).length === 2 &&
    [v.num, v.den].every((n) => Number.isInteger(n) && (n as number) > 0 && (n as number) <= 1_000_000) &&
    (v.num as number) / (v.den as number) <= LIMITS.rate &&
    (v.num as number) / (v.den as number) >= 1,
);

/** The fields of a scene's own, which the door for new projects checks too. */
export const SCENE_SIZE = {
  width: whole(1, LIMITS.side),
  height: whole(1, LIMITS.side),
  rate: rateRule,
  length: whole(1, LIMITS.length),
  background: rule('a colour such as #1B1F4B, or null', (v) => v === null || isColor(v)),
};

/** A scene but for what its layers hold, which is checked layer by layer. */
export const sceneRule = object({
  id: idRule,
  name: nameRule,
  ...SCENE_SIZE,
  layers: rule(
    `an object of at most ${LIMITS.layers} layers`,
    (v) => isObject(v) && Object.keys(v).length <= LIMITS.layers,
  ),
  order: ids(LIMITS.layers),
  poster: whole(0, LIMITS.length),
});

export const projectRule = object({
  version: whole(1, 1_000_000),
  id: idRule,
  name: nameRule,
  scenes: rule(
    `an object of at most ${LIMITS.scenes} scenes`,
    (v) => isObject(v) && Object.keys(v).length <= LIMITS.scenes,
  ),
  order: ids(LIMITS.scenes),
});

export const sizeRule = object(SCENE_SIZE);
