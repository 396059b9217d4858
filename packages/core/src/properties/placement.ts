/** Where a layer's own parameters put it within its parent. */
import { DEPTH, FLAT_PLACE, PLACE, type Values } from '../document/params';
import type { Properties } from '../document/types';
import { type Matrix, multiply, placed } from '../geometry/matrix';
import { chained, flatSpace, lookingFrom, placedInSpace, type Space } from '../geometry/space';
import { samplerOf } from '../motion/sampler';
import { type Computing, reader, type Reader } from '../motion/reader';

/** From pixels to where they are: in the plane of the scene, or in space. */
export type Pose = Matrix | Space;
export const isSpace = (pose: Pose): pose is Space => pose.length === 12;
export const inSpace = (pose: Pose): Space => (isSpace(pose) ? pose : flatSpace(pose));

/** `outer` after `inner`: in space where one of them is. */
export const posed = (outer: Pose, inner: Pose): Pose =>
  isSpace(outer) || isSpace(inner) ? chained(inSpace(outer), inSpace(inner)) : multiply(outer, inner);

export interface Placement extends Reader<typeof FLAT_PLACE> {
  /** The turn that a layer has in its parent: one that turns with its path has the path's direction for its zero. */
  readonly turn: (frame: number) => number;
  /** From the layer's pixels to its parent's, without its depth: what edits in the plane go by. */
  readonly matrix: (frame: number) => Matrix;
  /** From the layer's pixels to its parent's. */
  readonly pose: (frame: number) => Pose;
  /** Whether it stands where it stands at every frame. */
  readonly still: boolean;
  /** What it has besides, in depth; null where it has none. */
  readonly depthAt: (frame: number) => Values<typeof DEPTH> | null;
}

export const placementOf = (params: Properties, computing?: Computing): Placement => {
  const place = reader(FLAT_PLACE, params, computing);
  const hasDepth = computing?.('depth') ?? samplerOf(PLACE.depth, params.depth);
  const depth = hasDepth.constant && hasDepth.at(0) !== true ? null : reader(DEPTH, params, computing);
  const { heading } = computing?.('position') ?? samplerOf(PLACE.position, params.position);
  const turn = (frame: number): number => {
    const { rotation, along } = place.at(frame);
    return along ? rotation + (heading(frame) ?? 0) : rotation;
  };
  const flatAt = (frame: number): Values<typeof FLAT_PLACE> => {
    const flat = place.at(frame);
    return flat.along ? { ...flat, rotation: turn(frame) } : flat;
  };
  const depthAt = (frame: number) => (depth && hasDepth.at(frame) === true ? depth.at(frame) : null);
  return {
    ...place,
    turn,
    still: place.constant && !place.at(0).along && hasDepth.constant && (depth?.constant ?? true),
    depthAt,
    matrix: (frame) => placed(flatAt(frame)),
    pose: (frame) => {
      const flat = flatAt(frame);
      const own = depthAt(frame);
      if (!own) return placed(flat);
      const { position, pivot, scale, rotation } = flat;
      const { z, pivotZ, scaleZ, turnX, turnY } = own;
      return own.camera && own.aims
        ? lookingFrom([...position, z], [...own.target, own.targetZ], rotation)
        : placedInSpace({ position, z, pivot, pivotZ, scale, scaleZ, turnX, turnY, rotation });
    },
  };
};
