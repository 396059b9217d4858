import { describe, expect, it } from 'vitest';
import { polygon } from '../geometry/outline';
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
  it('are left as they are where they are not wanted, soft, turned or bent', () => {
    const plain = areaCut([box(0, 3.5)]);
    expect(xs(plain, [1, 0, 0, 1, 0.2, 0])).toEqual([0.2, 3.7, 3.7, 0.2]);
    expect(areaOn({ ...plain, crisp: true, feather: 2 }).outlines).toBe(plain.outlines);
    const turned = areaOn({ ...plain, crisp: true }, [0.8, 0.6, -0.6, 0.8, 0, 0]);
    expect([turned.outlines, turned.matrix]).toEqual([plain.outlines, [0.8, 0.6, -0.6, 0.8, 0, 0]]);
  });
});
