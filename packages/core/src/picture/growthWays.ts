/** The ways that something grows through a shape: from its roots, past places where it waits, or as strokes were drawn. */
import type { GrowthPoint, GuideStroke, Point } from '../document/types';
import { Front, type Ground, type Start, startsAt, type Station } from '../geometry/march';

/** The opaqueness of the cells of a picture, 0 to 255, with empty ones all round. */
export interface AlphaGrid {
  readonly width: number;
  readonly height: number;
  readonly alpha: Uint8Array;
  /** The cell that a point of the picture lies in, not rounded. */
  readonly place: (at: Point) => Point;
  /** Cells in a pixel of the picture. */
  readonly scale: number;
}

/** Empty cells next to the shape that go with it: its edge is drawn there. */
export const BESIDE = 2;

export const beside = (cell: number, width: number): readonly number[] => [
  cell + 1,
  cell - 1,
  cell + width,
  cell - width,
];

/** The nearest cell that may be entered; null where there is none. */
const nearestOpen = ({ width, height, open }: Ground, [x, y]: Point): number | null => {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const own = row * width + column;
  if (column >= 0 && row >= 0 && column < width && row < height && open[own] === 1) return own;
  let [nearest, least] = [-1, Infinity];
  for (let i = 0; i < open.length; i++) {
    if (open[i] !== 1) continue;
    const d = ((i % width) + 0.5 - x) ** 2 + (Math.floor(i / width) + 0.5 - y) ** 2;
    if (d < least) [nearest, least] = [i, d];
  }
  return nearest < 0 ? null : nearest;
};

/** The middle of the lowest row: what stands grows from its foot. */
const footOf = ({ width, open }: Ground): number | null => {
  const last = open.lastIndexOf(1);
  if (last < 0) return null;
  const first = open.indexOf(1, last - (last % width));
  const middle = (first + last) >> 1;
  return open[middle] === 1 ? middle : first;
};

/** How steeply a way from an edge to the middle of a branch leads away from the edge, at the least. */
const STEEP = 0.7;

/** The middle of the branch that a cell lies in. */
const middleFrom = (cell: number, edge: Float64Array, width: number): number => {
  for (let at = cell; ;) {
    let [best, most] = [at, 0];
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const next = at + dy * width + dx;
        const gain = (edge[next]! - edge[at]!) / (Math.hypot(dx, dy) || 1);
        if (gain > most) [best, most] = [next, gain];
      }
    }
    if (most < STEEP) return at;
    at = best;
  }
};

/** Where the front waits or changes its pace: across all of the branch that a point lies in. */
const zonesOf = (ground: Ground, grid: AlphaGrid, points: readonly GrowthPoint[], edge: () => Float64Array) => {
  if (points.length === 0) return { zones: null, stations: [] };
  const { width, height, open } = ground;
  const zones = new Uint8Array(width * height);
  const stations = points.map(({ at, wait, pace }, i): Station => {
    const cell = nearestOpen(ground, grid.place(at));
    if (cell !== null) {
      const middle = middleFrom(cell, edge(), width);
      const reach = edge()[middle]! + 1;
      const [x, y] = [middle % width, Math.floor(middle / width)];
      for (let row = Math.max(0, Math.floor(y - reach)); row <= Math.min(height - 1, y + reach); row++) {
        for (let column = Math.max(0, Math.floor(x - reach)); column <= Math.min(width - 1, x + reach); column++) {
          const own = row * width + column;
          if (open[own] === 1 && Math.hypot(column - x, row - y) <= reach) zones[own] = i + 1;
        }
      }
    }
    return { wait: wait * grid.scale, pace };
  });
  return { zones, stations };
};

/**
 * Lets a front reach the parts that hang together with none of its starts: from what it has reached, straight across what is empty,
 * the nearest first, from the one place where it comes to each.
 */
const reachApart = (front: Front, { width, height, open }: Ground): void => {
  let apart = 0;
  for (let i = 0; i < open.length; i++) if (open[i] === 1 && !front.reached(i)) apart++;
  if (apart === 0) return;
  const inner = (cell: number): boolean => {
    const [x, y] = [cell % width, Math.floor(cell / width)];
    return x >= BESIDE && y >= BESIDE && x < width - BESIDE && y < height - BESIDE;
  };
  const between = new Front({ width, height, open: open.map((own, cell) => (own === 0 && inner(cell) ? 1 : 0)) });
  const out = (cell: number, more: (start: Start) => void): void => {
    for (const next of beside(cell, width)) {
      if (open[next] === 1) continue;
      more({ cell: next, time: front.times[cell]! + 1, pace: 1, origin: front.origins[cell]! });
    }
  };
  const starts: Start[] = [];
  open.forEach((own, cell) => own === 1 && front.reached(cell) && out(cell, (start) => starts.push(start)));
  between.go(starts, (cell, more) => {
    for (const next of beside(cell, width)) {
      if (open[next] !== 1 || front.reached(next)) continue;
      const [time, origin] = [between.times[cell]! + 1, between.origins[cell]!];
      front.go([{ cell: next, time, pace: 1, origin }], (reached) => out(reached, more));
    }
  });
};

/** Of a stroke: the cells along it, and how many milliseconds after its start it was there. */
const alongStroke = (stroke: GuideStroke, { place }: AlphaGrid, visit: (at: Point, time: number) => void): void => {
  let [x, y] = place([stroke[0]!, stroke[1]!]);
  let time = 0;
  visit([x, y], 0);
  for (let k = 3; k < stroke.length; k += 3) {
    const [toX, toY] = place([stroke[k]!, stroke[k + 1]!]);
    const steps = Math.max(1, Math.ceil(2 * Math.hypot(toX - x, toY - y)));
    const span = Math.max(0, stroke[k + 2]! - time);
    for (let n = 1; n <= steps; n++) {
      visit([x + ((toX - x) * n) / steps, y + ((toY - y) * n) / steps], time + (span * n) / steps);
    }
    [x, y, time] = [toX, toY, time + span];
  }
};

/** The cells along strokes, one stroke after another, when they are drawn, and how long all strokes are. */
const alongStrokes = (grid: AlphaGrid, strokes: readonly GuideStroke[]) => {
  const { width, height } = grid;
  const times: number[] = [];
  const starts: Start[] = [];
  let [begun, length] = [0, 0];
  for (const stroke of strokes) {
    let [x, y, now] = [NaN, NaN, begun];
    alongStroke(stroke, grid, (at, time) => {
      length += Number.isNaN(x) ? 0 : Math.hypot(at[0] - x, at[1] - y);
      [x, y, now] = [...at, begun + time];
      const [column, row] = [Math.floor(x), Math.floor(y)];
      if (column < BESIDE || row < BESIDE || column >= width - BESIDE || row >= height - BESIDE) return;
      starts.push({ cell: row * width + column, time: 0, pace: 1, origin: times.length });
      times.push(now);
    });
    begun = now;
  }
  return { times, starts, length, whole: begun };
};

/** Along strokes: each cell when the place on a stroke is drawn that is nearest to it inside the shape. */
export const guided = (ground: Ground, grid: AlphaGrid, strokes: readonly GuideStroke[]): Float32Array => {
  const { times, starts, length, whole } = alongStrokes(grid, strokes);
  const inside = starts.filter(({ cell }) => ground.open[cell] === 1);
  const foot = footOf(ground);
  const front = new Front(ground);
  front.go(inside.length > 0 || foot === null ? inside : [{ cell: foot, time: 0, pace: 1, origin: 0 }]);
  reachApart(front, ground);
  // Milliseconds as the cells that are drawn in them, on the whole.
  const scale = whole > 0 ? length / whole : 0;
  return Float32Array.from(front.origins, (origin) => (origin < 0 ? Infinity : (times[origin] ?? 0) * scale));
};

export const fromRoots = (
  ground: Ground,
  grid: AlphaGrid,
  points: readonly GrowthPoint[],
  edge: () => Float64Array,
): Float32Array => {
  const { zones, stations } = zonesOf(
    ground,
    grid,
    points.filter(({ root }) => !root),
    edge,
  );
  const front = new Front(ground, zones, stations);
  const roots = points
    .filter(({ root }) => root)
    .map(({ at, wait, pace }) => ({ cell: nearestOpen(ground, grid.place(at)), time: wait * grid.scale, pace }));
  const all = roots.length > 0 ? roots : [{ cell: footOf(ground), time: 0, pace: 1 }];
  front.go(
    all.flatMap(({ cell, ...rest }, origin) => (cell === null ? [] : startsAt(ground, { cell, ...rest, origin }))),
  );
  reachApart(front, ground);
  return front.times;
};
