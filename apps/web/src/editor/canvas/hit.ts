/** Which layer is under a point, and which are in a rectangle. */
import type { Id, Point } from '@kite/core/document/types';
import { overlaps } from '@kite/core/geometry/bounds';
import { apply, determinant, inverted, type Matrix, multiply } from '@kite/core/geometry/matrix';
import { isLine, type Outline } from '@kite/core/geometry/outline';
import type { Mark } from '@kite/core/recipe/types';
import { layerBox, layerBoxInScene } from '@kite/core/scene/bounds';
import { textOf } from '../commands';
import type { Editor } from '../store/editor';

const context = new OffscreenCanvas(1, 1).getContext('2d');

const pathOf = (outlines: readonly Outline[]): Path2D => {
  const path = new Path2D();
  for (const { points: p, closed } of outlines) {
    path.moveTo(p[0]!, p[1]!);
    for (let k = 0, i = 0; k + 6 < p.length; k += 6, i++) {
      if (isLine(p, i)) path.lineTo(p[k + 6]!, p[k + 7]!);
      else path.bezierCurveTo(p[k + 2]!, p[k + 3]!, p[k + 4]!, p[k + 5]!, p[k + 6]!, p[k + 7]!);
    }
    if (closed) path.closePath();
  }
  return path;
};

const hits = (mark: Mark, at: Point, world: Matrix, slack: number): boolean => {
  if (mark.op === 'group') return mark.marks.some((inner) => hits(inner, at, world, slack));
  if (mark.op === 'picture') {
    const back = inverted(multiply(world, mark.matrix));
    const [x, y] = back ? apply(back, at) : [Infinity, Infinity];
    return Math.abs(x) <= mark.asset.width / 2 && Math.abs(y) <= mark.asset.height / 2;
  }
  if (!context || Math.abs(determinant(mark.matrix)) < 1e-12) return false;
  const path = pathOf(mark.outlines);
  const placed = new DOMMatrix([...world]).multiply(new DOMMatrix([...mark.matrix]));
  const local = placed.inverse().transformPoint({ x: at[0], y: at[1] });
  if (mark.op === 'fill') return context.isPointInPath(path, local.x, local.y, mark.rule);
  const scale = Math.sqrt(Math.abs(placed.a * placed.d - placed.b * placed.c)) || 1;
  context.lineWidth = mark.width + (2 * slack) / scale;
  context.lineCap = 'round';
  context.lineJoin = 'round';
  return context.isPointInStroke(path, local.x, local.y);
};

const shown = (editor: Editor): Id[] => {
  const { scene, state } = editor;
  return scene.order.filter((id) => {
    const layer = scene.layers[id];
    const shows = state.solo.length === 0 || state.solo.includes(id);
    return layer && shows && !layer.hidden && !layer.locked && state.frame >= layer.from && state.frame < layer.to;
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
    const own = layerBoxInScene(program, id, editor.state.frame);
    return own !== null && overlaps(own, box);
  });
};
