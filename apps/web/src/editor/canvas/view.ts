/** From the scene's pixels to the canvas area's CSS pixels and back. */
import type { Point } from '@kite/core/document/types';
import type { Matrix } from '@kite/core/geometry/matrix';
import type { View } from '../store/state';

export interface Size {
  readonly width: number;
  readonly height: number;
}

const MARGIN = 20;
export const ZOOMS = { min: 0.02, max: 64 };

/** The view that shows a whole scene, no larger than life. */
export const fitView = (scene: Size, area: Size): View => {
  const zoom = Math.max(
    ZOOMS.min,
    Math.min((area.width - 2 * MARGIN) / scene.width, (area.height - 2 * MARGIN) / scene.height, 1),
  );
  return {
    zoom,
    x: Math.round((area.width - scene.width * zoom) / 2),
    y: Math.round((area.height - scene.height * zoom) / 2),
  };
};

export const viewMatrix = ({ zoom, x, y }: View): Matrix => [zoom, 0, 0, zoom, x, y];

export const toArea = ({ zoom, x, y }: View, [px, py]: Point): Point => [px * zoom + x, py * zoom + y];
export const toScene = ({ zoom, x, y }: View, [px, py]: Point): Point => [(px - x) / zoom, (py - y) / zoom];

/** Zooms so that the scene's point under `at` (in the area) stays there. */
export const zoomed = (view: View, factor: number, at: Point): View => {
  const zoom = Math.min(ZOOMS.max, Math.max(ZOOMS.min, view.zoom * factor));
  const [sx, sy] = toScene(view, at);
  return { zoom, x: at[0] - sx * zoom, y: at[1] - sy * zoom };
};
