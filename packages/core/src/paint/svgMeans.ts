/** What SVG has no means for, and what it does in one filter. */
import { isGrained } from '../recipe/marks';
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
    !only.cuts;
  return goesOn && !group.cuts ? [group, ...chainOf(only)] : [group];
};

/** What a mark is of that SVG has no means for, what is in a group aside; null where it draws it. */
export const lackOf = (mark: Mark): string | null => {
  if (mark.op === 'picture') return null;
  if (mark.op !== 'group') {
    if (mark.ink.style === 'angular') return 'angular gradients';
    return isGrained(mark.ink) ? 'gradients with grain' : null;
  }
  // What a matrix does is none (recipe/marksThrough.ts).
  if (mark.bend) return 'gradients, pictures and effects in depth, pinned or bent by a mesh';
  const isLacking = ({ effect }: GroupMark) => effect?.by.svg(effect.scale) === null;
  return mark.effect && chainOf(mark).some(isLacking) ? 'squares, grain, clouds, patterns, ripples and warps' : null;
};
