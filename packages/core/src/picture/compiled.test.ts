import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compiledWat } from '../../../../scripts/wat.mjs';
import { Chance } from '../test/random';
import { throughLoop, WIDEST } from './compiled';
import { LOOPS_WASM } from './loopsWasm';
import { brightnessThrough, channelsThrough } from './pixels';

describe('compiled loops', () => {
  it('are what their source is compiled to', async () => {
    expect(LOOPS_WASM).toBe(await compiledWat(readFileSync(new URL('./loops.wat', import.meta.url), 'utf8')));
  });

  it.each([
    ['channels', channelsThrough, 768],
    ['brightness', brightnessThrough, 256],
  ] as const)('change pixels by %s to the bit as TypeScript does, over more than one run', (by, plain, count) => {
    const chance = new Chance(7);
    const table = Array.from({ length: count }, (_, i) => chance.whole(0, 255) << (8 * (i >> 8)));
    for (const least of [0, 0xff000000]) {
      const pixels = Uint32Array.from({ length: WIDEST + 77 }, () => (chance.whole(0, 0xffffffff) | least) >>> 0);
      const [quick, own] = [pixels.slice(), pixels.slice()];
      const all = throughLoop(by, quick, table);
      expect(all).toBe(plain(own, table));
      expect(all! >>> 24).toBe(least >>> 24);
      expect(quick).toEqual(own);
    }
  });
});
