/** Which layer is under a point, and which are in a rectangle. */
import type { Id, Point } from '@kite/core/document/types';
import { overlaps } from '@kite/core/geometry/bounds';
import { unbentPoint } from '@kite/core/geometry/warp';
import { apply, determinant, IDENTITY, inverted, type Matrix, meanScale, multiply } from '@kite/core/geometry/matrix';
import type { Outline } from '@kite/core/geometry/outline';
import { trace } from '@kite/core/geometry/trace';
import { applyThrough, type Through, throughBack } from '@kite/core/geometry/through';
import type { Cut, Mark } from '@kite/core/recipe/types';
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

/** The point in the pixels of a matrix; null where that is flattened. */
const within = (at: Point, matrix: Matrix): Point | null => {
  const back = inverted(matrix);
  return back && apply(back, at);
};

const isInCut = (cut: Cut, at: Point, world: Matrix): boolean => {
  // What has not grown yet is pressed as what has.
  if ('growth' in cut) return true;
  if ('marks' in cut) return cut.marks.some((mark) => hits(mark, at, world, 0)) !== cut.inverted;
  const local = within(at, multiply(world, cut.matrix));
  return (local !== null && context().isPointInPath(pathOf(cut.outlines), ...local)) !== cut.inverted;
};

/** Whether cuts let a point through, as they are laid one over another: of soft edges, up to their middle. */
const letThrough = (cuts: readonly Cut[], at: Point, world: Matrix): boolean =>
  cuts.reduce<boolean | null>((open, cut) => {
    const inside = isInCut(cut, at, world);
    if (cut.mode === 'add') return open === true || inside;
    if (cut.mode === 'show') return open !== false && inside;
    if (cut.mode === 'hide') return open !== false && !inside;
    return (open ?? true) !== inside;
  }, null) ?? true;

const hits = (mark: Mark, at: Point, world: Matrix, slack: number, uncut = false): boolean => {
  if (mark.op === 'group') {
    // What stands beside a layer, as its shadow, is not what is meant by a press.
    if (mark.aside || (!uncut && !letThrough(mark.cuts ?? [], at, world))) return false;
    if (mark.bend) {
      const local = within(at, world);
      const inside = local && unbentPoint(mark.bend, local);
      return inside ? mark.marks.some((inner) => hits(inner, inside, IDENTITY, slack, uncut)) : false;
    }
    return mark.marks.some((inner) => hits(inner, at, world, slack, uncut));
  }
  if (mark.op === 'picture') {
    const [x, y] = within(at, multiply(world, mark.matrix)) ?? [Infinity, Infinity];
    return Math.abs(x) <= mark.asset.width / 2 && Math.abs(y) <= mark.asset.height / 2;
  }
  if (Math.abs(determinant(mark.matrix)) < 1e-12) return false;
  const path = pathOf(mark.outlines);
  const placed = multiply(world, mark.matrix);
  const local = within(at, placed);
  if (!local) return false;
  if (mark.op === 'fill') return context().isPointInPath(path, ...local, mark.rule);
  const scale = meanScale(placed) || 1;
  const stroked = context();
  stroked.lineWidth = mark.width + (2 * slack) / scale;
  stroked.lineCap = 'round';
  stroked.lineJoin = 'round';
  return stroked.isPointInStroke(path, ...local);
};

const shown = (editor: Editor): Id[] => {
  const { scene, state } = editor;
  return scene.order.filter((id) => {
    const layer = scene.layers[id];
    const shows = state.solo.length === 0 || state.solo.includes(id);
    return layer && shows && !layer.locked && isShown(scene, layer, state.frame);
  });
};

/** The point in the pixels of what is seen through a map; null where that is flattened. */
const seenAt = (through: Through, at: Point): Point | null => {
  const back = throughBack(through);
  return back && applyThrough(back, at);
};

const inBox = (editor: Editor, id: Id, at: Point): boolean => {
  const { program, state } = editor;
  const box = layerBox(program, id, state.frame);
  const local = seenAt(program.throughAt(id, state.frame), at);
  if (!box || !local) return false;
  const [x, y] = local;
  return x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
};

/** So much nearer, in pixels, and a layer is seen before another: in one plane the stack decides. */
const NEARER = 0.01;

/** The front-most layer under a point of the scene; strokes are hit within `slack` of it. */
export const layerAt = (editor: Editor, at: Point, slack: number): Id | null => {
  const program = editor.program;
  const { frame, cutPart, selection } = editor.state;
  // Of those in depth that stand next to each other in the stack it is the nearest that is seen.
  let nearest: { id: Id; away: number } | null = null;
  for (const id of shown(editor)) {
    const local = seenAt(program.throughAt(id, frame), at);
    if (!local || program.isAway(id, frame, local)) continue;
    const away = program.awayAt(id, frame, local);
    if (away === null && nearest) break;
    // How much larger it is shown there.
    const scale = meanScale(program.matrixAt(id, frame)) || 1;
    // Of what is selected the part that is cut away may be seen, and so be seized.
    const uncut = cutPart !== 'gone' && selection.layers.includes(id);
    if (!program.marksAt(id, frame).some((mark) => hits(mark, local, IDENTITY, slack / scale, uncut))) continue;
    if (away === null) return id;
    if (!nearest || away < nearest.away - NEARER) nearest = { id, away };
  }
  if (nearest) return nearest.id;
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
