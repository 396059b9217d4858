import { describe, expect, it } from 'vitest';
import { urlOf } from './call';
import { CALLS } from './calls';
import { ASSETS } from './library';
import { PROJECTS } from './projects';
import { RENDERS } from './renders';

describe('an address', () => {
  it('has its parts in their places, whatever is in them', () => {
    expect(urlOf(PROJECTS.rename, { id: 'a1' })).toBe('/api/projects/a1/rename');
    expect(urlOf(RENDERS.banner, { id: 'r', name: 'a b/../c.js' })).toBe('/api/renders/r/banner/a%20b%2F..%2Fc.js');
  });
  it('asks what is given behind it, and nothing else', () => {
    expect(urlOf(RENDERS.file, { id: 'r' })).toBe('/api/renders/r/file');
    expect(urlOf(RENDERS.file, { id: 'r', download: '' })).toBe('/api/renders/r/file?download=');
    expect(urlOf(ASSETS.add, { name: 'Wort & Bild' })).toBe('/api/assets?name=Wort%20%26%20Bild');
  });
  it('is that of one call only', () => {
    const all = Object.values(CALLS).flatMap((calls) => Object.values(calls).map((c) => `${c.method} ${c.path}`));
    expect(new Set(all).size).toBe(all.length);
  });
});
