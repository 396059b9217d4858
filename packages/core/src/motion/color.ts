/** Colours are mixed in OKLab with premultiplied alpha, so that red to transparent does not go dark. */
import {
  convertLrgbToOklab,
  convertLrgbToRgb,
  convertOklabToLrgb,
  convertRgbToLrgb,
  formatHex,
  formatHex8,
  parseHex,
} from 'culori/fn';
import type { Color } from '../document/types';

export interface Mixable {
  readonly l: number;
  readonly a: number;
  readonly b: number;
  readonly alpha: number;
}

const known = new Map<Color, Mixable>();

/** The OKLab form of a hex colour; the last few thousand are remembered. */
export const mixable = (color: Color): Mixable => {
  let lab = known.get(color);
  if (!lab) {
    const rgb = parseHex(color);
    if (!rgb) throw new RangeError(`not a hex colour: ${color}`);
    const { l, a = 0, b = 0 } = convertLrgbToOklab(convertRgbToLrgb(rgb));
    lab = { l, a, b, alpha: rgb.alpha ?? 1 };
    if (known.size > 4096) known.clear();
    known.set(color, lab);
  }
  return lab;
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
  const rgb = convertLrgbToRgb(convertOklabToLrgb({ l: part(p.l, q.l), a: part(p.a, q.a), b: part(p.b, q.b) }));
  const out = { ...rgb, mode: 'rgb' as const, alpha };
  return alpha === 1 ? formatHex(out) : formatHex8(out);
};
