import { formatHex8, interpolate, oklab, parse } from 'culori';
import { describe, expect, it } from 'vitest';
import { Chance } from '../test/random';
import { mixable, mixColors } from './color';

describe('colours', () => {
  it('are read and mixed as the library does it by itself (premultiplied OKLab)', () => {
    const chance = new Chance(7);
    const hex = (digits: number) =>
      `#${Array.from({ length: digits }, () => chance.whole(0, 15).toString(16)).join('')}`;
    for (let n = 0; n < 400; n++) {
      const [from, to] = [hex(chance.one([3, 4, 6, 8])), hex(chance.one([3, 4, 6, 8]))] as const;
      const own = mixable(from);
      const theirs = oklab(from);
      expect(own.l).toBeCloseTo(theirs?.l ?? NaN, 12);
      expect(own.alpha).toBeCloseTo(theirs?.alpha ?? 1, 12);
      const t = chance.between(0.01, 0.99);
      const mixed = parse(mixColors(from, to, t));
      const wanted = interpolate([from, to], 'oklab')(t);
      // Theirs is not premultiplied: of the lightness alone where nothing shows through.
      if (own.alpha === 1 && mixable(to).alpha === 1) expect(formatHex8(mixed)).toBe(formatHex8(wanted));
      else expect(mixed?.alpha ?? 1).toBeCloseTo(wanted.alpha ?? 1, 2);
    }
  });

  it('refuse what is no hex colour', () => {
    for (const wrong of ['red', '#12', '#12345', 'ff0000', '#gg0000']) {
      expect(() => mixable(wrong)).toThrow(`not a hex colour: ${wrong}`);
    }
  });
});
