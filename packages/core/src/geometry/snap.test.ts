import { describe, expect, it } from 'vitest';
import type { Box } from './bounds';
import { aligned, distributed, fractionsOf, linesOf, snapBox, snapPoint, type SnapTargets } from './snap';

const box = (left: number, top: number, width: number, height: number): Box => ({
  left,
  top,
  right: left + width,
  bottom: top + height,
});
const targets = (boxes: Box[], points: [number, number][] = []): SnapTargets => ({
  lines: boxes.flatMap(linesOf),
  points,
  boxes,
});

describe('a moved point snaps', () => {
  it('to the quarters and the thirds of a box', () => {
    const lines = fractionsOf(box(0, 0, 120, 240));
    const by = (x: number, y: number) => snapPoint([x, y], { lines, points: [], boxes: [] }, 3).by;
    expect([by(31, 58), by(42, 162), by(59, 119), by(50, 100)]).toEqual([
      [-1, 2],
      [-2, -2],
      [1, 1],
      [0, 0],
    ]);
  });
});

describe('a moved box snaps', () => {
  it('its edges to the edges of others, each axis by itself', () => {
    const snapped = snapBox(box(103, 48, 50, 20), targets([box(0, 50, 100, 100)]), 5);
    expect(snapped.by).toEqual([-3, 2]);
  });
  it('its middle to a middle', () => {
    expect(snapBox(box(27, 300, 50, 20), targets([box(0, 0, 100, 100)]), 5).by[0]).toBe(-2);
  });
  it('not to what is farther than the distance', () => {
    expect(snapBox(box(107, 500, 50, 20), targets([box(0, 0, 100, 100)]), 5).by).toEqual([0, 0]);
  });
  it('a corner to a vertex of another', () => {
    const snapped = snapBox(box(10, 10, 30, 30), targets([], [[42, 43]]), 5);
    expect(snapped.by).toEqual([2, 3]);
  });
  it('to equal gaps beside two others, and shows both', () => {
    const row = [box(0, 0, 50, 50), box(80, 0, 50, 50)];
    const snapped = snapBox(box(162, 7, 40, 40), { lines: [], points: [], boxes: row }, 5);
    expect(snapped.by[0]).toBe(-2);
    expect(snapped.gaps.map((g) => g.to - g.from)).toEqual([30, 30]);
  });
  it('to the middle between two others', () => {
    const row = [box(0, 0, 50, 50), box(150, 0, 50, 50)];
    expect(snapBox(box(83, 5, 40, 40), { lines: [], points: [], boxes: row }, 5).by[0]).toBe(-3);
  });
  it('with lines that reach what it snapped to, and the distance to it', () => {
    const { lines, gaps } = snapBox(box(2, 300, 50, 20), targets([box(0, 0, 10, 10)]), 3);
    expect(lines).toEqual([{ axis: 0, at: 0, from: 0, to: 320 }]);
    expect(gaps).toEqual([{ axis: 1, from: 10, to: 300, at: 0 }]);
  });
});

it('a moved point snaps to a vertex near it, both ways at once', () => {
  expect(snapPoint([9, 12], targets([], [[10, 10]]), 4).by).toEqual([1, -2]);
  expect(snapPoint([9, 16], targets([], [[10, 10]]), 4).by).toEqual([0, 0]);
});

describe('align and distribute', () => {
  const boxes = [box(0, 0, 10, 10), box(50, 20, 30, 10), box(200, 5, 20, 40)];
  const frame = box(0, 0, 300, 100);
  it.each([
    [
      'left',
      [
        [0, 0],
        [-50, 0],
        [-200, 0],
      ],
    ],
    [
      'centre',
      [
        [145, 0],
        [85, 0],
        [-60, 0],
      ],
    ],
    [
      'bottom',
      [
        [0, 90],
        [0, 70],
        [0, 55],
      ],
    ],
  ] as const)('%s', (how, ways) => {
    expect(aligned(boxes, frame, how)).toEqual(ways);
  });
  it('makes gaps equal and leaves the outermost', () => {
    const ways = distributed(boxes, 0);
    const now = boxes.map((b, i) => [b.left + ways[i]![0], b.right + ways[i]![0]] as const);
    expect([now[0], now[2]]).toEqual([
      [0, 10],
      [200, 220],
    ]);
    expect(now[1]![0] - now[0]![1]).toBe(now[2]![0] - now[1]![1]);
  });
});
