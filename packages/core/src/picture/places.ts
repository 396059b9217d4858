/**
 * Pixels changed by where they are. `data` has red, green, blue and alpha from 0 to 255 for each of `width` × `height` pixels, not
 * multiplied by alpha. Places are counted from an origin of the picture's own, so that they go along with it.
 */
import type { Point } from '../document/types';
import { hashed } from '../document/random';

export interface Pixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

/** Squares of `side` pixels, each the mean of what is in it. */
export const inSquares = ({ data, width, height }: Pixels, side: number, [ox, oy]: Point): void => {
  if (side <= 1) return;
  const edges = (length: number, from: number): number[] => {
    const first = from - Math.ceil(from / side) * side;
    const all = [0];
    for (let k = 1; ; k++) {
      const edge = Math.round(first + k * side);
      if (edge >= length) return [...all, length];
      if (edge > 0) all.push(edge);
    }
  };
  const [xs, ys] = [edges(width, ox), edges(height, oy)];
  for (let j = 0; j + 1 < ys.length; j++) {
    for (let i = 0; i + 1 < xs.length; i++) fillWithMean(data, width, xs[i]!, xs[i + 1]!, ys[j]!, ys[j + 1]!);
  }
};

const fillWithMean = (data: Uint8ClampedArray, width: number, x0: number, x1: number, y0: number, y1: number): void => {
  const sum = [0, 0, 0, 0] as [number, number, number, number];
  for (let y = y0; y < y1; y++) {
    for (let i = (y * width + x0) * 4; i < (y * width + x1) * 4; i += 4) {
      const alpha = data[i + 3]!;
      for (let c = 0; c < 3; c++) sum[c]! += data[i + c]! * alpha;
      sum[3] += alpha;
    }
  }
  const mean =
    sum[3] === 0 ? [0, 0, 0, 0] : [sum[0] / sum[3], sum[1] / sum[3], sum[2] / sum[3], sum[3] / ((x1 - x0) * (y1 - y0))];
  for (let y = y0; y < y1; y++) {
    for (let i = (y * width + x0) * 4; i < (y * width + x1) * 4; i += 4) {
      for (let c = 0; c < 4; c++) data[i + c] = mean[c]!;
    }
  }
};

/** Noise of -1..1 for a place on a grid of whole numbers, the same on every machine. */
const noiseAt = (x: number, y: number, seed: number): number =>
  (hashed(Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(seed, 0xc2b2ae3d)) / 0xffffffff) * 2 - 1;

/** Calls a function for every pixel that is visible, with its place on a grid of specks of `size` pixels. */
const eachSpeck = (
  { data, width, height }: Pixels,
  size: number,
  [ox, oy]: Point,
  change: (i: number, column: number, row: number) => void,
): void => {
  const side = Math.max(1, size);
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y + 0.5 - oy) / side);
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      if (data[i + 3] !== 0) change(i, Math.floor((x + 0.5 - ox) / side), row);
    }
  }
};

/** Lighter and darker specks of `size` pixels; alpha stays. */
export const grained = (
  pixels: Pixels,
  { size, strength, colored, seed }: { size: number; strength: number; colored: boolean; seed: number },
  origin: Point,
): void => {
  const { data } = pixels;
  eachSpeck(pixels, size, origin, (i, column, row) => {
    const speck = noiseAt(column, row, seed * 3) * strength * 128;
    data[i]! += speck;
    data[i + 1]! += colored ? noiseAt(column, row, seed * 3 + 1) * strength * 128 : speck;
    data[i + 2]! += colored ? noiseAt(column, row, seed * 3 + 2) * strength * 128 : speck;
  });
};

/**
 * What is half seen falls apart into specks of `size` pixels: with a `strength` of 1 each is there or not, as often as it was
 * opaque. On the whole it stays as opaque as it was.
 */
export const speckled = (
  pixels: Pixels,
  { size, strength, seed }: { size: number; strength: number; seed: number },
  origin: Point,
): void => {
  const { data } = pixels;
  eachSpeck(pixels, size, origin, (i, column, row) => {
    const alpha = data[i + 3]!;
    const there = (noiseAt(column, row, seed) + 1) * 127.5 < alpha ? 255 : 0;
    data[i + 3] = alpha + (there - alpha) * strength;
  });
};

/** Values of noise on a grid of whole numbers, to be read between them. */
interface Lattice {
  readonly left: number;
  readonly top: number;
  readonly columns: number;
  readonly values: Float32Array;
}

const latticeOver = (from: Point, to: Point, value: (x: number, y: number) => number): Lattice => {
  const [left, top] = [Math.floor(from[0]), Math.floor(from[1])];
  const [columns, rows] = [Math.floor(to[0]) - left + 2, Math.floor(to[1]) - top + 2];
  const values = Float32Array.from({ length: columns * rows }, (_, i) =>
    value(left + (i % columns), top + Math.floor(i / columns)),
  );
  return { left, top, columns, values };
};

/** Smooth noise of -1..1: the values of a grid, joined by the curve 3t² - 2t³ (value noise). */
const smoothNoise = ({ left, top, columns, values }: Lattice, x: number, y: number): number => {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const t = x - i;
  const s = y - j;
  const u = t * t * (3 - 2 * t);
  const v = s * s * (3 - 2 * s);
  const at = (j - top) * columns + (i - left);
  const upper = values[at]! + (values[at + 1]! - values[at]!) * u;
  const lower = values[at + columns]! + (values[at + columns + 1]! - values[at + columns]!) * u;
  return upper + (lower - upper) * v;
};

/** What is between four pixels, weighed by how near they are and how opaque; outside there is nothing. */
const readBetween = (
  { data, width, height }: Pixels,
  x: number,
  y: number,
  into: [number, number, number, number],
): void => {
  const i = Math.floor(x - 0.5);
  const j = Math.floor(y - 0.5);
  const u = x - 0.5 - i;
  const v = y - 0.5 - j;
  let r = 0;
  let g = 0;
  let b = 0;
  let a = 0;
  for (let n = 0; n < 4; n++) {
    const px = i + (n & 1);
    const py = j + (n >> 1);
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const at = (py * width + px) * 4;
    const weight = (n & 1 ? u : 1 - u) * (n >> 1 ? v : 1 - v) * data[at + 3]!;
    if (weight === 0) continue;
    r += data[at]! * weight;
    g += data[at + 1]! * weight;
    b += data[at + 2]! * weight;
    a += weight;
  }
  into[0] = a > 0 ? r / a : 0;
  into[1] = a > 0 ? g / a : 0;
  into[2] = a > 0 ? b / a : 0;
  into[3] = a;
};

/** Each pixel taken from up to `amount` pixels away, by smooth noise whose waves are `size` pixels long, at a `phase` of its change. */
export const warped = (
  pixels: Pixels,
  { size, amount, phase, seed }: { size: number; amount: number; phase: number; seed: number },
  [ox, oy]: Point,
): void => {
  const { data, width, height } = pixels;
  const from: Pixels = { data: data.slice(), width, height };
  const step = Math.floor(phase);
  const share = phase - step;
  // The noise changes from one picture of it to the next.
  const lattice = (axis: number) =>
    latticeOver([-ox / size, -oy / size], [(width - ox) / size, (height - oy) / size], (x, y) => {
      const of = seed * 101 + step * 2 + axis;
      return noiseAt(x, y, of) * (1 - share) + (share > 0 ? noiseAt(x, y, of + 2) * share : 0);
    });
  const [across, down] = [lattice(0), lattice(1)];
  const read: [number, number, number, number] = [0, 0, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const wx = (x + 0.5 - ox) / size;
      const wy = (y + 0.5 - oy) / size;
      const dx = smoothNoise(across, wx, wy);
      const dy = smoothNoise(down, wx, wy);
      readBetween(from, x + 0.5 + dx * amount, y + 0.5 + dy * amount, read);
      const i = (y * width + x) * 4;
      data[i] = read[0];
      data[i + 1] = read[1];
      data[i + 2] = read[2];
      data[i + 3] = read[3];
    }
  }
};
