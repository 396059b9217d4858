import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Item, Scene } from '../document/types';
import { apply } from '../geometry/matrix';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';
import { frameAround, frameInside, matrixOfNest, settingsOfNest } from './inPlace';

const inner = newScene('in', 'In', { width: 100, height: 60, rate: { num: 50, den: 1 }, length: 40, background: null });
const empty = newScene('out', 'Out', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 100,
  background: null,
});
const around = (values: { [key: string]: number | string }) => {
  const nest = newDrawing(empty, 'n', 'Nest', [newItem('c', 'nest', { scene: 'in', ...values })]);
  const placed = { ...nest, params: { position: { value: [200, 150] }, scale: { value: [2, 2] } } } as const;
  const scene: Scene = { ...empty, layers: { n: placed }, order: ['n'], nested: { in: inner } };
  return compileScene(scene, NO_LIBRARY);
};
const at = { layer: 'n', card: 'c' };

describe('a nest seen in its place', () => {
  it('has the corners of its scene where they stand around it', () => {
    const matrix = matrixOfNest(around({}), at, 0, inner)!;
    expect(apply(matrix, [0, 0])).toEqual([100, 90]);
    expect(apply(matrix, [100, 60])).toEqual([300, 210]);
  });
  it('is at the frame that shows: twice as many frames a second run inside', () => {
    const program = around({ start: 10 });
    expect([5, 10, 15, 90].map((frame) => frameInside(program, at, frame, inner))).toEqual([null, 0, 10, 39]);
    expect(frameAround(program, at, 10, inner, 40)).toBe(15);
  });
  it('finds the nearest of several rounds, and stays where a frame never comes', () => {
    const rounds = around({ rounds: 3 });
    // A round takes 20 frames around it.
    expect([0, 21, 55].map((near) => frameAround(rounds, at, 10, inner, near))).toEqual([5, 25, 45]);
    expect(frameAround(around({ play: 'freeze', still: 7 }), at, 20, inner, 33)).toBe(33);
  });
  it('is nothing where there is no nest', () => {
    expect(matrixOfNest(around({}), { layer: 'n', card: 'gone' }, 0, inner)).toBeNull();
  });
  it('says what it sets inside, at each frame', () => {
    const own: Item = {
      ...newItem('own', 'own-number'),
      sets: 'wide',
      params: {
        value: {
          value: 0,
          keys: [
            { frame: 0, value: 10, ease: { kind: 'linear' } },
            { frame: 10, value: 30, ease: { kind: 'linear' } },
          ],
        },
      },
    };
    const card: Item = { ...newItem('c', 'nest', { scene: 'in' }), children: ['own'] };
    const scene: Scene = {
      ...empty,
      layers: { n: newDrawing(empty, 'n', 'Nest', [card, own]) },
      order: ['n'],
      nested: { in: inner },
    };
    const program = compileScene(scene, NO_LIBRARY);
    expect([0, 5, 20].map((frame) => settingsOfNest(program, at, frame))).toEqual([
      { wide: 10 },
      { wide: 20 },
      { wide: 30 },
    ]);
    expect(settingsOfNest(program, { layer: 'n', card: 'gone' }, 0)).toEqual({});
  });
});
