/**
 * Clouds: gradient noise (Perlin, An Image Synthesizer, 1985) summed over octaves, whose gradients turn as time goes on, so that it
 * flows in place and comes round after a full turn (Perlin and Neyret, Flow Noise, 2001).
 */
import type { Point } from '../document/types';
import { hashed } from '../motion/random';
import type { Pixels } from './mapped';
import { inShade, type Shades, wholePixels } from './pixels';

export type CloudForm = 'soft' | 'ridged' | 'folded';

export interface Clouds {
  /** Pixels of the largest cells. */
  readonly size: number;
  /** Each has cells half as large as the one before it. */
  readonly octaves: number;
  /** How strong each octave is beside the one before it, 0 to 1. */
  readonly roughness: number;
  /** As it is; with a crest where it passes its middle; or with a crease there. */
  readonly form: CloudForm;
  /** Of its gradients: whole ones bring the same picture again. */
  readonly turns: number;
  /** Pixels by which all of it is moved. */
  readonly shift: Point;
  /** Times as far from the middle. */
  readonly contrast: number;
  /** Added to all of it, -1 to 1. */
  readonly level: number;
  readonly seed: number;
}

const DIRECTIONS = 256;
/** How many times as fast the gradients of each octave turn: whole numbers, so that all are round at once. */
const SPEEDS = [1, 1, 2, 2, 3, 3, 4, 4] as const;
/** Gradient noise in the plane goes from minus to plus this. */
const MOST = Math.SQRT1_2;

/** From 0 to 1 with no slope or bend at the ends (Perlin, Improving Noise, 2002). */
const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/**
 * Adds the noise of one cell to the sums of a row from `x` to `end`: between two straight lines, each a slope and a height at `t` 0, by the
 * faded share. One for each form: what is asked in the innermost loop takes as long as the noise.
 */
type Add = (sums: number[], x: number, end: number, line: Line, t: number, step: number) => void;
interface Line {
  slope: number;
  height: number;
  /** How much more of both the other line has. */
  moreSlope: number;
  moreHeight: number;
}

const addPlain: Add = (sums, from, end, { slope, height, moreSlope, moreHeight }, start, step) => {
  for (let x = from, t = start; x < end; x++, t += step) {
    sums[x] = sums[x]! + slope * t + height + (moreSlope * t + moreHeight) * (t * t * t * (t * (t * 6 - 15) + 10));
  }
};
const addFolded: Add = (sums, from, end, { slope, height, moreSlope, moreHeight }, start, step) => {
  for (let x = from, t = start; x < end; x++, t += step) {
    sums[x] =
      sums[x]! + Math.abs(slope * t + height + (moreSlope * t + moreHeight) * (t * t * t * (t * (t * 6 - 15) + 10)));
  }
};

/** One octave over a picture, row by row. */
class Octave {
  private readonly first: number;
  /** By column of cells, its first pixel in a row. */
  private readonly starts: readonly number[];
  private readonly cos: readonly number[];
  private readonly sin: readonly number[];
  /** The gradients of two rows of corners. */
  private readonly upper: number[];
  private readonly lower: number[];
  private row = NaN;
  /** Along a row of pixels each column of corners adds a straight line: its slope and its height there. */
  private readonly slopes: number[];
  private readonly heights: number[];
  private readonly line: Line = { slope: 0.5, height: 0.5, moreSlope: 0.5, moreHeight: 0.5 };

  constructor(
    width: number,
    private readonly cell: number,
    private readonly from: Point,
    turns: number,
    private readonly seed: number,
  ) {
    this.first = Math.floor((from[0] + 0.5) / cell);
    const count = Math.floor((from[0] + width - 0.5) / cell) - this.first + 1;
    const start = (i: number) => Math.ceil((this.first + i) * cell - from[0] - 0.5);
    this.starts = Array.from({ length: count + 1 }, (_, i) => Math.min(width, Math.max(0, start(i))));
    // Half of them turn the other way.
    const angles = Array.from(
      { length: DIRECTIONS },
      (_, i) => 2 * Math.PI * (i / DIRECTIONS + (i & 1 ? turns : -turns)),
    );
    this.cos = angles.map(Math.cos);
    this.sin = angles.map(Math.sin);
    // Plain lists: typed ones are looked up more slowly once any buffer has been handed to another thread.
    const list = (length: number) => Array.from({ length }, () => 0.5);
    [this.upper, this.lower] = [list(2 * count + 2), list(2 * count + 2)];
    [this.slopes, this.heights] = [list(count + 1), list(count + 1)];
  }

  private gradients(row: number, into: number[]): void {
    const own = hashed(row * 0x27d4eb2f + this.seed);
    for (let i = 0; i < this.starts.length; i++) {
      const direction = hashed((this.first + i) * 0x165667b1 + own) & (DIRECTIONS - 1);
      into[2 * i] = this.cos[direction]!;
      into[2 * i + 1] = this.sin[direction]!;
    }
  }

  /** Adds a share of a row of pixels to sums. */
  add(y: number, share: number, by: Add, sums: number[]): void {
    const v = (this.from[1] + y + 0.5) / this.cell;
    const row = Math.floor(v);
    if (row !== this.row) {
      this.gradients(row, this.upper);
      this.gradients(row + 1, this.lower);
      this.row = row;
    }
    const { slopes, heights, upper, lower, starts, cell, line } = this;
    const down = v - row;
    const faded = fade(down);
    const scale = share / MOST;
    for (let i = 0; i < starts.length; i++) {
      slopes[i] = (upper[2 * i]! + (lower[2 * i]! - upper[2 * i]!) * faded) * scale;
      const above = upper[2 * i + 1]! * down;
      heights[i] = (above + (lower[2 * i + 1]! * (down - 1) - above) * faded) * scale;
    }
    for (let i = 0; i + 1 < starts.length; i++) {
      const x = starts[i]!;
      line.slope = slopes[i]!;
      line.height = heights[i]!;
      line.moreSlope = slopes[i + 1]! - line.slope;
      // The other corner lies at t 1.
      line.moreHeight = heights[i + 1]! - slopes[i + 1]! - line.height;
      by(sums, x, starts[i + 1]!, line, (this.from[0] + x + 0.5) / cell - (this.first + i), 1 / cell);
    }
  }
}

/** Fills what is there with clouds in colours, as opaque as it is and as the colours are. */
export const clouded = ({ width, height, data }: Pixels, clouds: Clouds, shades: Shades, origin: Point): void => {
  const { size, roughness, form, turns, shift, contrast, level, seed } = clouds;
  const pixels = wholePixels(data);
  const octaves: { readonly octave: Octave; readonly share: number }[] = [];
  let strength = 1;
  let whole = 0;
  for (let o = 0; o < clouds.octaves; o++, strength *= roughness) {
    whole += strength;
    const cell = size / 2 ** o;
    // Finer than pixels it would be nothing but specks.
    if (cell < 1 || strength === 0) continue;
    const from: Point = [-origin[0] - shift[0], -origin[1] - shift[1]];
    const octave = new Octave(width, cell, from, turns * SPEEDS[o % SPEEDS.length]!, hashed(seed * 8 + o));
    octaves.push({ octave, share: strength });
  }
  const add = form === 'soft' ? addPlain : addFolded;
  const sums = Array.from({ length: width }, () => 0.5);
  // From where nothing is to where most is, as 0 to 1.
  const [base, by] = form === 'soft' ? [0.5, 0.5 / whole] : form === 'folded' ? [0, 1 / whole] : [1, -1 / whole];
  const [slope, start] = [255 * by * contrast, 255 * ((base - 0.5) * contrast + 0.5 + level)];
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    for (const { octave, share } of octaves) octave.add(y, share, add, sums);
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const pixel = pixels[i]!;
      if (pixel >>> 24 === 0) continue;
      const at = start + slope * sums[x]!;
      pixels[i] = inShade(pixel, shades[at <= 0 ? 0 : at >= 255 ? 255 : (at + 0.5) | 0]!);
    }
  }
};
