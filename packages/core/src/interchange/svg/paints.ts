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
import { type Box, cornersOf } from '../../geometry/bounds';
import { MOST_STOPS } from '../../document/params';
import { apply, IDENTITY, inverted, type Matrix, multiply, turnsAndStretch } from '../../geometry/matrix';
import type { SvgInk } from './nodes';
import type { SvgElement } from './parse';
import { diagonalOf, lengthOf } from './style';
import { transformOf } from './transform';
import { attributesOf, chainOf, ofBox, type Reading } from './walk';

// The notations that are read: names, hex, rgb(), hsl(), hwb(), lab(), lch() and their OK kin.
for (const mode of [modeRgb, modeHsl, modeHwb, modeLab, modeLch, modeOklab, modeOklch]) useMode(mode as typeof modeRgb);

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

const stopsOf = (chain: readonly SvgElement[], reading: Reading): GradientStop[] => {
  const holder = chain.find((e) => e.children.some((c) => c.name === 'stop'));
  let last = 0;
  return (holder?.children ?? []).flatMap((stop) => {
    if (stop.name !== 'stop') return [];
    const style = reading.style([stop], {});
    // Places never go back (SVG 2, 13.2.4).
    last = Math.max(last, shareOf(stop.attributes.offset, 0));
    const color = colorOf(style['stop-color'] ?? 'black', style.color ?? 'black', shareOf(style['stop-opacity']));
    return color ? [{ at: last, color }] : [];
  });
};

/** Stops as often as they go round between two whole numbers, for what is painted from one to the other; each second time backwards if wanted. */
const goneOn = (stops: readonly GradientStop[], from: number, to: number, back: boolean): GradientStop[] => {
  const [first, last] = [stops[0], stops.at(-1)] as [GradientStop, GradientStop];
  const whole = [
    ...(first.at > 0 ? [{ ...first, at: 0 }] : []),
    ...stops,
    ...(last.at < 1 ? [{ ...last, at: 1 }] : []),
  ];
  return Array.from({ length: to - from }, (_, i) => {
    const turned = back && Math.abs(from + i) % 2 === 1;
    const once = turned ? whole.map(({ at, color }) => ({ at: 1 - at, color })).reverse() : whole;
    return once.map(({ at, color }) => ({ at: (i + at) / (to - from), color }));
  }).flat();
};

/** What a gradient paints: its box in the pixels of the element and in those that its ink is in, and what percentages are of. */
interface Painted {
  readonly own: Box;
  readonly painted: Box;
  readonly size: readonly [width: number, height: number];
}

/** A gradient in the pixels that `matrix` leads to from the element's; lines of equal colour go through any matrix. */
export const gradientOf = (
  element: SvgElement,
  { own, painted, size }: Painted,
  matrix: Matrix,
  opacity: number,
  reading: Reading,
): SvgInk | null => {
  const chain = chainOf(element, reading.byId);
  const a = attributesOf(chain);
  const stops = stopsOf(chain, reading).map((s) => ({ ...s, color: colorOf(s.color, 'black', opacity) ?? s.color }));
  const [first, last] = [stops[0], stops.at(-1)];
  if (!first || !last) return null;
  if (stops.length === 1) return { style: 'solid', color: first.color };
  const inBox = a.gradientUnits !== 'userSpaceOnUse';
  const [w, h] = [own.right - own.left, own.bottom - own.top];
  if (inBox && (w <= 0 || h <= 0)) return { style: 'solid', color: last.color };
  const units = inBox ? ofBox(own) : IDENTITY;
  const m = multiply(multiply(matrix, units), transformOf(a.gradientTransform));
  const [wide, high] = inBox ? [1, 1] : size;
  const length = (name: string, whole: number, missing: number) => lengthOf(a[name], whole, missing * whole);
  const spread = a.spreadMethod;
  const back = spread === 'reflect';
  const goesOn = back || spread === 'repeat';
  /** Whole numbers around some places, of which 0 and 1 are the gradient's own: from where to where it goes on. */
  const reachOf = (places: readonly number[]): readonly [low: number, high: number] => {
    if (!goesOn) return [0, 1];
    const [low, high] = [Math.min(0, Math.floor(Math.min(...places))), Math.max(1, Math.ceil(Math.max(...places)))];
    // Each time may have one more at both its ends.
    if ((high - low) * (stops.length + 2) <= MOST_STOPS) return [low, high];
    reading.note(`a gradient that repeats more often than ${MOST_STOPS} colours last is drawn once`);
    return [0, 1];
  };
  const spreadOver = (low: number, high: number): readonly GradientStop[] => {
    if (goesOn) return goneOn(stops, low, high, back);
    if (stops.length > MOST_STOPS) reading.note(`a gradient of more than ${MOST_STOPS} colours ends after these`);
    return stops.slice(0, MOST_STOPS);
  };
  if (element.name === 'linearGradient') {
    const begins: Point = [length('x1', wide, 0), length('y1', high, 0)];
    const ends: Point = [length('x2', wide, 1), length('y2', high, 0)];
    const from = apply(m, begins);
    const end = apply(m, ends);
    // Across the gradient colours are equal: along M(d⊥). What is left of M(d) square to it is the gradient.
    const [dx, dy] = [ends[0] - begins[0], ends[1] - begins[1]];
    if (dx === 0 && dy === 0) return { style: 'solid', color: last.color };
    const across: Point = [m[0] * -dy + m[2] * dx, m[1] * -dy + m[3] * dx];
    const long = across[0] ** 2 + across[1] ** 2 || 1;
    const along: Point = [end[0] - from[0], end[1] - from[1]];
    const share = (along[0] * across[0] + along[1] * across[1]) / long;
    const [x, y] = [along[0] - across[0] * share, along[1] - across[1] * share];
    const whole = x * x + y * y || 1;
    const places = cornersOf(painted).map((p) => ((p[0] - from[0]) * x + (p[1] - from[1]) * y) / whole);
    const [low, top] = reachOf(places);
    const at = (t: number): Point => [from[0] + x * t, from[1] + y * t];
    return { style: 'linear', stops: spreadOver(low, top), from: at(low), to: at(top) };
  }
  const centre: Point = [length('cx', wide, 0.5), length('cy', high, 0.5)];
  const radius = length('r', diagonalOf([wide, high]), 0.5);
  const toOwn = inverted(m);
  if (radius <= 0 || !toOwn) return { style: 'solid', color: last.color };
  const focus: Point = [lengthOf(a.fx, wide, centre[0]), lengthOf(a.fy, high, centre[1])];
  if (Math.hypot(focus[0] - centre[0], focus[1] - centre[1]) > 1e-3 * radius) {
    reading.note('a gradient with its focus off its middle is drawn from its middle');
  }
  const far = cornersOf(painted).map((corner) => {
    const [x, y] = apply(toOwn, corner);
    return Math.hypot(x - centre[0], y - centre[1]) / radius;
  });
  const [, rounds] = reachOf(far);
  const from = apply(m, centre);
  const { stretch, then } = turnsAndStretch(m);
  const [long, short] = [stretch[0], Math.abs(stretch[1])];
  // A circle has no longer axis.
  const turn = long - short < 1e-9 * long ? 0 : then;
  const reach = radius * rounds * long;
  return {
    style: 'radial',
    stops: spreadOver(0, rounds),
    from,
    to: [from[0] + Math.cos(turn) * reach, from[1] + Math.sin(turn) * reach],
    breadth: Math.round((short / long) * 1e4) / 1e4,
  };
};
