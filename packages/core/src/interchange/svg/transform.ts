/** Transforms and view boxes (SVG 2, chapter 8). */
import { IDENTITY, type Matrix, multiply } from '../../geometry/matrix';
import type { SvgElement } from './parse';
import { lengthOf, numbersOf } from './style';

const radians = (degrees: number) => (degrees * Math.PI) / 180;

const one = (name: string, v: readonly number[]): Matrix => {
  const [a = 0, b, c, d = 0, e = 0, f = 0] = v;
  switch (name) {
    case 'matrix':
      return [a, b ?? 0, c ?? 0, d, e, f];
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'rotate': {
      const [cos, sin] = [Math.cos(radians(a)), Math.sin(radians(a))];
      const turn: Matrix = [cos, sin, -sin, cos, 0, 0];
      const [x, y] = [b ?? 0, c ?? 0];
      return multiply(multiply([1, 0, 0, 1, x, y], turn), [1, 0, 0, 1, -x, -y]);
    }
    case 'skewX':
      return [1, 0, Math.tan(radians(a)), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(radians(a)), 0, 1, 0, 0];
    default:
      return IDENTITY;
  }
};

export const transformOf = (text: string | undefined): Matrix => {
  let m: Matrix = IDENTITY;
  for (const [, name = '', body = ''] of (text ?? '').matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    m = multiply(m, one(name, numbersOf(body)));
  }
  return m.every(Number.isFinite) ? m : IDENTITY;
};

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
  const fit = (a.preserveAspectRatio ?? 'xMidYMid meet').trim();
  let [sx, sy] = [width / bw, height / bh];
  if (!fit.startsWith('none')) sx = sy = fit.endsWith('slice') ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (axis: 'x' | 'Y') => (fit.includes(`${axis}Min`) ? 0 : fit.includes(`${axis}Max`) ? 1 : 0.5);
  const x = fit.startsWith('none') ? 0 : (width - bw * sx) * share('x');
  const y = fit.startsWith('none') ? 0 : (height - bh * sy) * share('Y');
  return { width, height, matrix: [sx, 0, 0, sy, x - bx * sx, y - by * sy], inner: [bw, bh] };
};
