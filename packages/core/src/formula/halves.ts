/** Points and their parts as samplers: the same objects for the same, so that what reads them is known again. */
import { remembered } from '../document/remembered';
import type { Point } from '../document/types';
import { headingOf } from '../motion/heading';
import type { Copy, Sampler } from '../motion/sampler';
import { costOf } from './parts';

const partOf = (of: Sampler, part: 0 | 1): Sampler => ({
  at: (frame, copy) => (of.at(frame, copy) as Point)[part],
  constant: of.constant,
  heading: () => null,
  perCopy: of.perCopy ?? false,
  ...(of.cost && { cost: of.cost }),
});
const halves = remembered((of: Sampler) => [partOf(of, 0), partOf(of, 1)] as const);

/** One part of a sampler of points. */
export const half = (of: Sampler, part: 0 | 1): Sampler => halves(of)[part];

const joins = remembered((x: Sampler) =>
  remembered((y: Sampler): Sampler => {
    const cost = { moments: 1 };
    const at = (frame: number, copy?: Copy): Point => {
      const point: Point = [x.at(frame, copy) as number, y.at(frame, copy) as number];
      cost.moments = Math.max(costOf(x), costOf(y));
      return point;
    };
    return {
      at,
      constant: x.constant && y.constant,
      heading: headingOf(at),
      perCopy: (x.perCopy ?? false) || (y.perCopy ?? false),
      cost,
    };
  }),
);

/** Two numbers as one point. */
export const joined = (x: Sampler, y: Sampler): Sampler => joins(x)(y);
