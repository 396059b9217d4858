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

/** Handles lie in one line where they enclose less than this share of what they could. */
const IN_LINE = 0.02;

/**
 * Handles of which one is pulled so far from its keyframe. The other one turns along, as long as it is, while both lie in one line
 * and are not parted; pulled out of a corner both are as long as each other.
 */
export const pulledHandles = (
  [inX, inY, outX, outY]: PathHandles,
  end: 'in' | 'out',
  [x, y]: Point,
  { both, parted }: { readonly both: boolean; readonly parted: boolean },
): PathHandles => {
  const [other, own]: readonly [Point, Point] =
    end === 'out'
      ? [
          [inX, inY],
          [outX, outY],
        ]
      : [
          [outX, outY],
          [inX, inY],
        ];
  const lengths = [Math.hypot(...other), Math.hypot(...own)] as const;
  const inLine =
    lengths[0] > 0 && lengths[1] > 0 && Math.abs(inX * outY - inY * outX) < IN_LINE * lengths[0] * lengths[1];
  const size = Math.hypot(x, y) || 1;
  const length = both ? size : lengths[0];
  const [ox, oy] = both || (inLine && !parted) ? [(-x / size) * length, (-y / size) * length] : other;
  return end === 'out' ? [ox, oy, x, y] : [x, y, ox, oy];
};
