import { describe, expect, it } from 'vitest';
import type { CutOut } from '../document/types';
import { cutMask, cutPixels } from './cut';

const W = 40;
const H = 30;
const CUT: CutOut = { seeds: [{ x: 0, y: 0, tolerance: 0.1 }], grow: 0, soften: 0, strokes: [] };
type Rgb = readonly [number, number, number];

/** A disc of one colour on a ground, with a spot of the ground in its middle. */
const picture = (ground: (x: number, y: number) => Rgb = () => [240, 240, 236], disc: Rgb = [255, 93, 93]) => {
  const rgba = new Uint8ClampedArray(W * H * 4);
  for (let y = 0; y < H; y++) {
    for (let x = 0; x < W; x++) {
      const d = Math.hypot(x - 20, y - 15);
      rgba.set([...(d < 10 && d > 3 ? disc : ground(x, y)), 255], (y * W + x) * 4);
    }
  }
  return rgba;
};
const at = (mask: Uint8ClampedArray, x: number, y: number) => mask[y * W + x];

describe('a cut', () => {
  it('takes the ground that touches the seed, and leaves what the picture encloses', () => {
    const mask = cutMask(picture(), W, H, CUT);
    expect([at(mask, 0, 0), at(mask, 39, 29), at(mask, 20, 8), at(mask, 20, 15)]).toEqual([0, 0, 255, 255]);
  });
  it('takes as much as its tolerance lets it', () => {
    const shaded = picture((x) => [200 + x, 200 + x, 200]);
    const gone = (tolerance: number) => {
      const mask = cutMask(shaded, W, H, { ...CUT, seeds: [{ x: 0, y: 0, tolerance }] });
      return mask.reduce((n, v) => n + (v === 0 ? 1 : 0), 0);
    };
    expect(gone(0.02)).toBeLessThan(gone(0.06));
    expect(at(cutMask(shaded, W, H, { ...CUT, seeds: [{ x: 0, y: 0, tolerance: 0.3 }] }), 39, 0)).toBe(0);
  });
  it('grows and shrinks its edge by whole pixels', () => {
    const [wide, tight] = [2, -2].map((grow) => cutMask(picture(), W, H, { ...CUT, grow }));
    // The disc's own first row is 6.
    expect([at(wide!, 20, 3), at(wide!, 20, 4)]).toEqual([0, 255]);
    expect([at(tight!, 20, 7), at(tight!, 20, 8)]).toEqual([0, 255]);
  });
  it('softens its edge, evenly to both sides', () => {
    const mask = cutMask(picture(), W, H, { ...CUT, soften: 4 });
    const edge = Array.from({ length: 8 }, (_, i) => at(mask, 20, 2 + i) as number);
    expect(edge.every((v, i) => i === 0 || v >= edge[i - 1]!)).toBe(true);
    expect(edge.some((v) => v > 20 && v < 235)).toBe(true);
  });
  it('is mended by strokes, the last having the last word', () => {
    const stroke = (keep: boolean) => ({
      keep,
      size: 6,
      points: [
        [5, 5],
        [10, 5],
      ] as const,
    });
    const kept = cutMask(picture(), W, H, { ...CUT, strokes: [stroke(true)] });
    expect([at(kept, 7, 5), at(kept, 7, 12)]).toEqual([255, 0]);
    const again = cutMask(picture(), W, H, { ...CUT, strokes: [stroke(true), stroke(false)] });
    expect(at(again, 7, 5)).toBe(0);
  });
  it('outside the picture takes nothing', () => {
    const mask = cutMask(picture(), W, H, { ...CUT, seeds: [{ x: -3, y: 900, tolerance: 1 }] });
    expect(mask.every((v) => v === 255)).toBe(true);
  });
});

it('the ground’s colour does not stay on a soft edge', () => {
  // Half coral, half ground, as antialiasing leaves it.
  const rgba = new Uint8ClampedArray([0, 0, 255, 255, 128, 46, 174, 255, 255, 93, 93, 255]);
  cutPixels(rgba, 3, 1, { seeds: [{ x: 0, y: 0, tolerance: 0.05 }], grow: 0, soften: 1, strokes: [] });
  const [r, , b, a] = rgba.slice(4, 8);
  expect(a).toBeGreaterThan(0);
  expect(a).toBeLessThan(255);
  expect(r! - b!).toBeGreaterThan(0);
});
