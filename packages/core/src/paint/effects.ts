/** Groups that are drawn with an effect. */
import type { Point } from '../document/types';
import { grown } from '../geometry/bounds';
import { apply, meanScale, turnOf } from '../geometry/matrix';
import type { GroupMark } from '../recipe/types';
import { drawnApart, layOver, pixelsOf } from './apart';
import { changed, finished, shrinkFor } from './change';
import { sizeOf, whole } from './laying';
import type { DrawMarks, Target } from './target';

/** Draws a group with its effect. */
export const drawEffect = (
  target: Target,
  group: GroupMark,
  { by, scale, origin, turn }: NonNullable<GroupMark['effect']>,
  drawMarks: DrawMarks,
): void => {
  const here = scale * meanScale(target.view);
  const reach = by.reach * here;
  if (!Number.isFinite(reach)) return;
  const seen = pixelsOf(target, group, target.clip);
  // What is outside of what is seen spreads into it.
  const pixels = seen && pixelsOf(target, group, grown(seen, Math.ceil(reach)));
  if (!pixels) return;
  const shrink = shrinkFor(by, here);
  const plain = drawnApart(target, group, pixels, shrink, drawMarks);
  const [x, y] = apply(target.view, origin);
  const from: Point = [(x - pixels.left) / shrink, (y - pixels.top) / shrink];
  const { width, height } = sizeOf(pixels, shrink);
  const done = changed(plain, by, {
    width,
    height,
    scale: here / shrink,
    origin: from,
    turn: turn + turnOf(target.view),
  });
  const laid = shrink > 1 ? whole(finished(done, width, height, target.tools.pool)) : done;
  layOver(target, group, laid, pixels, shrink);
};
