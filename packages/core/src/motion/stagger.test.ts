import { describe, expect, it } from 'vitest';
import type { Point } from '../document/types';
import { type Stagger, STAGGER_ORDERS, staggerOffsets } from './stagger';

const five: Point[] = [
  [40, 0],
  [10, 5],
  [30, 9],
  [0, 1],
  [20, 3],
];
const offsets = (o: Partial<Stagger>, places: readonly Point[] = five) =>
  staggerOffsets(places, { step: 4, order: 'list', gaps: 'even', seed: 1, ...o });

describe('a stagger', () => {
  it.each([
    ['list', [0, 4, 8, 12, 16]],
    ['reversed', [16, 12, 8, 4, 0]],
    ['centre', [8, 4, 0, 4, 8]],
    ['edges', [0, 4, 8, 4, 0]],
    ['across', [16, 4, 12, 0, 8]],
    ['down', [0, 12, 16, 4, 8]],
  ] as const)('by %s', (order, wanted) => {
    expect(offsets({ order })).toEqual(wanted);
  });
  it('of an even number from the centre begins with two', () => {
    expect(offsets({ order: 'centre' }, five.slice(0, 4))).toEqual([4, 0, 0, 4]);
    expect(offsets({ order: 'edges' }, five.slice(0, 4))).toEqual([0, 4, 4, 0]);
  });
  it('at random gives each its turn, the same for a seed', () => {
    const a = offsets({ order: 'random', seed: 3 });
    expect(a.toSorted((x, y) => x - y)).toEqual([0, 4, 8, 12, 16]);
    expect(offsets({ order: 'random', seed: 3 })).toEqual(a);
    expect([4, 5, 6, 7].some((seed) => offsets({ order: 'random', seed }).join() !== a.join())).toBe(true);
  });
  it('with gaps that grow or shrink takes as long in all', () => {
    const gapsOf = (list: number[]) => list.slice(1).map((v, i) => v - list[i]!);
    const [growing, shrinking] = [offsets({ gaps: 'growing', step: 16 }), offsets({ gaps: 'shrinking', step: 16 })];
    expect([growing.at(-1), shrinking.at(-1)]).toEqual([64, 64]);
    expect(gapsOf(growing)).toEqual(gapsOf(growing).toSorted((a, b) => a - b));
    expect(gapsOf(shrinking)).toEqual(gapsOf(growing).toReversed());
  });
  it.each(STAGGER_ORDERS)('by %s: whole frames, of one thing and of none nothing', (order) => {
    expect(offsets({ order, step: 1.37 }).every(Number.isInteger)).toBe(true);
    expect(offsets({ order }, [[0, 0]])).toEqual([0]);
    expect(offsets({ order }, [])).toEqual([]);
  });
});
