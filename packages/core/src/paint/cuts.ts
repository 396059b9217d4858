/**
 * Pictures cut by areas. By compositing (Compositing and Blending Level 1, 9), since the edges of canvas clips are not the
 * same everywhere, and those of fills are.
 */
import { meanScale, multiply } from '../geometry/matrix';
import { trace } from '../geometry/trace';
import { blurBy } from '../recipe/covers/blur';
import { deviationOf } from '../recipe/marks';
import type { AreaCut, Cut, CutMode, Mark } from '../recipe/types';
import { changed, shrinkFor } from './change';
import type { Surface } from './surface';
import type { Target } from './target';

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

const fillArea = ({ context, view }: Target, { outlines, matrix }: AreaCut): void => {
  context.setTransform(...multiply(view, matrix));
  context.fillStyle = '#000';
  context.beginPath();
  for (const outline of outlines) trace(context, outline);
  context.fill('nonzero');
};

/** How marks are drawn: handed on, since those draw cuts in turn. */
type DrawMarks = (target: Target, marks: readonly Mark[]) => void;

/** An area with a soft edge, a picture, or all but one of these, on a surface that reaches `margin` pixels beyond the target on each side. */
const drawnArea = (
  target: Target,
  cut: Cut,
  drawMarks: DrawMarks,
): { surface: Surface; margin: number; shrink: number } => {
  const { clip, view, tools } = target;
  const deviation = 'marks' in cut ? 0 : deviationOf(cut.feather) * cut.scale * meanScale(view);
  const margin = Math.ceil(deviation * 3);
  const by = blurBy(deviation);
  const shrink = by ? shrinkFor(by, 1, tools.pool) : 1;
  const [width, height] = [clip.right, clip.bottom].map((side) => Math.ceil((side + 2 * margin) / shrink)) as [
    number,
    number,
  ];
  const plain = tools.pool.take(width, height);
  const inner: Target = {
    context: plain.context,
    clip: { left: 0, top: 0, right: width, bottom: height },
    view: multiply([1 / shrink, 0, 0, 1 / shrink, margin / shrink, margin / shrink], view),
    tools,
  };
  Object.assign(plain.context, { globalAlpha: 1, globalCompositeOperation: 'source-over' });
  if ('marks' in cut) drawMarks(inner, cut.marks);
  else fillArea(inner, cut);
  const surface = by ? changed(plain, by, { width, height, scale: 1 / shrink }, tools.pool) : plain;
  if (cut.inverted) {
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    Object.assign(context, { globalAlpha: 1, globalCompositeOperation: 'source-out', fillStyle: '#000' });
    context.fillRect(0, 0, width, height);
  }
  return { surface, margin, shrink };
};

const layArea = (target: Target, cut: Cut, operation: string, drawMarks: DrawMarks): void => {
  const { context, clip, tools } = target;
  const laying = { globalAlpha: cut.strength, globalCompositeOperation: operation };
  if (isHard(cut)) {
    Object.assign(context, laying);
    fillArea(target, cut);
    return;
  }
  const { surface, margin, shrink } = drawnArea(target, cut, drawMarks);
  Object.assign(context, laying);
  const { right: width, bottom: height } = clip;
  context.setTransform(1, 0, 0, 1, 0, 0);
  if (shrink > 1) Object.assign(context, { imageSmoothingEnabled: true, imageSmoothingQuality: 'high' });
  const from = margin / shrink;
  context.drawImage(surface.image, from, from, width / shrink, height / shrink, 0, 0, width, height);
  tools.pool.give(surface);
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
  const { context, clip, tools } = target;
  const { right: width, bottom: height } = clip;
  const area = tools.pool.take(width, height);
  const whole = LEAVING[first.mode] === 'destination-out';
  if (whole) {
    Object.assign(area.context, { globalAlpha: 1, globalCompositeOperation: 'source-over', fillStyle: '#000' });
    area.context.setTransform(1, 0, 0, 1, 0, 0);
    area.context.fillRect(0, 0, width, height);
  }
  const joining: Target = { ...target, context: area.context };
  layArea(joining, first, whole ? 'destination-out' : 'source-over', drawMarks);
  for (const cut of rest) layArea(joining, cut, JOINING[cut.mode], drawMarks);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'destination-in';
  context.drawImage(area.image, 0, 0, width, height, 0, 0, width, height);
  tools.pool.give(area);
};
