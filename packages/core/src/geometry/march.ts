/**
 * How far it is to every cell of a shape without leaving it: fast marching (Sethian, A fast marching level set method for
 * monotonically advancing fronts, 1996) of the second order, from cell to cell in the order in which a front arrives, kept in
 * buckets (Yatziv, Bartesaghi and Sapiro, O(N) implementation of the fast marching algorithm, 2006).
 */

/** Buckets of cells by when the front arrives. */
class Buckets {
  private readonly lists: (number[] | undefined)[] = [];
  private at = 0;
  private taken = 0;

  constructor(private readonly width: number) {}

  add(cell: number, time: number): void {
    // What arrives while its bucket is being emptied is still in time.
    const i = Math.max(this.at, Math.floor(time / this.width));
    (this.lists[i] ??= []).push(cell);
  }

  /** The next cell; null where there is none. */
  next(): number | null {
    for (; this.at < this.lists.length; this.at++, this.taken = 0) {
      const list = this.lists[this.at];
      if (list && this.taken < list.length) return list[this.taken++]!;
      if (list) this.lists[this.at] = undefined;
    }
    return null;
  }
}

/** Buckets for the longest wait. */
const MOST_BUCKETS = 500_000;

/** Cells that a front goes through, in rows of `width`, with two empty ones all round them. */
export interface Ground {
  readonly width: number;
  readonly height: number;
  /** 1 for a cell that it may enter. */
  readonly open: Uint8Array;
}

/** Where a front waits, and from where on it goes at another pace. */
export interface Station {
  /** How long before it enters. */
  readonly wait: number;
  /** Cells in one unit of time, from there on. */
  readonly pace: number;
}

export interface Start {
  readonly cell: number;
  readonly time: number;
  readonly pace: number;
  /** A number by which all that is reached from here first is known. */
  readonly origin: number;
}

/** Rings of cells about a start that are all open are as far from it as they are: from cell to cell a front is least exact there. */
const MOST_RINGS = 8;

/** A start with as many open rings of cells about it as there are. */
export const startsAt = ({ width, open }: Ground, start: Start): readonly Start[] => {
  const [x, y] = [start.cell % width, Math.floor(start.cell / width)];
  const starts = [start];
  for (let ring = 1; ring <= MOST_RINGS; ring++) {
    const own: Start[] = [];
    for (let dy = -ring; dy <= ring; dy++) {
      for (let dx = -ring; dx <= ring; dx++) {
        if (Math.max(Math.abs(dx), Math.abs(dy)) !== ring) continue;
        const cell = (y + dy) * width + x + dx;
        if (open[cell] !== 1) return starts;
        own.push({ ...start, cell, time: start.time + Math.hypot(dx, dy) / start.pace });
      }
    }
    starts.push(...own);
  }
  return starts;
};

/** A front that goes through cells: when it arrives at each, and from which start it came. */
export class Front {
  /** When it arrives; infinite where it never does. */
  readonly times: Float32Array;
  /** The number of the start that it came from. */
  readonly origins: Int32Array;
  private readonly known: Uint8Array;
  /** Units of time for a cell. */
  private readonly slowness: Float32Array;
  /** Of the arrival found last: the cell that it is from, and how slow it is. */
  private before = 0;
  private slow = 1;

  /** `stations` are told apart by the numbers in `zones`, from 1 on: 0 is none. */
  constructor(
    private readonly ground: Ground,
    private readonly zones: Uint8Array | null = null,
    private readonly stations: readonly Station[] = [],
  ) {
    const cells = ground.width * ground.height;
    this.times = new Float32Array(cells).fill(Infinity);
    this.origins = new Int32Array(cells).fill(-1);
    this.known = new Uint8Array(cells);
    this.slowness = new Float32Array(cells).fill(1);
  }

  /** Whether it has been there. */
  reached(cell: number): boolean {
    return this.known[cell] === 1;
  }

  /**
   * Goes from starts as far as it comes. `visit` is told of each cell as the front gets there, in order, and may have it start
   * from more of them that are not earlier.
   */
  go(starts: readonly Start[], visit?: (cell: number, more: (start: Start) => void) => void): void {
    const { times, origins, known, slowness } = this;
    const { width, open } = this.ground;
    const earliest = starts.reduce((least, { time }) => Math.min(least, time), Infinity);
    const quickest = [...starts, ...this.stations].reduce((most, { pace }) => Math.max(most, pace), 1);
    const latest = [...starts.map(({ time }) => time - earliest), ...this.stations.map(({ wait }) => wait)];
    const longest = latest.reduce((most, time) => Math.max(most, time), 0);
    // Where it waits for very long, most of them would be empty.
    const buckets = new Buckets(Math.max(0.25 / quickest, longest / MOST_BUCKETS));
    const add = ({ cell, time, pace, origin }: Start): void => {
      if (open[cell] !== 1 || known[cell] === 1 || time >= times[cell]!) return;
      times[cell] = time;
      origins[cell] = origin;
      slowness[cell] = 1 / pace;
      buckets.add(cell, time - earliest);
    };
    for (const start of starts) add(start);
    for (let cell = buckets.next(); cell !== null; cell = buckets.next()) {
      if (known[cell] === 1) continue;
      known[cell] = 1;
      visit?.(cell, add);
      for (let side = 0; side < 4; side++) {
        const beside = cell + (side === 0 ? 1 : side === 1 ? -1 : side === 2 ? width : -width);
        if (open[beside] !== 1 || known[beside] === 1) continue;
        const time = this.arrival(beside);
        if (time < times[beside]!) {
          times[beside] = time;
          origins[beside] = origins[this.before]!;
          slowness[beside] = this.slow;
          buckets.add(beside, time - earliest);
        }
      }
    }
  }

  /** When it arrives at a cell that has a known one beside it. */
  private arrival(cell: number): number {
    const { times, known, slowness, zones } = this;
    const { width } = this.ground;
    // Of both ways, the side on which the front has been first.
    const left = known[cell - 1] === 1 ? times[cell - 1]! : Infinity;
    const right = known[cell + 1] === 1 ? times[cell + 1]! : Infinity;
    const above = known[cell - width] === 1 ? times[cell - width]! : Infinity;
    const below = known[cell + width] === 1 ? times[cell + width]! : Infinity;
    const across = left <= right ? cell - 1 : cell + 1;
    const down = above <= below ? cell - width : cell + width;
    const x = left <= right ? left : right;
    const y = above <= below ? above : below;
    const before = x <= y ? across : down;
    const zone = zones === null ? 0 : zones[cell]!;
    this.before = before;
    this.slow = zone === 0 ? slowness[before]! : 1 / this.stations[zone - 1]!.pace;
    // Where it has waited it sets out anew.
    if (zone > 0 && zones![before] !== zone) return times[before]! + this.stations[zone - 1]!.wait + this.slow;
    const alongX = zone > 0 && zones![across] !== zone ? Infinity : x;
    const alongY = zone > 0 && zones![down] !== zone ? Infinity : y;
    const x2 = this.behind(2 * across - cell, alongX, zone);
    const y2 = this.behind(2 * down - cell, alongY, zone);
    return this.between(alongX, x2, alongY, y2, this.slow);
  }

  /** When it was at the cell behind one beside, if it came from there without a wait; infinite if it did not. */
  private behind(cell: number, time: number, zone: number): number {
    if (time === Infinity || this.known[cell] !== 1 || this.times[cell]! > time) return Infinity;
    return zone > 0 && this.zones![cell] !== zone ? Infinity : this.times[cell]!;
  }

  /**
   * When it arrives beside a cell where it was at `x` and before that, two cells away, at `x2`, and likewise `y`: the slope
   * is to be how slow it is. The sum of a (t - u)² over both ways is its square.
   */
  private between(x: number, x2: number, y: number, y2: number, slow: number): number {
    const a = x2 < Infinity ? 2.25 : 1;
    const u = x2 < Infinity ? (4 * x - x2) / 3 : x;
    const b = y2 < Infinity ? 2.25 : 1;
    const v = y2 < Infinity ? (4 * y - y2) / 3 : y;
    if (x < Infinity && y < Infinity) {
      const sum = a + b;
      const rest = (slow * slow - ((a * b) / sum) * (u - v) * (u - v)) / sum;
      if (rest >= 0) {
        const time = (a * u + b * v) / sum + Math.sqrt(rest);
        if (time >= x && time >= y) return time;
      }
    }
    const alone = Math.min(u + slow / Math.sqrt(a), v + slow / Math.sqrt(b));
    return Math.max(alone, Math.min(x, y));
  }
}
