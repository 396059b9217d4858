/** What stands in depth, and where it is seen from aside. */
import type { Id, Point } from '@kite/core/document/types';
import { IDENTITY } from '@kite/core/geometry/matrix';
import { applySpace, type Eye, flatSpace, type Point3, type Space } from '@kite/core/geometry/space';
import { keyFrames } from '@kite/core/motion/keys';
import { planesInSpace, seenAside } from '@kite/core/scene/aside';
import type { Program } from '@kite/core/scene/program';
import { isShown } from '@kite/core/scene/groups';
import type { Editor } from '../../store/editor';

const MOST_DOTS = 240;

/** The two properties that a place in space is made of. */
const STANDS = ['position', 'z'] as const;
export const AIMS = ['target', 'targetZ'] as const;

export interface Standing {
  readonly id: Id;
  /** What is written where it is moved: where a layer stands, or what a camera looks at. */
  readonly keys: typeof STANDS | typeof AIMS;
  readonly name: string;
  readonly isCamera: boolean;
  readonly locked: boolean;
  /** Of each of its planes the corners, or the one place of what draws nothing. */
  readonly planes: readonly (readonly Point[])[];
}

/** Everything in depth and where it is seen; the last is nearest. */
export const standingIn = (editor: Editor, eye: Eye, frame: number): readonly Standing[] => {
  const { scene, program } = editor;
  return scene.order.toReversed().flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer || !isShown(scene, layer, frame) || program.awayAt(id, frame, [0, 0]) === null) return [];
    const isCamera = program.cameraAt(frame) === id;
    const base = { id, name: layer.name, isCamera, locked: layer.locked };
    const planes = planesInSpace(program, id, frame).map((corners) => corners.map((corner) => seenAside(eye, corner)));
    const [camera, aims, target, targetZ] = ['camera', 'aims', 'target', 'targetZ'].map((key) =>
      program.wiring.sampler({ layer: id, key })?.at(frame),
    );
    const aimed = seenAside(
      eye,
      applySpace(parentSpace(program, id, frame), [...(target as Point), targetZ as number]),
    );
    return [
      { ...base, keys: STANDS, planes },
      ...(camera === true && aims === true
        ? [{ ...base, name: `${layer.name}: what it looks at`, keys: AIMS, planes: [[aimed]] }]
        : []),
    ];
  });
};

/** The space that a layer's place is in. */
export const parentSpace = (program: Program, id: Id, frame: number): Space => {
  const parent = program.scene.layers[id]?.parent ?? null;
  return parent === null ? flatSpace(IDENTITY) : program.spaceAt(parent, frame);
};

/** The way of a layer through the scene's space, a point for each frame between its first keyframe and its last. */
export const wayOf = (program: Program, id: Id, frame: number): readonly Point3[] => {
  const layer = program.scene.layers[id];
  const keys = ['position', 'z'].flatMap((key) => keyFrames(layer?.params[key]));
  const [position, z] = ['position', 'z'].map((key) => program.wiring.sampler({ layer: id, key }));
  if (!layer || keys.length < 2 || !position || !z) return [];
  const parent = parentSpace(program, id, frame);
  const [first, last] = [Math.min(...keys), Math.max(...keys)];
  const every = Math.max(1, Math.ceil((last - first) / MOST_DOTS));
  return Array.from({ length: Math.floor((last - first) / every) + 1 }, (_, i) => {
    const at = first + i * every;
    return applySpace(parent, [...(position.at(at) as Point), z.at(at) as number]);
  });
};
