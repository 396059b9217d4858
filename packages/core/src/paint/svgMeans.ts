/** What SVG has no means for, and what it does in one filter. */
import { cornersOf, type Homography, weightAt } from '../geometry/homography';
import { isWarp } from '../geometry/warp';
import { boxOfMarks, isGrained } from '../recipe/marks';
import type { GroupMark, Mark } from '../recipe/types';

/** A group with an effect, and the groups in it that have nothing but an effect of their own, from the outside in. */
export const chainOf = (group: GroupMark): readonly GroupMark[] => {
  const [only, ...more] = group.marks;
  const goesOn =
    only?.op === 'group' &&
    more.length === 0 &&
    only.effect &&
    only.alpha >= 1 &&
    only.blend === 'normal' &&
    !only.sum &&
    !only.cuts;
  return goesOn && !group.cuts ? [group, ...chainOf(only)] : [group];
};

/** Whether a map of the plane brings nothing of what marks draw nearer to the eye than the rest. */
const isLevel = (bend: Homography, marks: readonly Mark[]): boolean => {
  const box = boxOfMarks(marks);
  if (!box) return true;
  const weights = cornersOf(box).map((corner) => weightAt(bend, corner));
  return Math.max(...weights) - Math.min(...weights) <= 1e-6 * Math.abs(weights[0] as number);
};

/** What a mark is of that SVG has no means for, what is in a group aside; null where it draws it. */
export const lackOf = (mark: Mark): string | null => {
  if (mark.op === 'picture') return null;
  if (mark.op !== 'group') {
    if (mark.ink.style === 'angular') return 'Angular gradients';
    return isGrained(mark.ink) ? 'Gradients with grain' : null;
  }
  if (mark.bend && (isWarp(mark.bend) || !isLevel(mark.bend, mark.marks))) {
    return 'Gradients, pictures and effects in depth, pinned or bent by a mesh';
  }
  const isLacking = ({ effect }: GroupMark) => effect?.by.svg(effect.scale) === null;
  return chainOf(mark).some(isLacking) ? 'Squares, grain, clouds, patterns, ripples and warps' : null;
};
