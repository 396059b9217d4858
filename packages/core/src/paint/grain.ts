/** Noise in gradients. */
import type { Color } from '../document/types';
import { hashed } from '../document/random';
import { remembered } from '../document/remembered';
import { boxThrough } from '../geometry/bounds';
import { inverted, multiply } from '../geometry/matrix';
import type { FillMark, GradientInk, StrokeMark } from '../recipe/types';
import { pixelsOf } from './apart';
import { styleOf } from './inks';
import { drawThrough, type Laying, sizeOf, viewOn, whole } from './laying';
import type { Surface, SurfacePool } from './surface';
import { type Target, targetOf } from './target';

const SIDE = 256;

/** A tile of grey noise, the same on every machine. */
const tileOf = remembered((pool: SurfacePool): Surface => {
  const tile = pool.make(SIDE, SIDE);
  const pixels = tile.context.createImageData(SIDE, SIDE);
  for (let i = 0; i < SIDE * SIDE; i++) {
    pixels.data.fill(hashed(i) & 255, i * 4, i * 4 + 3);
    pixels.data[i * 4 + 3] = 255;
  }
  tile.context.putImageData(pixels, 0, 0);
  return tile;
});

const opaque = (color: Color): Color => color.slice(0, 7) as Color;
/** How opaque a colour is, as grey. */
const opacity = (color: Color): Color => `#${(color.slice(7) || 'FF').repeat(3)}`;

/**
 * Draws a mark whose gradient has noise: in its colours, and in how far it shows what is behind it. Noise that was laid over what is
 * drawn would be seen on what shows through, and by other edges: all is covered with the noisy gradient, of which the mark is cut out.
 */
export const drawGrained = (
  target: Target,
  mark: FillMark | StrokeMark,
  ink: GradientInk,
  laying: Laying,
  drawPath: (target: Target, mark: FillMark | StrokeMark, alpha: number, operation: string) => void,
): void => {
  const pixels = pixelsOf(target, mark, target.clip);
  const back = inverted(multiply(target.view, mark.matrix));
  if (!pixels || !back) return;
  const { pool } = target.tools;
  const { width, height } = sizeOf(pixels);
  const surface = pool.take(width, height);
  const { context } = surface;
  const view = viewOn(pixels, 1, target.view);
  const { left, top, right, bottom } = boxThrough(back, pixels);
  const cover = (fillStyle: unknown, globalAlpha: number, globalCompositeOperation: string) => {
    Object.assign(context, { fillStyle, globalAlpha, globalCompositeOperation });
    context.fillRect(left, top, right - left, bottom - top);
  };
  const { stops } = ink.gradient;
  const covered = (as: typeof opaque) => {
    const gradient = { stops: stops.map(({ at, color }) => ({ at, color: as(color) })) };
    cover(styleOf(context, { ...ink, gradient }), 1, 'source-over');
    cover(context.createPattern(tileOf(pool).image, 'repeat'), ink.grain, 'overlay');
  };
  context.setTransform(...multiply(view, mark.matrix));
  covered(opaque);
  if (stops.some(({ color }) => color !== opaque(color))) {
    const seen = () => context.getImageData(0, 0, width, height);
    const shown = seen();
    covered(opacity);
    const { data } = seen();
    for (let i = 3; i < data.length; i += 4) shown.data[i] = data[i - 1] as number;
    context.putImageData(shown, 0, 0);
  }
  const inner = targetOf(surface, width, height, view, target.tools);
  drawPath(inner, { ...mark, alpha: 1, ink: { style: 'solid', color: '#000' } }, 1, 'destination-in');
  drawThrough(target, whole(surface), laying, pixels);
  pool.give(surface);
};
