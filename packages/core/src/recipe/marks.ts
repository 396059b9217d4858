/** Marks moved and faded as wholes. */
import { boxThrough, type Box, grown, intersection, outlineBox, union } from '../geometry/bounds';
import { bentThrough, boxThroughBend } from '../geometry/warp';
import {
  apply,
  determinant,
  IDENTITY,
  meanScale,
  type Matrix,
  multiply,
  turnOf as turnOfMatrix,
} from '../geometry/matrix';
import { chained, flatSpace } from '../geometry/space';
import { type Outline, transformed, turnOf } from '../geometry/outline';
import type { Pen } from '../geometry/strokeBox';
import type { Color } from '../document/types';
import { dataThrough } from './data';
import type {
  AreaCut,
  Cut,
  FillMark,
  Flow,
  GradientInk,
  GroupMark,
  Ink,
  Mark,
  Plane,
  Shape,
  StrokeMark,
} from './types';

/** Whether an ink has noise in it, and is drawn on a surface of its own for that. */
export const isGrained = (ink: Ink): ink is GradientInk => ink.style !== 'solid' && ink.grain > 0;

/** A shape moved, and drawn at a share of its strength. */
export const shapeThrough = (m: Matrix, { outlines, alpha: own, data }: Shape, alpha: number): Shape => ({
  outlines: outlines.map((outline) => transformed(m, outline)),
  alpha: own * alpha,
  ...(data && { data: dataThrough(m, data) }),
});

const cutThrough = (m: Matrix, cut: Cut): Cut => {
  if ('marks' in cut) return { ...cut, marks: cut.marks.map((mark) => markThrough(m, mark)) };
  const matrix = multiply(m, cut.matrix);
  return 'growth' in cut ? { ...cut, matrix } : { ...cut, matrix, scale: cut.scale * meanScale(m) };
};

export const markThrough = (m: Matrix, mark: Mark): Mark =>
  mark.op === 'group'
    ? {
        ...mark,
        ...(mark.bend
          ? { bend: bentThrough(m, mark.bend) }
          : { marks: mark.marks.map((inner) => markThrough(m, inner)) }),
        ...(mark.planes && {
          planes: mark.planes.map((plane) => ({ ...plane, space: chained(flatSpace(m), plane.space) })),
        }),
        ...(mark.cuts && { cuts: mark.cuts.map((cut) => cutThrough(m, cut)) }),
        ...(mark.effect && {
          effect: {
            ...mark.effect,
            scale: mark.effect.scale * meanScale(m),
            origin: apply(m, mark.effect.origin),
            turn: mark.effect.turn + turnOfMatrix(m),
          },
        }),
      }
    : { ...mark, matrix: multiply(m, mark.matrix) };

/** Marks as one picture, with what is done to it. */
export const grouped = (marks: readonly Mark[], how: Partial<Omit<GroupMark, 'op' | 'marks'>> = {}): GroupMark => ({
  op: 'group',
  marks,
  alpha: 1,
  blend: 'normal',
  ...how,
});

/** One that brings planes of its own. Where there is depth nobody looks at its picture, which is made when somebody does. */
export const bringing = (
  planes: readonly Plane[],
  picture: () => readonly Mark[],
  how: Partial<Omit<GroupMark, 'op' | 'marks' | 'planes'>> = {},
): GroupMark => {
  let marks: readonly Mark[] | undefined;
  return {
    ...grouped([], { ...how, planes }),
    get marks() {
      return (marks ??= picture());
    },
  };
};

/** Outlines filled with one colour. */
export const flatFill = (outlines: readonly Outline[], color: Color): FillMark => ({
  op: 'fill',
  outlines,
  rule: 'nonzero',
  ink: { style: 'solid', color },
  alpha: 1,
  matrix: IDENTITY,
});

const isOpaque = ({ ink, alpha }: FillMark): boolean =>
  alpha >= 1 && ink.style === 'solid' && (ink.color.length === 7 || ink.color.toUpperCase().endsWith('FF'));

/** Which way all outlines of a mark turn as it is drawn; 0 where they differ, or any has dents. */
const turnOfMark = ({ outlines, matrix }: FillMark): number => {
  const ways = new Set(outlines.map(turnOf));
  const [way = 0] = ways;
  return ways.size === 1 ? way * Math.sign(determinant(matrix)) : 0;
};

/**
 * Marks as one fill where they are fills of one opaque colour: edges that meet leave no seam. Only of outlines without dents that
 * turn alike, whose areas add up; all others stay as they are.
 */
export const seamless = (marks: readonly Mark[]): readonly Mark[] => {
  const fills = marks.filter((mark) => mark.op === 'fill');
  const [first] = fills;
  if (!first || marks.length < 2 || fills.length < marks.length) return marks;
  const turn = turnOfMark(first);
  const { ink } = first;
  if (turn === 0 || ink.style !== 'solid') return marks;
  const joins = (mark: FillMark) =>
    isOpaque(mark) && mark.ink.style === 'solid' && mark.ink.color === ink.color && turnOfMark(mark) === turn;
  if (!fills.every(joins)) return marks;
  const outlines = fills.flatMap((mark) => mark.outlines.map((outline) => transformed(mark.matrix, outline)));
  return [flatFill(outlines, ink.color)];
};

/** A hard-edged area that shows what is in it, unless it is wanted otherwise. */
export const areaCut = (outlines: readonly Outline[], how: Partial<Omit<AreaCut, 'outlines'>> = {}): AreaCut => ({
  outlines,
  matrix: IDENTITY,
  mode: 'add',
  inverted: false,
  feather: 0,
  scale: 1,
  crisp: false,
  strength: 1,
  ...how,
});

/** Whether a mark is not simply laid over what is behind it. */
const blends = (mark: Mark): boolean => mark.op === 'group' && mark.blend !== 'normal' && mark.blend !== 'within';

/** What stands alone, and what is done to all is done to it; null for several, and for what blends: a group around it keeps that inside. */
const onlyOf = (marks: readonly Mark[]): Mark | null => {
  const [first] = marks;
  return marks.length === 1 && first && !blends(first) ? first : null;
};

/** Marks laid over what is behind them as one picture; null for nothing. */
export const laidOver = (marks: readonly Mark[], blend: GroupMark['blend'], alpha: number): Mark | null => {
  if (marks.length === 0 || alpha <= 0) return null;
  const only = onlyOf(marks);
  return only && blend === 'normal' ? { ...only, alpha: only.alpha * alpha } : grouped(marks, { alpha, blend });
};

/** Marks at a share of their opacity, fading as one picture where they are several, or blending with what is behind them as one. */
export const faded = (marks: readonly Mark[], alpha: number, blend: GroupMark['blend'] = 'normal'): readonly Mark[] => {
  if (alpha >= 1 && blend === 'normal') return marks;
  const mark = laidOver(marks, blend, alpha);
  return mark ? [mark] : [];
};

/** Whether any of these marks blends with what is behind all of them: one in a group that is a picture of its own does not. */
export const blendsBehind = (marks: readonly Mark[]): boolean =>
  marks.some((mark) => {
    if (mark.op !== 'group' || blends(mark)) return blends(mark);
    const apart = mark.alpha < 1 || mark.blend === 'within' || Boolean(mark.cuts ?? mark.effect ?? mark.bend);
    return !apart && blendsBehind(mark.marks);
  });

/** A flow moved, and drawn at a share of its strength; what is drawn already blends with what is behind it. */
export const flowThrough = (m: Matrix, { shapes, marks }: Flow, alpha = 1, blend?: GroupMark['blend']): Flow => ({
  shapes: shapes.map((shape) => shapeThrough(m, shape, alpha)),
  marks: faded(
    marks.map((mark) => markThrough(m, mark)),
    alpha,
    blend,
  ),
});

/** Calls a function with every mark, those in groups and in what cuts them too, in the order in which they are drawn. */
export const eachMark = (marks: readonly Mark[], visit: (mark: Mark) => void): void => {
  for (const mark of marks) {
    visit(mark);
    if (mark.op !== 'group') continue;
    eachMark(mark.marks, visit);
    for (const plane of mark.planes ?? []) eachMark(plane.marks, visit);
    for (const cut of mark.cuts ?? []) if ('marks' in cut) eachMark(cut.marks, visit);
  }
};

/** Whether marks bring planes of their own along. */
export const bringsPlanes = (marks: readonly Mark[]): boolean =>
  marks.some((mark) => mark.op === 'group' && mark.planes);

/** How far a stroke reaches from its outline, in the outline's own pixels. */
export const strokeReach = ({ width, join, miterLimit, cap }: Omit<Pen, 'dashes'>): number =>
  (width / 2) * Math.max(join === 'miter' ? miterLimit : 1, cap === 'square' ? Math.SQRT2 : 1);

/** The deviation of the bell curve by which an edge fades this far to each side. */
export const deviationOf = (feather: number): number => feather / 2;

export const NOTHING: Box = { left: 0, top: 0, right: 0, bottom: 0 };

/** A box that holds outlines drawn through a matrix, filled or stroked by a pen; null for none. */
export type BoxOf = (m: Matrix, outlines: readonly Outline[], pen: StrokeMark | null) => Box | null;

/** By their own box and the furthest that joins may reach: soon found. Covers lay out what they do by it. */
const roughBox: BoxOf = (m, outlines, pen) => {
  const box = outlines.reduce<Box | null>((sum, outline) => union(sum, outlineBox(outline)), null);
  return box && boxThrough(m, pen ? grown(box, strokeReach(pen)) : box);
};

/** A box that holds all of an area; null for one that goes on for ever. */
const boxOfCut = (cut: Cut, by: BoxOf): Box | null => {
  if (cut.inverted) return null;
  if ('marks' in cut) return boxOfMarks(cut.marks, true, by) ?? NOTHING;
  if ('growth' in cut) {
    const own = boxOfMarks(cut.growth.through, true, by);
    return own ? boxThrough(cut.matrix, own) : NOTHING;
  }
  const { outlines, matrix, feather, scale } = cut;
  const bare = by(matrix, outlines, null);
  return bare ? grown(bare, deviationOf(feather) * 3 * scale) : NOTHING;
};

/** What cuts leave of a box; null for nothing. */
const boxWithin = (box: Box, cuts: readonly Cut[], by: BoxOf): Box | null => {
  // All of it, while nothing has said where it shows.
  let shown: Box | null = box;
  for (const [i, cut] of cuts.entries()) {
    if (cut.mode === 'hide' || (i === 0 && cut.mode === 'exclude')) continue;
    const own = boxOfCut(cut, by);
    const part = own ? intersection(box, own) : box;
    if (i === 0) shown = part;
    else if (cut.mode === 'show') shown = shown && part && intersection(shown, part);
    else shown = union(shown, part);
  }
  return shown;
};

/** A box that holds all that marks draw, or what they draw before effects spread it; null for nothing. */
export const boxOfMarks = (marks: readonly Mark[], spread = true, by = roughBox): Box | null =>
  marks.reduce<Box | null>((sum, inner) => union(sum, markBox(inner, spread, by)), null);

/** A box that holds all that a mark draws, or what it draws before effects spread it, as near as `by` comes; null for nothing. */
export const markBox = (mark: Mark, spread = true, by = roughBox): Box | null => {
  if (mark.op === 'group') {
    if (mark.aside && !spread) return null;
    const bare = boxOfMarks(mark.marks, spread, by);
    const placed = bare && mark.bend ? boxThroughBend(mark.bend, bare) : bare;
    const box = placed && spread && mark.effect ? grown(placed, mark.effect.by.reach * mark.effect.scale) : placed;
    return box && mark.cuts ? boxWithin(box, mark.cuts, by) : box;
  }
  if (mark.op === 'picture') {
    const [w, h] = [mark.asset.width / 2, mark.asset.height / 2];
    return boxThrough(mark.matrix, { left: -w, top: -h, right: w, bottom: h });
  }
  return by(mark.matrix, mark.outlines, mark.op === 'stroke' ? mark : null);
};
