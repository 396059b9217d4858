/** Pixels that are half there, made to show or not: GIF knows no others. */
import { isOpaque } from '@kite/core/delivery/opaque';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import type { Scene } from '@kite/core/document/types';
import { rgbOf } from '@kite/core/picture/pixels';
import { BAYER } from './palette';

/** What shows less than this, of 255, is left out of what is mixed with a ground. */
const LEAST = 8;

/** What to do, in place, to the RGBA pixels of each frame of a scene, rows of `width`: alpha is 0 or 255 then. */
export const settling = (
  scene: Scene,
  { edge, ground }: FormatSettings<'gif'>,
  width: number,
): ((pixels: Uint8Array) => void) => {
  if (isOpaque(scene)) return () => undefined;
  const [red, green, blue] = rgbOf(ground);
  const mixed = (pixels: Uint8Array, p: number): void => {
    const alpha = pixels[p + 3]! / 255;
    pixels[p] = Math.round(pixels[p]! * alpha + red * (1 - alpha));
    pixels[p + 1] = Math.round(pixels[p + 1]! * alpha + green * (1 - alpha));
    pixels[p + 2] = Math.round(pixels[p + 2]! * alpha + blue * (1 - alpha));
  };
  const shows = (alpha: number, at: number): boolean => {
    if (edge === 'none') return true;
    if (edge === 'mixed') return alpha >= LEAST;
    if (edge === 'hard') return alpha >= 128;
    const threshold = BAYER[(Math.floor(at / width) & 7) * 8 + ((at % width) & 7)]!;
    return alpha * 64 > (threshold + 0.5) * 255;
  };
  return (pixels) => {
    for (let p = 0, at = 0; p < pixels.length; p += 4, at++) {
      const alpha = pixels[p + 3]!;
      if (alpha === 255) continue;
      const seen = shows(alpha, at);
      if (seen && (edge === 'mixed' || edge === 'none')) mixed(pixels, p);
      pixels[p + 3] = seen ? 255 : 0;
    }
  };
};
