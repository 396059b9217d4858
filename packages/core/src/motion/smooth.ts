import type { KeyedProperty, Keyframe, PathHandles, Point } from '../document/types';

/** How far handles reach, as a share of the way to the next keyframe. */
const REACH = 1 / 3;

/**
 * Handles that lead a motion path smoothly through a keyframe: along the chord between its neighbours (the tangents of
 * a cardinal spline), each a third of the distance on its side long. At an end they point to the neighbour.
 */
export const smoothHandles = ({ keys }: KeyedProperty, frame: number): PathHandles => {
  const i = keys.findIndex((k) => k.frame === frame);
  const here = (keys[i] as Keyframe).value as Point;
  const before = (keys[i - 1]?.value ?? here) as Point;
  const after = (keys[i + 1]?.value ?? here) as Point;
  const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
  const chord = Math.hypot(dx, dy) || 1;
  const back = Math.hypot(here[0] - before[0], here[1] - before[1]) * REACH;
  const on = Math.hypot(after[0] - here[0], after[1] - here[1]) * REACH;
  return [(-dx / chord) * back, (-dy / chord) * back, (dx / chord) * on, (dy / chord) * on];
};
