import { describe, expect, it } from 'vitest';
import { choosable, readFeatures, withFeature } from './features';

const NONE = () => '';
const find = (tag: string, tags: string[] = []) => choosable(new Set(tags), NONE).find((one) => one.tag === tag)!;

describe('features of a font', () => {
  it('are those that it has and a user may choose, and digits of one width in any font', () => {
    const tags = new Set(['ccmp', 'smcp', 'liga', 'ss02', 'ss01', 'cv11', 'mark']);
    const named = choosable(tags, (tag) => (tag === 'ss01' ? 'Round a' : ''));
    expect(named.map(({ tag, label, given }) => [tag, label, given])).toEqual([
      ['tnum', 'Digits of one width', false],
      ['smcp', 'Small capitals', false],
      ['liga', 'Ligatures', true],
      ['cv11', 'Letter 11', false],
      ['ss01', 'Round a', false],
      ['ss02', 'Set 2', false],
    ]);
  });
  it('are listed where they are not as they are given', () => {
    expect([...readFeatures('tnum, x, -liga,, -')]).toEqual([
      ['tnum', true],
      ['liga', false],
    ]);
    const [tnum, liga] = [find('tnum'), find('liga', ['liga'])];
    expect(withFeature('', tnum, true)).toBe('tnum');
    expect(withFeature('tnum', liga, false)).toBe('tnum, -liga');
    expect(withFeature('tnum, -liga', liga, true)).toBe('tnum');
    expect(withFeature('tnum', tnum, false)).toBe('');
  });
});
