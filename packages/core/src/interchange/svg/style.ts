/** The styles of SVG elements: attributes, style sheets, style attributes, inherited (SVG 2, chapter 6). */
import type { SvgElement } from './parse';

export type Style = { readonly [property: string]: string };

const INHERITED = new Set([
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-opacity',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-dasharray',
  'stroke-dashoffset',
  'paint-order',
  'clip-rule',
  'color',
  'visibility',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'letter-spacing',
  'text-anchor',
]);
const OWN = [
  'opacity',
  'display',
  'clip-path',
  'mask',
  'filter',
  'mix-blend-mode',
  'stop-color',
  'stop-opacity',
  'transform',
  'vector-effect',
  'marker-start',
  'marker-mid',
  'marker-end',
];
const PROPERTIES = [...INHERITED, ...OWN];

interface Simple {
  readonly name: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly attributes: readonly (readonly [name: string, value: string | null])[];
}
interface Rule {
  /** From the outermost to the element itself; each must match some ancestor of the next. */
  readonly path: readonly Simple[];
  readonly weight: number;
  readonly declarations: readonly (readonly [property: string, value: string])[];
}

const declarationsOf = (text: string): (readonly [string, string])[] =>
  text.split(';').flatMap((part) => {
    const colon = part.indexOf(':');
    if (colon < 0) return [];
    const value = part
      .slice(colon + 1)
      .replace(/!important/i, '')
      .trim();
    return value ? [[part.slice(0, colon).trim().toLowerCase(), value] as const] : [];
  });

const simpleOf = (text: string): Simple | null => {
  const match = /^([\w-]+|\*)?((?:[.#][\w-]+|\[[\w:-]+(?:=(?:"[^"]*"|'[^']*'|[\w-]+))?\])*)$/.exec(text);
  if (!match) return null;
  const parts = match[2] ?? '';
  return {
    name: match[1] && match[1] !== '*' ? match[1] : null,
    id: /#([\w-]+)/.exec(parts)?.[1] ?? null,
    classes: [...parts.matchAll(/\.([\w-]+)/g)].map((m) => m[1] as string),
    attributes: [...parts.matchAll(/\[([\w:-]+)(?:=(?:"([^"]*)"|'([^']*)'|([\w-]+)))?\]/g)].map(
      (m) => [m[1] as string, m[2] ?? m[3] ?? m[4] ?? null] as const,
    ),
  };
};

/** Rules in the order in which they win: lighter ones first. Selectors that cannot be read are passed over. */
export const rulesOf = (sheet: string): Rule[] => {
  const plain = sheet
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/@[\w-]+[^{};]*(?:;|\{(?:[^{}]*\{[^{}]*\})*[^{}]*\})/g, '');
  const rules: Rule[] = [];
  for (const [, selectors = '', body = ''] of plain.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    for (const selector of selectors.split(',')) {
      const path = selector
        .trim()
        .split(/[\s>]+/)
        .map(simpleOf);
      if (path.length === 0 || path.some((s) => s === null)) continue;
      const simple = path as Simple[];
      const weight = simple.reduce(
        (sum, s) => sum + (s.id ? 10_000 : 0) + (s.classes.length + s.attributes.length) * 100 + (s.name ? 1 : 0),
        0,
      );
      rules.push({ path: simple, weight, declarations: declarationsOf(body) });
    }
  }
  return rules.sort((a, b) => a.weight - b.weight);
};

const fitsSimple = (s: Simple, e: SvgElement): boolean => {
  const classes = (e.attributes.class ?? '').split(/\s+/);
  return (
    (s.name === null || s.name === e.name) &&
    (s.id === null || s.id === e.attributes.id) &&
    s.classes.every((c) => classes.includes(c)) &&
    s.attributes.every(([name, value]) =>
      value === null ? e.attributes[name] !== undefined : e.attributes[name] === value,
    )
  );
};

const fitsRule = ({ path }: Rule, line: readonly SvgElement[]): boolean => {
  const own = line.at(-1);
  if (!own || !fitsSimple(path.at(-1) as Simple, own)) return false;
  let at = line.length - 2;
  for (let i = path.length - 2; i >= 0; i--) {
    while (at >= 0 && !fitsSimple(path[i] as Simple, line[at] as SvgElement)) at--;
    if (at-- < 0) return false;
  }
  return true;
};

/** An element's style. `line` is the elements from the root to it; `parent` the style of the one around it. */
export const styleOf = (line: readonly SvgElement[], rules: readonly Rule[], parent: Style): Style => {
  const element = line.at(-1) as SvgElement;
  const style: { [property: string]: string } = {};
  for (const property of INHERITED) if (parent[property] !== undefined) style[property] = parent[property];
  for (const property of PROPERTIES) {
    const value = element.attributes[property];
    if (value !== undefined) style[property] = value.trim();
  }
  for (const rule of rules) {
    if (fitsRule(rule, line)) for (const [property, value] of rule.declarations) style[property] = value;
  }
  for (const [property, value] of declarationsOf(element.attributes.style ?? '')) style[property] = value;
  for (const property of Object.keys(style)) {
    if (style[property] !== 'inherit') continue;
    const from = parent[property];
    if (from === undefined) delete style[property];
    else style[property] = from;
  }
  return style;
};

const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  em: 16,
  rem: 16,
  ex: 8,
};

/** A length in pixels (CSS Values 4, 6); percentages are of `whole`. */
export const lengthOf = (text: string | undefined, whole: number, missing: number): number => {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(%|[a-z]*)\s*$/i.exec(text ?? '');
  if (!match) return missing;
  const value = Number(match[1]);
  const unit = (match[2] ?? '').toLowerCase();
  if (unit === '%') return (value / 100) * whole;
  return value * (UNITS[unit] ?? 1);
};

export const numbersOf = (text: string | undefined): number[] =>
  [...(text ?? '').matchAll(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)].map((m) => Number(m[0]));
