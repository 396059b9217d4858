/** Colours are mixed in OKLab with premultiplied alpha, so that red to transparent does not go dark. */
import { convertLrgbToOklab, convertLrgbToRgb, convertOklabToLrgb, convertRgbToLrgb } from 'culori/fn';
import type { Color } from '../document/types';

export interface Mixable {
  readonly l: number;
  readonly a: number;
  readonly b: number;
  readonly alpha: number;
}

// Culori’s own reading and writing of these brings its parser of all of CSS into every banner.

/** Of #RGB, #RRGGBB, and either with alpha (CSS Color 4, 5.2): its channels, 0..1, alpha where it has one. */
const channelsOf = (color: Color): readonly number[] => {
  const digits = /^#([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.exec(color)?.[1];
  if (digits === undefined) throw new RangeError(`not a hex colour: ${color}`);
  const each = digits.length < 6 ? [...digits].map((digit) => digit + digit) : (digits.match(/../g) ?? []);
  return each.map((pair) => parseInt(pair, 16) / 255);
};

/** Channels of 0..1, those beyond cut off, as hexadecimal digits. */
const hexOf = (channels: readonly number[]): Color =>
  `#${channels
    .map((c) =>
      Math.round(Math.min(1, Math.max(0, c)) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;

const known = new Map<Color, Mixable>();

/** The OKLab form of a hex colour; the last few thousand are remembered. */
export const mixable = (color: Color): Mixable => {
  const ready = known.get(color);
  if (ready) return ready;
  const [r = 0, g = 0, b = 0, alpha = 1] = channelsOf(color);
  const lab = convertLrgbToOklab(convertRgbToLrgb({ r, g, b }));
  const made = { l: lab.l, a: lab.a ?? 0, b: lab.b ?? 0, alpha };
  if (known.size > 4096) known.clear();
  known.set(color, made);
  return made;
};

/** A colour between two; t is clamped to 0..1 by the gamut of hex. */
export const mixColors = (from: Color, to: Color, t: number): Color => {
  if (t === 0 || from === to) return from;
  if (t === 1) return to;
  const p = mixable(from);
  const q = mixable(to);
  const alpha = Math.min(1, Math.max(0, p.alpha + (q.alpha - p.alpha) * t));
  if (alpha === 0) return '#00000000';
  const part = (a: number, b: number) => (a * p.alpha + (b * q.alpha - a * p.alpha) * t) / alpha;
  const { r, g, b } = convertLrgbToRgb(convertOklabToLrgb({ l: part(p.l, q.l), a: part(p.a, q.a), b: part(p.b, q.b) }));
  return hexOf(alpha === 1 ? [r, g, b] : [r, g, b, alpha]);
};
