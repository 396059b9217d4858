/** From where a scene is looked at. */
import type { Point, Scene } from '../document/types';
import { areaScaleAt, type Homography, seenFrom } from '../geometry/homography';
import { IDENTITY, translation } from '../geometry/matrix';
import { chained, type Eye, flatSpace, invertedSpace, type Space, translationAway } from '../geometry/space';
import type { Through } from '../geometry/through';
import { isSpace, type Pose } from '../properties/placement';

/** From where a scene is looked at, with its own angle of view or another. */
export const eyeOf = (
  { width, height, eye: { angle: own, off } }: Pick<Scene, 'width' | 'height' | 'eye'>,
  angle = own,
): Eye => ({
  to: flatSpace(IDENTITY),
  middle: [width / 2 + off[0], height / 2 + off[1]],
  distance: angle > 0 ? width / 2 / Math.tan((angle / 2) * (Math.PI / 180)) : Infinity,
});

/**
 * The eye of a camera that stands somewhere, with an angle of view of its own: it looks at the camera's place as the scene's own eye
 * looks at the middle of the scene, and goes around it as the camera turns. One that aims at a point stands where the eye is. null for a
 * camera that is flattened.
 */
export const eyeThrough = (
  scene: Pick<Scene, 'width' | 'height' | 'eye'>,
  camera: Space,
  { angle, aims }: { readonly angle: number; readonly aims: boolean },
): Eye | null => {
  const eye = eyeOf(scene, angle);
  // Without perspective it is the same from how far.
  const ahead = aims && Number.isFinite(eye.distance) ? eye.distance : 0;
  const back = invertedSpace(chained(camera, translationAway(ahead)));
  return back && { ...eye, to: chained(flatSpace(translation(...eye.middle)), back) };
};

/** From the pixels of what stands somewhere to those of the scene. */
export const throughOf = (eye: Eye, pose: Pose): Through => (isSpace(pose) ? seenFrom(eye, pose) : pose);

/** Whether a plane is seen from behind at a point of its own; one that its scale mirrors shows its back. */
export const isFromBehind = (h: Homography, corner: Point): boolean => areaScaleAt(h, corner) < 0;
