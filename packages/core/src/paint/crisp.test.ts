import { describe, expect, it } from 'vitest';
import { polygon, smoothThrough } from '../geometry/outline';
import { areaCut } from '../recipe/marks';
import { areaOn } from './crisp';

const box = (left: number, right: number) =>
  polygon([
    [left, 0],
    [right, 0],
    [right, 10],
    [left, 10],
  ]);
const xs = (cut: ReturnType<typeof areaCut>, view: Parameters<typeof areaOn>[1]) => {
  const { outlines, matrix } = areaOn(cut, view);
  return outlines.flatMap(({ points }) => [0, 6, 12, 18].map((i) => points[i]! * matrix[0] + matrix[4]));
};

describe('edges between pixels', () => {
  it('are where the nearest pixels meet, of areas that meet at the same place', () => {
    const how = { crisp: true, mode: 'show' } as const;
    expect(xs(areaCut([box(0, 3.5)], how), [1, 0, 0, 1, 7.2, 0])).toEqual([7, 11, 11, 7]);
    expect(xs(areaCut([box(3.5, 9)], how), [1, 0, 0, 1, 7.2, 0])).toEqual([11, 16, 16, 11]);
    // Half a pixel is the same half however it was come by.
    expect(xs(areaCut([box(0, 1)], how), [2.5 - 1e-12, 0, 0, 1, 0, 0])).toEqual([0, 3, 3, 0]);
    expect(xs(areaCut([box(0, 1)], how), [2.5 + 1e-12, 0, 0, 1, 0, 0])).toEqual([0, 3, 3, 0]);
  });
  it('reach a little over those that they meet where they stand aslant', () => {
    const turned = areaOn(areaCut([box(0, 10)], { crisp: true, mode: 'show' }), [0.8, 0.6, -0.6, 0.8, 0, 0]);
    const [first] = turned.outlines;
    // Its upper left corner goes by as much along both of its sides.
    const lap = 0.75;
    expect([...first!.points.slice(0, 2)]).toEqual(
      [-0.8 * lap + 0.6 * lap, -0.6 * lap - 0.8 * lap].map((v) => expect.closeTo(v, 9)),
    );
    expect(turned.matrix).toEqual([1, 0, 0, 1, 0, 0]);
    // What is hidden by them is not widened.
    const hides = areaCut([box(0, 10)], { crisp: true, mode: 'hide' });
    expect(areaOn(hides, [0.8, 0.6, -0.6, 0.8, 0, 0]).outlines).toBe(hides.outlines);
  });
  it('are left as they are where they are not wanted, soft, or not straight', () => {
    const plain = areaCut([box(0, 3.5)]);
    expect(xs(plain, [1, 0, 0, 1, 0.2, 0])).toEqual([0.2, 3.7, 3.7, 0.2]);
    expect(areaOn({ ...plain, crisp: true, feather: 2 }).outlines).toBe(plain.outlines);
    const round = areaCut(
      [
        smoothThrough(
          [
            [0, 0],
            [9, 1],
            [4, 8],
          ],
          true,
        ),
      ],
      { crisp: true },
    );
    expect(areaOn(round, [0.8, 0.6, -0.6, 0.8, 0, 0]).outlines).toBe(round.outlines);
  });
});
