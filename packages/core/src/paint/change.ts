/** What effects do to surfaces: by compositing, by the canvas's own filters, or by the effect's kernel where neither does it. */
import type { Point } from '../document/types';
import type { Effect } from '../recipe/types';
import type { Context2D, Surface, SurfacePool } from './surface';

/** Filters of the platforms reach no further than some 1,600 pixels: for more, a picture is drawn smaller and enlarged. */
const MOST_REACH = 768;

/** A bell curve of this deviation loses nothing that is seen where our own kernel draws it, in pixels. */
const LEAST_SOFTNESS = 4;

const powerOfTwo = (exponent: number): number => 2 ** Math.max(0, exponent);

/**
 * How many times smaller a picture is to be drawn for an effect at a scale: where filters do not reach as far, and where our
 * own kernel stands in for one that softens.
 */
export const shrinkFor = ({ reach, softness = 0, filter }: Effect, scale: number, pool: SurfacePool): number => {
  const far = powerOfTwo(Math.ceil(Math.log2((reach * scale) / MOST_REACH)));
  if (softness <= 0 || (filter && pool.hasFilters)) return far;
  return Math.max(far, powerOfTwo(Math.floor(Math.log2((softness * scale) / LEAST_SOFTNESS))));
};

/** The pixels of a surface; null where a page may not read them, for a picture of another origin is in them. */
const pixelsRead = (
  context: Context2D,
  width: number,
  height: number,
): ReturnType<Context2D['getImageData']> | null => {
  try {
    return context.getImageData(0, 0, width, height);
  } catch (error) {
    if ((error as Error).name === 'SecurityError') return null;
    throw error;
  }
};

/** A surface of `width` × `height` pixels with an effect, of whose pixels `scale` are one, from `origin` on. What is given is given back to the pool, or changed. */
export const changed = (
  plain: Surface,
  by: Effect,
  {
    width,
    height,
    scale,
    origin = [0, 0],
  }: { readonly width: number; readonly height: number; readonly scale: number; readonly origin?: Point },
  pool: SurfacePool,
): Surface => {
  if (by.draw) {
    plain.context.setTransform(1, 0, 0, 1, 0, 0);
    by.draw(plain.context, width, height);
    return plain;
  }
  if (!by.filter || plain.context.filter === undefined) {
    const read = by.pixels && pixelsRead(plain.context, width, height);
    if (read) {
      by.pixels(read.data, width, height, scale, origin);
      plain.context.putImageData(read, 0, 0);
    }
    return plain;
  }
  const result = pool.take(width, height);
  const { context } = result;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  context.filter = by.filter(scale);
  context.drawImage(plain.image, 0, 0, width, height, 0, 0, width, height);
  context.filter = 'none';
  pool.give(plain);
  return result;
};
