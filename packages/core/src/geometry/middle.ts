/**
 * Middle lines of areas, as few strokes: rastered, thinned to lines of one cell, walked as a graph whose short spurs are left out,
 * and joined straight on at crossings.
 */
import type { Point } from '../document/types';
import { type Box, outlineBox, union } from './bounds';
import { arcLength } from './length';
import { flattened } from './flatten';
import { type Outline, smoothThrough } from './outline';
import { areaOf, outlinesOf } from './polygons';
import { distances, type Grid, rastered } from './raster';
import { simplified } from './simplify';
import { pruned, thinned, type Walked, walked } from './thin';

/** A smooth line through points: see smoothThrough. */
export interface MiddleStroke {
  readonly points: readonly Point[];
  readonly closed: boolean;
}
export interface Middle {
  /** In the order in which one would write them: from left to right, each part of the area by itself. */
  readonly strokes: readonly MiddleStroke[];
  /** A stroke of this width along all of them covers the area. */
  readonly width: number;
}

/** Cells across the width of a typical stroke of the area. */
const ACROSS = 10;
const MOST_CELLS = 150_000;
/** Runs of one part that are looked at for those that go straight on; with more they stay apart. */
const MOST_JOINED = 150;

const lengthOf = (points: readonly Point[]): number =>
  points.reduce((sum, [x, y], i) => (i === 0 ? 0 : sum + Math.hypot(x - points[i - 1]![0], y - points[i - 1]![1])), 0);

/** Each point the mean of those about it; ends stay. */
const smoothed = (points: readonly Point[], reach: number): Point[] =>
  points.map((_, i) => {
    const own = Math.min(reach, i, points.length - 1 - i);
    let [x, y] = [0, 0];
    for (let k = i - own; k <= i + own; k++) {
      x += points[k]![0];
      y += points[k]![1];
    }
    return [x / (2 * own + 1), y / (2 * own + 1)];
  });

/** The way in which a line sets out from its end, over so many points. */
const headingAt = (points: readonly Point[], end: 'first' | 'last', over: number): Point => {
  const own = end === 'first' ? points : points.toReversed();
  const [[x0, y0], [x1, y1]] = [own[0]!, own[Math.min(over, own.length - 1)]!];
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  return [(x1 - x0) / length, (y1 - y0) / length];
};

type End = 'first' | 'last';

/** A line through the middles of cells, and the cells at its ends. */
interface Line {
  readonly points: readonly Point[];
  readonly first: number;
  readonly last: number;
  readonly ring: boolean;
}

/** One part of an area in cells: its lines, and how far each cell is from its edge. */
interface Thin {
  readonly grid: Grid;
  readonly edge: Float64Array;
  readonly degree: Walked['degree'];
}

/** Whether two cells are ends at one crossing: those are often several cells wide. */
const isOneCrossing = ({ grid: { width }, edge, degree }: Thin, a: number, b: number): boolean => {
  if (degree(a) === 1 || degree(b) === 1) return false;
  const reach = 0.6 * Math.max(edge[a]!, edge[b]!) + 1.5;
  return Math.hypot((a % width) - (b % width), Math.floor(a / width) - Math.floor(b / width)) <= reach;
};

/** How nearly straight one line goes on in another, from -1 to 1; null where their ends do not meet. */
const straightness = (thin: Thin, a: Line, aEnd: End, b: Line, bEnd: End): number | null => {
  if (a.ring || b.ring || !isOneCrossing(thin, a[aEnd], b[bEnd])) return null;
  const over = Math.max(3, Math.round(thin.edge[a[aEnd]]! * 1.5));
  const [u, v] = [headingAt(a.points, aEnd, over), headingAt(b.points, bEnd, over)];
  return -(u[0] * v[0] + u[1] * v[1]);
};

const turnedRound = ({ points, first, last, ring }: Line): Line => ({
  points: points.toReversed(),
  first: last,
  last: first,
  ring,
});

/** Lines that go on in each other at crossings made one, the straightest first. */
const joinedStraight = (thin: Thin, lines: readonly Line[]): readonly Line[] => {
  if (lines.length > MOST_JOINED) return lines;
  const ends = ['first', 'last'] as const;
  let now = lines;
  for (;;) {
    let best = { straight: 0.5, pair: null as readonly [Line, Line] | null, one: null as Line | null };
    now.forEach((a, i) => {
      for (const b of now.slice(i + 1)) {
        for (const aEnd of ends) {
          for (const bEnd of ends) {
            const straight = straightness(thin, a, aEnd, b, bEnd);
            if (straight === null || straight <= best.straight) continue;
            const [head, tail] = [aEnd === 'last' ? a : turnedRound(a), bEnd === 'first' ? b : turnedRound(b)];
            const one = { points: [...head.points, ...tail.points], first: head.first, last: tail.last, ring: false };
            best = { straight, pair: [a, b], one };
          }
        }
      }
    });
    const { pair, one } = best;
    if (!pair || !one) return now;
    now = [...now.filter((line) => !pair.includes(line)), one];
  }
};

/** What leads from one side of a crossing to the other is the crossing itself. */
const isBridge = ({ grid: { side }, edge, degree }: Thin, { points, first, last, ring }: Line): boolean =>
  !ring && degree(first) > 1 && degree(last) > 1 && lengthOf(points) < 0.8 * side * Math.max(edge[first]!, edge[last]!);

/** A line as one would write it: smooth, from edge to edge, from the left or from the top. */
const asStroke = (
  { grid: { side }, edge, degree }: Thin,
  { points, first, last }: Line,
  closed: boolean,
): MiddleStroke => {
  const soft = simplified(smoothed(points, Math.round(ACROSS * 0.6)), side * 0.6);
  const [start, end] = [soft[0]!, soft.at(-1)!];
  if (closed) return { points: soft.length > 3 ? soft.slice(0, -1) : soft, closed };
  if (soft.length === 1) return { points: [start, [start[0] + side, start[1]]], closed };
  // Thinning stops short of where strokes end.
  const out = ([x, y]: Point, at: End, cell: number): Point => {
    const [hx, hy] = headingAt(soft, at, 1);
    const reach = degree(cell) === 1 ? edge[cell]! * side : 0;
    return [x - hx * reach, y - hy * reach];
  };
  const line = [out(start, 'first', first), ...soft.slice(1, -1), out(end, 'last', last)];
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const isTurned = Math.abs(dx) > 0.5 * Math.abs(dy) ? dx < 0 : dy < 0;
  return { points: isTurned ? line.toReversed() : line, closed };
};

/** The middle lines of one connected area. */
const strokesOf = (grid: Grid, edge: Float64Array): MiddleStroke[] => {
  const { width, left, top, side } = grid;
  const place = (cell: number): Point => [
    left + ((cell % width) + 0.5) * side,
    top + (Math.floor(cell / width) + 0.5) * side,
  ];
  const { runs, degree } = walked(pruned(thinned(grid, edge), width, edge), width);
  const thin: Thin = { grid, edge, degree };
  const lines = runs
    .filter(({ cells }) => cells.length > 1 || runs.length === 1)
    .map(({ cells, ring }): Line => ({ points: cells.map(place), first: cells[0]!, last: cells.at(-1)!, ring }));
  const joined = joinedStraight(thin, lines);
  const bare = joined.filter((line) => !isBridge(thin, line));
  const whole = bare.length > 0 ? bare : joined;
  // One line whose ends meet is a ring with a spur that has gone.
  const isRing = ({ points, first, last, ring }: Line) =>
    ring || (whole.length === 1 && points.length > 8 && isOneCrossing(thin, first, last));
  return whole.map((line) => asStroke(thin, line, isRing(line)));
};

/** The parts of an area that hang together, from left to right, each with its holes. */
const partsOf = (outlines: readonly Outline[]): Outline[][] => {
  const all = outlinesOf(areaOf(outlines)).map((outline) => ({ outline, box: outlineBox(outline) }));
  const within = (a: Box, b: Box) => a.left >= b.left && a.right <= b.right && a.top >= b.top && a.bottom <= b.bottom;
  const sorted = all.toSorted(
    (a, b) =>
      (b.box.right - b.box.left) * (b.box.bottom - b.box.top) - (a.box.right - a.box.left) * (a.box.bottom - a.box.top),
  );
  const parts: { box: Box; outlines: Outline[] }[] = [];
  for (const { outline, box } of sorted) {
    const around = parts.find((part) => within(box, part.box));
    if (around) around.outlines.push(outline);
    else parts.push({ box, outlines: [outline] });
  }
  return parts.toSorted((a, b) => a.box.left - b.box.left).map((part) => part.outlines);
};

/** The middle lines of an area, and how wide a stroke along them covers it; null for one that has none. */
export const middleOf = (outlines: readonly Outline[]): Middle | null => {
  const strokes: MiddleStroke[] = [];
  let width = 0;
  for (const part of partsOf(outlines)) {
    const box = part.reduce<Box | null>((sum, outline) => union(sum, outlineBox(outline)), null);
    const round = part.reduce((sum, outline) => sum + arcLength(outline), 0);
    if (!box || round <= 0) continue;
    const [w, h] = [box.right - box.left, box.bottom - box.top];
    // Twice the area by the length of its edge is about how wide its strokes are: a rough raster tells it.
    const rough = rastered(part, box, Math.max(w, h) / 100);
    const area = rough.cells.reduce((sum, cell) => sum + cell, 0) * rough.side ** 2;
    const side = Math.max((2 * area) / round / ACROSS, Math.sqrt((w * h) / MOST_CELLS), 1e-3);
    const grid = rastered(part, box, side);
    const edge = distances(grid, (i) => grid.cells[i] === 0);
    const own = strokesOf(grid, edge).filter(({ points }) => lengthOf(points) > 0);
    strokes.push(...own.toSorted((a, b) => a.points[0]![0] - b.points[0]![0]));
    width = Math.max(width, 2 * farthestFrom(grid, own) * side);
  }
  return strokes.length === 0 ? null : { strokes, width };
};

/** How far the farthest cell of an area is from strokes, in cells, with room for its corners. */
const farthestFrom = ({ width, height, cells, left, top, side }: Grid, strokes: readonly MiddleStroke[]): number => {
  const drawn = new Set<number>();
  for (const { points, closed } of strokes) {
    const curve = flattened(smoothThrough(points, closed));
    const all = closed ? [...curve, curve[0]!] : curve;
    all.forEach(([x, y], i) => {
      const [px, py] = all[Math.max(0, i - 1)]!;
      const steps = Math.max(1, Math.ceil((Math.hypot(x - px, y - py) / side) * 2));
      for (let n = 0; n <= steps; n++) {
        const column = Math.floor((px + ((x - px) * n) / steps - left) / side);
        const row = Math.floor((py + ((y - py) * n) / steps - top) / side);
        if (column >= 0 && row >= 0 && column < width && row < height) drawn.add(row * width + column);
      }
    });
  }
  const far = distances({ width, height }, (i) => drawn.has(i));
  return far.reduce((most, d, i) => (cells[i] === 1 && d > most ? d : most), 0) + 3;
};
