import { describe, expect, it } from 'vitest';
import type { Assets, FontAsset } from '../document/types';
import { type FontFile, FontShelf, STAND_IN } from './shelf';

const own = (family: string, weight: number, italic = false, weights: FontAsset['weights'] = null): FontAsset => ({
  id: `${family}${weight}`,
  name: family,
  sha: `${family}${weight}`.padEnd(64, '0').toLowerCase(),
  bytes: 1,
  kind: 'font',
  family,
  weight,
  italic,
  weights,
});
const assetsOf = (...fonts: FontAsset[]): Assets => Object.fromEntries(fonts.map((f) => [f.id, f]));

/** Which files a shelf asks for; all of them fail, since no engine is needed to know. */
const askedFor = async (family: string, weight: number, italic: boolean, assets: Assets = {}) => {
  const asked: FontFile[] = [];
  const shelf = new FontShelf((file) => {
    asked.push(file);
    return Promise.reject(new Error('away'));
  });
  await shelf.fetch([{ family, weight, italic }], assets);
  return asked;
};

describe('a font is looked for', () => {
  it('among the user’s own first', async () => {
    const [file] = await askedFor('Lora', 700, false, assetsOf(own('Lora', 700)));
    expect(file).toMatchObject({ from: 'asset', weight: 700 });
  });
  it('by the nearest weight and its slope', async () => {
    const family = assetsOf(own('Own', 300), own('Own', 800));
    expect((await askedFor('Own', 600, false, family))[0]).toMatchObject({ from: 'asset', weight: 800 });
    expect((await askedFor('Caveat', 900, true))[0]).toEqual({
      from: 'application',
      family: 'caveat',
      weight: 700,
      italic: false,
    });
  });
  it('in a variable font at the very weight, within its limits', async () => {
    const variable = assetsOf(own('Vary', 400, false, [200, 800]));
    expect((await askedFor('Vary', 530, false, variable))[0]).toMatchObject({ weight: 530 });
    expect((await askedFor('Vary', 950, false, variable))[0]).toMatchObject({ weight: 800 });
  });
  it('and where it is nowhere, or cannot be fetched, one that stands in', async () => {
    expect(STAND_IN).toBe('Inter');
    expect((await askedFor('Quillhaven Sans', 400, false))[0]).toMatchObject({ family: 'inter', weight: 400 });
    expect((await askedFor('Lora', 500, false)).map((f) => f.from === 'application' && f.family)).toEqual([
      'lora',
      'inter',
    ]);
  });
});

it('each file is asked for once, and the fonts stay one object while nothing comes in', async () => {
  let asked = 0;
  const shelf = new FontShelf(() => {
    asked++;
    return Promise.reject(new Error('away'));
  });
  const choice = { family: 'Inter', weight: 400, italic: false };
  const fonts = shelf.fonts({});
  await Promise.all([shelf.fetch([choice, choice], {}), shelf.fetch([choice], {})]);
  await shelf.fetch([choice], {});
  expect(asked).toBe(1);
  expect(shelf.fonts({}) === shelf.fonts({})).toBe(false);
  const assets = {};
  expect(shelf.fonts(assets)).toBe(shelf.fonts(assets));
  expect(fonts.find(choice)).toBeNull();
});
