import { describe, expect, it } from 'vitest';
import type { BrushStroke } from '../document/types';
import { outlineBox, union } from './bounds';
import { brushOutlines } from './brush';
import { flattened } from './flatten';
import { areaOf, outlinesOf } from './polygons';
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
});
