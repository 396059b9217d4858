/** Groups that are drawn on surfaces of their own, and laid over what is there. */
import { type Box, boxThrough } from '../geometry/bounds';
import { markBox } from '../recipe/marks';
import type { GroupMark, Mark } from '../recipe/types';
import { drawnBent } from './bend';
import { cutBy } from './cuts';
import { type Changed, drawThrough, PLAIN, sizeOf, viewOn, whole } from './laying';
import type { Surface } from './surface';
import { type DrawMarks, type Target, targetOf } from './target';

const OPERATIONS: { readonly [blend: string]: string } = {
  normal: 'source-over',
  within: 'source-over',
  plus: 'lighter',
};
export const operation = (blend: GroupMark['blend']): string => OPERATIONS[blend] ?? blend;

/** The whole pixels of the target within `clip` that a mark can touch; null for none. */
export const pixelsOf = (target: Target, mark: Mark, clip: Box): Box | null => {
  const box = markBox(mark);
  if (!box) return null;
  const { left, top, right, bottom } = boxThrough(target.view, box);
  const pixels = {
    left: Math.max(clip.left, Math.floor(left) - 1),
    top: Math.max(clip.top, Math.floor(top) - 1),
    right: Math.min(clip.right, Math.ceil(right) + 1),
    bottom: Math.min(clip.bottom, Math.ceil(bottom) + 1),
  };
  return pixels.right > pixels.left && pixels.bottom > pixels.top ? pixels : null;
};

/** Draws onto a surface of its own what will be seen of a group in these pixels of the target, `shrink` times smaller. */
export const drawnApart = (
  target: Target,
  group: GroupMark,
  pixels: Box,
  shrink: number,
  drawMarks: DrawMarks,
): Surface => {
  const { marks, cuts } = group;
  const { width, height } = sizeOf(pixels, shrink);
  const surface = target.tools.pool.take(width, height);
  const inner = targetOf(surface, width, height, viewOn(pixels, shrink, target.view), target.tools);
  if (group.bend) {
    const bent = drawnBent(inner, marks, group.bend, inner.clip, drawMarks);
    if (bent) drawThrough(inner, whole(bent), PLAIN, inner.clip);
    if (bent) target.tools.pool.give(bent);
  } else drawMarks(inner, marks);
  if (cuts) cutBy(inner, cuts, drawMarks);
  return surface;
};

/** Lays a surface over these pixels of the target. */
export const layOver = (target: Target, group: GroupMark, by: Changed, pixels: Box, shrink: number): void => {
  drawThrough(target, by, { alpha: group.alpha, operation: operation(group.blend) }, pixels, shrink);
  target.tools.pool.give(by.surface);
};
