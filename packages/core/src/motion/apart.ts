/** Points whose x and y have keyframes of their own. */
import { remembered } from '../document/remembered';
import { number, type NumberParam, type PointParam } from '../document/params';
import type { Point } from '../document/types';

const partsOf = remembered((param: PointParam): readonly [NumberParam, NumberParam] => {
  const make = (axis: 0 | 1) =>
    number(`${param.label} ${'xy'.charAt(axis)}`, (param.default as Point)[axis], {
      unit: param.unit,
      min: -param.limit,
      max: param.limit,
      step: param.step,
    });
  return [make(0), make(1)];
});

/** The description of x (0) or y (1) of a point. */
export const partParam = (param: PointParam, part: 0 | 1): NumberParam => partsOf(param)[part];
