/** Areas as grids of cells: 1 for a cell whose middle lies inside. */
import type { Box } from './bounds';
import { flattened } from './flatten';
import type { Outline } from './outline';

export interface Grid {
  readonly width: number;
  readonly height: number;
  readonly cells: Uint8Array;
  /** Where the corner of the first cell lies, and how many pixels a side of a cell is long. */
  readonly left: number;
  readonly top: number;
  readonly side: number;
}

/** What lies inside of outlines by the nonzero rule, with a margin of two empty cells. */
export const rastered = (outlines: readonly Outline[], box: Box, side: number): Grid => {
  const width = Math.ceil((box.right - box.left) / side) + 4;
  const height = Math.ceil((box.bottom - box.top) / side) + 4;
  const [left, top] = [box.left - 2 * side, box.top - 2 * side];
  const crossings = Array.from({ length: height }, (): [x: number, way: number][] => []);
  for (const outline of outlines) {
    const points = flattened(outline);
    points.forEach(([x0, y0], i) => {
      const [x1, y1] = points[(i + 1) % points.length]!;
      if (y0 === y1) return;
      const way = y1 > y0 ? 1 : -1;
      const first = Math.max(0, Math.ceil((Math.min(y0, y1) - top) / side - 0.5));
      const last = Math.min(height - 1, Math.ceil((Math.max(y0, y1) - top) / side - 0.5) - 1);
      for (let row = first; row <= last; row++) {
        const y = top + (row + 0.5) * side;
        crossings[row]!.push([(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) - left) / side, way]);
      }
    });
  }
  const cells = new Uint8Array(width * height);
  crossings.forEach((row, y) => {
    row.sort((a, b) => a[0] - b[0]);
    let winding = 0;
    row.forEach(([x, way], i) => {
      winding += way;
      const next = row[i + 1];
      if (winding === 0 || !next) return;
      const from = Math.max(0, Math.ceil(x - 0.5));
      const to = Math.min(width, Math.ceil(next[0] - 0.5));
      if (to > from) cells.fill(1, y * width + from, y * width + to);
    });
  });
  return { width, height, cells, left, top, side };
};

const FAR = 1e20;

/** The lower envelope of parabolas along one line (Felzenszwalb and Huttenlocher, Distance Transforms of Sampled Functions, 2012). */
const alongLine = (f: Float64Array, n: number, v: Int32Array, z: Float64Array, out: Float64Array): void => {
  let k = -1;
  for (let q = 0; q < n; q++) {
    const own = f[q]!;
    // What is as far as can be is nearest to nothing.
    if (own >= FAR) continue;
    let s = -FAR;
    while (k >= 0) {
      const p = v[k]!;
      s = (own + q * q - f[p]! - p * p) / (2 * (q - p));
      if (s > z[k]!) break;
      k--;
    }
    k++;
    v[k] = q;
    z[k] = k === 0 ? -FAR : s;
  }
  if (k < 0) {
    out.fill(FAR, 0, n);
    return;
  }
  z[k + 1] = FAR;
  for (let q = 0, i = 0; q < n; q++) {
    while (z[i + 1]! < q) i++;
    const p = v[i]!;
    out[q] = (q - p) * (q - p) + f[p]!;
  }
};

/** How far each cell is from the nearest one that is `wanted`, in cells. */
export const distances = (
  { width, height }: Pick<Grid, 'width' | 'height'>,
  wanted: (cell: number) => boolean,
): Float64Array => {
  const grid = new Float64Array(width * height);
  for (let i = 0; i < grid.length; i++) grid[i] = wanted(i) ? 0 : FAR;
  const most = Math.max(width, height);
  const [line, out] = [new Float64Array(most), new Float64Array(most)];
  const [v, z] = [new Int32Array(most), new Float64Array(most + 1)];
  for (let x = 0; x < width; x++) {
    for (let y = 0; y < height; y++) line[y] = grid[y * width + x]!;
    alongLine(line, height, v, z, out);
    for (let y = 0; y < height; y++) grid[y * width + x] = out[y]!;
  }
  for (let y = 0; y < height; y++) {
    line.set(grid.subarray(y * width, (y + 1) * width));
    alongLine(line, width, v, z, out);
    grid.set(out.subarray(0, width), y * width);
  }
  for (let i = 0; i < grid.length; i++) grid[i] = Math.sqrt(grid[i]!);
  return grid;
};
