/** Marks through maps of the plane of either kind. */
import { asMatrix, type Homography } from '../geometry/homography';
import { isMatrix, type Through } from '../geometry/through';
import { marksProjected } from './bent';
import { markThrough } from './marks';
import type { Mark } from './types';

/** Marks through a map that keeps straight lines straight; `asMatrix` finds those that keep what is parallel so, too. */
export const marksThrough = (through: Through, marks: readonly Mark[]): readonly Mark[] => {
  const matrix = isMatrix(through) ? through : asMatrix(through);
  if (matrix) return marks.map((mark) => markThrough(matrix, mark));
  return marksProjected(through as Homography, marks);
};
