import { FORMATS, type RenderSettings } from '../delivery/formats/table';
import type { FormatKind } from '../delivery/types';
import { LIMITS } from '../document/limits';
import { fits } from './fits';
import { Invalid, shown } from './problem';
import { between, object, oneOf, rateRule, type Rule, rule, whole } from './rules';
import { valueRule } from './values';

/** A setting that is as its format or the scene has it where it is left out. */
const orLeftOut = (inner: Rule): Rule =>
  rule(`${String(inner.describe().meta?.wanted)}; may be left out`, (v) => v === undefined || inner.isValidSync(v));

const SPANS = {
  range: {
    rate: orLeftOut(rule('a rate, or null for the scene’s own', (v) => v === null || rateRule.isValidSync(v))),
    from: orLeftOut(whole(0, LIMITS.length)),
    to: orLeftOut(whole(1, LIMITS.length)),
  },
  frame: { frame: orLeftOut(whole(0, LIMITS.length)) },
};

const settingsRule = ({ format, span, params }: FormatKind): Rule =>
  object({
    format: oneOf([format]),
    scale: orLeftOut(between(0.01, 8)),
    ...SPANS[span],
    ...Object.fromEntries(Object.entries(params).map(([key, param]) => [key, orLeftOut(valueRule(param))])),
  });

const RULES: ReadonlyMap<string, Rule> = new Map(FORMATS.map((kind) => [kind.format, settingsRule(kind)]));

/** The rules of settings, by format. */
export const settingRules = (): ReadonlyMap<string, Rule> => RULES;

/** The rule of settings by the format that they name. */
export const settingsRuleFor = (value: unknown): Rule => {
  const format = (value as { format?: unknown } | null)?.format;
  const known = typeof format === 'string' ? RULES.get(format) : undefined;
  return known ?? rule(`settings of a format, one of ${[...RULES.keys()].join(', ')}`, () => false);
};

/** The value as settings of a render, or Invalid. */
export const checkSettings = (value: unknown): RenderSettings => {
  const format = (value as { format?: unknown } | null)?.format;
  if (typeof format !== 'string' || !RULES.has(format)) {
    throw new Invalid(`format: got ${shown(format)}, wanted one of ${[...RULES.keys()].join(', ')}`, 'format');
  }
  fits(settingsRuleFor(value), value);
  return value as RenderSettings;
};
