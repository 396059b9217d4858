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
const isAddress = (v: unknown): boolean => {
  if (typeof v !== 'string' || v.length > 2_000) return false;
  // A host, with its port, and no name or password before it (RFC 3986, 3.2).
  const [, authority] = /^https?:\/\/([^/?#\s"'<>\\]+)[^\s"'<>\\]*$/i.exec(v) ?? [];
  return authority !== undefined && /^([\p{L}\p{N}._~-]+|\[[0-9a-f:.]+\])(:\d{1,5})?$/iu.test(authority);
};

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
    click: rule('an address of a page: https:// or http://, a host, and no password', isAddress),
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
