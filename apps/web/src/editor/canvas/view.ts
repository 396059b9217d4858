/** From the scene's pixels to the canvas area's CSS pixels and back. */
import type { Point } from '@kite/core/document/types';
import type { Matrix } from '@kite/core/geometry/matrix';
import { type Size, sizeAt } from '@kite/core/geometry/size';
import { type EditorState, sceneOf } from '../store/state';
import type { View } from '../store/workspace';

const MARGIN = 20;
export const ZOOMS = { min: 0.02, max: 64 };

/** The view that shows a whole scene in a share of the area, no larger than life. */
export const fitView = (scene: Size, area: Size, share = 1): View => {
  const [width, height] = [share * area.width - 2 * MARGIN, share * area.height - 2 * MARGIN];
  const zoom = Math.max(ZOOMS.min, Math.min(width / scene.width, height / scene.height, 1));
  return {
    zoom,
    x: Math.round((area.width - scene.width * zoom) / 2),
    y: Math.round((area.height - scene.height * zoom) / 2),
  };
};

/** Of the area, what a scene takes that is seen in its place. */
const IN_PLACE = 0.6;

/** The view that is had, or the one that shows the whole of the open scene, and what is around it where that shows too. */
export const viewOn = (state: EditorState, area: Size): View =>
  state.view ?? fitView(sceneOf(state), area, state.within ? IN_PLACE : 1);

export const viewMatrix = ({ zoom, x, y }: View): Matrix => [zoom, 0, 0, zoom, x, y];

export const toArea = ({ zoom, x, y }: View, [px, py]: Point): Point => [px * zoom + x, py * zoom + y];
export const toScene = ({ zoom, x, y }: View, [px, py]: Point): Point => [(px - x) / zoom, (py - y) / zoom];

/** Zooms so that the scene's point under `at` (in the area) stays there. */
export const zoomed = (view: View, factor: number, at: Point): View => {
  const zoom = Math.min(ZOOMS.max, Math.max(ZOOMS.min, view.zoom * factor));
  const [sx, sy] = toScene(view, at);
  return { zoom, x: at[0] - sx * zoom, y: at[1] - sy * zoom };
};

/** The part of the scene that shows, in device pixels: where it goes, how large it is, and the scene's view of it. */
export interface Shown extends Size {
  readonly at: readonly [x: number, y: number];
  readonly view: Matrix;
}

/**
 * The scene stands on whole device pixels and is drawn from its own corner where all of it shows, so
 * that the picture has the very pixels of a render; null where nothing shows. What is `around` it can be taken along.
 */
export const shownPart = (
  scene: Size,
  area: Size,
  { zoom, x, y }: View,
  ratio: number,
  around = false,
): Shown | null => {
  const scale = zoom * ratio;
  const whole = sizeAt(scene, scale);
  const [px, py] = [Math.round(x * ratio), Math.round(y * ratio)];
  const edges = {
    left: -px,
    top: -py,
    right: Math.round(area.width * ratio) - px,
    bottom: Math.round(area.height * ratio) - py,
  };
  const left = around ? edges.left : Math.max(0, edges.left);
  const top = around ? edges.top : Math.max(0, edges.top);
  const right = around ? edges.right : Math.min(whole.width, edges.right);
  const bottom = around ? edges.bottom : Math.min(whole.height, edges.bottom);
  if (right <= left || bottom <= top) return null;
  return {
    at: [px + left, py + top],
    width: right - left,
    height: bottom - top,
    view: [whole.width / scene.width, 0, 0, whole.height / scene.height, -left, -top],
  };
};

/** The view that shows all of some points of a scene. */
export const fitBox = (points: readonly Point[], area: Size): View => {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const whole = { width: Math.max(...xs) - left, height: Math.max(...ys) - top };
  const room = Math.min((area.width - 2 * MARGIN) / whole.width, (area.height - 2 * MARGIN) / whole.height);
  const zoom = Math.min(ZOOMS.max, Math.max(ZOOMS.min, room));
  return {
    zoom,
    x: (area.width - whole.width * zoom) / 2 - left * zoom,
    y: (area.height - whole.height * zoom) / 2 - top * zoom,
  };
};
