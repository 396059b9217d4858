/** Display list → Canvas 2D. The same code draws the editor's canvas, renders and banners. */
import { type Box, boxThrough } from '../geometry/bounds';
import { determinant, type Matrix, multiply } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import type { Size } from '../geometry/size';
import { trace } from '../geometry/trace';
import { isGrained, strokeReach } from '../recipe/marks';
import type { FillMark, GroupMark, Mark, PictureMark, StrokeMark } from '../recipe/types';
import type { DisplayList } from '../scene/program';
import { drawnApart, layOver, operation, pixelsOf } from './apart';
import { drawEffect } from './effects';
import { isFar, linesInstead, type View } from './far';
import { drawGrained } from './grain';
import { styleOf } from './inks';
import { whole } from './laying';
import type { Context2D } from './surface';
import { type Target, targetOf, type Tools } from './target';

/** Curves so far away that a stroke of them would never end are traced as lines. */
const traceFar = (context: Context2D, outline: Outline, far: View): void =>
  trace(context, outline, (points, k) => {
    for (const [x, y] of linesInstead(points, k, far)) context.lineTo(x, y);
  });

const drawPath = (target: Target, mark: FillMark | StrokeMark, alpha: number, operation: string): void => {
  const { context } = target;
  const m = multiply(target.view, mark.matrix);
  // A flattened or unbounded picture shows nothing.
  if (!m.every(Number.isFinite) || Math.abs(determinant(m)) < 1e-12) return;
  context.setTransform(...m);
  context.globalAlpha = Math.min(1, mark.alpha * alpha);
  context.globalCompositeOperation = operation;
  context.beginPath();
  if (mark.op === 'fill') {
    for (const outline of mark.outlines) trace(context, outline);
    context.fillStyle = styleOf(context, mark.ink);
    context.fill(mark.rule);
    return;
  }
  const view = { matrix: m, clip: target.clip, reach: strokeReach(mark), dashed: mark.dashes.length > 0 };
  for (const outline of mark.outlines) {
    if (isFar(outline, m)) traceFar(context, outline, view);
    else trace(context, outline);
  }
  context.strokeStyle = styleOf(context, mark.ink);
  context.lineWidth = mark.width;
  // What is closed has no ends. Told of caps all the same, Firefox moves the last side of one that is thin.
  context.lineCap = view.dashed || mark.outlines.some((outline) => !outline.closed) ? mark.cap : 'butt';
  context.lineJoin = mark.join;
  context.miterLimit = mark.miterLimit;
  context.setLineDash(mark.dashes);
  context.lineDashOffset = mark.dashOffset;
  context.stroke();
};

const drawPicture = (target: Target, mark: PictureMark, alpha: number, blend: GroupMark['blend']): void => {
  const { asset, cut } = mark;
  const image = target.tools.pictures.get(asset, cut);
  const m = multiply(target.view, mark.matrix);
  if (image === null || image === undefined || !m.every(Number.isFinite) || Math.abs(determinant(m)) < 1e-12) return;
  const { context } = target;
  context.setTransform(...m);
  context.globalAlpha = Math.min(1, mark.alpha * alpha);
  context.globalCompositeOperation = operation(blend);
  context.imageSmoothingQuality = 'high';
  // A file that was reduced has fewer pixels than its asset, and stands for all of it.
  context.drawImage(image, -asset.width / 2, -asset.height / 2, asset.width, asset.height);
};

const drawOne = (target: Target, mark: Exclude<Mark, GroupMark>, alpha: number, blend: GroupMark['blend']): void => {
  if (mark.op === 'picture') drawPicture(target, mark, alpha, blend);
  else if (isGrained(mark.ink)) {
    const laying = { alpha: Math.min(1, mark.alpha * alpha), operation: operation(blend) };
    drawGrained(target, mark, mark.ink, laying, drawPath);
  } else drawPath(target, mark, alpha, operation(blend));
};

const drawGroup = (target: Target, group: GroupMark): void => {
  if (group.effect) {
    drawEffect(target, group, group.effect, drawMarks);
    return;
  }
  const apart = group.bend !== undefined || group.cuts !== undefined;
  const only = group.marks.length === 1 ? (group.marks[0] as Mark) : null;
  if (only && only.op !== 'group' && !apart) {
    drawOne(target, only, group.alpha, group.blend);
    return;
  }
  if (group.alpha >= 1 && group.blend === 'normal' && !apart) {
    drawMarks(target, group.marks);
    return;
  }
  const pixels = pixelsOf(target, group, target.clip);
  if (pixels) layOver(target, group, whole(drawnApart(target, group, pixels, 1, drawMarks)), pixels, 1);
};

const drawMarks = (target: Target, marks: readonly Mark[]): void => {
  for (const mark of marks) {
    if (mark.op === 'group') drawGroup(target, mark);
    else drawOne(target, mark, 1, 'normal');
  }
};

export interface Frame {
  /** The size of the target, in its pixels. */
  readonly width: number;
  readonly height: number;
  /** From the scene's pixels to the target's. */
  readonly view: Matrix;
}

/** A view that fills a target with a scene. */
export const filling = (list: Size, width: number, height: number): Frame => ({
  width,
  height,
  view: [width / list.width, 0, 0, height / list.height, 0, 0],
});

/** Draws marks alone, over what is there. */
export const paintMarks = (context: Context2D, marks: readonly Mark[], frame: Frame, tools: Tools): void =>
  drawMarks(targetOf({ context }, frame.width, frame.height, frame.view, tools), marks);

const clipped = (context: Context2D, list: DisplayList, frame: Frame, draw: () => void): void => {
  context.save();
  context.setTransform(...frame.view);
  context.beginPath();
  context.rect(0, 0, list.width, list.height);
  context.clip();
  draw();
  context.restore();
};

/** The whole pixels of a scene's own rectangle, where it stands upright; those of none where it is turned. */
const wholePixelsIn = ({ width, height }: DisplayList, { view }: Frame): Box => {
  const { left, top, right, bottom } = boxThrough(view, { left: 0, top: 0, right: width, bottom: height });
  const upright = view[1] === 0 && view[2] === 0;
  return {
    left: Math.ceil(left),
    top: Math.ceil(top),
    right: upright ? Math.floor(right) : left,
    bottom: Math.floor(bottom),
  };
};

/** Draws the marks of a display list over what is there, within the scene's own rectangle. */
export const paintOver = (context: Context2D, list: DisplayList, frame: Frame, tools: Tools): void =>
  clipped(context, list, frame, () => {
    const target = targetOf({ context }, frame.width, frame.height, frame.view, tools);
    drawMarks({ ...target, open: wholePixelsIn(list, frame) }, list.marks);
  });

/**
 * Draws a display list over a cleared target. Nothing is drawn outside the scene's own rectangle. The
 * context is left as it was.
 */
export const paint = (context: Context2D, list: DisplayList, frame: Frame, tools: Tools): void => {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, frame.width, frame.height);
  const { background } = list;
  if (background) {
    clipped(context, list, frame, () => {
      context.fillStyle = background;
      context.fillRect(0, 0, list.width, list.height);
    });
  }
  paintOver(context, list, frame, tools);
};
