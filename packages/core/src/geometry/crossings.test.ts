import { describe, expect, it } from 'vitest';
import { Chance } from '../test/random';
import { pairsThatMeet } from './crossings';

type Run = { x: number; y: number }[];

/** All pairs, one by one. */
const counted = (runs: readonly Run[], reach: number): number => {
  const boxes = runs.flatMap((run) =>
    run.map((p, i) => {
      const q = run[(i + 1) % run.length] as (typeof run)[number];
      return [Math.min(p.x, q.x), Math.max(p.x, q.x), Math.min(p.y, q.y), Math.max(p.y, q.y)] as const;
    }),
  );
  let met = 0;
  boxes.forEach((a, i) => {
    for (const b of boxes.slice(i + 1)) {
      const apart = Math.max(b[0] - a[1], a[0] - b[1], b[2] - a[3], a[2] - b[3]);
      if (apart <= 2 * reach) met++;
    }
  });
  return met;
};

describe('pairs of lines that meet', () => {
  it('are as many as counting one by one gives', () => {
    const chance = new Chance(3);
    for (let round = 0; round < 50; round++) {
      const runs = chance.times(1, 4, () =>
        chance.times(3, 40, () => ({ x: chance.whole(0, 300), y: chance.whole(0, 300) })),
      );
      const reach = chance.whole(0, 20);
      expect(pairsThatMeet(runs, 1e6, () => reach)).toBe(counted(runs, reach));
    }
  });
  it('of a polygon that does not cross itself are the corners', () => {
    const square: Run = [
      { x: 0, y: 0 },
      { x: 9, y: 0 },
      { x: 9, y: 9 },
      { x: 0, y: 9 },
    ];
    expect(pairsThatMeet([square], 100)).toBe(4);
  });
  it('are not counted past the most', () => {
    const chance = new Chance(5);
    const tangle = chance.times(3_000, 3_000, () => ({ x: chance.whole(0, 100), y: chance.whole(0, 100) }));
    expect(pairsThatMeet([tangle], 1_000)).toBe(Infinity);
    // Long level lines, one above the other: none meets, and all are looked at.
    const levels = Array.from({ length: 4_000 }, (_, i) => [
      { x: 0, y: i * 10 },
      { x: 900, y: i * 10 },
    ]);
    expect(pairsThatMeet(levels, 10_000)).toBe(Infinity);
  });
});
