/** Clips, masks and views: what shows a part of what is drawn (CSS Masking 1). */
import type { Point } from '../../document/types';
import { IDENTITY, inverted, type Matrix, multiply } from '../../geometry/matrix';
import { groupOf, isPlain, nodesBox, type SvgCut, type SvgNode, type SvgShape, withoutUnpainted } from './nodes';
import type { SvgElement } from './parse';
import { pathsOf } from './shapes';
import { lengthOf, type Style } from './style';
import { transformOf, type Viewport } from './transform';
import { boxWithin, type Reading, referred, referredTo, unitsMatrix, type Walk } from './walk';

const rectangle = ([x, y]: Point, width: number, height: number, matrix: Matrix): SvgCut => {
  const paths = pathsOf(`M${x} ${y}h${width}v${height}h${-width}z`, matrix);
  return { by: 'outlines', areas: [{ paths, rule: 'nonzero', matrix: IDENTITY }] };
};

/** What lies within a rectangle in the pixels of a matrix: as it is where nothing reaches beyond. */
const within = (
  nodes: readonly SvgNode[],
  at: Point,
  width: number,
  height: number,
  matrix: Matrix,
): readonly SvgNode[] => {
  const back = inverted(matrix);
  const box = back && nodesBox(nodes, back, true);
  if (!box) return nodes;
  const spare = 1e-6 * (width + height);
  const fits =
    box.left >= at[0] - spare &&
    box.top >= at[1] - spare &&
    box.right <= at[0] + width + spare &&
    box.bottom <= at[1] + height + spare;
  return fits ? nodes : [groupOf('Within its frame', nodes, { cut: rectangle(at, width, height, matrix) })];
};

/** What an inner view, a marker or a tile shows of what is in it (CSS Overflow 3; SVG 2, 8.9). */
export const withinView = (
  nodes: readonly SvgNode[],
  { width, height }: Pick<Viewport, 'width' | 'height'>,
  matrix: Matrix,
  { overflow = 'hidden' }: Style,
): readonly SvgNode[] =>
  overflow === 'visible' || overflow === 'auto' ? nodes : within(nodes, [0, 0], width, height, matrix);

/** All shapes of nodes where nothing is done to any of them; null else. */
const plainShapes = (nodes: readonly SvgNode[]): SvgShape[] | null => {
  const shapes: SvgShape[] = [];
  for (const node of nodes) {
    if (node.kind === 'shape') shapes.push(node);
    else {
      const inner = node.kind === 'group' && isPlain(node) ? plainShapes(node.children) : null;
      if (!inner) return null;
      shapes.push(...inner);
    }
  }
  return shapes;
};

/** So many cuts may be cut themselves, one by another. */
const MOST_CUTS = 8;

/** What cuts something, cut itself by what it says of itself, in its own pixels. */
const cutItself = (
  nodes: readonly SvgNode[],
  walk: Walk,
  matrix: Matrix,
  own: (inside: Walk) => SvgCut | null,
): readonly SvgNode[] => {
  const cut = walk.uses < MOST_CUTS ? own({ ...walk, matrix, uses: walk.uses + 1 }) : null;
  return cut ? [groupOf('Cut', nodes, { cut })] : nodes;
};

export const clipOf = (
  value: string | undefined,
  made: readonly SvgNode[],
  walk: Walk,
  reading: Reading,
): SvgCut | null => {
  if (value === undefined || value === 'none') return null;
  const element = referredTo(value, reading, 'clipPath');
  if (!element) {
    if (!value.startsWith('url(')) reading.note('a clip that is written as a shape is left out');
    return null;
  }
  const style = reading.style([element], {});
  // Its transform is around its units.
  const moved = { ...walk, matrix: multiply(walk.matrix, transformOf(style.transform)) };
  const placed = unitsMatrix(moved, element.attributes.clipPathUnits, () => boxWithin(made, walk));
  if (!placed) return null;
  const nodes = referred(element, walk, placed, reading, true);
  const cut = cutItself(nodes, walk, placed, (inside) => clipOf(style['clip-path'], nodes, inside, reading));
  const shapes = plainShapes(cut);
  return shapes ? { by: 'outlines', areas: shapes } : { by: 'drawn', nodes: cut };
};

/** The rectangle outside of which a mask hides all: shares of the box by default, a tenth more on each side. */
const regionOf = ({ attributes: a }: SvgElement, [w, h]: readonly [number, number], inBox: boolean) => {
  const [wide, high] = inBox ? [1, 1] : [w, h];
  const at: Point = [lengthOf(a.x, wide, -0.1 * wide), lengthOf(a.y, high, -0.1 * high)];
  return { at, width: lengthOf(a.width, wide, 1.2 * wide), height: lengthOf(a.height, high, 1.2 * high) };
};

export const maskOf = (
  value: string | undefined,
  made: readonly SvgNode[],
  walk: Walk,
  reading: Reading,
): SvgCut | null => {
  const element = referredTo(value, reading, 'mask');
  if (!element) return null;
  const box = () => boxWithin(made, walk);
  const units = element.attributes.maskUnits ?? 'objectBoundingBox';
  const outer = unitsMatrix(walk, units, box);
  const inner = unitsMatrix(walk, element.attributes.maskContentUnits, box);
  if (!outer || !inner) return null;
  const style = reading.style([element], {});
  const { at, width, height } = regionOf(element, walk.size, units === 'objectBoundingBox');
  const nodes = within(referred(element, walk, inner, reading), at, width, height, outer);
  const cut = cutItself(nodes, walk, inner, (inside) => maskOf(style.mask, nodes, inside, reading));
  return { by: style['mask-type'] === 'alpha' ? 'drawn' : 'brightness', nodes: withoutUnpainted(cut) };
};
