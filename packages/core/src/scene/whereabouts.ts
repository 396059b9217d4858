/** Where the layers of a scene are, and from where they are looked at. */
import type { Id, Layer, Scene } from '../document/types';
import { seenFrom } from '../geometry/homography';
import { IDENTITY, type Matrix } from '../geometry/matrix';
import { applySpace, chained, type Eye, translationAway } from '../geometry/space';
import { nearestMatrix, type Through } from '../geometry/through';
import { inSpace, isSpace, type Placement, type Pose, posed } from '../properties/placement';
import { standings } from '../properties/standing';
import { eyeOf, eyeThrough, isFromBehind, throughOf } from './eye';
import { isShown } from './groups';
import type { Program } from './program';

/** What a program says of it. */
type Shown = Pick<
  Program,
  'matrixAt' | 'throughAt' | 'awayAt' | 'isAway' | 'aroundAt' | 'spaceAt' | 'eyeAt' | 'cameraAt'
>;

export interface Whereabouts {
  /** From a layer's pixels to the scene's, or to its space. */
  readonly poseOf: (layer: Layer, frame: number) => Pose;
  readonly eyeAt: (frame: number) => Eye;
  readonly seenThrough: (layer: Layer, frame: number) => Through;
  readonly matrixOf: (layer: Layer, frame: number) => Matrix;
  readonly shown: Shown;
}

/** `placeOf` gives a layer's own place in what it hangs from. */
export const whereabouts = (scene: Scene, placeOf: (layer: Layer) => Placement): Whereabouts => {
  const standing = standings(scene);

  // Those of one frame: what hangs from one layer asks for it again and again.
  let lastPoses = { frame: NaN, poses: new Map<Id, Pose>() };
  const poseOf = (layer: Layer, frame: number): Pose => {
    if (lastPoses.frame !== frame) lastPoses = { frame, poses: new Map() };
    const { poses } = lastPoses;
    const ready = poses.get(layer.id);
    if (ready) return ready;
    const own = placeOf(layer).pose(frame);
    const parent = standing.get(layer.id)?.parent;
    const pose = parent ? posed(poseOf(parent, frame), own) : own;
    poses.set(layer.id, pose);
    return pose;
  };
  const ownEye = eyeOf(scene);
  // Those that may be cameras, the front one first.
  const cameras = scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    return layer?.kind === 'controller' && (layer.params.camera || layer.formulas?.camera) ? [layer] : [];
  });
  let lastEye: { readonly frame: number; readonly eye: Eye } | null = null;
  const cameraAt = (frame: number): Layer | undefined =>
    cameras.find((layer) => isShown(scene, layer, frame) && placeOf(layer).depthAt(frame)?.camera);
  const eyeAt = (frame: number): Eye => {
    if (cameras.length === 0) return ownEye;
    if (lastEye?.frame === frame) return lastEye.eye;
    const camera = cameraAt(frame);
    const own = camera && placeOf(camera).depthAt(frame);
    const eye = (camera && own && eyeThrough(scene, inSpace(poseOf(camera, frame)), own)) ?? ownEye;
    lastEye = { frame, eye };
    return eye;
  };
  const seenThrough = (layer: Layer, frame: number): Through => throughOf(eyeAt(frame), poseOf(layer, frame));
  const matrixOf = (layer: Layer, frame: number): Matrix => {
    const pose = poseOf(layer, frame);
    return isSpace(pose) ? nearestMatrix(throughOf(eyeAt(frame), pose), placeOf(layer).at(frame).pivot) : pose;
  };

  const shown: Shown = {
    matrixAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? matrixOf(layer, frame) : IDENTITY;
    },
    throughAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? seenThrough(layer, frame) : IDENTITY;
    },
    awayAt: (id, frame, [x, y]) => {
      const layer = scene.layers[id];
      const pose = layer && poseOf(layer, frame);
      return pose && isSpace(pose) ? applySpace(pose, [x, y, 0])[2] : null;
    },
    isAway: (id, frame, at) => {
      const layer = scene.layers[id];
      const pose = layer && poseOf(layer, frame);
      if (!pose || !isSpace(pose) || placeOf(layer).depthAt(frame)?.back !== 'hidden') return false;
      return isFromBehind(seenFrom(eyeAt(frame), pose), at);
    },
    aroundAt: (id, frame, z) => {
      const layer = scene.layers[id];
      const parent = standing.get(id)?.parent;
      const pose = parent ? poseOf(parent, frame) : IDENTITY;
      const depth = layer && placeOf(layer).depthAt(frame);
      return throughOf(eyeAt(frame), depth ? chained(inSpace(pose), translationAway(z ?? depth.z)) : pose);
    },
    spaceAt: (id, frame) => {
      const layer = scene.layers[id];
      return inSpace(layer ? poseOf(layer, frame) : IDENTITY);
    },
    eyeAt,
    cameraAt: (frame) => cameraAt(frame)?.id ?? null,
  };
  return { poseOf, eyeAt, seenThrough, matrixOf, shown };
};
