/** What effects do to surfaces: by compositing, by the canvas's own filters, or by the effect's kernel where neither does it. */
import { shrinkForBlur } from '../picture/boxes';
import type { Placed } from '../picture/pixels';
import type { Effect } from '../recipe/types';
import { type Changed, drawThrough, type Pixels, PLAIN, whole } from './laying';
import type { Context2D, Surface, SurfacePool } from './surface';

/** Filters of the platforms reach no further than some 1,600 pixels: for more, a picture is drawn smaller and enlarged. */
const MOST_REACH = 768;

/** How many times smaller a picture is to be drawn for an effect at a scale: where filters do not reach as far, and where it softens. */
export const shrinkFor = ({ reach, softness = 0 }: Effect, scale: number): number =>
  Math.max(1, (reach * scale) / MOST_REACH, shrinkForBlur(softness * scale));

/** The pixels of a surface; null where a page may not read them, for a picture of another origin is in them. */
export const pixelsRead = (context: Context2D, width: number, height: number): Pixels | null => {
  try {
    return context.getImageData(0, 0, width, height);
  } catch (error) {
    if ((error as Error).name === 'SecurityError') return null;
    throw error;
  }
};

interface Change extends Partial<Placed> {
  readonly width: number;
  readonly height: number;
  readonly scale: number;
}

/** A surface of `width` × `height` pixels with an effect. */
export const changed = (
  surface: Surface,
  by: Effect,
  { width, height, scale, origin = [0, 0], turn = 0 }: Change,
): Changed => {
  const { context } = surface;
  if (by.draw) {
    context.setTransform(1, 0, 0, 1, 0, 0);
    by.draw(context, width, height);
    return whole(surface);
  }
  if (by.filter && context.filter !== undefined) return { ...whole(surface), filter: by.filter(scale) };
  const pixels = by.pixels || by.colors ? pixelsRead(context, width, height) : null;
  if (pixels && by.colors?.(pixels.data)) return { ...whole(surface), pixels };
  if (pixels) {
    by.pixels?.(pixels.data, width, height, { scale, origin, turn });
    context.putImageData(pixels, 0, 0);
  }
  return whole(surface);
};

/** The same with nothing left: what is to be enlarged is not drawn through a filter that is meant for it as it is. */
export const finished = (left: Changed, width: number, height: number, pool: SurfacePool): Surface => {
  if (left.filter === 'none') {
    if (left.pixels) left.surface.context.putImageData(left.pixels, 0, 0);
    return left.surface;
  }
  const result = pool.take(width, height);
  const box = { left: 0, top: 0, right: width, bottom: height };
  drawThrough({ context: result.context, open: box }, left, PLAIN, box);
  pool.give(left.surface);
  return result;
};
