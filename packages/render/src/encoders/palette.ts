/** Pixels to at most 256 colours: choosing the palette, finding the nearest of it, dithering. */
import { createRequire } from 'node:module';

// The package has two builds that export different things; this is the one that Node runs.
const { quantize, GIFEncoder } = createRequire(import.meta.url)('gifenc') as {
  quantize: (rgba: Uint8ClampedArray, most: number, options: { format: 'rgb565' }) => number[][];
  GIFEncoder: (options: { auto: boolean }) => GifEncoder;
};

interface GifEncoder {
  reset: () => void;
  writeFrame: (
    indices: Uint8Array,
    width: number,
    height: number,
    how: {
      /** In milliseconds. */
      delay: number;
      dispose: number;
      transparent: boolean;
      transparentIndex: number;
      /** Bits of an index. */
      colorDepth: number;
      palette: readonly Rgb[] | null;
    },
  ) => void;
  bytesView: () => Uint8Array;
}
export { GIFEncoder };

export type Rgb = readonly [r: number, g: number, b: number];

/** A palette for some RGBA pixels; `most` colours at the most. */
export const choosePalette = (pixels: Uint8Array, most: number): Rgb[] => {
  // The quantiser reads the whole buffer behind a view: it needs one of its own.
  const own = new Uint8ClampedArray(pixels);
  const palette = quantize(own, most, { format: 'rgb565' });
  return palette.map(([r = 0, g = 0, b = 0]) => [r, g, b] as const);
};

/**
 * The nearest colour of a palette to any colour: exact, and remembered. The palette is put in the order of its greens: from the
 * nearest green outwards, once the greens alone are further apart than the best, so is all that follows.
 */
export class NearestColor {
  private readonly memo = new Int16Array(1 << 24).fill(-1);

  readonly palette: readonly Rgb[];

  private readonly red: Int16Array;

  private readonly green: Int16Array;

  private readonly blue: Int16Array;

  /** The first colour whose green is no less, for each green. */
  private readonly from: Int16Array;

  constructor(palette: readonly Rgb[]) {
    this.palette = palette.toSorted((a, b) => a[1] - b[1]);
    this.red = Int16Array.from(this.palette, ([r]) => r);
    this.green = Int16Array.from(this.palette, ([, g]) => g);
    this.blue = Int16Array.from(this.palette, ([, , b]) => b);
    this.from = Int16Array.from({ length: 256 }, (_, g) => {
      const at = this.palette.findIndex((color) => color[1] >= g);
      return at < 0 ? this.palette.length : at;
    });
  }

  /** Of channels that are whole numbers from 0 to 255. */
  indexOf(r: number, g: number, b: number): number {
    const key = (r << 16) | (g << 8) | b;
    const known = this.memo[key]!;
    return known >= 0 ? known : (this.memo[key] = this.lookedFor(r, g, b));
  }

  private lookedFor(r: number, g: number, b: number): number {
    const { red, green, blue } = this;
    let [up, down] = [this.from[g]!, this.from[g]! - 1];
    let best = 0;
    let least = Infinity;
    while (up < green.length || down >= 0) {
      const [above, below] = [up < green.length ? green[up]! - g : 256, down >= 0 ? g - green[down]! : 256];
      const far = Math.min(above, below);
      if (far * far >= least) break;
      const i = above <= below ? up++ : down--;
      const [dr, db] = [red[i]! - r, blue[i]! - b];
      const d = dr * dr + far * far + db * db;
      if (d < least) [least, best] = [d, i];
    }
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
export const BAYER = [
  0, 32, 8, 40, 2, 34, 10, 42, 48, 16, 56, 24, 50, 18, 58, 26, 12, 44, 4, 36, 14, 46, 6, 38, 60, 28, 52, 20, 62, 30, 54,
  22, 3, 35, 11, 43, 1, 33, 9, 41, 51, 19, 59, 27, 49, 17, 57, 25, 15, 47, 7, 39, 13, 45, 5, 37, 63, 31, 55, 23, 61, 29,
  53, 21,
];
/** How far an ordered dither moves a colour to either side, of 255. */
const SPREAD = 12;

/** A whole number from 0 to 255. */
const clamp = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : (v + 0.5) | 0);

export type Dither = 'none' | 'ordered' | 'diffuse';

/** What is indexed: the pixels of a picture `stride` wide in a region, of which some are written and the others get `clear`. */
export interface Indexing {
  readonly pixels: Uint8Array;
  readonly stride: number;
  readonly region: Region;
  /** 1 for each pixel of the picture that is written. */
  readonly written: Uint8Array;
  readonly clear: number;
}

const ordered = (nearest: NearestColor, x: number, y: number, r: number, g: number, b: number): number => {
  const exact = nearest.indexOf(r, g, b);
  const [er, eg, eb] = nearest.palette[exact]!;
  // What the palette has exactly stays clean.
  if (er === r && eg === g && eb === b) return exact;
  const move = (BAYER[(y & 7) * 8 + (x & 7)]! / 63 - 0.5) * 2 * SPREAD;
  return nearest.indexOf(clamp(r + move), clamp(g + move), clamp(b + move));
};

/** Palette indices of a region, rows from the top. */
export const indexed = (of: Indexing, nearest: NearestColor, dither: Dither): Uint8Array => {
  if (dither === 'diffuse') return diffused(of, nearest);
  const { pixels, stride, region, written, clear } = of;
  const { x, y, width, height } = region;
  const out = new Uint8Array(width * height).fill(clear);
  for (let j = 0, to = 0; j < height; j++) {
    for (let i = 0, at = (y + j) * stride + x; i < width; i++, to++, at++) {
      if (written[at] === 0) continue;
      const [r, g, b] = [pixels[at * 4]!, pixels[at * 4 + 1]!, pixels[at * 4 + 2]!];
      out[to] = dither === 'none' ? nearest.indexOf(r, g, b) : ordered(nearest, x + i, y + j, r, g, b);
    }
  }
  return out;
};

/** Floyd and Steinberg, 1976: the error goes on to the right and to the row below. It ends where nothing is written. */
const diffused = ({ pixels, stride, region, written, clear }: Indexing, nearest: NearestColor): Uint8Array => {
  const { x, y, width, height } = region;
  const out = new Uint8Array(width * height).fill(clear);
  let row = new Float32Array((width + 2) * 3);
  let next = new Float32Array((width + 2) * 3);
  const spread = (e: number, error: number): void => {
    row[e + 3] = row[e + 3]! + (error * 7) / 16;
    next[e - 3] = next[e - 3]! + (error * 3) / 16;
    next[e] = next[e]! + (error * 5) / 16;
    next[e + 3] = next[e + 3]! + error / 16;
  };
  for (let j = 0, to = 0; j < height; j++) {
    for (let i = 0, at = (y + j) * stride + x; i < width; i++, to++, at++) {
      if (written[at] === 0) continue;
      const e = (i + 1) * 3;
      const r = clamp(pixels[at * 4]! + row[e]!);
      const g = clamp(pixels[at * 4 + 1]! + row[e + 1]!);
      const b = clamp(pixels[at * 4 + 2]! + row[e + 2]!);
      const index = nearest.indexOf(r, g, b);
      out[to] = index;
      const color = nearest.palette[index]!;
      if (color[0] !== r) spread(e, r - color[0]);
      if (color[1] !== g) spread(e + 1, g - color[1]);
      if (color[2] !== b) spread(e + 2, b - color[2]);
    }
    [row, next] = [next, row];
    next.fill(0);
  }
  return out;
};
