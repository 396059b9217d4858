/**
 * A picture through a map of the plane, by looking up for each pixel where it comes from. Between pixels it is read linearly;
 * where many of them come to lie in one, from the picture made smaller (Williams, Pyramidal Parametrics, 1983), and along the way
 * in which it shrinks most as often as is needed (as EXT_texture_filter_anisotropic does).
 */
import type { Point } from '../document/types';
import { flatHomography, type Homography, NEAREST } from '../geometry/homography';
import { IDENTITY, type Matrix } from '../geometry/matrix';
import { wholePixels } from './pixels';

export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue and alpha from 0 to 255. */
  readonly data: Uint8ClampedArray;
}

const MOST_LOOKS = 8;
/** How much finer a picture is read than its size asks for, in halvings: a little, or what is nearly as large is blurred. */
const SHARPER = 0.25;
/** The first and the third byte of a whole pixel, and half of one in each of two places. */
const ODD = 0xff00ff;
const HALVES = 0x800080;
/** As opaque as a pixel is, but for what is lost in adding up. */
const FULL = 254.99;
/** Pixels of a row for which it is worked out once how much smaller they are shown. */
const RUN = 32;

/** Colours multiplied by alpha: what lies between pixels is a mean of these. The same pixels where nothing shows through any. */
const premultiplied = (pixels: Pixels): Pixels => {
  const { width, height, data } = pixels;
  let alphas = 255;
  for (let i = 3; i < data.length; i += 4) alphas &= data[i]!;
  if (alphas === 255) return pixels;
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
    const below = 2 * y + 1 < height ? width * 4 : -1;
    for (let x = 0; x < w; x++) {
      const k = (2 * y * width + 2 * x) * 4;
      const right = 2 * x + 1 < width;
      const to = (y * w + x) * 4;
      for (let c = 0; c < 4; c++) {
        let sum = data[k + c]!;
        if (right) sum += data[k + 4 + c]!;
        if (below > 0) sum += data[k + below + c]! + (right ? data[k + below + 4 + c]! : 0);
        out[to + c] = sum / 4;
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

/** Nothing that is nearer is shown: the weight of the way back is one over that of the map. */
const MOST_WEIGHT = 1 / NEAREST;

/** Adds a share of one pixel to four sums; outside of the picture there is nothing. */
const addPixel = ({ width, height, data }: Pixels, x: number, y: number, by: number, sums: Float64Array): void => {
  if (x < 0 || y < 0 || x >= width || y >= height) return;
  const k = (y * width + x) * 4;
  sums[0] = sums[0]! + data[k]! * by;
  sums[1] = sums[1]! + data[k + 1]! * by;
  sums[2] = sums[2]! + data[k + 2]! * by;
  sums[3] = sums[3]! + data[k + 3]! * by;
};

/** Adds to four sums what a picture has at a place, so many times; pixels have their colour at their middle. */
const addAt = (picture: Pixels, u: number, v: number, share: number, sums: Float64Array): void => {
  const { width, height, data } = picture;
  const x = Math.floor(u - 0.5);
  const y = Math.floor(v - 0.5);
  const fx = u - 0.5 - x;
  const fy = v - 0.5 - y;
  const a = share * (1 - fx) * (1 - fy);
  const b = share * fx * (1 - fy);
  const c = share * (1 - fx) * fy;
  const d = share * fx * fy;
  if (x < 0 || y < 0 || x + 1 >= width || y + 1 >= height) {
    addPixel(picture, x, y, a, sums);
    addPixel(picture, x + 1, y, b, sums);
    addPixel(picture, x, y + 1, c, sums);
    addPixel(picture, x + 1, y + 1, d, sums);
    return;
  }
  const k = (y * width + x) * 4;
  const m = k + width * 4;
  sums[0] = sums[0]! + data[k]! * a + data[k + 4]! * b + data[m]! * c + data[m + 4]! * d;
  sums[1] = sums[1]! + data[k + 1]! * a + data[k + 5]! * b + data[m + 1]! * c + data[m + 5]! * d;
  sums[2] = sums[2]! + data[k + 2]! * a + data[k + 6]! * b + data[m + 2]! * c + data[m + 6]! * d;
  sums[3] = sums[3]! + data[k + 3]! * a + data[k + 7]! * b + data[m + 3]! * c + data[m + 7]! * d;
};

/** How a run of neighbouring pixels is read: from which of the smaller pictures, how often, and along which way. */
interface Reading {
  /** How many halvings smaller; what is between two is a mean of both. */
  readonly level: number;
  readonly looks: number;
  readonly alongU: number;
  readonly alongV: number;
}

/** Where a pixel comes from: `u` and `v` are where in the picture, `w` its weight. */
const readingAt = (back: Homography, u: number, v: number, w: number): Reading => {
  // How far apart in the picture neighbours come from.
  const ux = (back[0] - u * back[6]) / w;
  const vx = (back[3] - v * back[6]) / w;
  const uy = (back[1] - u * back[7]) / w;
  const vy = (back[4] - v * back[7]) / w;
  const across = Math.sqrt(ux * ux + vx * vx);
  const down = Math.sqrt(uy * uy + vy * vy);
  const most = Math.max(across, down);
  const looks = Math.min(MOST_LOOKS, Math.max(1, Math.round(most / Math.max(1, Math.min(across, down)))));
  const level = Math.max(0, Math.log2(most / looks) - SHARPER);
  return across > down ? { level, looks, alongU: ux, alongV: vx } : { level, looks, alongU: uy, alongV: vy };
};

const ONCE: Reading = { level: 0, looks: 1, alongU: 0, alongV: 0 };

/** One look at a picture as it is, between four of its pixels: two channels at a time, in parts of 256. */
const mixedAt = (from: Uint32Array, i: number, stride: number, fx: number, fy: number): number => {
  const b = (fx * (256 - fy)) >> 8;
  const c = ((256 - fx) * fy) >> 8;
  const d = (fx * fy) >> 8;
  const a = 256 - b - c - d;
  const p = from[i]!;
  const q = from[i + 1]!;
  const r = from[i + stride]!;
  const s = from[i + stride + 1]!;
  const redBlue =
    Math.imul(p & ODD, a) + Math.imul(q & ODD, b) + Math.imul(r & ODD, c) + Math.imul(s & ODD, d) + HALVES;
  const greenAlpha =
    Math.imul((p >>> 8) & ODD, a) +
    Math.imul((q >>> 8) & ODD, b) +
    Math.imul((r >>> 8) & ODD, c) +
    Math.imul((s >>> 8) & ODD, d) +
    HALVES;
  return ((redBlue >>> 8) & ODD) | (greenAlpha & ~ODD);
};

/** Reads a picture through the way back of a map. */
class Mapping {
  private readonly pyramid: Pyramid;
  private readonly sums = new Float64Array(4);
  private readonly from: Uint32Array;
  private readonly out: Uint32Array;

  constructor(
    private readonly picture: Pixels,
    /** From the pixels of `to` to those of the picture. */
    public back: Homography,
    private readonly to: Pixels,
  ) {
    this.pyramid = new Pyramid(picture);
    this.from = wholePixels(this.pyramid.at(0).data);
    this.out = wholePixels(to.data);
  }

  /** The pixels of a row from one to another, all of them read alike. */
  stretch(y: number, first: number, last: number, reading: Reading): void {
    if (reading.looks === 1 && reading.level === 0) this.plainly(y, first, last);
    else this.often(y, first, last, reading);
  }

  /** The pixels of a row from one to another. Coordinates are taken by their places: taking a list apart is slow. */
  run(y: number, first: number, last: number): void {
    const g = this.back;
    const x = (first + last) / 2;
    const w = g[6] * x + g[7] * (y + 0.5) + g[8];
    const u = (g[0] * x + g[1] * (y + 0.5) + g[2]) / w;
    const v = (g[3] * x + g[4] * (y + 0.5) + g[5]) / w;
    this.stretch(y, first, last, readingAt(g, u, v, w));
  }

  private plainly(y: number, first: number, last: number): void {
    const { from, out, to, back: g } = this;
    const { data } = to;
    const stride = this.picture.width;
    const inner = stride - 1;
    const lower = this.picture.height - 1;
    const x0 = first + 0.5;
    const y0 = y + 0.5;
    let un = g[0] * x0 + g[1] * y0 + g[2];
    let vn = g[3] * x0 + g[4] * y0 + g[5];
    let w = g[6] * x0 + g[7] * y0 + g[8];
    for (let x = first; x < last; x++, un += g[0], vn += g[3], w += g[6]) {
      if (!(w > 0 && w <= MOST_WEIGHT)) continue;
      const by = 1 / w;
      const fu = un * by - 0.5;
      const fv = vn * by - 0.5;
      const left = Math.floor(fu);
      const top = Math.floor(fv);
      if (left < 0 || top < 0 || left >= inner || top >= lower) {
        this.put(y, x, fu + 0.5, fv + 0.5, ONCE);
        continue;
      }
      const mixed = mixedAt(from, top * stride + left, stride, ((fu - left) * 256) | 0, ((fv - top) * 256) | 0);
      const alpha = mixed >>> 24;
      const at = y * to.width + x;
      if (alpha === 255) out[at] = mixed;
      else if (alpha > 0) {
        const share = 255 / alpha;
        data[at * 4] = (mixed & 255) * share;
        data[at * 4 + 1] = ((mixed >>> 8) & 255) * share;
        data[at * 4 + 2] = ((mixed >>> 16) & 255) * share;
        data[at * 4 + 3] = alpha;
      }
    }
  }

  private often(y: number, first: number, last: number, reading: Reading): void {
    const g = this.back;
    for (let x = first; x < last; x++) {
      const w = g[6] * (x + 0.5) + g[7] * (y + 0.5) + g[8];
      if (!(w > 0 && w <= MOST_WEIGHT)) continue;
      const u = (g[0] * (x + 0.5) + g[1] * (y + 0.5) + g[2]) / w;
      const v = (g[3] * (x + 0.5) + g[4] * (y + 0.5) + g[5]) / w;
      this.put(y, x, u, v, reading);
    }
  }

  /** One pixel, looked at as often and as small as is needed. */
  private put(y: number, x: number, u: number, v: number, reading: Reading): void {
    const { sums, picture, to } = this;
    const { level, looks, alongU, alongV } = reading;
    const reach = 1 + Math.abs(alongU) + Math.abs(alongV) + 2 ** (level + 1);
    if (u < -reach || v < -reach || u > picture.width + reach || v > picture.height + reach) return;
    const whole = Math.floor(level);
    const between = level - whole;
    const size = 2 ** whole;
    const own = this.pyramid.at(whole);
    const smaller = between > 0 ? this.pyramid.at(whole + 1) : null;
    sums[0] = 0;
    sums[1] = 0;
    sums[2] = 0;
    sums[3] = 0;
    for (let n = 0; n < looks; n++) {
      const off = (n + 0.5) / looks - 0.5;
      const at = (u + off * alongU) / size;
      const on = (v + off * alongV) / size;
      addAt(own, at, on, (1 - between) / looks, sums);
      if (smaller) addAt(smaller, at / 2, on / 2, between / looks, sums);
    }
    const alpha = sums[3]!;
    if (alpha <= 0) return;
    const k = (y * to.width + x) * 4;
    const by = alpha >= FULL ? 1 : 255 / alpha;
    to.data[k] = sums[0]! * by;
    to.data[k + 1] = sums[1]! * by;
    to.data[k + 2] = sums[2]! * by;
    to.data[k + 3] = alpha;
  }
}

/** A triangle of pixels, and the way back from there to the picture. */
export interface MappedTriangle {
  readonly corners: readonly [Point, Point, Point];
  readonly back: Matrix;
}

/** Where a row, at the middle of its pixels, enters and leaves a triangle; null for one beside it. */
const spanOf = (corners: MappedTriangle['corners'], y: number): readonly [from: number, to: number] | null => {
  let [from, to] = [Infinity, -Infinity];
  for (let i = 0; i < 3; i++) {
    const [a, b] = [corners[i]!, corners[(i + 1) % 3]!];
    // Taken the same way round for both triangles of an edge, so that no pixel is in neither.
    const [p, q] = a[1] < b[1] || (a[1] === b[1] && a[0] < b[0]) ? [a, b] : [b, a];
    if (!(p[1] <= y && y < q[1])) continue;
    const x = p[0] + ((y - p[1]) / (q[1] - p[1])) * (q[0] - p[0]);
    from = Math.min(from, x);
    to = Math.max(to, x);
  }
  return to > from ? [from, to] : null;
};

/** Fills `to`, which is clear, with what a picture shows in triangles: those that come later lie over the others. */
export const mapTriangles = (picture: Pixels, triangles: readonly MappedTriangle[], to: Pixels): void => {
  const mapping = new Mapping(picture, flatHomography(IDENTITY), to);
  for (const { corners, back } of triangles) {
    const [a, b, c] = corners;
    mapping.back = flatHomography(back);
    // A triangle is as much smaller all over.
    const reading = readingAt(mapping.back, 0, 0, 1);
    const last = Math.min(to.height, Math.ceil(Math.max(a[1], b[1], c[1]) - 0.5));
    for (let y = Math.max(0, Math.ceil(Math.min(a[1], b[1], c[1]) - 0.5)); y < last; y++) {
      const span = spanOf(corners, y + 0.5);
      if (!span) continue;
      const first = Math.max(0, Math.ceil(span[0] - 0.5));
      mapping.stretch(y, first, Math.min(to.width, Math.ceil(span[1] - 0.5)), reading);
    }
  }
};

/**
 * Fills `to`, which is clear, with what a picture shows there. `back` leads from its pixels to those of the picture, and its
 * weight is one over that of the map: where that is not before the eye nothing is shown.
 */
export const mapPixels = (picture: Pixels, back: Homography, to: Pixels): void => {
  const mapping = new Mapping(picture, back, to);
  for (let y = 0; y < to.height; y++) {
    for (let x = 0; x < to.width; x += RUN) mapping.run(y, x, Math.min(to.width, x + RUN));
  }
};
