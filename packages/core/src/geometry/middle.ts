/**
 * Middle lines of areas, as few strokes: rastered, thinned to lines of one cell (Zhang and Suen, A Fast Parallel Algorithm for
 * Thinning Digital Patterns, 1984), walked as a graph whose short spurs are left out, and joined straight on at crossings.
 */
import type { Point } from '../document/types';
import { type Box, outlineBox, union } from './bounds';
import { arcLength } from './length';
import { flattened } from './flatten';
import { type Outline, smoothThrough } from './outline';
import { areaOf, outlinesOf } from './polygons';
import { distances, type Grid, rastered } from './raster';

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

const NEIGHBOURS = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
] as const;

/** Cells across the width of a typical stroke of the area. */
const ACROSS = 10;
const MOST_CELLS = 150_000;
/** Runs of one part that are looked at for those that go straight on; with more they stay apart. */
const MOST_JOINED = 150;

/** Peels an area until lines of one cell are left. */
const thinned = ({ width, cells }: Grid, edge: Float64Array): Uint8Array => {
  const grid = cells.slice();
  const offsets = NEIGHBOURS.map(([dx, dy]) => dy * width + dx);
  let inside = [...grid.keys()].filter((i) => grid[i] === 1);
  const peels = (i: number, second: boolean): boolean => {
    const p = offsets.map((o) => grid[i + o]!);
    const count = p.reduce((sum, v) => sum + v, 0);
    if (count < 2 || count > 6) return false;
    let changes = 0;
    for (let n = 0; n < 8; n++) if (p[n] === 0 && p[(n + 1) % 8] === 1) changes++;
    if (changes !== 1) return false;
    const [north, , east, , south, , west] = p as [number, number, number, number, number, number, number, number];
    return second
      ? north * east * west === 0 && north * south * west === 0
      : north * east * south === 0 && east * south * west === 0;
  };
  for (let peeled = true; peeled;) {
    peeled = false;
    for (const second of [false, true]) {
      const gone = inside.filter((i) => peels(i, second));
      for (const i of gone) grid[i] = 0;
      if (gone.length > 0) {
        peeled = true;
        inside = inside.filter((i) => grid[i] === 1);
      }
    }
  }
  // Corners of stairs that are left are no crossings.
  for (const i of inside) {
    const [n, , e, , s, , w] = offsets.map((o) => grid[i + o]!) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const [ne, se, sw, nw] = [offsets[1]!, offsets[3]!, offsets[5]!, offsets[7]!].map((o) => grid[i + o]!) as [
      number,
      number,
      number,
      number,
    ];
    const corner =
      (n && e && !s && !w && !sw) ||
      (e && s && !n && !w && !nw) ||
      (s && w && !n && !e && !ne) ||
      (w && n && !s && !e && !se);
    if (corner) grid[i] = 0;
  }
  // Of a dot nothing may be left: its middle is.
  if (!grid.includes(1)) grid[edge.reduce((best, d, i) => (d > edge[best]! ? i : best), 0)] = 1;
  return grid;
};

/** A run of cells between two ends or crossings; its ends are cells, or null for a ring. */
interface Run {
  cells: number[];
  ring: boolean;
}

const walked = (line: Uint8Array, width: number): { runs: Run[]; degree: (cell: number) => number } => {
  const offsets = NEIGHBOURS.map(([dx, dy]) => dy * width + dx);
  const around = (i: number) => offsets.map((o) => i + o).filter((j) => line[j] === 1);
  const degrees = new Map<number, number>();
  for (let i = 0; i < line.length; i++) if (line[i] === 1) degrees.set(i, around(i).length);
  const degree = (i: number) => degrees.get(i) ?? 0;
  const isNode = (i: number) => degree(i) !== 2;
  const done = new Set<string>();
  const seen = new Set<number>();
  const runs: Run[] = [];
  const follow = (from: number, next: number): number[] => {
    const cells = [from, next];
    for (let [before, at] = [from, next]; !isNode(at) && at !== from;) {
      const on = around(at).find((j) => j !== before && (j !== from || cells.length > 3));
      if (on === undefined) break;
      [before, at] = [at, on];
      cells.push(at);
    }
    return cells;
  };
  for (const [i] of degrees) {
    if (!isNode(i)) continue;
    seen.add(i);
    if (degree(i) === 0) runs.push({ cells: [i], ring: false });
    for (const next of around(i)) {
      if (done.has(`${i} ${next}`)) continue;
      const cells = follow(i, next);
      done.add(`${i} ${next}`).add(`${cells.at(-1)} ${cells.at(-2)}`);
      for (const cell of cells) seen.add(cell);
      runs.push({ cells, ring: false });
    }
  }
  for (const [i] of degrees) {
    if (seen.has(i)) continue;
    const cells = follow(i, around(i)[0] as number);
    for (const cell of cells) seen.add(cell);
    runs.push({ cells, ring: true });
  }
  return { runs, degree };
};

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

/** As few of the points as lie within a tolerance of the rest (Douglas and Peucker 1973). */
const simplified = (points: readonly Point[], tolerance: number): Point[] => {
  if (points.length < 3) return [...points];
  const [[ax, ay], [bx, by]] = [points[0]!, points.at(-1)!];
  const length = Math.hypot(bx - ax, by - ay);
  let [far, at] = [0, 0];
  points.forEach(([x, y], i) => {
    const d =
      length < 1e-9 ? Math.hypot(x - ax, y - ay) : Math.abs((bx - ax) * (ay - y) - (ax - x) * (by - ay)) / length;
    if (d > far) [far, at] = [d, i];
  });
  if (far <= tolerance) return [points[0]!, points.at(-1)!];
  return [...simplified(points.slice(0, at + 1), tolerance).slice(0, -1), ...simplified(points.slice(at), tolerance)];
};

/** The way in which a line sets out from its end, over so many points. */
const headingAt = (points: readonly Point[], end: 'first' | 'last', over: number): Point => {
  const own = end === 'first' ? points : points.toReversed();
  const [[x0, y0], [x1, y1]] = [own[0]!, own[Math.min(over, own.length - 1)]!];
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  return [(x1 - x0) / length, (y1 - y0) / length];
};

/** The middle lines of one connected area. */
const strokesOf = (grid: Grid, edge: Float64Array): MiddleStroke[] => {
  const { width, left, top, side } = grid;
  const place = (cell: number): Point => [
    left + ((cell % width) + 0.5) * side,
    top + (Math.floor(cell / width) + 0.5) * side,
  ];
  let thin = thinned(grid, edge);
  // Spurs no longer than the area is wide where they leave it are what thinning makes of corners.
  for (let round = 0; round < 3; round++) {
    const { runs, degree } = walked(thin, width);
    const spurs = runs.filter(({ cells, ring }) => {
      const ends = [cells[0]!, cells.at(-1)!];
      const tip = ends.find((end) => degree(end) === 1);
      const root = ends.find((end) => degree(end) > 2);
      return !ring && tip !== undefined && root !== undefined && cells.length < 1.15 * edge[root]! + 2;
    });
    if (spurs.length === 0) break;
    const next = thin.slice();
    for (const { cells } of spurs) for (const cell of cells) if (degree(cell) <= 2) next[cell] = 0;
    thin = next;
  }
  const { runs, degree } = walked(thin, width);
  // Crossings are often several cells wide: ends that lie close to each other are one.
  const open = runs.map(({ cells, ring }) => ({ cells, ring, points: cells.map(place) }));
  const joined: { points: Point[]; first: number; last: number; ring: boolean }[] = open
    .filter(({ cells }) => cells.length > 1 || runs.length === 1)
    .map(({ cells, points, ring }) => ({ points, first: cells[0]!, last: cells.at(-1)!, ring }));
  const near = (a: number, b: number) => {
    const reach = 0.6 * Math.max(edge[a]!, edge[b]!) + 1.5;
    return Math.hypot((a % width) - (b % width), Math.floor(a / width) - Math.floor(b / width)) <= reach;
  };
  for (let left = joined.length > MOST_JOINED ? 0 : joined.length; left > 0; left--) {
    let best: { i: number; j: number; iEnd: 'first' | 'last'; jEnd: 'first' | 'last'; straight: number } | null = null;
    for (let i = 0; i < joined.length; i++) {
      for (let j = i + 1; j < joined.length; j++) {
        for (const iEnd of ['first', 'last'] as const) {
          for (const jEnd of ['first', 'last'] as const) {
            const [a, b] = [joined[i]!, joined[j]!];
            if (a.ring || b.ring || !near(a[iEnd], b[jEnd]) || degree(a[iEnd]) === 1 || degree(b[jEnd]) === 1) continue;
            const over = Math.max(3, Math.round(edge[a[iEnd]]! * 1.5));
            const [u, v] = [headingAt(a.points, iEnd, over), headingAt(b.points, jEnd, over)];
            const straight = -(u[0] * v[0] + u[1] * v[1]);
            if (straight > 0.5 && (!best || straight > best.straight)) best = { i, j, iEnd, jEnd, straight };
          }
        }
      }
    }
    if (!best) break;
    const [a, b] = [joined[best.i]!, joined[best.j]!];
    const head = best.iEnd === 'last' ? a.points : a.points.toReversed();
    const tail = best.jEnd === 'first' ? b.points : b.points.toReversed();
    const first = best.iEnd === 'last' ? a.first : a.last;
    const last = best.jEnd === 'first' ? b.last : b.first;
    joined.splice(best.j, 1);
    joined[best.i] = { points: [...head, ...tail], first, last, ring: false };
  }
  // What leads from one side of a crossing to the other is the crossing itself.
  const isBridge = ({ points, first, last, ring }: (typeof joined)[number]) =>
    !ring &&
    degree(first) > 1 &&
    degree(last) > 1 &&
    lengthOf(points) < 0.8 * side * Math.max(edge[first]!, edge[last]!);
  const bridges = joined.filter(isBridge);
  const whole = bridges.length < joined.length ? joined.filter((one) => !bridges.includes(one)) : joined;
  return whole.map(({ points, first, last, ring }) => {
    const closed = ring || (whole.length === 1 && points.length > 8 && near(first, last) && degree(first) > 1);
    const soft = simplified(smoothed(points, Math.round(ACROSS * 0.6)), side * 0.6);
    if (closed) return { points: soft.slice(0, -1).length > 2 ? soft.slice(0, -1) : soft, closed: true };
    // Thinning stops short of where strokes end: they go on to the edge there.
    const out = (end: 'first' | 'last', cell: number): Point => {
      const [x, y] = end === 'first' ? soft[0]! : soft.at(-1)!;
      const [hx, hy] = headingAt(soft, end, 1);
      const reach = degree(cell) === 1 ? edge[cell]! * side : 0;
      return [x - hx * reach, y - hy * reach];
    };
    const line =
      soft.length === 1
        ? [soft[0]!, [soft[0]![0] + side, soft[0]![1]] as Point]
        : [out('first', first), ...soft.slice(1, -1), out('last', last)];
    const [[ax, ay], [bx, by]] = [line[0]!, line.at(-1)!];
    // From the left, or from the top where it stands upright.
    const turned = Math.abs(bx - ax) > 0.5 * Math.abs(by - ay) ? bx < ax : by < ay;
    return { points: turned ? line.toReversed() : line, closed: false };
  });
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
