/** Palettes: the colours of a project to and from CSS custom properties and JSON, and out of drawings and pictures. */
import { isObject } from '../document/is';
import type { Color } from '../document/types';
import { colorOf as cssColor } from './svg/paints';

export interface NamedColor {
  readonly name: string;
  readonly color: Color;
}

/** As hex; null for what is no colour of CSS. */
const colorOf = (text: string): Color | null => cssColor(text, '#000000');

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'colour';

/** `tram-amber` as `Tram amber`. */
const inWords = (property: string): string => {
  const words = property.replace(/[-_]+/g, ' ').trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** Names that differ: the second `amber` is `amber-2`. */
const apart = (names: readonly string[]): string[] => {
  const used = new Set<string>();
  return names.map((name) => {
    let own = name;
    for (let n = 2; used.has(own); n++) own = `${name}-${n}`;
    used.add(own);
    return own;
  });
};

/** Custom properties of the root element (CSS Custom Properties Level 1). */
export const paletteAsCss = (colors: readonly NamedColor[]): string => {
  const names = apart(colors.map(({ name }) => slug(name)));
  return `:root {\n${colors.map(({ color }, i) => `  --${names[i]}: ${color.toLowerCase()};\n`).join('')}}\n`;
};

/** A list of names with their colours, in their order. */
export const paletteAsJson = (colors: readonly NamedColor[]): string =>
  `${JSON.stringify(
    colors.map(({ name, color }) => ({ name, color })),
    null,
    2,
  )}\n`;

const fromCss = (text: string): NamedColor[] =>
  [...text.replace(/\/\*.*?\*\//gs, '').matchAll(/--([\w\p{L}-]+)\s*:\s*([^;}]+)/gu)].flatMap(([, name, value]) => {
    const color = colorOf(value ?? '');
    return color && name ? [{ name: inWords(name), color }] : [];
  });

/** Names with colours, however deep they lie: a list of them, or an object of names. */
const inJson = (value: unknown, name: string): NamedColor[] => {
  if (typeof value === 'string') {
    const color = colorOf(value);
    return color ? [{ name: name || color, color }] : [];
  }
  if (Array.isArray(value)) return value.flatMap((entry) => inJson(entry, ''));
  if (!isObject(value)) return [];
  const own = value.color ?? value.value ?? value.hex;
  const called = typeof value.name === 'string' ? value.name : name;
  if (typeof own === 'string') return inJson(own, called);
  return Object.entries(value).flatMap(([key, entry]) => inJson(entry, inWords(key)));
};

/** The colours that a drawing paints with, those that it uses most first. */
const fromSvg = (text: string): NamedColor[] => {
  const uses = new Map<Color, number>();
  for (const [, value] of text.matchAll(/(?:fill|stroke|stop-color|color)\s*[:=]\s*["']?([^;"'>}]+)/g)) {
    const color = colorOf(value ?? '');
    if (color) uses.set(color, (uses.get(color) ?? 0) + 1);
  }
  return [...uses].sort((a, b) => b[1] - a[1]).map(([color]) => ({ name: color, color }));
};

/**
 * The colours that a text names: CSS with custom properties, JSON, or SVG. Each colour once, in the order of the text.
 * @throws RangeError where none is found, or JSON cannot be read.
 */
export const readPalette = (text: string): readonly NamedColor[] => {
  const start = text.trimStart();
  let found: NamedColor[];
  if (start.startsWith('{') || start.startsWith('[')) {
    try {
      found = inJson(JSON.parse(text), '');
    } catch {
      throw new RangeError('This is no JSON that can be read: a list of names with colours is wanted');
    }
  } else found = start.startsWith('<') ? fromSvg(text) : fromCss(text);
  const once = [...new Map(found.map((one) => [one.color, one])).values()];
  if (once.length === 0) {
    throw new RangeError('No colour was found: CSS custom properties, JSON with names and colours, or SVG are read');
  }
  return once;
};

/** A colour of 24 bits, and how often it is there. */
interface Counted {
  readonly rgb: number;
  readonly count: number;
}
const channels = ({ rgb }: Counted): readonly number[] => [rgb >> 16, (rgb >> 8) & 255, rgb & 255];

/** How far two colours are apart, from 0 to 441, in the cube of sRGB. */
const distance = (a: Counted, b: Counted): number =>
  Math.hypot(...channels(a).map((x, i) => x - (channels(b)[i] as number)));

/** Colours nearer to each other than this are one. */
const NEAR = 40;
/** The share of a picture below which a colour is that of an edge between two others. */
const LEAST = 1 / 200;

/** By five bits of each channel: how many pixels there are, and which colour most of them have. */
const binsOf = (rgba: Uint8ClampedArray): { readonly total: number; readonly most: Counted }[] => {
  const exact = new Map<number, number>();
  for (let i = 0; i < rgba.length; i += 4) {
    if (rgba[i + 3]! < 128) continue;
    const rgb = (rgba[i]! << 16) | (rgba[i + 1]! << 8) | rgba[i + 2]!;
    exact.set(rgb, (exact.get(rgb) ?? 0) + 1);
  }
  const bins = new Map<number, { total: number; most: Counted }>();
  for (const [rgb, count] of exact) {
    const bin = bins.get(rgb & 0xf8f8f8);
    if (!bin) bins.set(rgb & 0xf8f8f8, { total: count, most: { rgb, count } });
    else {
      bin.total += count;
      if (count > bin.most.count) bin.most = { rgb, count };
    }
  }
  return [...bins.values()];
};

/**
 * The colours that a picture has most of, each far from the others; at most so many.
 * @param rgba Pixels, 4 bytes each; those less than half opaque do not count.
 */
export const colorsOfPixels = (rgba: Uint8ClampedArray, most: number): readonly NamedColor[] => {
  const chosen: Counted[] = [];
  const bins = binsOf(rgba).sort((a, b) => b.total - a.total);
  const least = LEAST * bins.reduce((sum, { total }) => sum + total, 0);
  for (const bin of bins.filter(({ total }) => total >= least)) {
    if (chosen.length < most && chosen.every((other) => distance(bin.most, other) >= NEAR)) chosen.push(bin.most);
  }
  return chosen.map(({ rgb }) => {
    const color = `#${rgb.toString(16).padStart(6, '0')}`.toUpperCase();
    return { name: color, color };
  });
};
