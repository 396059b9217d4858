import { describe, expect, it } from 'vitest';
import { Chance } from '../test/random';
import { fade, plainRows, quickRows, type Rows } from './rows';

const WIDTH = 101;
const shades = (alpha: (i: number) => number) =>
  Array.from({ length: 256 }, (_, i) => ((alpha(i) << 24) | (i * 0x010101)) >>> 0);
const OPAQUE = shades(() => 255);

/** What rows make of the same noise, in runs of all lengths, and of the same pixels. */
const drawn = (rows: Rows, seed: number, pixels: Uint32Array): number[] => {
  const chance = new Chance(seed);
  const some = () => chance.between(-1, 1);
  rows.clear(WIDTH);
  for (let from = 0, count = 0; from < WIDTH; from += count) {
    count = Math.min(WIDTH - from, chance.whole(1, 12));
    rows.level(from, count, some(), some() / 9, some(), some(), some(), some(), chance.happens(0.5));
  }
  for (let from = 0, count = 0; from < WIDTH; from += count) {
    count = Math.min(WIDTH - from, chance.whole(1, 12));
    const [u, v, c, s, p, q, r, t] = Array.from({ length: 8 }, some) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    rows.turned(from, count, u, v, c / 9, s / 9, p, q, r, t, some(), some(), some(), some(), chance.happens(0.5));
  }
  rows.shade(pixels, 3, WIDTH, 100, 120);
  return [...pixels];
};

describe('rows of clouds', () => {
  const pixels = () => {
    const chance = new Chance(5);
    return Uint32Array.from(
      { length: WIDTH + 9 },
      () => chance.whole(0, 0xffffff) + chance.one([0, 1, 128, 255]) * 2 ** 24,
    );
  };

  it('are the same to the bit in WebAssembly and in TypeScript', () => {
    for (const all of [OPAQUE, shades((i) => i), shades(() => 0)]) {
      const quick = quickRows(WIDTH, all);
      expect(quick).not.toBeNull();
      for (let seed = 0; seed < 20; seed++) {
        expect(drawn(quick!, seed, pixels())).toEqual(drawn(plainRows(WIDTH, all), seed, pixels()));
      }
    }
  });

  it('are the sum of what is added, and leave what is beyond the row and what is transparent as it is', () => {
    for (const rows of [plainRows(WIDTH, OPAQUE), quickRows(WIDTH, OPAQUE)!]) {
      const own = Uint32Array.from({ length: WIDTH + 9 }, (_, i) => (i === 10 ? 0x00123456 : 0xff000000));
      rows.clear(WIDTH);
      // 0.25 in each of the first five, as it is; without its sign where it is folded.
      rows.level(0, 5, 0, 0.1, 0, -0.25, 0, 0, true);
      rows.level(2, 2, 0.5, 0, 0, 0, 0, 1, false);
      rows.shade(own, 3, WIDTH, 0, 200);
      const of = (n: number) => (0xff000000 | (Math.round(n) * 0x010101)) >>> 0;
      const half = 200 * (0.25 + fade(0.5));
      expect([...own.slice(0, 12)]).toEqual([
        of(0),
        of(0),
        of(0),
        of(50),
        of(50),
        of(half),
        of(half),
        of(50),
        of(0),
        of(0),
        0x00123456,
        of(0),
      ]);
      expect([...own.slice(WIDTH + 3)]).toEqual(Array.from({ length: 6 }, () => 0xff000000));
    }
  });
});
