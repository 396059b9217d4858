/** A colour of its own for each shape that is painted. */
import type { Color, Gradient } from '../../document/types';
import { gradientAt } from '../../motion/gradients';

interface EachInk {
  style: string;
  color: Color;
  gradient: Gradient;
}

/** The values of a paint for one of so many shapes: the first has the colour at the gradient's start, the last that at its end. */
export const inkOfEach = <V extends EachInk>(v: V) =>
  v.style === 'each'
    ? (order: number, count: number): V => ({
        ...v,
        color: gradientAt(v.gradient, count > 1 ? order / (count - 1) : 0),
      })
    : null;
