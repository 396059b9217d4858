/**
 * A picture through a map of the plane, by looking up for each pixel where it comes from. Between pixels it is read linearly;
 * where many of them come to lie in one, from the picture made smaller (Williams, Pyramidal Parametrics, 1983), and along the way
 * in which it shrinks most as often as is needed (as EXT_texture_filter_anisotropic does).
 */
import type { Homography } from '../geometry/homography';
import { NEAREST } from '../geometry/homography';

export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue and alpha from 0 to 255. */
  readonly data: Uint8ClampedArray;
}

const MOST_LOOKS = 8;

/** Colours multiplied by alpha: what lies between pixels is a mean of these. */
const premultiplied = ({ width, height, data }: Pixels): Pixels => {
  const out = new Uint8ClampedArray(data.length);
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3]!;
    if (alpha === 0) continue;
    const by = alpha / 255;
    out[i] = data[i]! * by;
    out[i + 1] = data[i + 1]! * by;
    out[i + 2] = data[i + 2]! * by;
    out[i + 3] = alpha;
  }
  return { width, height, data: out };
};

/** Half as wide and high: each pixel is the mean of four; beyond an odd side there is nothing. */
const halved = ({ width, height, data }: Pixels): Pixels => {
  const [w, h] = [Math.max(1, (width + 1) >> 1), Math.max(1, (height + 1) >> 1)];
  const out = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      for (let c = 0; c < 4; c++) {
        let sum = 0;
        for (let n = 0; n < 4; n++) {
          const [sx, sy] = [2 * x + (n & 1), 2 * y + (n >> 1)];
          if (sx < width && sy < height) sum += data[(sy * width + sx) * 4 + c]!;
        }
        out[(y * w + x) * 4 + c] = sum / 4;
      }
    }
  }
  return { width: w, height: h, data: out };
};

/** A picture and smaller ones of it, made as they are asked for. */
class Pyramid {
  private readonly levels: Pixels[];

  constructor(pixels: Pixels) {
    this.levels = [premultiplied(pixels)];
  }

  at(level: number): Pixels {
    while (this.levels.length <= level) {
      const last = this.levels.at(-1)!;
      if (last.width === 1 && last.height === 1) return last;
      this.levels.push(halved(last));
    }
    return this.levels[level]!;
  }
}

/** Adds to four sums what a picture has at a place, so many times; pixels have their colour at their middle. */
const addAt = ({ width, height, data }: Pixels, u: number, v: number, share: number, sums: Float64Array): void => {
  const x = Math.floor(u - 0.5);
  const y = Math.floor(v - 0.5);
  if (x < -1 || y < -1 || x >= width || y >= height) return;
  const fx = u - 0.5 - x;
  const fy = v - 0.5 - y;
  for (let n = 0; n < 4; n++) {
    const px = x + (n & 1);
    const py = y + (n >> 1);
    if (px < 0 || py < 0 || px >= width || py >= height) continue;
    const by = share * (n & 1 ? fx : 1 - fx) * (n >> 1 ? fy : 1 - fy);
    const k = (py * width + px) * 4;
    sums[0]! += data[k]! * by;
    sums[1]! += data[k + 1]! * by;
    sums[2]! += data[k + 2]! * by;
    sums[3]! += data[k + 3]! * by;
  }
};

/**
 * Fills `to` with what a picture shows there. `back` leads from its pixels to those of the picture, and its weight is one over
 * that of the map: where that is not before the eye nothing is shown.
 */
export const mapPixels = (picture: Pixels, back: Homography, to: Pixels): void => {
  const pyramid = new Pyramid(picture);
  const sums = new Float64Array(4);
  const [g0, g1, g2, g3, g4, g5, g6, g7, g8] = back;
  const { width, height, data } = to;
  const most = 1 / NEAREST;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const w = g6 * (x + 0.5) + g7 * (y + 0.5) + g8;
      if (!(w > 0 && w <= most)) continue;
      const u = (g0 * (x + 0.5) + g1 * (y + 0.5) + g2) / w;
      const v = (g3 * (x + 0.5) + g4 * (y + 0.5) + g5) / w;
      // How far apart in the picture neighbours come from.
      const ux = (g0 - u * g6) / w;
      const vx = (g3 - v * g6) / w;
      const uy = (g1 - u * g7) / w;
      const vy = (g4 - v * g7) / w;
      const across = Math.sqrt(ux * ux + vx * vx);
      const down = Math.sqrt(uy * uy + vy * vy);
      const long = across > down ? across : down;
      if (u < -long || v < -long || u > picture.width + long || v > picture.height + long) continue;
      const short = across > down ? down : across;
      const looks = Math.min(MOST_LOOKS, Math.max(1, Math.ceil(long / Math.max(1, short) - 0.01)));
      const level = Math.max(0, Math.log2(Math.max(1, long / looks)));
      const near = Math.floor(level);
      const between = level - near;
      sums.fill(0);
      for (let n = 0; n < looks; n++) {
        const off = (n + 0.5) / looks - 0.5;
        const at = u + off * (across > down ? ux : uy);
        const on = v + off * (across > down ? vx : vy);
        const k = 2 ** near;
        addAt(pyramid.at(near), at / k, on / k, (1 - between) / looks, sums);
        if (between > 0) addAt(pyramid.at(near + 1), at / k / 2, on / k / 2, between / looks, sums);
      }
      const alpha = sums[3]!;
      if (alpha <= 0) continue;
      const k = (y * width + x) * 4;
      data[k] = (sums[0]! * 255) / alpha;
      data[k + 1] = (sums[1]! * 255) / alpha;
      data[k + 2] = (sums[2]! * 255) / alpha;
      data[k + 3] = alpha;
    }
  }
};
