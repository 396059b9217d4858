/** Colours and gradients (SVG 2, chapter 13; CSS Color 4). */
import {
  formatHex8,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeRgb,
  parse,
  useMode,
} from 'culori/fn';
import type { GradientStop, Point } from '../../document/types';
import type { Box } from '../../geometry/bounds';
import { apply, type Matrix, multiply } from '../../geometry/matrix';
import type { SvgElement } from './parse';
import { type Style } from './style';
import { transformOf } from './transform';

// The notations that are read: names, hex, rgb(), hsl(), hwb(), lab(), lch() and their OK kin.
for (const mode of [modeRgb, modeHsl, modeHwb, modeLab, modeLch, modeOklab, modeOklch]) useMode(mode as typeof modeRgb);

export type SvgInk =
  | { readonly style: 'solid'; readonly color: string }
  | {
      readonly style: 'linear' | 'radial';
      readonly stops: readonly GradientStop[];
      readonly from: Point;
      readonly to: Point;
    };

/** `#RRGGBB`, or `#RRGGBBAA` where it is not opaque; null for what is no colour. */
export const colorOf = (text: string, current: string, opacity = 1): string | null => {
  const name = text.trim().toLowerCase();
  const color = parse(name === 'currentcolor' ? current.toLowerCase() : name);
  if (!color) return null;
  const hex = formatHex8({ ...color, alpha: (color.alpha ?? 1) * opacity });
  return (hex.endsWith('ff') ? hex.slice(0, 7) : hex).toUpperCase();
};

export const shareOf = (text: string | undefined, missing = 1): number => {
  const match = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*(%?)\s*$/i.exec(text ?? '');
  if (!match) return missing;
  return Math.min(1, Math.max(0, Number(match[1]) / (match[2] ? 100 : 1)));
};

interface GradientContext {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly styleOf: (element: SvgElement, parent: Style) => Style;
  readonly note: (text: string) => void;
}

const hrefOf = (e: SvgElement): string | undefined => /^#(.+)$/.exec(e.attributes.href ?? '')?.[1];

/** A gradient's element and those it takes its missing attributes from. */
const chainOf = (start: SvgElement, byId: GradientContext['byId']): SvgElement[] => {
  const chain: SvgElement[] = [];
  for (let at: SvgElement | undefined = start; at && !chain.includes(at); at = byId.get(hrefOf(at) ?? ''))
    chain.push(at);
  return chain;
};

const stopsOf = (chain: readonly SvgElement[], { styleOf }: GradientContext): GradientStop[] => {
  const holder = chain.find((e) => e.children.some((c) => c.name === 'stop'));
  let last = 0;
  return (holder?.children ?? []).flatMap((stop) => {
    if (stop.name !== 'stop') return [];
    const style = styleOf(stop, {});
    // Places never go back (SVG 2, 13.2.4).
    last = Math.max(last, shareOf(stop.attributes.offset, 0));
    const color = colorOf(style['stop-color'] ?? 'black', style.color ?? 'black', shareOf(style['stop-opacity']));
    return color ? [{ at: last, color }] : [];
  });
};

/**
 * A gradient in the pixels that `matrix` leads to. `box` is of what it paints, before the matrix. A
 * linear one keeps its lines of equal colour through any matrix; a radial one that the matrix makes an
 * ellipse is drawn as a circle and noted.
 */
export const gradientOf = (
  element: SvgElement,
  box: Box,
  matrix: Matrix,
  opacity: number,
  context: GradientContext,
): SvgInk | null => {
  const chain = chainOf(element, context.byId);
  const attribute = (name: string) => chain.find((e) => e.attributes[name] !== undefined)?.attributes[name];
  const stops = stopsOf(chain, context).map((s) => ({ ...s, color: colorOf(s.color, 'black', opacity) ?? s.color }));
  const [first] = stops;
  if (!first) return null;
  if (stops.length === 1) return { style: 'solid', color: first.color };
  const inBox = attribute('gradientUnits') !== 'userSpaceOnUse';
  const [w, h] = [box.right - box.left, box.bottom - box.top];
  if (inBox && (w <= 0 || h <= 0)) return { style: 'solid', color: (stops.at(-1) as GradientStop).color };
  const units: Matrix = inBox ? [w, 0, 0, h, box.left, box.top] : [1, 0, 0, 1, 0, 0];
  const m = multiply(multiply(matrix, units), transformOf(attribute('gradientTransform')));
  const length = (name: string, missing: number): number => {
    const text = attribute(name);
    if (text === undefined) return missing;
    return text.trim().endsWith('%') ? parseFloat(text) / 100 : parseFloat(text);
  };
  const spread = attribute('spreadMethod');
  if (spread === 'repeat' || spread === 'reflect') context.note(`a gradient that ${spread}s is drawn once`);
  if (element.name === 'linearGradient') {
    const a: Point = [length('x1', 0), length('y1', 0)];
    const b: Point = [length('x2', 1), length('y2', 0)];
    const from = apply(m, a);
    const to = apply(m, b);
    // Across the gradient colours are equal: along M(d⊥). What is left of M(d) square to it is the gradient.
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const across: Point = [m[0] * -dy + m[2] * dx, m[1] * -dy + m[3] * dx];
    const long = across[0] ** 2 + across[1] ** 2 || 1;
    const along: Point = [to[0] - from[0], to[1] - from[1]];
    const share = (along[0] * across[0] + along[1] * across[1]) / long;
    return { style: 'linear', stops, from, to: [to[0] - across[0] * share, to[1] - across[1] * share] };
  }
  const centre: Point = [length('cx', 0.5), length('cy', 0.5)];
  const radius = length('r', 0.5);
  const from = apply(m, centre);
  const [rx, ry] = [Math.hypot(m[0], m[1]) * radius, Math.hypot(m[2], m[3]) * radius];
  if (Math.abs(rx - ry) > 0.02 * Math.max(rx, ry)) context.note('an elliptical gradient is drawn round');
  const focus: Point = [length('fx', centre[0]), length('fy', centre[1])];
  if (Math.hypot(focus[0] - centre[0], focus[1] - centre[1]) > 1e-3 * radius) {
    context.note('a gradient with its focus off its middle is drawn from its middle');
  }
  return { style: 'radial', stops, from, to: [from[0] + Math.sqrt(rx * ry), from[1]] };
};
