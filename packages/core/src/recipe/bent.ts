/**
 * Marks through maps that keep straight lines straight, as they are seen in depth or pinned by their corners. What is filled with
 * one colour is mapped as outlines, so that it stays sharp; the rest is drawn as it is, and its picture mapped.
 */
import { lastMade } from '../document/remembered';
import { flattened } from '../geometry/flatten';
import {
  applyHomography,
  asMatrix,
  beforeEye,
  composed,
  flatHomography,
  type Homography,
  NEAREST,
  projected,
} from '../geometry/homography';
import { arcLength, part, stretches } from '../geometry/length';
import { IDENTITY } from '../geometry/matrix';
import { type Outline, polygon, transformed } from '../geometry/outline';
import { outlinesOf, ribbonArea } from '../geometry/polygons';
import { isMatrix, type Through } from '../geometry/through';
import { grouped, markThrough } from './marks';
import type { AreaCut, Cut, FillMark, GroupMark, Mark, StrokeMark } from './types';

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

/** The picture of marks, mapped as a whole. */
const asPicture = (h: Homography, marks: readonly Mark[]): GroupMark => grouped(marks, { bend: h });

const isHardArea = (cut: Cut): cut is AreaCut => 'outlines' in cut && cut.feather <= 0;

const pathBent = (h: Homography, mark: FillMark | StrokeMark): Mark | null => {
  if (!isFlatInk(mark)) return null;
  const own = composed(h, flatHomography(mark.matrix));
  const base = { op: 'fill', ink: mark.ink, alpha: mark.alpha, matrix: IDENTITY } as const;
  if (mark.op === 'fill') return { ...base, outlines: outlinesBent(own, mark.outlines), rule: mark.rule };
  const { outlines } = strokeOutlines(mark);
  return outlines && { ...base, outlines: outlinesBent(own, outlines), rule: 'nonzero' };
};

const groupBent = (h: Homography, group: GroupMark): Mark | null => {
  if (group.effect || !(group.cuts ?? []).every(isHardArea)) return null;
  // Seen through such a map there is no depth in it any more.
  const { cuts, planes: _flat, ...rest } = group;
  const area = (cut: AreaCut): AreaCut => ({
    ...cut,
    outlines: outlinesBent(composed(h, flatHomography(cut.matrix)), cut.outlines),
    matrix: IDENTITY,
  });
  return {
    ...rest,
    ...(cuts && { cuts: (cuts as readonly AreaCut[]).map(area) }),
    ...(group.bend ? { bend: composed(h, group.bend) } : { marks: marksThrough(h, group.marks) }),
  };
};

/** A mark as outlines; null where its picture has to be mapped. */
const bent = (h: Homography, mark: Mark): Mark | null =>
  mark.op === 'picture' ? null : mark.op === 'group' ? groupBent(h, mark) : pathBent(h, mark);

/** Marks through a map of the plane; what stands side by side and is mapped as a picture is one picture. */
export const marksThrough = (through: Through, marks: readonly Mark[]): readonly Mark[] => {
  const matrix = isMatrix(through) ? through : asMatrix(through);
  if (matrix) return marks.map((mark) => markThrough(matrix, mark));
  const h = through as Homography;
  const out: Mark[] = [];
  let pictures: Mark[] = [];
  const flush = (): void => {
    if (pictures.length > 0) out.push(asPicture(h, pictures));
    pictures = [];
  };
  for (const mark of marks) {
    const own = bent(h, mark);
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
