/** Surfaces that are laid over what is there, and what is left to whoever lays them. */
import type { Box } from '../geometry/bounds';
import { type Matrix, multiply } from '../geometry/matrix';
import type { Size } from '../geometry/size';
import type { Context2D, Surface } from './surface';
import type { Target } from './target';

export type Pixels = ReturnType<Context2D['getImageData']>;

/** A surface, and what has been left to whoever draws it, which is once less than on a surface of its own. */
export interface Changed {
  readonly surface: Surface;
  /** What it is to be drawn through; 'none' for nothing. */
  readonly filter: string;
  /** Its changed pixels, where nothing shows through them and they are not on it yet. */
  readonly pixels: Pixels | null;
}

/** A surface that nothing is left to be done to. */
export const whole = (surface: Surface): Changed => ({ surface, filter: 'none', pixels: null });

/** How a surface is laid over what is there. */
export interface Laying {
  readonly alpha: number;
  readonly operation: string;
}
export const PLAIN: Laying = { alpha: 1, operation: 'source-over' };

/** How large a surface for these pixels is, `shrink` times smaller. */
export const sizeOf = ({ left, top, right, bottom }: Box, shrink = 1): Size => ({
  width: Math.ceil((right - left) / shrink),
  height: Math.ceil((bottom - top) / shrink),
});

/** From what the target's view is from to the pixels of such a surface. */
export const viewOn = ({ left, top }: Box, shrink: number, view: Matrix): Matrix =>
  multiply([1 / shrink, 0, 0, 1 / shrink, -left / shrink, -top / shrink], view);

/**
 * Draws the upper left of a surface for these pixels of the target, and does what was left. Whole pixels are drawn `shrink` times as
 * large, and so may end a little beyond: at a part of one platforms show what lies next to it.
 */
export const drawThrough = (
  { context, open }: Pick<Target, 'context' | 'open'>,
  { surface, filter, pixels }: Changed,
  { alpha, operation }: Laying,
  box: Box,
  shrink = 1,
): void => {
  const { left, top, right, bottom } = box;
  const inOpen = left >= open.left && top >= open.top && right <= open.right && bottom <= open.bottom;
  if (pixels && inOpen && shrink === 1 && alpha >= 1 && operation === 'source-over') {
    context.putImageData(pixels, left, top);
    return;
  }
  if (pixels) surface.context.putImageData(pixels, 0, 0);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = alpha;
  context.globalCompositeOperation = operation;
  if (shrink > 1) context.imageSmoothingQuality = 'low';
  if (filter !== 'none') context.filter = filter;
  const { width, height } = sizeOf(box, shrink);
  context.drawImage(surface.image, 0, 0, width, height, left, top, width * shrink, height * shrink);
  if (filter !== 'none') context.filter = 'none';
};
