import type { RenderSettings } from '../delivery/settings';
import { Invalid, shown } from './problem';
import { fits } from './project';
import { LIMITS } from '../document/limits';
import { between, object, oneOf, rule, whole } from './rules';
import { rateRule } from './schema';

const range = {
  scale: between(0.01, 8),
  rate: rule('a rate, or null for the scene’s own', (v) => v === null || rateRule.isValidSync(v)),
  from: whole(0, LIMITS.length),
  to: whole(1, LIMITS.length),
};
const loop = whole(0, 65_535);

/** An address that a click may open: http or https only. */
const isAddress = (v: unknown): boolean =>
  typeof v === 'string' && v.length <= 2_000 && /^https?:\/\/[^\s"'<>\\]+$/.test(v);

const still = (format: string) =>
  object({ format: oneOf([format]), scale: between(0.01, 8), frame: whole(0, LIMITS.length) });

const RULES = {
  mp4: object({ format: oneOf(['mp4']), ...range, quality: oneOf(['draft', 'good', 'best']) }),
  gif: object({
    format: oneOf(['gif']),
    ...range,
    loop,
    palette: oneOf(['global', 'local']),
    dither: oneOf(['none', 'ordered', 'diffuse']),
  }),
  html5: object({
    format: oneOf(['html5']),
    ...range,
    loop,
    fallback: whole(0, LIMITS.length),
    click: rule('an address starting with https:// or http://', isAddress),
  }),
  png: still('png'),
  svg: still('svg'),
};

/** The value as settings of a render, or Invalid. */
export const checkSettings = (value: unknown): RenderSettings => {
  const format = (value as { format?: unknown } | null)?.format;
  if (typeof format !== 'string' || !Object.hasOwn(RULES, format)) {
    throw new Invalid(`format: got ${shown(format)}, wanted one of ${Object.keys(RULES).join(', ')}`, 'format');
  }
  fits(RULES[format as keyof typeof RULES], value);
  return value as RenderSettings;
};
