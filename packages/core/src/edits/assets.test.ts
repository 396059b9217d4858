import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newPicture, newProject, newScene } from '../document/make';
import type { PictureAsset, Project, Scene } from '../document/types';
import { layerBoxInScene } from '../scene/bounds';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { addAsset, swapAsset } from './assets';
import { addLayers } from './layers';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 100, background: null } as const;
const first = newScene('s', 'One', size);
const file = (id: string, width: number, height: number): PictureAsset => ({
  id,
  kind: 'picture',
  type: 'image/png',
  name: id,
  sha: id.repeat(64).slice(0, 64),
  bytes: 100,
  width,
  height,
});
const boxOf = (doc: Project, layer: string) => {
  const program = compileScene(doc.scenes.s as Scene, { ...NO_LIBRARY, assets: doc.assets });
  const box = layerBoxInScene(program, layer, 0);
  return box && [box.left, box.top, box.right, box.bottom].map((x) => Math.round(x * 1e6) / 1e6);
};

describe('a swapped picture', () => {
  const blind = newDrawing(first, 'b', 'Blind', [
    newItem('bp', 'picture', { asset: 'a' }),
    newItem('br', 'repeater', { copies: 1 }),
  ]);
  const doc = done(
    newProject('p', 'Project', [first]),
    addAsset(file('a', 100, 50)),
    addLayers('s', [
      {
        ...newPicture(first, 'l', 'Badge', 'a'),
        params: { position: { value: [200, 150] }, scale: { value: [2, 2] } },
      },
      blind,
    ]),
  );
  it('fills as much as the one before, alone or among other cards', () => {
    expect(boxOf(doc, 'l')).toEqual([100, 100, 300, 200]);
    const twice = done(doc, swapAsset('a', file('b', 200, 100)));
    expect(boxOf(twice, 'l')).toEqual([100, 100, 300, 200]);
    expect(boxOf(twice, 'b')).toEqual(boxOf(doc, 'b'));
    expect(twice.scenes.s?.layers.l?.params.scale).toEqual({ value: [2, 2] });
    expect(boxOf(done(twice, swapAsset('a', file('c', 100, 50))), 'l')).toEqual([100, 100, 300, 200]);
  });
  it('of other proportions stays within what the one before filled', () => {
    expect(boxOf(done(doc, swapAsset('a', file('b', 100, 100))), 'l')).toEqual([150, 100, 250, 200]);
  });
});
