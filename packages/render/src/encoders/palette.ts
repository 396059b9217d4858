/** Pixels to at most 256 colours: choosing the palette, finding the nearest of it, dithering. */
import { createRequire } from 'node:module';

// The package has two builds that export different things; this is the one that Node runs.
const { quantize } = createRequire(import.meta.url)('gifenc') as {
  quantize: (rgba: Uint8ClampedArray, most: number, options: { format: 'rgb565' }) => number[][];
};

export type Rgb = readonly [r: number, g: number, b: number];

/** A palette for some RGBA pixels; `most` colours at the most. */
export const choosePalette = (pixels: Uint8Array, most: number): Rgb[] => {
  // The quantiser reads the whole buffer behind a view: it needs one of its own.
  const own = new Uint8ClampedArray(pixels);
  const palette = quantize(own, most, { format: 'rgb565' });
  return palette.map(([r = 0, g = 0, b = 0]) => [r, g, b] as const);
};

/** The nearest colour of a palette to any colour: exact, and remembered. */
export class NearestColor {
  private readonly memo = new Int16Array(1 << 24).fill(-1);

  constructor(readonly palette: readonly Rgb[]) {}

  indexOf(r: number, g: number, b: number): number {
    const key = (r << 16) | (g << 8) | b;
    const known = this.memo[key]!;
    if (known >= 0) return known;
    let best = 0;
    let least = Infinity;
    for (let i = 0; i < this.palette.length; i++) {
      const [pr, pg, pb] = this.palette[i]!;
      const d = (pr - r) ** 2 + (pg - g) ** 2 + (pb - b) ** 2;
      if (d < least) [least, best] = [d, i];
    }
    this.memo[key] = best;
    return best;
  }
}

export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Bayer's 8 × 8 ordered dither matrix, 0..63. */
const BAYER = [
  0, 32, 8, 40, 2, 34, 10, 42, 48, 16, 56, 24, 50, 18, 58, 26, 12, 44, 4, 36, 14, 46, 6, 38, 60, 28, 52, 20, 62, 30, 54,
  22, 3, 35, 11, 43, 1, 33, 9, 41, 51, 19, 59, 27, 49, 17, 57, 25, 15, 47, 7, 39, 13, 45, 5, 37, 63, 31, 55, 23, 61, 29,
  53, 21,
];
/** How far an ordered dither moves a colour to either side, of 255. */
const SPREAD = 12;

const clamp = (v: number) => (v < 0 ? 0 : v > 255 ? 255 : Math.round(v));

export type Dither = 'none' | 'ordered' | 'diffuse';

/** Palette indices of a region of a picture `stride` pixels wide, rows from the top. */
export const indexed = (
  pixels: Uint8Array,
  stride: number,
  region: Region,
  nearest: NearestColor,
  dither: Dither,
): Uint8Array => {
  const { x, y, width, height } = region;
  const out = new Uint8Array(width * height);
  // Floyd and Steinberg, 1976: the error goes on to the right and to the row below.
  let row = new Float32Array((width + 2) * 3);
  let next = new Float32Array((width + 2) * 3);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const p = ((y + j) * stride + x + i) * 4;
      const to = j * width + i;
      const [r, g, b] = [pixels[p]!, pixels[p + 1]!, pixels[p + 2]!];
      if (dither === 'none') {
        out[to] = nearest.indexOf(r, g, b);
      } else if (dither === 'ordered') {
        const move = (BAYER[((y + j) & 7) * 8 + ((x + i) & 7)]! / 63 - 0.5) * 2 * SPREAD;
        const exact = nearest.indexOf(r, g, b);
        const [er, eg, eb] = nearest.palette[exact]!;
        // What the palette has exactly stays clean.
        out[to] =
          er === r && eg === g && eb === b ? exact : nearest.indexOf(clamp(r + move), clamp(g + move), clamp(b + move));
      } else {
        const e = (i + 1) * 3;
        const [wr, wg, wb] = [clamp(r + row[e]!), clamp(g + row[e + 1]!), clamp(b + row[e + 2]!)];
        const index = nearest.indexOf(wr, wg, wb);
        const [pr, pg, pb] = nearest.palette[index]!;
        out[to] = index;
        [wr - pr, wg - pg, wb - pb].forEach((error, c) => {
          row[e + 3 + c]! += (error * 7) / 16;
          next[e - 3 + c]! += (error * 3) / 16;
          next[e + c]! += (error * 5) / 16;
          next[e + 3 + c]! += error / 16;
        });
      }
    }
    [row, next] = [next, row];
    next.fill(0);
  }
  return out;
};
