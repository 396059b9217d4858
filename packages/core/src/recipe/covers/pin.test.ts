/** Pictures stretched to four points, beside the map through them in closed form. */
import { describe, expect, it } from 'vitest';
import type { Point } from '../../document/types';
import { polygon } from '../../geometry/outline';
import { boxOfMarks, flatFill } from '../marks';
import { EMPTY, type FillMark, type Mark } from '../types';
import { pin } from './pin';

const square = (left: number, top: number, side: number): FillMark =>
  flatFill(
    [
      polygon([
        [left, top],
        [left + side, top],
        [left + side, top + side],
        [left, top + side],
      ]),
    ],
    '#FF0000',
  );
const room = { take: () => true, takeAreas: () => true };
const by = { own: EMPTY, frame: 0, goesOn: false, room, shown: () => null };
const defaults = Object.fromEntries(Object.entries(pin.params).map(([key, param]) => [key, param.default]));
type Corners = readonly [Point, Point, Point, Point];
const pinned = ([topLeft, topRight, bottomRight, bottomLeft]: Corners, marks: readonly Mark[], more = {}) =>
  pin.cover(marks, { ...defaults, topLeft, topRight, bottomRight, bottomLeft, ...more } as never, by);
/** The ends of an outline's segments. */
const endsOf = ({ outlines }: FillMark): number[][] =>
  outlines.flatMap(({ points }) =>
    Array.from({ length: (points.length - 2) / 6 }, (_, i) => [...points.subarray(i * 6, i * 6 + 2)]),
  );

describe('a corner pin', () => {
  const SKEW: Corners = [
    [10, 20],
    [200, 5],
    [260, 180],
    [-30, 140],
  ];
  it('takes the corners of what is above to its own, and its middle to where the diagonals meet', () => {
    const inner = square(45, 45, 10);
    const [whole, small] = pinned(SKEW, [square(0, 0, 100), inner]) as [FillMark, FillMark];
    endsOf(whole).forEach(([x, y], i) => {
      expect(x).toBeCloseTo(SKEW[i]![0], 8);
      expect(y).toBeCloseTo(SKEW[i]![1], 8);
    });
    // Of the small square's corners the lines through opposite ones meet in the same point as the large one's: the diagonals.
    const onDiagonal = ([x, y]: number[], [a, b]: Point, [c, d]: Point) => (c - a) * (y! - b) - (d - b) * (x! - a);
    const ends = endsOf(small);
    for (const i of [0, 2]) expect(onDiagonal(ends[i]!, SKEW[0], SKEW[2])).toBeCloseTo(0, 6);
    for (const i of [1, 3]) expect(onDiagonal(ends[i]!, SKEW[1], SKEW[3])).toBeCloseTo(0, 6);
  });
  it('leaves as it is what a new one is put below', () => {
    const marks = [square(-30, 12, 80)];
    const fitted = pin.fitting?.(boxOfMarks(marks)!);
    const [same] = pin.cover(marks, { ...defaults, ...fitted } as never, by) as [FillMark];
    expect(boxOfMarks([same])).toEqual(boxOfMarks(marks));
    expect(same.outlines).toEqual(marks[0]!.outlines);
  });
  it('of an area stretches by that, whatever stands in it', () => {
    const more = { from: 'area', middle: [50, 50], width: 100, height: 100 };
    const [small] = pinned(SKEW, [square(0, 0, 50)], more) as [FillMark];
    expect(endsOf(small)[0]!.map((v) => Math.round(v))).toEqual([10, 20]);
    expect(boxOfMarks([small])!.right).toBeLessThan(200);
  });
  it.each([
    [
      'a dented corner',
      [
        [0, 0],
        [100, 0],
        [30, 30],
        [0, 100],
      ],
    ],
    [
      'crossed sides',
      [
        [0, 0],
        [100, 100],
        [100, 0],
        [0, 100],
      ],
    ],
    [
      'three in a line',
      [
        [0, 0],
        [50, 0],
        [100, 0],
        [0, 100],
      ],
    ],
    [
      'all in one place',
      [
        [5, 5],
        [5, 5],
        [5, 5],
        [5, 5],
      ],
    ],
  ] as const)('with %s stays within them', (_name, corners) => {
    const marks = pinned(corners as unknown as Corners, [square(0, 0, 100)]);
    const box = boxOfMarks(marks);
    if (!box) return;
    expect([box.left, box.top].every((v) => v >= -1e-6)).toBe(true);
    expect([box.right, box.bottom].every((v) => v <= 100 + 1e-6)).toBe(true);
  });
  it('of nothing is nothing', () => {
    expect(pinned(SKEW, [])).toEqual([]);
    expect(pinned(SKEW, [square(0, 0, 0)])).toEqual([]);
  });
});
