import { heightOf, layoutText, type TextStyle } from './layout';
import type { Face } from './types';

interface FittedStyle extends TextStyle {
  readonly fit: 'none' | 'shrink' | 'fill';
  readonly wrap: number;
  /** Of its box. */
  readonly height: number;
}

/** The most that a text is enlarged to, in pixels per em. */
const MOST = 5_000;
/** Halvings of the sizes that come into question: of the most, about a thousandth of a pixel is left. */
const HALVINGS = 22;

/**
 * The largest size at which a text that is wrapped to a box stands in it, each of its lines and all of them: its own or less, or
 * any where it fills its box. 0 where none does.
 */
export const fittedSize = (face: Face, style: FittedStyle): number => {
  const fits = (size: number): boolean => {
    const layout = layoutText(face, { ...style, size });
    return heightOf(layout) <= style.height + 1e-6 && layout.lines.every(({ width }) => width <= style.wrap + 1e-6);
  };
  let [fitting, large] = [0, style.fit === 'fill' ? MOST : style.size];
  if (fits(large)) return large;
  for (let i = 0; i < HALVINGS; i++) {
    const size = (fitting + large) / 2;
    if (fits(size)) fitting = size;
    else large = size;
  }
  return fitting;
};
