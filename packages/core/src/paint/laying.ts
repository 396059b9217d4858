/** Surfaces that are laid over what is there, and what is left to whoever lays them. */
import type { Box } from '../geometry/bounds';
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
interface Laying {
  readonly alpha: number;
  readonly operation: string;
}
export const PLAIN: Laying = { alpha: 1, operation: 'source-over' };

/** Draws the upper left of a surface, and does what was left, to a place of the target's pixels, `shrink` times as large. */
export const drawThrough = (
  { context, open }: Pick<Target, 'context' | 'open'>,
  { surface, filter, pixels }: Changed,
  { alpha, operation }: Laying,
  { left, top, right, bottom }: Box,
  shrink = 1,
): void => {
  const inOpen = left >= open.left && top >= open.top && right <= open.right && bottom <= open.bottom;
  if (pixels && inOpen && shrink === 1 && alpha >= 1 && operation === 'source-over') {
    context.putImageData(pixels, left, top);
    return;
  }
  if (pixels) surface.context.putImageData(pixels, 0, 0);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = alpha;
  context.globalCompositeOperation = operation;
  if (shrink > 1) Object.assign(context, { imageSmoothingEnabled: true, imageSmoothingQuality: 'low' });
  if (filter !== 'none') context.filter = filter;
  const [width, height] = [right - left, bottom - top];
  context.drawImage(surface.image, 0, 0, width / shrink, height / shrink, left, top, width, height);
  if (filter !== 'none') context.filter = 'none';
};
