/**
 * The schema of the document, built from the descriptions of the parameters. Strict: nothing is
 * converted, nothing unknown passes. Every message names the field, what it got and the limit.
 */
import * as yup from 'yup';
import { FAR, MOST_STOPS, MOST_VERTICES, type Param, type Params, PLACE } from '../document/params';
import { paramsOfKnob } from '../document/knobs';
import {
  BLEND_MODES,
  type DrawnPoint,
  type Knob,
  KNOB_KINDS,
  type KnobKind,
  PICTURE_TYPES,
  TAGS,
} from '../document/types';
import { EASES } from '../motion/eases/table';
import { KINDS, paramsOf } from '../recipe/table';
import { shown } from './problem';

export const LIMITS = {
  scenes: 200,
  layers: 2_000,
  items: 5_000,
  keys: 5_000,
  name: 200,
  side: 8_192,
  length: 200_000,
  frame: 1_000_000,
  rate: 240,
  assets: 2_000,
  swatches: 200,
  knobs: 100,
  guides: 200,
  /** Of a picture, along each side and in all. */
  pictureSide: 16_384,
  picturePixels: 64_000_000,
  cutSeeds: 200,
  cutPoints: 20_000,
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

const isFont = (v: unknown): boolean =>
  isObject(v) &&
  Object.keys(v).length === 3 &&
  typeof v.family === 'string' &&
  v.family.length >= 1 &&
  v.family.length <= LIMITS.name &&
  isNumber(v.weight) &&
  v.weight >= 1 &&
  v.weight <= 1000 &&
  typeof v.italic === 'boolean';

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
    case 'text':
      return rule(
        `a text of at most ${param.most} characters${param.lines === 'one' ? ' in one line' : ''}`,
        (v) => typeof v === 'string' && v.length <= param.most && (param.lines === 'many' || !/[\n\r]/.test(v)),
      );
    case 'font':
      return rule('a font: family, weight 1 to 1000 and italic', isFont);
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

const drawnRule = rule(
  'at most 200 points in rising order between 0 and 1, each with x, y and corner',
  (v) =>
    Array.isArray(v) &&
    v.length <= 200 &&
    v.every(
      (p, i) =>
        isObject(p) &&
        Object.keys(p).length === 3 &&
        isNumber(p.x) &&
        p.x > (i === 0 ? 0 : (v[i - 1] as DrawnPoint).x) &&
        p.x < 1 &&
        isNumber(p.y) &&
        Math.abs(p.y) <= 100 &&
        typeof p.corner === 'boolean',
    ),
);

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
  if (kind === 'steps') {
    return object({ kind: oneOf(['steps']), count: whole(2, 1_000), jump: oneOf(['start', 'end', 'both', 'none']) });
  }
  if (kind === 'spring') return object({ kind: oneOf(['spring']), bounces: whole(1, 50), damping: between(0, 1) });
  if (kind === 'bounce') return object({ kind: oneOf(['bounce']), bounces: whole(1, 50), height: between(0, 0.95) });
  if (kind === 'drawn') return object({ kind: oneOf(['drawn']), points: drawnRule });
  return object({ kind: oneOf(Object.keys(EASES)) });
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
  if (typeof kind === 'string' && KINDS.get(kind)?.role === 'group') fields.children = ids(LIMITS.items);
  if (isObject(value) && 'name' in value) fields.name = nameRule;
  return object(fields);
};

const layerFields = {
  id: idRule,
  name: nameRule,
  from: whole(-LIMITS.frame, LIMITS.frame),
  to: whole(-LIMITS.frame, LIMITS.frame),
  locked: flag,
  tucked: flag,
  hidden: flag,
  tag: oneOf(TAGS),
  parent: rule('an id or null', (v) => v === null || isId(v)),
  blend: oneOf(BLEND_MODES),
  params: propertiesRule(PLACE),
};

const knobRule = (value: unknown): Rule => {
  const knob = value as Knob;
  const limits = isObject(value) && isNumber(value.min) && isNumber(value.max) && value.min <= value.max;
  const known = limits && KNOB_KINDS.includes(value.kind as KnobKind);
  return object({
    id: idRule,
    name: nameRule,
    kind: oneOf(KNOB_KINDS),
    min: between(-FAR, FAR),
    max: rule('a number from the least to the greatest', () => limits),
    params: known ? (propertiesRule(paramsOfKnob(knob)) as unknown as Rule) : rule('an object', isObject),
  });
};

const isPlace = (v: unknown) => isNumber(v) && Math.abs(v) <= FAR;
const isCut = (v: unknown): boolean =>
  isObject(v) &&
  Object.keys(v).sort().join() === 'grow,seeds,soften,strokes' &&
  isNumber(v.grow) &&
  Math.abs(v.grow) <= 200 &&
  isNumber(v.soften) &&
  v.soften >= 0 &&
  v.soften <= 200 &&
  Array.isArray(v.seeds) &&
  v.seeds.length <= LIMITS.cutSeeds &&
  v.seeds.every(
    (s) => isObject(s) && [s.x, s.y].every(isPlace) && isNumber(s.tolerance) && s.tolerance >= 0 && s.tolerance <= 1,
  ) &&
  Array.isArray(v.strokes) &&
  v.strokes.length <= LIMITS.cutSeeds &&
  v.strokes.every(
    (s) =>
      isObject(s) &&
      typeof s.keep === 'boolean' &&
      isNumber(s.size) &&
      s.size > 0 &&
      s.size <= 2_000 &&
      Array.isArray(s.points) &&
      s.points.length <= LIMITS.cutPoints &&
      s.points.every((p) => isPoint(p, FAR)),
  );
const cutRule = rule('a cut: seeds, grow, soften and strokes; or null', (v) => v === null || isCut(v));

export const layerRule = (value: unknown): Rule => {
  if (isObject(value) && value.kind === 'controller') {
    return object({
      ...layerFields,
      kind: oneOf(['controller']),
      knobs: mapOf(knobRule, LIMITS.knobs),
      panel: ids(LIMITS.knobs),
    });
  }
  if (isObject(value) && value.kind === 'picture') {
    return object({ ...layerFields, kind: oneOf(['picture']), asset: idRule, cut: cutRule });
  }
  return object({
    ...layerFields,
    kind: oneOf(['drawing', 'controller', 'picture']),
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
  guides: rule(
    `guides: x and y, each a list of at most ${LIMITS.guides} places`,
    (v) =>
      isObject(v) &&
      Object.keys(v).sort().join() === 'x,y' &&
      [v.x, v.y].every((list) => Array.isArray(list) && list.length <= LIMITS.guides && list.every(isPlace)),
  ),
});

const assetFields = {
  id: idRule,
  name: nameRule,
  sha: rule('a SHA-256 in hex', (v) => typeof v === 'string' && /^[0-9a-f]{64}$/.test(v)),
  bytes: whole(1, 2 ** 31),
};

export const assetRule = (value: unknown): Rule => {
  if (isObject(value) && value.kind === 'font') {
    return object({
      ...assetFields,
      kind: oneOf(['font']),
      family: nameRule,
      weight: between(1, 1000),
      italic: flag,
      weights: rule(
        'two weights from 1 to 1000, or null',
        (v) => v === null || (Array.isArray(v) && v.length === 2 && v.every((w) => isNumber(w) && w >= 1 && w <= 1000)),
      ),
    });
  }
  return object({
    ...assetFields,
    kind: oneOf(['picture', 'font']),
    type: oneOf(PICTURE_TYPES),
    width: whole(1, LIMITS.pictureSide),
    height: whole(1, LIMITS.pictureSide),
  });
};

export const projectRule = object({
  version: whole(1, 1_000_000),
  id: idRule,
  name: nameRule,
  scenes: rule(
    `an object of at most ${LIMITS.scenes} scenes`,
    (v) => isObject(v) && Object.keys(v).length <= LIMITS.scenes,
  ),
  order: ids(LIMITS.scenes),
  assets: mapOf((value) => assetRule(value), LIMITS.assets) as unknown as Rule,
  swatches: yup
    .array(object({ id: idRule, name: nameRule, color: colorRule }))
    .strict()
    .required()
    .max(LIMITS.swatches) as unknown as Rule,
  eases: yup
    .array(object({ id: idRule, name: nameRule, ease: easeRule as unknown as Rule }))
    .strict()
    .required()
    .max(LIMITS.swatches) as unknown as Rule,
});

export const sizeRule = object(SCENE_SIZE);
