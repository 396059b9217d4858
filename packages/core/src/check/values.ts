/** What values of parameters, keyframes and eases must be; built from the descriptions of the parameters. */
import * as yup from 'yup';
import { isColor } from '../document/fitting';
import { CUT_LIMITS, EASE_LIMITS, LIMITS } from '../document/limits';
import { FAR, MOST_STOPS, MOST_VERTICES, type Param, type Params } from '../document/params';
import { BEYOND, type DrawnPoint } from '../document/types';
import { partParam } from '../motion/apart';
import { EASES } from '../motion/eases/table';
import { shown } from './problem';
import {
  between,
  colorRule,
  flag,
  isId,
  isNumber,
  isObject,
  isPoint,
  isText,
  object,
  oneOf,
  type Rule,
  rule,
  whole,
} from './rules';

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
  isText(v.family) &&
  v.family.length >= 1 &&
  v.family.length <= LIMITS.name &&
  isNumber(v.weight) &&
  v.weight >= 1 &&
  v.weight <= 1000 &&
  typeof v.italic === 'boolean';

const isWithin = (v: unknown) => isNumber(v) && Math.abs(v) <= FAR;
const isCut = (v: unknown): boolean =>
  isObject(v) &&
  Object.keys(v).sort().join() === 'grow,seeds,soften,strokes' &&
  isNumber(v.grow) &&
  v.grow >= CUT_LIMITS.grow[0] &&
  v.grow <= CUT_LIMITS.grow[1] &&
  isNumber(v.soften) &&
  v.soften >= CUT_LIMITS.soften[0] &&
  v.soften <= CUT_LIMITS.soften[1] &&
  Array.isArray(v.seeds) &&
  v.seeds.length <= LIMITS.cutSeeds &&
  v.seeds.every(
    (s) => isObject(s) && [s.x, s.y].every(isWithin) && isNumber(s.tolerance) && s.tolerance >= 0 && s.tolerance <= 1,
  ) &&
  Array.isArray(v.strokes) &&
  v.strokes.length <= LIMITS.cutSeeds &&
  v.strokes.every(
    (s) =>
      isObject(s) &&
      typeof s.keep === 'boolean' &&
      isNumber(s.size) &&
      s.size >= CUT_LIMITS.brush[0] &&
      s.size <= CUT_LIMITS.brush[1] &&
      Array.isArray(s.points) &&
      s.points.length <= LIMITS.cutPoints &&
      s.points.every((p) => isPoint(p, FAR)),
  );

/** An address that a click may open: http or https only. */
const isAddress = (v: unknown): boolean => {
  if (typeof v !== 'string' || v.length > 2_000) return false;
  // A host, with its port, and no name or password before it (RFC 3986, 3.2).
  const [, authority] = /^https?:\/\/([^/?#\s"'<>\\]+)[^\s"'<>\\]*$/i.exec(v) ?? [];
  return authority !== undefined && /^([\p{L}\p{N}._~-]+|\[[0-9a-f:.]+\])(:\d{1,5})?$/iu.test(authority);
};

/** None yet, or the id of one. */
const linkRule = rule('an id, or nothing', (v) => v === '' || isId(v));

/** What a value of a parameter must be. */
export const valueRule = (param: Param): Rule => {
  switch (param.kind) {
    case 'number':
      return param.whole ? whole(param.min, param.max) : between(param.min, param.max);
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
      if (param.form === 'address') {
        return rule(
          'an address of a page: https:// or http://, a host, and no password; or nothing',
          (v) => v === '' || (isText(v) && isAddress(v)),
        );
      }
      return rule(
        `a text of at most ${param.most} characters${param.lines === 'one' ? ' in one line' : ''}`,
        (v) => isText(v) && v.length <= param.most && (param.lines === 'many' || !/[\n\r]/.test(v)),
      );
    case 'font':
      return rule('a font: family, weight 1 to 1000 and italic', isFont);
    case 'choice':
      return oneOf(param.choices.map((c) => c.value));
    case 'asset':
    case 'scene':
      return linkRule;
    case 'cutout':
      return rule('a cut: seeds, grow, soften and strokes', isCut);
  }
};

const drawnRule = rule(
  `at most ${EASE_LIMITS.points} points in rising order between 0 and 1, each with x, y and corner`,
  (v) =>
    Array.isArray(v) &&
    v.length <= EASE_LIMITS.points &&
    v.every(
      (p, i) =>
        isObject(p) &&
        Object.keys(p).length === 3 &&
        isNumber(p.x) &&
        p.x > (i === 0 ? 0 : (v[i - 1] as DrawnPoint).x) &&
        p.x < 1 &&
        isNumber(p.y) &&
        p.y >= EASE_LIMITS.y[0] &&
        p.y <= EASE_LIMITS.y[1] &&
        typeof p.corner === 'boolean',
    ),
);

export const easeRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? value.kind : undefined;
  if (kind === 'bezier') {
    return object({
      kind: oneOf(['bezier']),
      x1: between(0, 1),
      y1: between(...EASE_LIMITS.y),
      x2: between(0, 1),
      y2: between(...EASE_LIMITS.y),
    });
  }
  if (kind === 'steps') {
    return object({
      kind: oneOf(['steps']),
      count: whole(...EASE_LIMITS.steps),
      jump: oneOf(['start', 'end', 'both', 'none']),
    });
  }
  if (kind === 'spring')
    return object({ kind: oneOf(['spring']), bounces: whole(...EASE_LIMITS.bounces), damping: between(0, 1) });
  if (kind === 'bounce')
    return object({
      kind: oneOf(['bounce']),
      bounces: whole(...EASE_LIMITS.bounces),
      height: between(...EASE_LIMITS.height),
    });
  if (kind === 'drawn') return object({ kind: oneOf(['drawn']), points: drawnRule });
  return object({ kind: oneOf(Object.keys(EASES)) });
});

const beyondRule = rule(`one of ${BEYOND.join(', ')}`, (v) => v === undefined || BEYOND.includes(v as never));

const handlesRule = rule(
  `four numbers within ${FAR}, the way in and the way out of a point`,
  (v) => v === undefined || (Array.isArray(v) && v.length === 4 && v.every((x) => isNumber(x) && Math.abs(x) <= FAR)),
);
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
  const still = object({ value: valueRule(param) });
  const keyed = object({
    keys: yup
      .array(
        object({
          frame: whole(-LIMITS.frame, LIMITS.frame),
          value: valueRule(param),
          ease: easeRule as unknown as Rule,
          ...(param.kind === 'point' && { handles: handlesRule }),
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

const rulesOfParams = new WeakMap<Params, Map<string, (value: unknown) => Rule>>();

/** Any of a table's parameters, each of which may be missing. */
export const propertiesRule = (params: Params) => {
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
