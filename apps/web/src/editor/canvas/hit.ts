/** Which layer is under a point, and which are in a rectangle. */
import type { Id, Point } from '@kite/core/document/types';
import { overlaps } from '@kite/core/geometry/bounds';
import { apply, determinant, inverted, type Matrix, multiply } from '@kite/core/geometry/matrix';
import type { Outline } from '@kite/core/geometry/outline';
import { trace } from '@kite/core/geometry/trace';
import type { Mark } from '@kite/core/recipe/types';
import { layerBox, layerBoxInScene } from '@kite/core/scene/bounds';
import { isShown } from '@kite/core/scene/groups';
import { textOf } from '../commands/layers';
import type { Editor } from '../store/editor';

let shared: OffscreenCanvasRenderingContext2D | null = null;
const context = () => (shared ??= new OffscreenCanvas(1, 1).getContext('2d') as OffscreenCanvasRenderingContext2D);

const pathOf = (outlines: readonly Outline[]): Path2D => {
  const path = new Path2D();
  for (const outline of outlines) trace(path, outline);
  return path;
};

const hits = (mark: Mark, at: Point, world: Matrix, slack: number): boolean => {
  // What stands beside a layer, as its shadow, is not what is meant by a press.
  if (mark.op === 'group') return !mark.aside && mark.marks.some((inner) => hits(inner, at, world, slack));
  if (mark.op === 'picture') {
    const back = inverted(multiply(world, mark.matrix));
    const [x, y] = back ? apply(back, at) : [Infinity, Infinity];
    return Math.abs(x) <= mark.asset.width / 2 && Math.abs(y) <= mark.asset.height / 2;
  }
  if (Math.abs(determinant(mark.matrix)) < 1e-12) return false;
  const path = pathOf(mark.outlines);
  const placed = new DOMMatrix([...world]).multiply(new DOMMatrix([...mark.matrix]));
  const local = placed.inverse().transformPoint({ x: at[0], y: at[1] });
  if (mark.op === 'fill') return context().isPointInPath(path, local.x, local.y, mark.rule);
  const scale = Math.sqrt(Math.abs(placed.a * placed.d - placed.b * placed.c)) || 1;
  const stroked = context();
  stroked.lineWidth = mark.width + (2 * slack) / scale;
  stroked.lineCap = 'round';
  stroked.lineJoin = 'round';
  return stroked.isPointInStroke(path, local.x, local.y);
};

const shown = (editor: Editor): Id[] => {
  const { scene, state } = editor;
  return scene.order.filter((id) => {
    const layer = scene.layers[id];
    const shows = state.solo.length === 0 || state.solo.includes(id);
    return layer && shows && !layer.locked && isShown(scene, layer, state.frame);
  });
};

const inBox = (editor: Editor, id: Id, at: Point): boolean => {
  const { program, state } = editor;
  const box = layerBox(program, id, state.frame);
  const back = inverted(program.matrixAt(id, state.frame));
  if (!box || !back) return false;
  const [x, y] = apply(back, at);
  return x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
};

/** The front-most layer under a point of the scene; strokes are hit within `slack` of it. */
export const layerAt = (editor: Editor, at: Point, slack: number): Id | null => {
  const program = editor.program;
  const { frame } = editor.state;
  for (const id of shown(editor)) {
    const world = program.matrixAt(id, frame);
    if (program.marksAt(id, frame).some((mark) => hits(mark, at, world, slack))) return id;
  }
  // Between letters there is nothing to hit, and yet it is the words that are meant.
  return shown(editor).find((id) => textOf(editor.scene.layers[id]) !== null && inBox(editor, id, at)) ?? null;
};

/** Layers that a rectangle touches. */
export const layersIn = (editor: Editor, a: Point, b: Point): Id[] => {
  const program = editor.program;
  const box = {
    left: Math.min(a[0], b[0]),
    top: Math.min(a[1], b[1]),
    right: Math.max(a[0], b[0]),
    bottom: Math.max(a[1], b[1]),
  };
  return shown(editor).filter((id) => {
    // A group is taken hold of by its members.
    if (editor.scene.layers[id]?.kind === 'controller') return false;
    const own = layerBoxInScene(program, id, editor.state.frame);
    return own !== null && overlaps(own, box);
  });
};
