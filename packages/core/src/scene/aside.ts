/** A scene in depth looked at from beside its own eye: from above, from the left, straight on, or from anywhere. */
import type { Id, Point, Scene } from '../document/types';
import { cornersOf } from '../geometry/bounds';
import { IDENTITY } from '../geometry/matrix';
import {
  applySpace,
  type Eye,
  flatSpace,
  invertedSpace,
  placedInSpace,
  type Point3,
  type Space,
} from '../geometry/space';
import { boxOfMarks } from '../recipe/marks';
import type { Program } from './program';

/** Degrees about y and x by which the scene is turned, as a layer is. */
export interface Aside {
  readonly turn: number;
  readonly tilt: number;
}

/** What stands away from the eye goes up, seen from above, and to the left, seen from the left. */
export const ASIDES = {
  top: { turn: 0, tilt: -90 },
  left: { turn: 90, tilt: 0 },
  front: { turn: 0, tilt: 0 },
} as const satisfies Readonly<Record<string, Aside>>;

type Sized = Pick<Scene, 'width' | 'height'>;

/** An eye without perspective that sees the scene turned about its middle; the middle stays where it is. */
export const eyeAside = ({ width, height }: Sized, { turn, tilt }: Aside): Eye => {
  const middle: Point = [width / 2, height / 2];
  // About the scene's own y first, so that up stays up.
  const about = (turnX: number, turnY: number) =>
    placedInSpace({
      position: middle,
      z: 0,
      pivot: middle,
      pivotZ: 0,
      scale: [1, 1],
      scaleZ: 1,
      turnX,
      turnY,
      rotation: 0,
    });
  return { to: about(tilt, turn), middle, distance: Infinity };
};

/** Where a point of the scene's space is seen without perspective. */
export const seenAside = ({ to }: Eye, at: Point3): Point => {
  const [x, y] = applySpace(to, at);
  return [x, y];
};

/** The direction in a place's own pixels of one on the screen of an eye without perspective; null for a place that is flattened. */
export const directionAside = ({ to }: Eye, place: Space, [dx, dy]: Point): Point3 | null => {
  const [fromEye, back] = [invertedSpace(to), invertedSpace(place)];
  if (!fromEye || !back) return null;
  const along = (space: Space, [x, y, z]: Point3): Point3 => {
    const [at, from] = [applySpace(space, [x, y, z]), applySpace(space, [0, 0, 0])];
    return [at[0] - from[0], at[1] - from[1], at[2] - from[2]];
  };
  return along(back, along(fromEye, [dx, dy, 0]));
};

/** The corners of every plane of a layer, in the scene's space; of a layer that draws nothing the place where it stands. */
export const planesInSpace = (program: Program, layer: Id, frame: number): readonly (readonly Point3[])[] => {
  const planes = program.planesOf(layer, frame).flatMap(({ space, marks }) => {
    const box = boxOfMarks(marks, false);
    return box ? [cornersOf(box).map(([x, y]) => applySpace(space, [x, y, 0]))] : [];
  });
  return planes.length > 0 ? planes : [[applySpace(program.spaceAt(layer, frame), [0, 0, 0])]];
};

/** What an eye sees of the plane in which nothing is made larger or smaller, in the scene's space, and where it stands; null without perspective. */
export const sightOf = (
  { width, height }: Sized,
  { to, middle, distance }: Eye,
): { readonly corners: readonly Point3[]; readonly from: Point3 | null } => {
  const back = invertedSpace(to) ?? flatSpace(IDENTITY);
  const corners = cornersOf({ left: 0, top: 0, right: width, bottom: height });
  return {
    corners: corners.map(([x, y]) => applySpace(back, [x, y, 0])),
    from: Number.isFinite(distance) ? applySpace(back, [...middle, -distance]) : null,
  };
};
