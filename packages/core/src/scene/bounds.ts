import type { Id, Point } from '../document/types';
import { type Box, boxThrough, union } from '../geometry/bounds';
import { apply, type Matrix } from '../geometry/matrix';
import { markBox } from '../recipe/marks';
import type { Program } from './compile';

/** The box of what a layer draws, in the layer's own pixels; null where it draws nothing. */
export const layerBox = (program: Program, layer: Id, frame: number): Box | null =>
  program.marksAt(layer, frame).reduce<Box | null>((box, mark) => union(box, markBox(mark)), null);

/** The upright box of a layer in the scene. */
export const layerBoxInScene = (program: Program, layer: Id, frame: number): Box | null => {
  const box = layerBox(program, layer, frame);
  return box && boxThrough(program.matrixAt(layer, frame), box);
};

/** The corners of a box through a matrix, clockwise from its top left. */
export const cornersThrough = (m: Matrix, box: Box): readonly [Point, Point, Point, Point] => [
  apply(m, [box.left, box.top]),
  apply(m, [box.right, box.top]),
  apply(m, [box.right, box.bottom]),
  apply(m, [box.left, box.bottom]),
];
