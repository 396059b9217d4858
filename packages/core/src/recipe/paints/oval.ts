/** Gradients in ellipses: what they fill is drawn through the matrix that makes one of their circle. */
import type { Point } from '../../document/types';
import { IDENTITY, inverted, type Matrix, multiply, translation } from '../../geometry/matrix';
import { type Outline, transformed } from '../../geometry/outline';

/** Around a point: as long along the way to another one, and `breadth` times as wide across. */
const acrossBy = ([x, y]: Point, [toX, toY]: Point, breadth: number): Matrix => {
  const [dx, dy] = [toX - x, toY - y];
  const long = dx * dx + dy * dy || 1;
  // along · alongᵀ + breadth · across · acrossᵀ
  const [xx, xy, yy] = [(dx * dx) / long, (dx * dy) / long, (dy * dy) / long];
  const wider: Matrix = [xx + breadth * yy, xy - breadth * xy, xy - breadth * xy, yy + breadth * xx, 0, 0];
  return multiply(multiply(translation(x, y), wider), translation(-x, -y));
};

/** The same outlines in the pixels of a matrix in which a circle about `from` is an ellipse. `breadth` is above 0. */
export const throughOval = (
  outlines: readonly Outline[],
  from: Point,
  to: Point,
  breadth: number,
): { readonly outlines: readonly Outline[]; readonly matrix: Matrix } => {
  const matrix = acrossBy(from, to, breadth);
  const back = inverted(matrix);
  return back
    ? { outlines: outlines.map((outline) => transformed(back, outline)), matrix }
    : { outlines, matrix: IDENTITY };
};
