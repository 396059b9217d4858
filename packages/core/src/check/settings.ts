import { FORMATS, type RenderSettings } from '../delivery/formats/table';
import type { FormatKind } from '../delivery/types';
import { LIMITS } from '../document/limits';
import { Invalid, shown } from './problem';
import { fits } from './project';
import { between, object, oneOf, type Rule, rule, whole } from './rules';
import { rateRule } from './schema';
import { valueRule } from './values';

const SPANS = {
  range: {
    rate: rule('a rate, or null for the scene’s own', (v) => v === null || rateRule.isValidSync(v)),
    from: whole(0, LIMITS.length),
    to: whole(1, LIMITS.length),
  },
  frame: { frame: whole(0, LIMITS.length) },
};

/** A setting that is as its format has it by default where it is left out. */
const orLeftOut = (inner: Rule): Rule =>
  rule(`${String(inner.describe().meta?.wanted)}; may be left out`, (v) => v === undefined || inner.isValidSync(v));

const settingsRule = ({ format, span, params }: FormatKind): Rule =>
  object({
    format: oneOf([format]),
    scale: between(0.01, 8),
    ...SPANS[span],
    ...Object.fromEntries(Object.entries(params).map(([key, param]) => [key, orLeftOut(valueRule(param))])),
  });

const RULES: ReadonlyMap<string, Rule> = new Map(FORMATS.map((kind) => [kind.format, settingsRule(kind)]));

/** The rules of settings, by format. */
export const settingRules = (): ReadonlyMap<string, Rule> => RULES;

/** The value as settings of a render, or Invalid. */
export const checkSettings = (value: unknown): RenderSettings => {
  const format = (value as { format?: unknown } | null)?.format;
  const wanted = typeof format === 'string' ? RULES.get(format) : undefined;
  if (!wanted) {
    throw new Invalid(`format: got ${shown(format)}, wanted one of ${[...RULES.keys()].join(', ')}`, 'format');
  }
  fits(wanted, value);
  return value as RenderSettings;
};
