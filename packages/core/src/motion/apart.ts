/** Points whose x and y have keyframes of their own. */
import { number, type NumberParam, type PointParam } from '../document/params';
import type { Point } from '../document/types';

const params = new WeakMap<PointParam, readonly [NumberParam, NumberParam]>();

/** The description of x (0) or y (1) of a point. */
export const partParam = (param: PointParam, part: 0 | 1): NumberParam => {
  let both = params.get(param);
  if (!both) {
    const make = (axis: 0 | 1) =>
      number(`${param.label} ${'xy'.charAt(axis)}`, (param.default as Point)[axis], {
        unit: param.unit,
        min: -param.limit,
        max: param.limit,
        step: param.step,
      });
    params.set(param, (both = [make(0), make(1)]));
  }
  return both[part];
};
