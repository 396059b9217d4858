import { expect, it } from 'vitest';
import { newController, newDrawing, newItem, newScene } from '../document/make';
import type { Layer, Scene } from '../document/types';
import { boxOfLayers, distanceOut, layerBox, layerBoxInScene } from './bounds';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';

const empty = newScene('s', 'Depot', {
  width: 200,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const blurred = (amount: number): Scene => {
  const cards = [
    newItem('a', 'rectangle', { width: 20, height: 20 }),
    newItem('b', 'fill'),
    newItem('c', 'blur', { amount }),
  ];
  return { ...empty, layers: { l: newDrawing(empty, 'l', 'Lamp', cards, { position: [100, 50] }) }, order: ['l'] };
};

it('a layer is handled by what it draws, and is out of the scene once what effects spread is out too', () => {
  const program = compileScene(blurred(10), NO_LIBRARY);
  expect(layerBox(program, 'l', 0)).toEqual({ left: -10, top: -10, right: 10, bottom: 10 });
  expect(layerBox(program, 'l', 0, true)).toEqual({ left: -40, top: -40, right: 40, bottom: 40 });
  // To the right: 100 pixels to the edge, half the square, three deviations.
  expect(distanceOut(program, 'l', 0, 0)).toBeCloseTo(140, 9);
  expect(distanceOut(compileScene(blurred(0), NO_LIBRARY), 'l', 0, 0)).toBeCloseTo(110, 9);
});

it('in the scene a disc is as wide as it is however its layer, and what that hangs from, are turned', () => {
  const cards = [
    newItem('a', 'ellipse', { width: 40, height: 40 }),
    newItem('b', 'stroke', { width: 6, join: 'miter' }),
  ];
  const disc = newDrawing(empty, 'l', 'Lamp', cards, { position: [10, 0] });
  const post = { ...newController(empty, 'p', 'Post', { position: [100, 50] }), group: true };
  const turned = <L extends Layer>(layer: L, by: number): L => ({
    ...layer,
    params: { ...layer.params, rotation: { value: by } },
  });
  const scene: Scene = {
    ...empty,
    layers: { l: { ...turned(disc, 30), parent: 'p' }, p: turned(post, 15) },
    order: ['l', 'p'],
  };
  const program = compileScene(scene, NO_LIBRARY);
  const [x, y] = [100 + 10 * Math.cos(Math.PI / 12), 50 + 10 * Math.sin(Math.PI / 12)];
  for (const id of ['l', 'p']) {
    const box = layerBoxInScene(program, id, 0)!;
    // Four cubics are off a circle by at most 2.7e-4 of its radius.
    [x - 23, y - 23, x + 23, y + 23].forEach((side, i) =>
      expect(Math.abs((Object.values(box)[i] as number) - side)).toBeLessThan(20 * 2.8e-4),
    );
  }
  expect(boxOfLayers(program, ['l', 'p'], 0)).toEqual(layerBoxInScene(program, 'l', 0));
});
