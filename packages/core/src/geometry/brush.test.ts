import { describe, expect, it } from 'vitest';
import type { BrushStroke } from '../document/types';
import { outlineBox, union } from './bounds';
import { brushOutlines, printsOf } from './brush';
import { flattened } from './flatten';
import { areaOf, outlinesOf } from './polygons';
import { TEXTURED } from './texturedTips';
import { testStroke as stroke } from '../test/strokes';

describe('a brush', () => {
  const boxOf = (of: BrushStroke) =>
    brushOutlines(of)
      .map(outlineBox)
      .reduce((a, b) => union(a, b)!);
  const covers = (of: BrushStroke) =>
    outlinesOf(areaOf(brushOutlines(of))).reduce((sum, outline) => {
      const ring = flattened(outline);
      const cross = ring.map(([x, y], i) => {
        const [toX, toY] = ring[(i + 1) % ring.length]!;
        return x * toY - toX * y;
      });
      return sum + cross.reduce((a, b) => a + b, 0) / 2;
    }, 0);

  it('covers its width along its way, with round ends', () => {
    const { left, right, top, bottom } = boxOf(stroke());
    for (const [is, wanted] of [
      [left, -55],
      [right, 55],
      [top, -5],
      [bottom, 5],
    ] as const)
      expect(Math.abs(is - wanted)).toBeLessThan(1);
  });

  it('is wider where it is pressed, as much as it thins', () => {
    const hard = boxOf(stroke({ thins: 0.5, points: [-50, 0, 1, 50, 0, 1] }));
    const light = boxOf(stroke({ thins: 0.5, points: [-50, 0, 0, 50, 0, 0] }));
    expect(hard.bottom - hard.top).toBeCloseTo(15, 0);
    expect(light.bottom - light.top).toBeCloseTo(5, 0);
  });

  it('is broad across the way that a flat tip is held, and thin along it', () => {
    const across = boxOf(stroke({ tip: 'flat', points: [0, 0, 0.5, 40, 40, 0.5] }));
    const length = Math.hypot(40, 40);
    expect(across.right).toBeCloseTo(40 + (5 + 0.7) * Math.SQRT1_2, 1);
    // As a parallelogram of its width, and the tip itself at its ends.
    expect(Math.abs(covers(stroke({ tip: 'flat', points: [0, 0, 0.5, 40, 40, 0.5] })))).toBeCloseTo(
      10 * (length + 1.4),
      -0.5,
    );
  });

  it.each(Object.keys(TEXTURED) as (keyof typeof TEXTURED)[])(
    'leaves grain with %s: along its way, not all of it, by its seed',
    (tip) => {
      const whole = Math.abs(covers(stroke({ size: 30 })));
      const of = (more: Partial<BrushStroke> = {}) => stroke({ tip, size: 30, ...more });
      const share = Math.abs(covers(of())) / whole;
      expect(share).toBeGreaterThan(0.1);
      expect(share).toBeLessThan(0.95);
      const { left, right, top, bottom } = boxOf(of());
      expect(left).toBeLessThan(-40);
      expect(right).toBeGreaterThan(40);
      expect(Math.max(-top, bottom)).toBeLessThan(2.3 * 15);
      const drawn = (of: BrushStroke) => brushOutlines(of).map(({ points }) => [...points]);
      expect(drawn(of())).toEqual(drawn(of({ seed: 0 })));
      expect(drawn(of({ seed: 7 }))).not.toEqual(drawn(of()));
      // Moved as a whole it keeps its grain.
      const moved = drawn(of({ points: [-50, 20, 0.5, 50, 20, 0.5] }));
      expect(moved.map(([x, y]) => [x, y! - 20])).toEqual(drawn(of()).map(([x, y]) => [x, expect.closeTo(y!, 6)]));
      // However long it is, there is only so much of it.
      expect(brushOutlines(of({ size: 1, points: [0, 0, 1, 90_000, 0, 1] })).length).toBeLessThan(8_000);
    },
  );

  it('presses a picture every so far, as broad as it is there, turned along its way', () => {
    const way = stroke({ tip: 'own', size: 20, points: [0, 0, 0.5, 0, 100, 0.5] });
    const prints = printsOf(way, { width: 40, height: 10 }, { every: 0.5, turns: true });
    expect(prints).toHaveLength(11);
    const [first, second] = prints;
    // Its own x, 40 pixels wide, goes down the page over 20.
    expect(first).toEqual([0, 0.5, -0.5, 0, 0, 0].map((v) => expect.closeTo(v, 9)));
    expect(second!.slice(4)).toEqual([expect.closeTo(0, 9), expect.closeTo(10, 9)]);
    expect(printsOf(way, { width: 40, height: 10 }, { every: 0.5, turns: false })[0]!.slice(0, 4)).toEqual([
      0.5, 0, -0, 0.5,
    ]);
    // Where it comes to a point there is nothing to press.
    expect(printsOf({ ...way, taper: 0.5 }, { width: 40, height: 10 }, { every: 0.5, turns: true })).toHaveLength(9);
    // A dot is a print.
    expect(
      printsOf(stroke({ points: [3, 4, 0.5] }), { width: 1, height: 1 }, { every: 0.1, turns: true }),
    ).toHaveLength(1);
  });
});
