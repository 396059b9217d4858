/** Rules that fields of a document are checked by. Every message names the field, what it got and what was wanted. */
import * as yup from 'yup';
import { isColor, isId, isNumber, isObject, isText } from '../document/is';
import { LIMITS } from '../document/limits';
import { isSound } from '../document/text';
import { shown } from './problem';

export type Rule = yup.Schema;

/** A test with a message of our own: `field: got ..., wanted ...`; what is wanted is kept for the docs. */
export const rule = (wanted: string, fits: (value: unknown) => boolean): Rule =>
  yup
    .mixed()
    .nullable()
    .meta({ wanted })
    .test('fits', ({ path, value }) => `${path}: got ${shown(value)}, wanted ${wanted}`, fits);

export const between = (min: number, max: number) =>
  rule(`a number from ${min} to ${max}`, (v) => isNumber(v) && v >= min && v <= max);
export const whole = (min: number, max: number) =>
  rule(
    `a whole number from ${min} to ${max}`,
    (v) => Number.isInteger(v) && (v as number) >= min && (v as number) <= max,
  );
/** A field that may be missing. */
export const maybeBetween = (min: number, max: number) =>
  rule(`a number from ${min} to ${max}, or nothing`, (v) => v === undefined || (isNumber(v) && v >= min && v <= max));
export const flag = rule('true or false', (v) => typeof v === 'boolean');
export const oneOf = (values: readonly string[]) =>
  rule(`one of ${values.join(', ')}`, (v) => values.includes(v as string));

export const colorRule = rule('a colour such as #1B1F4B or #1B1F4BCC', isColor);

export const idRule = rule('an id of 1 to 64 letters, digits, - or _', isId);
export const maybeIdRule = rule(
  'an id of 1 to 64 letters, digits, - or _, or nothing',
  (v) => v === undefined || isId(v),
);
/** Whether every text in a value is one that can be kept. */
export const areSound = (v: unknown): boolean => {
  if (typeof v === 'string') return isSound(v);
  if (!v || typeof v !== 'object') return true;
  return Object.entries(v).every(([key, inner]) => isSound(key) && areSound(inner));
};

export const nameRule = rule(
  `a text of 1 to ${LIMITS.name} whole characters`,
  (v) => isText(v) && v.trim().length > 0 && v.length <= LIMITS.name,
);
const areIds = (v: unknown, most: number): boolean =>
  Array.isArray(v) && v.length <= most && v.every(isId) && new Set(v).size === v.length;
export const ids = (most: number) => rule(`a list of at most ${most} ids, each once`, (v) => areIds(v, most));
export const maybeIds = (most: number) =>
  rule(`a list of at most ${most} ids, each once, or nothing`, (v) => v === undefined || areIds(v, most));

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

/** Frames a second. */
export const rateRule = rule(
  `a fraction of whole numbers, 1 to ${LIMITS.rate} frames per second`,
  (v) =>
    isObject(v) &&
    Object.keys(v).length === 2 &&
    [v.num, v.den].every((n) => Number.isInteger(n) && (n as number) > 0 && (n as number) <= 1_000_000) &&
    (v.num as number) / (v.den as number) <= LIMITS.rate &&
    (v.num as number) / (v.den as number) >= 1,
);

/** A map by id, all of whose values fit one rule. */
export const mapOf = (inner: (value: unknown) => Rule, most: number) =>
  yup.lazy((value: unknown) => {
    if (!isObject(value)) return rule('an object', () => false);
    const keys = Object.keys(value);
    if (keys.length > most) return rule(`at most ${most} entries`, () => false);
    const bad = keys.find((k) => !isId(k));
    if (bad !== undefined) return rule(`ids for keys, not "${bad.slice(0, 40)}"`, () => false);
    return object(Object.fromEntries(keys.map((k) => [k, inner(value[k])])));
  });

/** A list of at most so many entries that fit one rule. */
export const list = (entry: Rule, most: number): Rule =>
  yup.array(entry).strict().max(most).required() as unknown as Rule;
