/** Patterns (SVG 2, 14.3): a tile in rows and columns. */
import { apply, inverted, multiply, translation } from '../../geometry/matrix';
import { thousands } from '../../document/text';
import type { Point } from '../../document/types';
import { withinView } from './cuts';
import { groupOf, nodesBox, type SvgGroup, type SvgNode } from './nodes';
import type { SvgElement } from './parse';
import { lengthOf } from './style';
import { transformOf, viewportOf } from './transform';
import type { Around } from './inks';
import { attributesOf, chainOf, type Reading, referred, type Walk } from './walk';

/** So many tiles are laid. */
const MOST_TILES = 2_500;

/** A tile that is cut meets the next one. */
const meeting = (node: SvgNode): SvgNode =>
  node.kind === 'group' && node.cut?.by === 'outlines' ? { ...node, cut: { ...node.cut, meets: true } } : node;

/** The first of the tiles that lie between two places, and how many they are; what is less than a thousandth of one is none. */
const tilesBetween = (from: number, to: number, length: number): readonly [first: number, count: number] => {
  const first = Math.floor(from / length + 1e-3);
  return [first, Math.max(1, Math.ceil(to / length - 1e-3) - first)];
};

/** The tiles of a pattern over all that may be seen of some nodes, for a shape's box; null for none. */
export const tilesOver = (
  element: SvgElement,
  covered: readonly SvgNode[],
  { own }: Around,
  walk: Walk,
  reading: Reading,
): SvgGroup | null => {
  const chain = chainOf(element, reading.byId);
  const a = attributesOf(chain);
  const holder = chain.find(({ children }) => children.length > 0);
  const inBox = a.patternUnits !== 'userSpaceOnUse';
  const [wide, high] = inBox ? [own.right - own.left, own.bottom - own.top] : walk.size;
  const share = (text: string | undefined, whole: number) =>
    inBox && text !== undefined && !text.trim().endsWith('%') ? Number(text) * whole || 0 : lengthOf(text, whole, 0);
  const [x, y] = [share(a.x, wide) + (inBox ? own.left : 0), share(a.y, high) + (inBox ? own.top : 0)];
  const [width, height] = [share(a.width, wide), share(a.height, high)];
  const matrix = multiply(walk.matrix, transformOf(a.patternTransform));
  const back = inverted(matrix);
  const box = back && nodesBox(covered, back, true);
  if (!holder || !box || width <= 0 || height <= 0) return null;
  const [left, columns] = tilesBetween(box.left - x, box.right - x, width);
  const [top, rows] = tilesBetween(box.top - y, box.bottom - y, height);
  if (columns * rows > MOST_TILES) {
    reading.note(`a pattern of more than ${thousands(MOST_TILES)} tiles is left out`);
    return null;
  }
  const view = viewportOf({ ...element, attributes: a }, walk.size, [width, height]);
  const first = multiply(matrix, translation(x + left * width, y + top * height));
  const shares = a.patternContentUnits === 'objectBoundingBox' && a.viewBox === undefined;
  const content = multiply(first, shares ? [own.right - own.left, 0, 0, own.bottom - own.top, 0, 0] : view.matrix);
  const nodes = referred(holder, { ...walk, size: view.inner }, content, reading);
  const style = reading.style([element], {});
  const way = (dx: number, dy: number): Point => apply([matrix[0], matrix[1], matrix[2], matrix[3], 0, 0], [dx, dy]);
  const tile = withinView(nodes, { width, height }, first, style).map(meeting);
  if (tile.length === 0) return null;
  const tiles = { columns, rows, across: way(width, 0), down: way(0, height) };
  return groupOf('Tiles', tile, { tiles });
};
