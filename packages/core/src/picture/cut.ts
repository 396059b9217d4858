/** Pictures cut out of their flat backgrounds: what is like a clicked place, and touches it, goes. */
import type { CutOut, CutSeed, CutStroke } from '../document/types';

/** Straight RGBA, rows from the top; changed in place. */
export const cutPixels = (rgba: Uint8ClampedArray, width: number, height: number, cut: CutOut): void => {
  const alpha = cutMask(rgba, width, height, cut);
  const edge = cut.seeds.map((seed) => colorAt(rgba, width, height, seed));
  for (let i = 0; i < alpha.length; i++) {
    const a = alpha[i]! / 255;
    if (a < 1 && a > 0) cleanEdge(rgba, i * 4, a, edge);
    rgba[i * 4 + 3] = rgba[i * 4 + 3]! * a;
  }
};

type Rgb = readonly [number, number, number];

const colorAt = (rgba: Uint8ClampedArray, width: number, height: number, { x, y }: CutSeed): Rgb => {
  const clamp = (v: number, most: number) => Math.min(most - 1, Math.max(0, Math.floor(v)));
  const k = (clamp(y, height) * width + clamp(x, width)) * 4;
  return [rgba[k]!, rgba[k + 1]!, rgba[k + 2]!];
};

/** Takes the background's share out of the colour of a half-covered pixel: c = a·f + (1 − a)·b, solved for f. */
const cleanEdge = (rgba: Uint8ClampedArray, k: number, a: number, backgrounds: readonly Rgb[]): void => {
  const near = backgrounds.reduce<{ rgb: Rgb; d: number } | null>((best, rgb) => {
    const d = Math.hypot(rgba[k]! - rgb[0], rgba[k + 1]! - rgb[1], rgba[k + 2]! - rgb[2]);
    return best && best.d <= d ? best : { rgb, d };
  }, null);
  if (!near) return;
  // Thin coverage says little of the colour: the correction is held back there.
  const share = Math.max(a, 0.25);
  for (let c = 0; c < 3; c++) rgba[k + c] = (rgba[k + c]! - (1 - share) * near.rgb[c]!) / share;
};

/** The most that two colours can differ: √3 · 255. */
const FARTHEST = Math.sqrt(3) * 255;

/** 255 where the picture stays, 0 where it goes. */
export const cutMask = (rgba: Uint8ClampedArray, width: number, height: number, cut: CutOut): Uint8ClampedArray => {
  const gone = new Uint8Array(width * height);
  for (const seed of cut.seeds) spread(rgba, width, height, seed, gone);
  const kept = new Uint8ClampedArray(gone.length);
  for (let i = 0; i < gone.length; i++) kept[i] = gone[i] ? 0 : 255;
  const moved = cut.grow === 0 ? kept : grown(kept, width, height, cut.grow);
  const soft = cut.soften > 0 ? blurred(moved, width, height, cut.soften / 2) : moved;
  for (const stroke of cut.strokes) brush(soft, width, height, stroke);
  return soft;
};

/** Span filling (Heckbert, Graphics Gems, 1990): rows of like pixels, and from each the rows that touch it. */
const spread = (rgba: Uint8ClampedArray, width: number, height: number, seed: CutSeed, gone: Uint8Array): void => {
  const [x0, y0] = [Math.floor(seed.x), Math.floor(seed.y)];
  if (x0 < 0 || y0 < 0 || x0 >= width || y0 >= height) return;
  const [r, g, b] = colorAt(rgba, width, height, seed);
  const most = (seed.tolerance * FARTHEST) ** 2 + 1e-6;
  const visited = new Uint8Array(gone.length);
  const like = (i: number): boolean => {
    if (visited[i]) return false;
    const k = i * 4;
    if (rgba[k + 3] === 0) return true;
    return (rgba[k]! - r) ** 2 + (rgba[k + 1]! - g) ** 2 + (rgba[k + 2]! - b) ** 2 <= most;
  };
  const stack = [x0, y0];
  while (stack.length > 0) {
    const y = stack.pop()!;
    const x = stack.pop()!;
    const row = y * width;
    if (!like(row + x)) continue;
    let left = x;
    while (left > 0 && like(row + left - 1)) left--;
    let right = x;
    while (right < width - 1 && like(row + right + 1)) right++;
    for (let i = left; i <= right; i++) {
      visited[row + i] = 1;
      gone[row + i] = 1;
    }
    for (const next of [y - 1, y + 1]) {
      if (next < 0 || next >= height) continue;
      let open = false;
      for (let i = left; i <= right; i++) {
        const fits = like(next * width + i);
        if (fits && !open) stack.push(i, next);
        open = fits;
      }
    }
  }
};

/** The mask grown (or shrunk) by a square of this half side: the greatest (least) value in it, rows then columns. */
const grown = (mask: Uint8ClampedArray, width: number, height: number, by: number): Uint8ClampedArray => {
  const reach = Math.round(Math.abs(by));
  const pick = by > 0 ? Math.max : Math.min;
  const pass = (from: Uint8ClampedArray, count: number, length: number, step: number, stride: number) => {
    const out = new Uint8ClampedArray(from.length);
    for (let line = 0; line < count; line++) {
      for (let i = 0; i < length; i++) {
        let best = from[line * stride + i * step]!;
        for (let n = Math.max(0, i - reach); n <= Math.min(length - 1, i + reach); n++) {
          best = pick(best, from[line * stride + n * step]!);
        }
        out[line * stride + i * step] = best;
      }
    }
    return out;
  };
  return pass(pass(mask, height, width, 1, width), width, height, width, 1);
};

/** Three box blurs, near to a Gaussian of the given deviation (Kovesi, 2010). */
const blurred = (mask: Uint8ClampedArray, width: number, height: number, deviation: number): Uint8ClampedArray => {
  const reach = Math.max(1, Math.round((Math.sqrt(4 * deviation * deviation + 1) - 1) / 2 + 0.5));
  let now: Float32Array = Float32Array.from(mask);
  const pass = (from: Float32Array, count: number, length: number, step: number, stride: number) => {
    const out = new Float32Array(from.length);
    for (let line = 0; line < count; line++) {
      const base = line * stride;
      const at = (i: number) => from[base + Math.min(length - 1, Math.max(0, i)) * step]!;
      let sum = 0;
      for (let n = -reach; n <= reach; n++) sum += at(n);
      for (let i = 0; i < length; i++) {
        out[base + i * step] = sum / (2 * reach + 1);
        sum += at(i + reach + 1) - at(i - reach);
      }
    }
    return out;
  };
  for (let n = 0; n < 3; n++) now = pass(pass(now, height, width, 1, width), width, height, width, 1);
  return Uint8ClampedArray.from(now);
};

const brush = (mask: Uint8ClampedArray, width: number, height: number, { keep, size, points }: CutStroke): void => {
  const radius = size / 2;
  const dab = (cx: number, cy: number) => {
    for (let y = Math.max(0, Math.floor(cy - radius)); y <= Math.min(height - 1, Math.ceil(cy + radius)); y++) {
      for (let x = Math.max(0, Math.floor(cx - radius)); x <= Math.min(width - 1, Math.ceil(cx + radius)); x++) {
        const cover = Math.min(1, Math.max(0, radius - Math.hypot(x + 0.5 - cx, y + 0.5 - cy) + 0.5));
        const i = y * width + x;
        mask[i] = keep ? Math.max(mask[i]!, cover * 255) : Math.min(mask[i]!, 255 - cover * 255);
      }
    }
  };
  points.forEach(([x, y], i) => {
    const [px, py] = points[i - 1] ?? [x, y];
    const steps = Math.max(1, Math.ceil(Math.hypot(x - px, y - py) / Math.max(1, radius / 3)));
    for (let n = 1; n <= steps; n++) dab(px + ((x - px) * n) / steps, py + ((y - py) * n) / steps);
  });
};
