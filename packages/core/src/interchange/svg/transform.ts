/** Transforms and view boxes (SVG 2, chapter 8). */
import type { Point } from '../../document/types';
import { IDENTITY, type Matrix, multiply, turn } from '../../geometry/matrix';
import type { SvgElement } from './parse';
import { lengthOf, numbersOf } from './style';

const radians = (degrees: number) => (degrees * Math.PI) / 180;

export const turnedBy = (degrees: number): Matrix => {
  const [cos, sin] = turn(degrees);
  return [cos, sin, -sin, cos, 0, 0];
};

const one = (name: string, v: readonly number[]): Matrix => {
  const [a = 0, b, c, d = 0, e = 0, f = 0] = v;
  switch (name) {
    case 'matrix':
      return [a, b ?? 0, c ?? 0, d, e, f];
    case 'translate':
    case 'translateX':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'translateY':
      return [1, 0, 0, 1, 0, a];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'scaleX':
      return [a, 0, 0, 1, 0, 0];
    case 'scaleY':
      return [1, 0, 0, a, 0, 0];
    case 'skew':
      return [1, Math.tan(radians(b ?? 0)), Math.tan(radians(a)), 1, 0, 0];
    case 'rotate': {
      const [x, y] = [b ?? 0, c ?? 0];
      return multiply(multiply([1, 0, 0, 1, x, y], turnedBy(a)), [1, 0, 0, 1, -x, -y]);
    }
    case 'skewX':
      return [1, 0, Math.tan(radians(a)), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(radians(a)), 0, 1, 0, 0];
    default:
      return IDENTITY;
  }
};

/** What an angle is given in, in degrees (CSS Values 4, 7.1). */
const ANGLES = [
  [/([\d.]+)grad/g, 0.9],
  [/([\d.]+)rad/g, 180 / Math.PI],
  [/([\d.]+)turn/g, 360],
] as const;
const inDegrees = (text: string): string =>
  ANGLES.reduce((all, [unit, by]) => all.replace(unit, (_, n: string) => String(Number(n) * by)), text);

/** An angle in degrees. */
export const angleOf = (text: string): number => numbersOf(inDegrees(text))[0] ?? 0;

/** Of an attribute, or of a style: lengths in pixels. */
export const transformOf = (text: string | undefined): Matrix => {
  let m: Matrix = IDENTITY;
  for (const [, name = '', body = ''] of (text ?? '').matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    m = multiply(m, one(name, numbersOf(inDegrees(body))));
  }
  return m.every(Number.isFinite) ? m : IDENTITY;
};

/** Sides of a box as shares of it. */
export const SIDES: Readonly<Record<string, string>> = {
  left: '0%',
  top: '0%',
  center: '50%',
  right: '100%',
  bottom: '100%',
};

/** A transform about its origin (CSS Transforms 1, 6), percentages being of the view. */
export const transformAbout = (
  text: string | undefined,
  origin: string | undefined,
  [w, h]: readonly [number, number],
): Matrix => {
  const m = transformOf(text);
  if (origin === undefined) return m;
  const words = origin.trim().split(/\s+/);
  // Names may stand the other way round.
  if (/^(top|bottom)$/.test(words[0] ?? '') || /^(left|right)$/.test(words[1] ?? '')) words.reverse();
  const [x = '0', y = '50%'] = words.map((word) => SIDES[word] ?? word);
  const [ox, oy] = [lengthOf(x, w, 0), lengthOf(y, h, 0)];
  return multiply(multiply([1, 0, 0, 1, ox, oy], m), [1, 0, 0, 1, -ox, -oy]);
};

/** How something of a size is fitted into another one by preserveAspectRatio (SVG 2, 8.7): its scales, and where its corner lies. */
export const fitted = (
  fit: string,
  [w, h]: readonly [number, number],
  [width, height]: readonly [number, number],
): { readonly scale: Point; readonly at: Point } => {
  const scale: Point = [width / w, height / h];
  if (fit.startsWith('none')) return { scale, at: [0, 0] };
  const by = fit.endsWith('slice') ? Math.max(...scale) : Math.min(...scale);
  const share = (axis: 'x' | 'Y') => (fit.includes(`${axis}Min`) ? 0 : fit.includes(`${axis}Max`) ? 1 : 0.5);
  return { scale: [by, by], at: [(width - w * by) * share('x'), (height - h * by) * share('Y')] };
};
export const fitOf = ({ attributes: a }: Pick<SvgElement, 'attributes'>): string =>
  (a.preserveAspectRatio ?? 'xMidYMid meet').trim();

export interface Viewport {
  readonly width: number;
  readonly height: number;
  /** From the pixels of what is in it to its own. */
  readonly matrix: Matrix;
  /** The size that percentages inside are of. */
  readonly inner: readonly [width: number, height: number];
}

/** An absolute length; null for a share of something that a file by itself does not stand in, and for what is no length. */
const absolute = (text: string | undefined): number | null => {
  const length = text?.trim().endsWith('%') ? NaN : lengthOf(text, NaN, NaN);
  return length > 0 ? length : null;
};

/** The size of a drawing that stands in nothing: as it says, else by its view box (SVG 2, 7.2 and CSS 2.1, 10.3.2), else 300 × 150. */
export const sizeOf = ({ attributes: a }: SvgElement): readonly [width: number, height: number] => {
  const [width, height] = [absolute(a.width), absolute(a.height)];
  const [, , w = 0, h = 0] = numbersOf(a.viewBox);
  if (w <= 0 || h <= 0) return [width ?? 300, height ?? 150];
  if (width !== null && height !== null) return [width, height];
  const scale = width !== null ? width / w : height !== null ? height / h : 1;
  return [w * scale, h * scale];
};

/** Where an svg or symbol puts what is in it: width, height, viewBox and preserveAspectRatio. */
export const viewportOf = (
  { attributes: a }: SvgElement,
  outer: readonly [number, number],
  size?: readonly [number | null, number | null],
): Viewport => {
  const box = numbersOf(a.viewBox);
  const [bx = 0, by = 0, bw = 0, bh = 0] = box;
  const boxed = box.length === 4 && bw > 0 && bh > 0;
  const width = size?.[0] ?? lengthOf(a.width, outer[0], boxed && a.height === undefined ? bw : outer[0]);
  const height = size?.[1] ?? lengthOf(a.height, outer[1], boxed && a.width === undefined ? bh : outer[1]);
  if (!boxed) return { width, height, matrix: IDENTITY, inner: [width, height] };
  const {
    scale: [sx, sy],
    at: [x, y],
  } = fitted(fitOf({ attributes: a }), [bw, bh], [width, height]);
  return { width, height, matrix: [sx, 0, 0, sy, x - bx * sx, y - by * sy], inner: [bw, bh] };
};
