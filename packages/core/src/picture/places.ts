/**
 * Pixels changed by where they are. `data` has red, green, blue and alpha from 0 to 255 for each of `width` × `height` pixels, not
 * multiplied by alpha. Places are counted from an origin of the picture's own, so that they go along with it.
 */
import type { Point } from '../document/types';
import { hashed } from '../motion/random';

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

/** Lighter and darker specks of `size` pixels; alpha stays. */
export const grained = (
  { data, width, height }: Pixels,
  { size, strength, colored, seed }: { size: number; strength: number; colored: boolean; seed: number },
  [ox, oy]: Point,
): void => {
  const side = Math.max(1, size);
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y + 0.5 - oy) / side);
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      if (data[i + 3] === 0) continue;
      const column = Math.floor((x + 0.5 - ox) / side);
      for (let c = 0; c < 3; c++) data[i + c]! += noiseAt(column, row, seed * 3 + (colored ? c : 0)) * strength * 128;
    }
  }
};

/** Smooth noise of -1..1: values on a grid, joined by the curve 3t² - 2t³ (value noise). */
const smoothNoise = (x: number, y: number, seed: number): number => {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const ease = (t: number) => t * t * (3 - 2 * t);
  const [u, v] = [ease(x - i), ease(y - j)];
  const mix = (a: number, b: number, t: number) => a + (b - a) * t;
  return mix(
    mix(noiseAt(i, j, seed), noiseAt(i + 1, j, seed), u),
    mix(noiseAt(i, j + 1, seed), noiseAt(i + 1, j + 1, seed), u),
    v,
  );
};

/** What is between four pixels, weighed by how near they are and how opaque; outside there is nothing. */
const readBetween = (
  { data, width, height }: Pixels,
  x: number,
  y: number,
  into: [number, number, number, number],
): void => {
  const [i, j] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [u, v] = [x - 0.5 - i, y - 0.5 - j];
  into.fill(0);
  for (let n = 0; n < 4; n++) {
    const [px, py] = [i + (n & 1), j + (n >> 1)];
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const at = (py * width + px) * 4;
    const weight = (n & 1 ? u : 1 - u) * (n >> 1 ? v : 1 - v) * data[at + 3]!;
    for (let c = 0; c < 3; c++) into[c]! += data[at + c]! * weight;
    into[3] += weight;
  }
  if (into[3] > 0) for (let c = 0; c < 3; c++) into[c]! /= into[3];
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
  const noise = (x: number, y: number, of: number) =>
    smoothNoise(x, y, of + step * 2) * (1 - share) + smoothNoise(x, y, of + step * 2 + 2) * share;
  const read: [number, number, number, number] = [0, 0, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [wx, wy] = [(x + 0.5 - ox) / size, (y + 0.5 - oy) / size];
      const [dx, dy] = [noise(wx, wy, seed * 101), noise(wx, wy, seed * 101 + 1)];
      readBetween(from, x + 0.5 + dx * amount, y + 0.5 + dy * amount, read);
      for (let c = 0; c < 4; c++) data[(y * width + x) * 4 + c] = read[c]!;
    }
  }
};
