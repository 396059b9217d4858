import { describe, expect, it } from 'vitest';
import { type Box, boxOfOutlines } from './bounds';
import { IDENTITY, type Matrix, turn } from './matrix';
import { KAPPA, type Outline, OutlineWriter, polygon, straightThrough } from './outline';
import { boxOfStroke, type Pen } from './strokeBox';

const pen = (part: Partial<Pen>): Pen => ({
  width: 10,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dashes: [],
  ...part,
});
const turned = (degrees: number): Matrix => {
  const [cos, sin] = turn(degrees);
  return [cos, sin, -sin, cos, 0, 0];
};
const expectBox = (box: Box, sides: readonly [left: number, top: number, right: number, bottom: number]) => {
  Object.values(box).forEach((side, i) => expect(side).toBeCloseTo(sides[i]!, 9));
};
const square = polygon([
  [-20, -20],
  [20, -20],
  [20, 20],
  [-20, 20],
]);
const k = 20 * KAPPA;
const disc: Outline = new OutlineWriter(20, 0)
  .cubic(20, k, k, 20, 0, 20)
  .cubic(-k, 20, -20, k, -20, 0)
  .cubic(-20, -k, -k, -20, 0, -20)
  .cubic(k, -20, 20, -k, 20, 0)
  .close();

describe('what is filled', () => {
  it('is as wide as it is however it is turned', () => {
    expectBox(boxOfOutlines(turned(90), [disc])!, [-20, -20, 20, 20]);
    const leaning = boxOfOutlines(turned(45), [disc])!;
    // Four cubics are off a circle by at most 2.7e-4 of its radius.
    for (const side of Object.values(leaning)) expect(Math.abs(Math.abs(side) - 20)).toBeLessThan(20 * 2.8e-4);
    const corner = 20 * Math.SQRT2;
    expectBox(boxOfOutlines(turned(45), [square])!, [-corner, -corner, corner, corner]);
  });
});

describe('what is stroked', () => {
  it('reaches half of the width from a square and a disc, whatever the joins', () => {
    for (const join of ['miter', 'round', 'bevel'] as const) {
      expectBox(boxOfStroke(IDENTITY, [square], pen({ join }))!, [-25, -25, 25, 25]);
      expectBox(boxOfStroke(IDENTITY, [disc], pen({ join }))!, [-25, -25, 25, 25]);
    }
  });
  it('reaches as far as its mitres, round joins and bevels do', () => {
    const reach = (part: Partial<Pen>) => boxOfStroke(turned(45), [square], pen(part))!.right - 20 * Math.SQRT2;
    // A right angle's mitre is the root of two as long as the pen is wide.
    expect(reach({})).toBeCloseTo(5 * Math.SQRT2, 9);
    expect(reach({ miterLimit: 1.4 })).toBeCloseTo(5 / Math.SQRT2, 9);
    expect(reach({ join: 'round' })).toBeCloseTo(5, 9);
    expect(reach({ join: 'bevel' })).toBeCloseTo(5 / Math.SQRT2, 9);
  });
  it('ends flat, round or square', () => {
    const line = straightThrough(
      [
        [0, 0],
        [30, 0],
      ],
      false,
    );
    expectBox(boxOfStroke(IDENTITY, [line], pen({}))!, [0, -5, 30, 5]);
    expectBox(boxOfStroke(IDENTITY, [line], pen({ cap: 'round' }))!, [-5, -5, 35, 5]);
    const wide = 5 * Math.SQRT2;
    expectBox(boxOfStroke(IDENTITY, [line], pen({ cap: 'square' }))!, [-wide, -wide, 30 + wide, wide]);
    // A pen that is pressed flat by what it goes through: five pixels across, twenty along.
    expectBox(boxOfStroke([4, 0, 0, 1, 0, 0], [line], pen({ cap: 'round' }))!, [-20, -5, 140, 5]);
  });
  it('is a dot where it has no length', () => {
    const dot = straightThrough([[3, 4]], false);
    expectBox(boxOfStroke(IDENTITY, [dot], pen({ cap: 'round' }))!, [-2, -1, 8, 9]);
  });
});
