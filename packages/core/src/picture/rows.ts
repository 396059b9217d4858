/** The innermost loops over the pixels of clouds, row by row: in WebAssembly where that is to be had, else in TypeScript, to the same bits. */
import { compiledLoops, PIXELS, TABLES, WIDEST } from './compiled';
import { inShade, type Shades } from './pixels';

/** Sums of noise for the pixels of a row, and the row in colours. */
export interface Rows {
  /** All sums of a row are nothing again. */
  readonly clear: (width: number) => void;
  /**
   * Adds the noise of one cell to `count` sums: between two straight lines, a slope and a height at `t` 0 and how much more of both the
   * other has, by the faded share; `t` goes from `start` by `step`.
   */
  readonly level: (
    from: number,
    count: number,
    start: number,
    step: number,
    slope: number,
    height: number,
    moreSlope: number,
    moreHeight: number,
    folded: boolean,
  ) => void;
  /**
   * The same aslant: (u, v) goes by (c, s). Along a row the upper left corner's slope, and what the others have more, are straight
   * lines: `p + q across + (r + t across) down`, across and down faded; each goes by its d.
   */
  readonly turned: (
    from: number,
    count: number,
    u: number,
    v: number,
    c: number,
    s: number,
    p: number,
    q: number,
    r: number,
    t: number,
    dp: number,
    dq: number,
    dr: number,
    dt: number,
    folded: boolean,
  ) => void;
  /** Pixels from an index on in the shades of their sums: the one at `start + slope sum`, from 0 to 255. */
  readonly shade: (pixels: Uint32Array, from: number, width: number, start: number, slope: number) => void;
}

/** From 0 to 1 with no slope or bend at the ends (Perlin, Improving Noise, 2002). */
export const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** All of it in single precision: each operation rounds by itself, as vectors of such numbers do. */
const f = Math.fround;
const faded = (t: number): number => f(f(f(t * t) * t) * f(f(t * f(f(t * 6) - 15)) + 10));
/** A straight line, so many steps on. */
const line = (from: number, by: number, k: number): number => f(from + f(by * k));

/** In TypeScript alone. */
export const plainRows = (widest: number, shades: Shades): Rows => {
  const sums = new Float32Array(widest);
  const add = (x: number, noise: number, folded: boolean): void => {
    sums[x] = sums[x]! + (folded ? Math.abs(noise) : noise);
  };
  return {
    clear: (width) => void sums.fill(0, 0, width),
    level: (from, count, start, step, slope, height, moreSlope, moreHeight, folded) => {
      const [first, by] = [f(start), f(step)];
      const [base, rise, moreBase, moreRise] = [f(height), f(slope), f(moreHeight), f(moreSlope)];
      for (let k = 0; k < count; k++) {
        const t = line(first, by, k);
        add(from + k, f(line(base, rise, t) + f(line(moreBase, moreRise, t) * faded(t))), folded);
      }
    },
    turned: (from, count, u, v, c, s, p, q, r, t, dp, dq, dr, dt, folded) => {
      const [startX, startY, byX, byY] = [f(u), f(v), f(c), f(s)];
      const [p0, q0, r0, t0] = [f(p), f(q), f(r), f(t)];
      const [p1, q1, r1, t1] = [f(dp), f(dq), f(dr), f(dt)];
      for (let k = 0; k < count; k++) {
        const [across, down] = [faded(line(startX, byX, k)), faded(line(startY, byY, k))];
        const upper = f(line(p0, p1, k) + f(line(q0, q1, k) * across));
        const lower = f(line(r0, r1, k) + f(line(t0, t1, k) * across));
        add(from + k, f(upper + f(lower * down)), folded);
      }
    },
    shade: (pixels, from, width, start, slope) => {
      const [first, by] = [f(start), f(slope)];
      for (let x = 0, i = from; x < width; x++, i++) {
        const pixel = pixels[i]!;
        if (pixel >>> 24 === 0) continue;
        const at = f(first + f(by * sums[x]!));
        pixels[i] = inShade(pixel, shades[at <= 0 ? 0 : at >= 255 ? 255 : f(at + 0.5) | 0]!);
      }
    },
  };
};

/** In WebAssembly; null where it is not to be had. There is one memory: rows are done one after another. */
export const quickRows = (widest: number, shades: Shades): Rows | null => {
  const own = widest <= WIDEST ? compiledLoops() : null;
  if (!own) return null;
  const { buffer } = own.memory;
  const sums = new Float32Array(buffer, 0, widest);
  const row = new Uint32Array(buffer, PIXELS, widest);
  new Uint32Array(buffer, TABLES, 256).set(shades);
  return {
    clear: (width) => void sums.fill(0, 0, width),
    level: own.level,
    turned: own.turned,
    shade: (pixels, from, width, start, slope) => {
      row.set(pixels.subarray(from, from + width));
      own.shade(width, start, slope);
      pixels.set(row, from);
    },
  };
};

export const rowsFor = (widest: number, shades: Shades): Rows => quickRows(widest, shades) ?? plainRows(widest, shades);
