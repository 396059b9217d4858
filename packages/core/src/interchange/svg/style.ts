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
  'marker-start',
  'marker-mid',
  'marker-end',
  'color-interpolation-filters',
]);
const OWN = [
  'opacity',
  'display',
  'clip-path',
  'mask',
  'filter',
  'mix-blend-mode',
  'isolation',
  'stop-color',
  'stop-opacity',
  'flood-color',
  'flood-opacity',
  'mask-type',
  'overflow',
  'transform',
  'transform-origin',
  'vector-effect',
];
const PROPERTIES = [...INHERITED, ...OWN];

interface Simple {
  /** Whether it is the parent of the next. */
  readonly parent: boolean;
  readonly name: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly attributes: readonly (readonly [name: string, value: string | null])[];
}
interface Rule {
  /** From the outermost to the element itself; each must match some ancestor of the next, or the parent where that says so. */
  readonly path: readonly Simple[];
  readonly weight: number;
  readonly declarations: readonly Declaration[];
}

type Declaration = readonly [property: string, value: string, important: boolean];

/** Semicolons within brackets, as in addresses, end nothing. */
const declarationsOf = (text: string): Declaration[] =>
  (text.match(/(?:[^;(]|\([^)]*\)?)+/g) ?? []).flatMap((part): Declaration[] => {
    const colon = part.indexOf(':');
    if (colon < 0) return [];
    const given = part.slice(colon + 1);
    const value = given.replace(/!\s*important/i, '').trim();
    const name = part.slice(0, colon).trim();
    // Variables are told apart by their letters' case.
    const property = name.startsWith('--') ? name : name.toLowerCase();
    if (!value) return [];
    const important = value.length < given.trim().length;
    return property === 'marker'
      ? (['marker-start', 'marker-mid', 'marker-end'] as const).map((each) => [each, value, important] as const)
      : [[property, value, important]];
  });

const simpleOf = (text: string, parent: boolean): Simple | null => {
  if (text === ':root') return { parent, name: 'svg', id: null, classes: [], attributes: [] };
  const match = /^([\w-]+|\*)?((?:[.#][\w-]+|\[[\w:-]+(?:=(?:"[^"]*"|'[^']*'|[\w-]+))?\])*)$/.exec(text);
  if (!match) return null;
  const parts = match[2] ?? '';
  return {
    parent,
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
      const words = selector
        .replace(/\s*>\s*/g, '> ')
        .trim()
        .split(/\s+/);
      const path = words.map((word) => simpleOf(word.replace(/>$/, ''), word.endsWith('>')));
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
    const simple = path[i] as Simple;
    while (at >= 0 && !simple.parent && !fitsSimple(simple, line[at] as SvgElement)) at--;
    if (at < 0 || !fitsSimple(simple, line[at] as SvgElement)) return false;
    at--;
  }
  return true;
};

/** What variables may make of a value, in letters. */
const MOST_VALUE = 10_000;

/** A value with its variables (CSS Custom Properties 1, 3) put in, each of which may name others a few times over. */
const withVariables = (value: string, style: Style, most = 8): string => {
  const put = value.replace(
    /var\(\s*(--[\w-]+)\s*(?:,\s*((?:[^()]|\([^()]*\))*))?\)/g,
    (_, name: string, otherwise: string | undefined) => style[name] ?? otherwise ?? '',
  );
  if (put.length > MOST_VALUE) return '';
  return most > 0 && put.includes('var(') ? withVariables(put, style, most - 1) : put;
};

/** An element's style. `line` is the elements from the root to it; `parent` the style of the one around it. */
export const styleOf = (line: readonly SvgElement[], rules: readonly Rule[], parent: Style): Style => {
  const element = line.at(-1) as SvgElement;
  const style: { [property: string]: string } = {};
  for (const [property, value] of Object.entries(parent)) {
    if (INHERITED.has(property) || property.startsWith('--')) style[property] = value;
  }
  for (const property of PROPERTIES) {
    const value = element.attributes[property];
    if (value !== undefined) style[property] = value.trim();
  }
  const declared = [
    ...rules.filter((rule) => fitsRule(rule, line)).flatMap(({ declarations }) => declarations),
    ...declarationsOf(element.attributes.style ?? ''),
  ];
  for (const important of [false, true])
    for (const [property, value, matters] of declared) if (matters === important) style[property] = value;
  for (const [property, value] of Object.entries(style)) {
    if (value.includes('var(')) style[property] = withVariables(value, style);
  }
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

/** What percentages are of that go by neither width nor height (SVG 2, 8.9). */
export const diagonalOf = ([w, h]: readonly [number, number]): number => Math.sqrt((w * w + h * h) / 2);

export const numbersOf = (text: string | undefined): number[] =>
  [...(text ?? '').matchAll(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)].map((m) => Number(m[0]));
