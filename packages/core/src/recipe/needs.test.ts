import { describe, expect, it } from 'vitest';
import { newController, newDrawing, newItem, newNest, newPicture, newScene } from '../document/make';
import type { Item, PictureAsset } from '../document/types';
import { assetsOf } from '../scene/whole';
import { needsOf, relinked, soleSource } from './needs';

const scene = newScene('s', 'Scene', {
  width: 200,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const hold = { kind: 'hold' } as const;
const swapped: Item = {
  ...newItem('c', 'picture'),
  params: {
    asset: {
      keys: [
        { frame: 0, value: 'lamp', ease: hold },
        { frame: 20, value: 'tram', ease: hold },
      ],
    },
  },
};
const layer = newDrawing(scene, 'l', 'All', [
  swapped,
  newItem('n', 'nest', { scene: 'inner' }),
  { ...newItem('off', 'nest', { scene: 'other' }), on: false },
  newItem('t', 'text', { font: { family: 'Lora', weight: 400, italic: false } }),
]);

describe('what a layer needs', () => {
  it('is told by the kinds of its parameters, at any frame, on or off', () => {
    const { assets, scenes, fonts } = needsOf(layer);
    expect([[...assets], [...scenes], fonts.map((f) => f.family)]).toEqual([
      ['lamp', 'tram'],
      ['inner', 'other'],
      ['Lora'],
    ]);
    expect(needsOf(layer)).toBe(needsOf({ ...layer, name: 'Moved' }));
  });
  it('is nothing of a controller, nor of cards that show nothing yet', () => {
    const empty = newDrawing(scene, 'e', 'Empty', [newItem('p', 'picture'), newItem('n', 'nest')]);
    for (const one of [newController(scene, 'c', 'Rig'), empty]) {
      expect([...needsOf(one).assets, ...needsOf(one).scenes, ...needsOf(one).fonts]).toEqual([]);
    }
  });
  it('names the files that go along: pictures by id, fonts by family', () => {
    const picture = (id: string): PictureAsset => ({
      id,
      name: id,
      sha: 'ab'.repeat(32),
      bytes: 1,
      kind: 'picture',
      type: 'image/png',
      width: 1,
      height: 1,
    });
    const font = {
      ...picture('own'),
      kind: 'font',
      family: 'Lora',
      weight: 400,
      italic: false,
      weights: null,
    } as const;
    const assets = { lamp: picture('lamp'), moon: picture('moon'), own: font };
    expect(assetsOf([layer], assets).map((a) => a.id)).toEqual(['lamp', 'own']);
  });
  it('can be swapped for what is in another project, keyframes and all', () => {
    const copy = relinked(layer, 'asset', (id) => (id === 'tram' ? 'theirs' : id));
    expect([...needsOf(copy).assets]).toEqual(['lamp', 'theirs']);
    expect(relinked(layer, 'asset', (id) => (id === 'moon' ? 'theirs' : id))).toBe(layer);
  });
});

describe('what a layer is to a person', () => {
  it.each([
    [newPicture(scene, 'p', 'P', 'lamp'), 'picture'],
    [newNest(scene, 'n', 'N', 'inner'), 'nest'],
    [newDrawing(scene, 'd', 'D', [newItem('a', 'star'), newItem('f', 'fill')]), 'star'],
    [layer, null],
    [newController(scene, 'c', 'Rig'), null],
  ])('is its only source, where it has one', (of, kind) => {
    expect(soleSource(of)).toBe(kind);
  });
});
