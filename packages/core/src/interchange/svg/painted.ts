/**
 * What is painted of a shape: by inks of its own where cards have them. Patterns, and what is oval in the gradient of a line, fill a
 * mask of the shape or of its line.
 */
import { IDENTITY, type Matrix } from '../../geometry/matrix';
import { type Around, inkOf, isStrokeFirst, strokeOf } from './inks';
import { groupOf, isOval, nodesBox, type SvgCut, type SvgNode, type SvgShape } from './nodes';
import { shareOf } from './paints';
import { tilesOver } from './patterns';
import { pathsOf } from './shapes';
import { type Reading, referredTo, type Walk } from './walk';

const WHITE = { style: 'solid', color: '#FFFFFF' } as const;

/** A group of something that shows within a cut; none of nothing. */
const within = (name: string, paint: SvgNode | null, cut: SvgCut, opacity = 1): readonly SvgNode[] =>
  paint ? [groupOf(name, [paint], { beside: true, opacity, cut })] : [];

/** All that a line covers, filled with its own ink. */
const coveredBy = (line: SvgShape): SvgShape | null => {
  const box = nodesBox([{ ...line, matrix: IDENTITY }], IDENTITY, true);
  if (!box || !line.stroke) return null;
  const { left, top, right, bottom } = box;
  const paths = pathsOf(`M${left} ${top}H${right}V${bottom}H${left}Z`, IDENTITY);
  return { ...line, paths, fill: line.stroke.ink, stroke: null };
};

/** The line of a shape, or what fills it. */
const lineOf = (
  shape: SvgShape,
  around: Around,
  inner: Matrix,
  perDash: number,
  walk: Walk,
  reading: Reading,
): Pick<SvgShape, 'stroke'> & { readonly instead: readonly SvgNode[] } => {
  const pattern = referredTo(walk.style.stroke, reading, 'pattern');
  const plain = pattern ? { ...walk, style: { ...walk.style, stroke: WHITE.color } } : walk;
  const stroke = strokeOf(plain, around, inner, perDash, reading);
  if (!stroke || !(pattern || isOval(stroke.ink))) return { stroke, instead: [] };
  const line: SvgShape = { ...shape, fill: null, stroke };
  const cut: SvgCut = { by: 'drawn', nodes: [{ ...line, stroke: { ...stroke, ink: WHITE } }] };
  const paint = pattern ? tilesOver(pattern, [line], around, walk, reading) : coveredBy(line);
  return { stroke: null, instead: within(shape.name, paint, cut, pattern ? shareOf(walk.style['stroke-opacity']) : 1) };
};

/** A shape with its inks, in the order in which they are painted; it is there unpainted as well, for what goes by its box. */
export const paintedOf = (
  bare: Pick<SvgShape, 'kind' | 'name' | 'opacity' | 'matrix' | 'paths'>,
  around: Around,
  inner: Matrix,
  perDash: number,
  walk: Walk,
  reading: Reading,
): readonly SvgNode[] => {
  const { style } = walk;
  const unpainted: SvgShape = {
    ...bare,
    rule: style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero',
    fill: null,
    stroke: null,
    strokeFirst: isStrokeFirst(style),
  };
  const opacity = shareOf(style['fill-opacity']);
  const pattern = referredTo(style.fill, reading, 'pattern');
  const fill = pattern ? null : inkOf(style.fill ?? 'black', walk, around, inner, opacity, reading);
  const tiles = pattern && tilesOver(pattern, [unpainted], around, walk, reading);
  const filled = within(bare.name, tiles, { by: 'outlines', areas: [unpainted] }, opacity);
  const { stroke, instead } = lineOf(unpainted, around, inner, perDash, walk, reading);
  const shape: SvgShape = { ...unpainted, fill, stroke };
  return shape.strokeFirst ? [...instead, shape, ...filled] : [...filled, shape, ...instead];
};
