/** Where a box is taken hold of. */
import type { Point } from '@kite/core/document/types';
import type { Box } from '@kite/core/geometry/bounds';

/** The handles of a box: -1, 0 or 1 along each axis. */
export const GRIPS: readonly Point[] = [
  [-1, -1],
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
];

export const gripAt = (box: Box, [gx, gy]: Point): Point => [
  gx < 0 ? box.left : gx > 0 ? box.right : (box.left + box.right) / 2,
  gy < 0 ? box.top : gy > 0 ? box.bottom : (box.top + box.bottom) / 2,
];

const CURSORS = ['ew-resize', 'nwse-resize', 'ns-resize', 'nesw-resize'];

/** How the pointer looks over the handle of a box that is turned by `tilt` radians. */
export const cursorOf = (grip: Point, tilt: number): string | undefined => {
  const octant = Math.round((Math.atan2(grip[1], grip[0]) + tilt) / (Math.PI / 4));
  return CURSORS[((octant % 4) + 4) % 4];
};
