import { describe, expect, it } from 'vitest';
import { cubicAt } from '../geometry/flatten';
import type { Outline } from '../geometry/outline';
import { isFar, linesInstead, type View } from './far';

const clip = { left: 0, top: 0, right: 500, bottom: 500 };
const view = (part: Partial<View> = {}): View => ({
  matrix: [1, 0, 0, 1, 0, 0],
  clip,
  reach: 4,
  dashed: false,
  ...part,
});
const curve = (x: number, size = 100) => Float64Array.of(x, 0, x + size / 2, 0, x + size, size / 2, x + size, size);
const outline = (points: Float64Array): Outline => ({ closed: false, points });

describe('far curves', () => {
  it('are those that reach more than a million pixels from the origin, in pixels of the target', () => {
    expect(isFar(outline(curve(1_000_000)), [1, 0, 0, 1, 0, 0])).toBe(false);
    expect(isFar(outline(curve(1_100_000)), [1, 0, 0, 1, -1_100_000, 0])).toBe(true);
    expect(isFar(outline(curve(10_000)), [1, 0, 0, 150, 0, 0])).toBe(true);
  });

  it('are drawn as lines that keep to the curve', () => {
    const p = curve(100);
    const lines = linesInstead(p, 0, view());
    expect(lines.length).toBeGreaterThan(8);
    expect(lines.at(-1)).toEqual([200, 100]);
    // The middle of each line against the curve there: within a tenth of a pixel.
    lines.slice(1).forEach((to, i) => {
      const from = lines[i] as (typeof lines)[number];
      const on = cubicAt(p, 0, (i + 1.5) / lines.length);
      expect(Math.hypot((from[0] + to[0]) / 2 - on[0], (from[1] + to[1]) / 2 - on[1])).toBeLessThan(0.1);
    });
  });

  it('are one line where nothing of their stroke is seen, and a few where dashes go on from them', () => {
    expect(linesInstead(curve(600), 0, view())).toEqual([[700, 100]]);
    expect(linesInstead(curve(600), 0, view({ dashed: true })).length).toBe(8);
    // A stroke wide enough to be seen.
    expect(linesInstead(curve(600), 0, view({ reach: 101 })).length).toBeGreaterThan(8);
  });
});
