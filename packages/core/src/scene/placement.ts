/** Where a layer's own parameters put it within its parent. */
import { PLACE } from '../document/params';
import type { Properties } from '../document/types';
import { type Matrix, placed } from '../geometry/matrix';
import { samplerOf } from '../motion/sampler';
import { type Computing, reader, type Reader } from '../motion/reader';

export interface Placement extends Reader<typeof PLACE> {
  /** The turn that a layer has in its parent: one that turns with its path has the path's direction for its zero. */
  readonly turn: (frame: number) => number;
  /** From the layer's pixels to its parent's. */
  readonly matrix: (frame: number) => Matrix;
}

export const placementOf = (params: Properties, computing?: Computing): Placement => {
  const place = reader(PLACE, params, computing);
  const { heading } = computing?.('position') ?? samplerOf(PLACE.position, params.position);
  const turn = (frame: number): number => {
    const { rotation, along } = place.at(frame);
    return along ? rotation + (heading(frame) ?? 0) : rotation;
  };
  return { ...place, turn, matrix: (frame) => placed({ ...place.at(frame), rotation: turn(frame) }) };
};
