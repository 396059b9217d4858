import { expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Scene } from '../document/types';
import { distanceOut, layerBox } from './bounds';
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
