/**
 * Areas of cells thinned to lines of one cell (Zhang and Suen, A Fast Parallel Algorithm for Thinning Digital Patterns, 1984), and
 * these walked as a graph.
 */
import type { Grid } from './raster';

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

/** Peels an area until lines of one cell are left. */
export const thinned = ({ width, cells }: Grid, edge: Float64Array): Uint8Array => {
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

/** Cells from one end or crossing to the next, or round a ring. */
export interface Run {
  readonly cells: readonly number[];
  readonly ring: boolean;
}

/** Lines of one cell as a graph. */
export interface Walked {
  readonly runs: readonly Run[];
  /** How many cells of the lines touch one: 1 at an end, more than 2 at a crossing. */
  readonly degree: (cell: number) => number;
}

/** The runs of lines in a grid of so many columns. */
export const walked = (line: Uint8Array, width: number): Walked => {
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

/**
 * Lines without their short spurs, which thinning makes of corners: those no longer than the area is wide where they leave.
 * `edge` says how far each cell is from the edge of the area.
 */
export const pruned = (line: Uint8Array, width: number, edge: Float64Array): Uint8Array => {
  let now = line;
  for (let round = 0; round < 3; round++) {
    const { runs, degree } = walked(now, width);
    const spurs = runs.filter(({ cells, ring }) => {
      const ends = [cells[0]!, cells.at(-1)!];
      const tip = ends.find((end) => degree(end) === 1);
      const root = ends.find((end) => degree(end) > 2);
      return !ring && tip !== undefined && root !== undefined && cells.length < 1.15 * edge[root]! + 2;
    });
    if (spurs.length === 0) break;
    const next = now.slice();
    for (const { cells } of spurs) for (const cell of cells) if (degree(cell) <= 2) next[cell] = 0;
    now = next;
  }
  return now;
};
