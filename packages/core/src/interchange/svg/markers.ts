/** Markers on the vertices of lines (SVG 2, 11.6): arrowheads and the like, as shapes of their own. */
import type { PathValue, Point, Vertex } from '../../document/types';
import { apply, IDENTITY, multiply, scaling, translation } from '../../geometry/matrix';
import { withinView } from './cuts';
import { groupOf, type SvgNode } from './nodes';
import type { SvgElement } from './parse';
import { pathsOf } from './shapes';
import { diagonalOf, lengthOf } from './style';
import { angleOf, SIDES, turnedBy, viewportOf } from './transform';
import { MOST_USES, nameOf, type Reading, referred, referredTo, type Walk } from './walk';

/** Lines whose vertices may be marked. */
const MARKED = ['path', 'line', 'polyline', 'polygon'];

interface Place {
  readonly at: Point;
  /** The way on which a line comes here, and on which it goes on, as angles; null where there is none. */
  readonly in: number | null;
  readonly out: number | null;
}

/** The first of some ways that leads anywhere, as an angle. */
const angleOfFirst = (...ways: readonly Point[]): number | null => {
  const way = ways.find(([x, y]) => Math.abs(x) + Math.abs(y) > 1e-9);
  return way ? Math.atan2(way[1], way[0]) : null;
};
const between = ([x, y]: Point, [tx, ty]: Point): Point => [tx - x, ty - y];
const inOf = ([x, y, ix, iy]: Vertex): Point => [x + ix, y + iy];
const outOf = ([x, y, , , ox, oy]: Vertex): Point => [x + ox, y + oy];
const at = ([x, y]: Vertex): Point => [x, y];

const startAngle = (from: Vertex, to: Vertex): number | null =>
  angleOfFirst(between(at(from), outOf(from)), between(at(from), inOf(to)), between(at(from), at(to)));
const endAngle = (from: Vertex, to: Vertex): number | null =>
  angleOfFirst(between(inOf(to), at(to)), between(outOf(from), at(to)), between(at(from), at(to)));

/** The vertices of a path in the order in which they are drawn: a closed one comes back to its first. */
const placesOf = ({ vertices, closed }: PathValue): Place[] => {
  const all = closed && vertices[0] ? [...vertices, vertices[0]] : vertices;
  const places = all.map((v, i): Place => {
    const [before, after] = [all[i - 1], all[i + 1]];
    return { at: at(v), in: before ? endAngle(before, v) : null, out: after ? startAngle(v, after) : null };
  });
  const [first, last] = [places[0], places.at(-1)];
  if (!closed || !first || !last) return places;
  return [{ ...first, in: last.in }, ...places.slice(1, -1), { ...last, out: first.out }];
};

/** Half way between both angles, by the shorter turn. */
const turnAt = (place: Place): number => {
  const { in: before, out: after } = place;
  if (before === null || after === null) return before ?? after ?? 0;
  return Math.atan2(Math.sin(before) + Math.sin(after), Math.cos(before) + Math.cos(after));
};

const marked = (
  marker: SvgElement,
  place: Place,
  isFirst: boolean,
  walk: Walk,
  reading: Reading,
): readonly SvgNode[] => {
  const { attributes: a } = marker;
  const size = [lengthOf(a.markerWidth, walk.size[0], 3), lengthOf(a.markerHeight, walk.size[1], 3)] as const;
  if (size[0] <= 0 || size[1] <= 0) return [];
  const view = viewportOf(marker, walk.size, size);
  const orient = a.orient ?? '0';
  const reversed = isFirst && orient === 'auto-start-reverse' ? 180 : 0;
  const turn = orient.startsWith('auto') ? (turnAt(place) * 180) / Math.PI + reversed : angleOf(orient);
  const units = a.markerUnits === 'userSpaceOnUse' ? 1 : lengthOf(walk.style['stroke-width'], diagonalOf(walk.size), 1);
  const ref = apply(view.matrix, [
    lengthOf(SIDES[a.refX ?? ''] ?? a.refX, view.inner[0], 0),
    lengthOf(SIDES[a.refY ?? ''] ?? a.refY, view.inner[1], 0),
  ]);
  const matrix = [translation(...place.at), turnedBy(turn), scaling(units), translation(-ref[0], -ref[1])].reduce(
    multiply,
    walk.matrix,
  );
  const style = reading.style([marker], {});
  const inside: Walk = { ...walk, size: view.inner, context: walk.style };
  const nodes = referred(marker, inside, multiply(matrix, view.matrix), reading);
  return nodes.length === 0
    ? []
    : [groupOf(nameOf(marker, 'Marker'), withinView(nodes, view, matrix, style), { beside: true })];
};

/** The markers of an element with path data, in the order in which they are drawn. */
export const markersOf = (e: SvgElement, data: string, walk: Walk, reading: Reading): readonly SvgNode[] => {
  const { style } = walk;
  if (!MARKED.includes(e.name) || walk.uses >= MOST_USES) return [];
  const [start, mid, end] = (['start', 'mid', 'end'] as const).map((which) =>
    referredTo(style[`marker-${which}`], reading, 'marker'),
  );
  if (!start && !mid && !end) return [];
  const places = pathsOf(data, IDENTITY).flatMap(placesOf);
  return places.flatMap((place, i) => {
    const first = i === 0;
    const own = first ? [start] : i === places.length - 1 ? [end] : [mid];
    // A line of one point begins and ends there.
    if (first && places.length === 1) own.push(end);
    return own.flatMap((marker) => (marker ? marked(marker, place, first, walk, reading) : []));
  });
};
