/**
 * Pictures cut by areas. By compositing (Compositing and Blending Level 1, 9), since the edges of canvas clips are not the
 * same everywhere, and those of fills are.
 */
import { type Box, grown } from '../geometry/bounds';
import { meanScale } from '../geometry/matrix';
import { trace } from '../geometry/trace';
import { blurBy } from '../recipe/covers/blur';
import { deviationOf } from '../recipe/marks';
import type { AreaCut, Cut, CutMode } from '../recipe/types';
import { areaOn } from './crisp';
import { changed, finished, shrinkFor } from './change';
import { drawGrowth } from './growth';
import { type Changed, drawThrough, sizeOf, viewOn, whole } from './laying';
import { type DrawMarks, type Target, targetOf } from './target';

/** How an area is laid over those before it, as areas. */
const JOINING: { readonly [M in CutMode]: string } = {
  add: 'source-over',
  hide: 'destination-out',
  show: 'destination-in',
  exclude: 'xor',
};
/** What the first area leaves of a picture. */
const LEAVING: { readonly [M in CutMode]: string } = {
  add: 'destination-in',
  hide: 'destination-out',
  show: 'destination-in',
  exclude: 'destination-out',
};

const isHard = (cut: Cut): cut is AreaCut => !cut.inverted && 'outlines' in cut && cut.feather <= 0;

const fillArea = ({ context, view }: Target, cut: AreaCut): void => {
  const { outlines, matrix } = areaOn(cut, view);
  context.setTransform(...matrix);
  context.fillStyle = '#000';
  context.beginPath();
  for (const outline of outlines) trace(context, outline);
  context.fill('nonzero');
};

/** An area with a soft edge, a picture, or all but one of these, on a surface for these pixels of the target, `shrink` times smaller. */
const drawnArea = (
  target: Target,
  cut: Cut,
  drawMarks: DrawMarks,
): { readonly area: Changed; readonly pixels: Box; readonly shrink: number } => {
  const { clip, view, tools } = target;
  const deviation = 'outlines' in cut ? deviationOf(cut.feather) * cut.scale * meanScale(view) : 0;
  const by = blurBy(deviation);
  const shrink = by ? shrinkFor(by, 1) : 1;
  const pixels = grown(clip, Math.ceil(deviation * 3));
  const { width, height } = sizeOf(pixels, shrink);
  const plain = tools.pool.take(width, height);
  const inner = targetOf(plain, width, height, viewOn(pixels, shrink, view), tools);
  Object.assign(plain.context, { globalAlpha: 1, globalCompositeOperation: 'source-over' });
  if ('marks' in cut) drawMarks(inner, cut.marks);
  else if ('growth' in cut) drawGrowth(inner, cut, drawMarks);
  else fillArea(inner, cut);
  const area = by ? changed(plain, by, { width, height, scale: 1 / shrink }) : whole(plain);
  if (shrink <= 1 && !cut.inverted) return { area, pixels, shrink };
  const surface = finished(area, width, height, tools.pool);
  if (cut.inverted) {
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    Object.assign(context, { globalAlpha: 1, globalCompositeOperation: 'source-out', fillStyle: '#000' });
    context.fillRect(0, 0, width, height);
  }
  return { area: whole(surface), pixels, shrink };
};

const layArea = (target: Target, cut: Cut, operation: string, drawMarks: DrawMarks): void => {
  const { context, tools } = target;
  if (isHard(cut)) {
    Object.assign(context, { globalAlpha: cut.strength, globalCompositeOperation: operation });
    fillArea(target, cut);
    return;
  }
  const { area, pixels, shrink } = drawnArea(target, cut, drawMarks);
  drawThrough(target, area, { alpha: cut.strength, operation }, pixels, shrink);
  tools.pool.give(area.surface);
};

/** Leaves of what has been drawn on a whole surface what its cuts let through. */
export const cutBy = (target: Target, cuts: readonly Cut[], drawMarks: DrawMarks): void => {
  const [first, ...rest] = cuts;
  if (!first) return;
  // What only narrows down is done to the picture itself, one after another.
  if (rest.every(({ mode }) => mode === 'show' || mode === 'hide')) {
    for (const cut of cuts) layArea(target, cut, LEAVING[cut.mode], drawMarks);
    return;
  }
  const { clip, tools } = target;
  const { right: width, bottom: height } = clip;
  const area = tools.pool.take(width, height);
  const all = LEAVING[first.mode] === 'destination-out';
  if (all) {
    Object.assign(area.context, { globalAlpha: 1, globalCompositeOperation: 'source-over', fillStyle: '#000' });
    area.context.setTransform(1, 0, 0, 1, 0, 0);
    area.context.fillRect(0, 0, width, height);
  }
  const joining: Target = { ...target, context: area.context };
  layArea(joining, first, all ? 'destination-out' : 'source-over', drawMarks);
  for (const cut of rest) layArea(joining, cut, JOINING[cut.mode], drawMarks);
  drawThrough(target, whole(area), { alpha: 1, operation: 'destination-in' }, clip);
  tools.pool.give(area);
};
