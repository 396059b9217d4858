/** When what is drawn is reached by something that grows through it, and how much of it shows at a time. */
import type { GrowthValue } from '../document/types';
import type { Ground } from '../geometry/march';
import { distances } from '../geometry/raster';
import { type AlphaGrid, BESIDE, beside, fromRoots, guided } from './growthWays';

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
