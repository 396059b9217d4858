/** When what is drawn is reached by something that grows through it, and how much of it shows at a time. */
import type { GrowthPoint, GrowthValue, GuideStroke, Point } from '../document/types';
import { Front, type Ground, type Start, startsAt, type Station } from '../geometry/march';
import { distances } from '../geometry/raster';

/** How something grows through a picture; all lengths in its cells. */
export interface Growing {
  /** In the picture's own pixels, as `place` has them. */
  readonly value: GrowthValue;
  /** Gaps narrower than this are none. */
  readonly gap: number;
  /** The radius of its tip: 0 for one as the front comes. */
  readonly tip: number;
  /** Whether what would be reached last is first. */
  readonly backwards: boolean;
}

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

/** How far the growth has come when it reaches each cell, in cells, and how far it comes in all. */
export interface Grown {
  readonly width: number;
  readonly height: number;
  readonly times: Float32Array;
  /** The cells that it reaches, and those beside them that go with it, in the order of parts of the way. */
  readonly cells: Uint32Array;
  /** Where the cells of each part begin, and where those of the last end. */
  readonly parts: Uint32Array;
  readonly whole: number;
}

/** Empty cells round a picture: gaps are closed there too. */
export const marginFor = (gap: number): number => 4 + Math.ceil(gap);

/** As opaque as this a cell belongs to the shape: one whose middle lies just outside does, for a front hugs the steps of an edge. */
const INSIDE = 40;
/** Empty cells next to the shape that go with it: its edge is drawn there. */
const BESIDE = 2;

const beside = (cell: number, width: number): readonly number[] => [cell + 1, cell - 1, cell + width, cell - width];

/** The cells that the growth goes through: the shape, with its narrow gaps closed. */
const groundOf = ({ width, height, alpha }: AlphaGrid, gap: number): Ground => {
  const open = new Uint8Array(alpha.length);
  for (let i = 0; i < open.length; i++) open[i] = alpha[i]! >= INSIDE ? 1 : 0;
  if (gap <= 0) return { width, height, open };
  const away = distances({ width, height }, (i) => open[i] === 1);
  // Grown by half of the gap, and shrunk by as much again (Serra, Image Analysis and Mathematical Morphology, 1982).
  const left = distances({ width, height }, (i) => away[i]! > gap / 2);
  return { width, height, open: open.map((own, i) => (own === 1 || left[i]! > gap / 2 ? 1 : 0)) };
};

/** The nearest cell that may be entered; null where there is none. */
const nearestOpen = ({ width, open }: Ground, [x, y]: Point): number | null => {
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

/** What is drawn beyond the shape's own cells goes with the nearest of them. */
const carryOut = ({ width, height, open }: Ground, alpha: Uint8Array, times: Float32Array): void => {
  const taken = open.slice();
  let cells: number[] = [];
  for (let i = 0; i < open.length; i++) {
    const isEdge = open[i] === 1 && open[i - 1]! + open[i + 1]! + open[i - width]! + open[i + width]! < 4;
    if (isEdge) cells.push(i);
  }
  for (let ring = 1; cells.length > 0; ring++) {
    const next: number[] = [];
    for (const cell of cells) {
      for (const out of beside(cell, width)) {
        if (out < 0 || out >= width * height || taken[out] === 1) continue;
        if (ring > BESIDE && alpha[out] === 0) continue;
        taken[out] = 1;
        times[out] = times[cell]!;
        next.push(out);
      }
    }
    cells = next;
  }
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
const guided = (ground: Ground, grid: AlphaGrid, strokes: readonly GuideStroke[]): Float32Array => {
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

const fromRoots = (
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

/** How far behind its tip a growth is in a cell that is so far from the nearest outside, whose edge lies half a cell nearer. */
const behindTip = (tip: number, away: number): number =>
  tip - Math.sqrt(tip * tip - (tip - Math.min(away - 0.5, tip)) ** 2);

/** Parts of a way that cells are kept by. */
const PARTS = 4_096;
const partOf = (time: number, whole: number): number =>
  whole > 0 ? Math.min(PARTS - 1, Math.max(0, Math.floor((time / whole) * PARTS))) : 0;

/** The cells that a growth reaches, by parts of its way: sorted by counting. */
const byParts = (times: Float32Array, whole: number): Pick<Grown, 'cells' | 'parts'> => {
  const parts = new Uint32Array(PARTS + 1);
  for (let i = 0; i < times.length; i++) if (times[i]! < Infinity) parts[partOf(times[i]!, whole) + 1]!++;
  for (let n = 0; n < PARTS; n++) parts[n + 1]! += parts[n]!;
  const next = parts.slice();
  const cells = new Uint32Array(parts[PARTS]!);
  for (let i = 0; i < times.length; i++) if (times[i]! < Infinity) cells[next[partOf(times[i]!, whole)]!++] = i;
  return { cells, parts };
};

/** Lets something grow through a picture. */
export const grown = (grid: AlphaGrid, { value, gap, tip, backwards }: Growing): Grown => {
  const { width, height, alpha } = grid;
  const ground = groundOf(grid, gap);
  const { open } = ground;
  let known: Float64Array | null = null;
  const edge = () => (known ??= distances({ width, height }, (i) => open[i] === 0));
  const { points, strokes } = value;
  const times = strokes.length > 0 ? guided(ground, grid, strokes) : fromRoots(ground, grid, points, edge);
  if (tip > 0) {
    const far = edge();
    for (let i = 0; i < times.length; i++) if (open[i] === 1) times[i]! += behindTip(tip, far[i]!);
  }
  let [first, last] = [Infinity, 0];
  for (let i = 0; i < times.length; i++) {
    if (times[i]! < first) first = times[i]!;
    if (times[i]! > last && times[i]! < Infinity) last = times[i]!;
  }
  const whole = Math.max(0, last - first);
  for (let i = 0; i < times.length; i++) {
    if (times[i]! < Infinity) times[i] = backwards ? last - times[i]! : times[i]! - first;
  }
  carryOut(ground, alpha, times);
  return { width, height, times, whole, ...byParts(times, whole) };
};

/** The cells that have come in part, as the parts of the way that they are in: from the first to before the last. */
export type ComingParts = readonly [from: number, to: number];

/**
 * Writes into the alpha of pixels, which are empty elsewhere, what of a picture shows after a share of its growth, 0 to 1, whose edge is so
 * many cells soft: 255 where it has come, 0 where it has not. What differs from what was written `before` alone is written again;
 * gives what is to be told the next time.
 */
export const grownTo = (
  { times, cells, parts, whole }: Grown,
  shown: number,
  soft: number,
  pixels: Uint32Array,
  before: ComingParts = [0, PARTS],
): ComingParts => {
  const edge = shown * (whole + soft);
  const by = 255 / soft;
  const now: ComingParts = [partOf(edge - soft, whole), partOf(edge, whole) + 1];
  const [from, to] = [parts[Math.min(now[0], before[0])]!, parts[Math.max(now[1], before[1])]!];
  for (let k = from; k < to; k++) {
    const i = cells[k]!;
    const alpha = (edge - times[i]!) * by;
    pixels[i] = alpha >= 255 ? 0xff000000 : alpha > 0 ? (((alpha + 0.5) | 0) << 24) >>> 0 : 0;
  }
  return now;
};
