/** A picture as the tip of a brush: where it is opaque it presses, or, where it is so all over, as paper is, where it is dark. */
import { LUMA } from './pixels';

/** Alpha, 0..255, of what still counts as paper, and as opaque. */
const [NOTHING, OPAQUE] = [8, 250];

const isOpaque = (data: Uint8ClampedArray): boolean => {
  for (let i = 3; i < data.length; i += 4) if (data[i]! < OPAQUE) return false;
  return true;
};

/**
 * In place, over pixels of red, green, blue and alpha: black, as opaque as the tip presses there. Gives the part that presses at all, in
 * pixels; null for a picture that does so nowhere.
 */
export const toTip = (
  data: Uint8ClampedArray,
  width: number,
): { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | null => {
  const onPaper = isOpaque(data);
  let [left, top, right, bottom] = [Infinity, Infinity, -1, -1];
  for (let i = 0; i < data.length; i += 4) {
    if (onPaper) data[i + 3] = 255 - (LUMA[0] * data[i]! + LUMA[1] * data[i + 1]! + LUMA[2] * data[i + 2]!);
    data.fill(0, i, i + 3);
    if (data[i + 3]! <= NOTHING) continue;
    const [x, y] = [(i / 4) % width, Math.floor(i / 4 / width)];
    [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x), Math.max(bottom, y)];
  }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
};
