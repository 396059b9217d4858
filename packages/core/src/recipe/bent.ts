/**
 * Marks through maps of the plane: as they are seen in depth, pinned by their corners or bent by a mesh. What is filled with
 * one colour is mapped as outlines, so that it stays sharp; the rest is drawn as it is, and its picture mapped.
 */
import type { Point } from '../document/types';
import { lastMade } from '../document/remembered';
import { grown } from '../geometry/bounds';
import { flattened } from '../geometry/flatten';
import {
  applyHomography,
  beforeEye,
  composed,
  flatHomography,
  type Homography,
  NEAREST,
  projected,
} from '../geometry/homography';
import { arcLength, part, stretches } from '../geometry/length';
import { IDENTITY, type Matrix } from '../geometry/matrix';
import { type Outline, polygon, transformed } from '../geometry/outline';
import { outlinesOf, ribbonArea } from '../geometry/polygons';
import { isMatrix, type Through } from '../geometry/through';
import { type Bend, bentThrough, type Warp, warpOver } from '../geometry/warp';
import { warpedOutline } from '../geometry/warpedOutline';
import { boxOfMarks, grouped, NOTHING } from './marks';
import type { AreaCut, Cut, FillMark, Flow, GroupMark, Mark, StrokeMark } from './types';

/** Outlines through a map, and what of them lies before the eye: those that go on behind it are cut off there. */
const outlinesBent = (h: Homography, outlines: readonly Outline[]): Outline[] =>
  outlines.flatMap((outline) => {
    const p = outline.points;
    let before = true;
    for (let i = 0; i < p.length && before; i += 2) before = h[6] * p[i]! + h[7] * p[i + 1]! + h[8] >= NEAREST;
    if (before) return [projected(h, outline)];
    const rest = beforeEye(h, flattened(outline));
    return rest.length < 3 ? [] : [polygon(rest.map((at) => applyHomography(h, at)))];
  });

/** Outlines through a map of either kind, what of them is seen. */
export const outlinesThrough = (through: Through, outlines: readonly Outline[]): readonly Outline[] =>
  isMatrix(through) ? outlines.map((outline) => transformed(through, outline)) : outlinesBent(through, outlines);

/** A stroke of more points than these is drawn as it is, and its picture mapped. */
const MOST_POINTS = 20_000;

/** Kept by the outlines of a stroke: its colour may change from frame to frame. */
const strokes = lastMade<readonly Outline[], { readonly outlines: readonly Outline[] | null }>();

/** What a stroke covers, as outlines to be filled by the nonzero rule, in its own pixels; null where that is too much to be found. */
const strokeOutlines = ({ outlines, width, dashes, dashOffset, join, cap, miterLimit }: StrokeMark) =>
  strokes(outlines, [width, dashes.join(), dashOffset, join, cap, miterLimit], () => {
    const dashed = (outline: Outline) =>
      stretches(arcLength(outline), dashes, dashOffset).flatMap(([from, to]) => part(outline, from, to) ?? []);
    const lines = dashes.some((d) => d > 0) ? outlines.flatMap(dashed) : outlines;
    const points = lines.reduce((sum, outline) => sum + outline.points.length / 2, 0);
    return { outlines: points > MOST_POINTS ? null : outlinesOf(ribbonArea(lines, width / 2, join, cap, miterLimit)) };
  });

const isFlatInk = ({ ink }: FillMark | StrokeMark): boolean => ink.style === 'solid';

/** A map of the plane that bends what is drawn. */
interface Bending {
  /** Outlines in the pixels of a matrix, and what is seen of them. */
  readonly outlines: (matrix: Matrix, outlines: readonly Outline[]) => readonly Outline[];
  readonly picture: () => Bend;
  /** The same after another bend, as one; null where what that gives has to be drawn first. */
  readonly after: (inner: Bend) => Bend | null;
}

const projecting = (h: Homography): Bending => ({
  outlines: (matrix, outlines) => outlinesBent(composed(h, flatHomography(matrix)), outlines),
  picture: () => h,
  after: (inner) => bentThrough(h, inner),
});

/** Outlines by any smooth map, pictures by one in fine cells. */
export const warping = (to: (at: Point) => Point, picture: () => Warp): Bending => ({
  outlines: (matrix, outlines) => outlines.map((outline) => warpedOutline(transformed(matrix, outline), to)),
  picture,
  after: () => null,
});

const isHardArea = (cut: Cut): cut is AreaCut => 'outlines' in cut && cut.feather <= 0;

const pathBent = (by: Bending, mark: FillMark | StrokeMark): Mark | null => {
  if (!isFlatInk(mark)) return null;
  const base = { op: 'fill', ink: mark.ink, alpha: mark.alpha, matrix: IDENTITY } as const;
  if (mark.op === 'fill') return { ...base, outlines: by.outlines(mark.matrix, mark.outlines), rule: mark.rule };
  const { outlines } = strokeOutlines(mark);
  return outlines && { ...base, outlines: by.outlines(mark.matrix, outlines), rule: 'nonzero' };
};

const groupBent = (by: Bending, group: GroupMark): Mark | null => {
  if (group.effect || !(group.cuts ?? []).every(isHardArea)) return null;
  const bend = group.bend && by.after(group.bend);
  if (bend === null) return null;
  // Seen through such a map there is no depth in it any more.
  const { cuts, planes: _flat, ...rest } = group;
  const area = (cut: AreaCut): AreaCut => ({
    ...cut,
    outlines: by.outlines(cut.matrix, cut.outlines),
    matrix: IDENTITY,
  });
  return {
    ...rest,
    ...(cuts && { cuts: (cuts as readonly AreaCut[]).map(area) }),
    ...(bend ? { bend } : { marks: marksBy(by, group.marks) }),
  };
};

/** A mark as outlines; null where its picture has to be mapped. */
const bent = (by: Bending, mark: Mark): Mark | null =>
  mark.op === 'picture' ? null : mark.op === 'group' ? groupBent(by, mark) : pathBent(by, mark);

/** Marks as they are bent; what stands side by side and is mapped as a picture is one picture. */
export const marksBy = (by: Bending, marks: readonly Mark[]): readonly Mark[] => {
  const out: Mark[] = [];
  let pictures: Mark[] = [];
  const flush = (): void => {
    if (pictures.length > 0) out.push(grouped(pictures, { bend: by.picture() }));
    pictures = [];
  };
  for (const mark of marks) {
    const own = bent(by, mark);
    if (!own) {
      pictures.push(mark);
      continue;
    }
    flush();
    out.push(own);
  }
  flush();
  return out;
};

/** Marks as they are seen through a map that does not keep what is parallel so. */
export const marksProjected = (h: Homography, marks: readonly Mark[]): readonly Mark[] => marksBy(projecting(h), marks);

/** Shapes and marks by any smooth map. */
export const flowBent = (to: (at: Point) => Point, { shapes, marks }: Flow): Flow => ({
  shapes: shapes.map((shape) => ({ ...shape, outlines: shape.outlines.map((outline) => warpedOutline(outline, to)) })),
  marks: marksBy(
    warping(to, () => warpOver(grown(boxOfMarks(marks) ?? NOTHING, 2), to)),
    marks,
  ),
});
