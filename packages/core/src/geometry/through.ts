/** Maps of the plane of either kind: matrices, and those that only keep straight lines straight. */
import type { Point } from '../document/types';
import { type Box, boxThrough } from './bounds';
import {
  applyHomography,
  asMatrix,
  boxBent,
  composed,
  flatHomography,
  type Homography,
  invertedHomography,
  matrixNear,
} from './homography';
import { apply, inverted, type Matrix, multiply } from './matrix';

/** A map of the plane: one that keeps what is parallel so, or one that does not. */
export type Through = Matrix | Homography;
export const isMatrix = (through: Through): through is Matrix => through.length === 6;
const asHomography = (through: Through): Homography => (isMatrix(through) ? flatHomography(through) : through);

/** `outer` after `inner`. */
export const throughBoth = (outer: Through, inner: Through): Through =>
  isMatrix(outer) && isMatrix(inner) ? multiply(outer, inner) : composed(asHomography(outer), asHomography(inner));

export const applyThrough = (through: Through, at: Point): Point =>
  isMatrix(through) ? apply(through, at) : applyHomography(through, at);

/** The box round what is seen of a box; null for nothing. */
export const boxSeen = (through: Through, box: Box): Box | null =>
  isMatrix(through) ? boxThrough(through, box) : boxBent(through, box);

/** null for one that flattens the plane. */
export const throughBack = (through: Through): Through | null =>
  isMatrix(through) ? inverted(through) : invertedHomography(through);

/** The matrix that comes nearest to it about a point. */
export const nearestMatrix = (through: Through, at: Point): Matrix =>
  isMatrix(through) ? through : (asMatrix(through) ?? matrixNear(through, at));
