/** Points and their parts as samplers: the same objects for the same, so that what reads them is known again. */
import type { Point } from '../document/types';
import { headingOf } from '../motion/heading';
import type { Copy, Sampler } from '../motion/sampler';
import { costOf } from './parts';

const halves = new WeakMap<Sampler, [Sampler | null, Sampler | null]>();

/** One part of a sampler of points. */
export const half = (of: Sampler, part: 0 | 1): Sampler => {
  let both = halves.get(of);
  if (!both) halves.set(of, (both = [null, null]));
  return (both[part] ??= {
    at: (frame, copy) => (of.at(frame, copy) as Point)[part],
    constant: of.constant,
    heading: () => null,
    perCopy: of.perCopy ?? false,
    ...(of.cost && { cost: of.cost }),
  });
};

const joins = new WeakMap<Sampler, WeakMap<Sampler, Sampler>>();

/** Two numbers as one point. */
export const joined = (x: Sampler, y: Sampler): Sampler => {
  let withX = joins.get(x);
  if (!withX) joins.set(x, (withX = new WeakMap()));
  let both = withX.get(y);
  if (!both) {
    const cost = { moments: 1 };
    const at = (frame: number, copy?: Copy): Point => {
      const point: Point = [x.at(frame, copy) as number, y.at(frame, copy) as number];
      cost.moments = Math.max(costOf(x), costOf(y));
      return point;
    };
    both = {
      at,
      constant: x.constant && y.constant,
      heading: headingOf(at),
      perCopy: (x.perCopy ?? false) || (y.perCopy ?? false),
      cost,
    };
    withX.set(y, both);
  }
  return both;
};
