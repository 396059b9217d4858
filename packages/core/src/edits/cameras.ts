/** Cameras that look at a point of their own, and those that go around what they look at. */
import { type Edit, together } from '../document/patches';
import type { Id, Point, PropertyRef, Value } from '../document/types';
import { applySpace, chained, decomposedSpace, lookingFrom, type Point3, translationAway } from '../geometry/space';
import { inSpace, placementOf } from '../properties/placement';
import type { Writing } from '../motion/keys';
import type { Program } from '../scene/program';
import { eyeOf } from '../scene/eye';
import { setValue } from './properties';

const tidy = (n: number): number => Math.round(n * 1000) / 1000 + 0;

/**
 * Lets a camera look at a point from where its eye is, or go around what it looks at: what it shows at a frame stays. Where it is animated,
 * what is written goes where changes go.
 */
export const aimCamera = (program: Program, layer: Id, aims: boolean, how: Writing): Edit => {
  const { scene, wiring } = program;
  const { frame } = how;
  const camera = scene.layers[layer];
  const placement = camera && placementOf(camera.params, wiring.computing(layer));
  const own = placement?.depthAt(frame);
  const ref = (key: string): PropertyRef => ({ scene: scene.id, layer, key });
  const writes = (values: { readonly [key: string]: Value }): Edit =>
    together(aims ? 'Look at a point' : 'Look around a place', [
      ...Object.entries(values).map(([key, value]) => setValue(ref(key), value, how)),
      setValue(ref('aims'), aims, how),
    ]);
  if (!placement || !own || own.aims === aims) return writes({});
  const { distance } = eyeOf(scene, own.angle);
  // Without perspective it is seen the same from any distance.
  const ahead = Number.isFinite(distance) ? distance : scene.width;
  const space = inSpace(placement.pose(frame));
  const split = ([x, y, z]: Point3): readonly [Point, number] => [[tidy(x), tidy(y)], tidy(z)];
  if (aims) {
    const [eye, at] = [applySpace(space, [0, 0, -ahead]), applySpace(space, [0, 0, 0])];
    const level = lookingFrom(eye, at, 0);
    const along = (column: 0 | 1) =>
      space[0] * level[column] + space[4] * level[4 + column]! + space[8] * level[8 + column]!;
    const [[position, z], [target, targetZ]] = [split(eye), split(at)];
    const rotation = tidy((Math.atan2(along(1), along(0)) * 180) / Math.PI);
    return writes({ position, z, target, targetZ, rotation });
  }
  const { turnX, turnY, rotation, ...place } = decomposedSpace(chained(space, translationAway(ahead)));
  const [position, z] = split([...place.position, place.z]);
  return writes({ position, z, turnX: tidy(turnX), turnY: tidy(turnY), rotation: tidy(rotation) });
};
