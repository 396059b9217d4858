/** What shapes and texts are filled and stroked with (SVG 2, chapter 13). */
import { type Box, grown } from '../../geometry/bounds';
import { meanScale, type Matrix } from '../../geometry/matrix';
import type { SvgInk, SvgStroke } from './nodes';
import { colorOf, gradientOf, shareOf } from './paints';
import { diagonalOf, lengthOf, numbersOf, type Style } from './style';
import { type Reading, referredTo, type Walk } from './walk';

/** The box of what is painted: in the pixels of its element, and in those that its inks are in. */
export interface Around {
  readonly own: Box;
  readonly painted: Box;
}

/** A value of fill or stroke as what it stands for in a marker. */
const valueOf = (value: string | undefined, { context }: Walk): string | undefined =>
  value === 'context-fill' ? (context?.fill ?? 'black') : value === 'context-stroke' ? context?.stroke : value;

/** An ink in the pixels that `matrix` leads to from those of the element; null for none. */
export const inkOf = (
  given: string | undefined,
  walk: Walk,
  around: Around,
  matrix: Matrix,
  opacity: number,
  reading: Reading,
): SvgInk | null => {
  const value = valueOf(given, walk);
  if (value === undefined || value === 'none') return null;
  if (value.startsWith('url(')) {
    const element = referredTo(value, reading, 'linearGradient', 'radialGradient', 'pattern');
    if (element?.name === 'pattern') reading.note('a pattern on a text is left out');
    else if (element) return gradientOf(element, { ...around, size: walk.size }, matrix, opacity, reading);
    const after = value.replace(/^url\([^)]*\)\s*/, '');
    return after ? inkOf(after, walk, around, matrix, opacity, reading) : null;
  }
  const color = colorOf(value, walk.style.color ?? 'black', opacity);
  return color ? { style: 'solid', color } : null;
};

/**
 * A stroke in the pixels that `matrix` leads to from those of the element. `perDash` pixels of these make one of its dashes'.
 */
export const strokeOf = (
  walk: Walk,
  around: Around,
  matrix: Matrix,
  perDash: number,
  reading: Reading,
): SvgStroke | null => {
  const { style, size } = walk;
  const diagonal = diagonalOf(size);
  const scale = style['vector-effect'] === 'non-scaling-stroke' ? 1 : meanScale(matrix);
  const width = lengthOf(style['stroke-width'], diagonal, 1) * scale;
  const reached = { ...around, painted: grown(around.painted, width / 2) };
  const ink = inkOf(style.stroke, walk, reached, matrix, shareOf(style['stroke-opacity']), reading);
  if (!ink || width <= 0) return null;
  const cap = style['stroke-linecap'];
  const join = style['stroke-linejoin'];
  const dashes = style['stroke-dasharray'] === 'none' ? [] : numbersOf(style['stroke-dasharray']);
  return {
    ink,
    width,
    cap: cap === 'round' || cap === 'square' ? cap : 'butt',
    join: join === 'round' || join === 'bevel' ? join : 'miter',
    miterLimit: Math.min(100, Math.max(1, lengthOf(style['stroke-miterlimit'], 1, 4))),
    dashes: dashes.every((d) => d === 0)
      ? []
      : dashes.slice(0, 16).map((d) => Math.min(10_000, Math.abs(d) * scale * perDash)),
    dashOffset: lengthOf(style['stroke-dashoffset'], diagonal, 0) * scale * perDash,
  };
};

export const isStrokeFirst = (style: Style): boolean =>
  /^\s*(stroke|markers\s+stroke)/.test(style['paint-order'] ?? '');
