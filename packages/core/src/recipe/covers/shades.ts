/** A gradient as shades, for what is worked out pixel by pixel. */
import { remembered } from '../../document/remembered';
import type { Gradient } from '../../document/types';
import { gradientAt } from '../../motion/gradients';
import { rgbOf, type Shades } from '../../picture/pixels';

/** Its colours at 256 places. */
export const shadesOf = remembered((of: Gradient): Shades =>
  Array.from({ length: 256 }, (_, i) => {
    const color = gradientAt(of, i / 255);
    const [r, g, b] = rgbOf(color);
    const alpha = color.length > 7 ? parseInt(color.slice(7, 9), 16) : 255;
    return (r | (g << 8) | (b << 16) | (alpha << 24)) >>> 0;
  }),
);
