/** Stands in for `scene/eye` where nothing is in depth: a scene is looked at straight on. */
import type { Eye } from '@kite/core/geometry/space';
import type { Through } from '@kite/core/geometry/through';
import type { eyeOf as wholeEye, throughOf as wholeThrough } from '@kite/core/scene/eye';

const NOWHERE = {} as Eye;

export const eyeOf: typeof wholeEye = () => NOWHERE;
export const throughOf: typeof wholeThrough = (_eye, pose) => pose as Through;
