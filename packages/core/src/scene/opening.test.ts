import { expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Layer, Scene } from '../document/types';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';
import { openingFrame } from './opening';

const size = { width: 200, height: 100, rate: { num: 25, den: 1 }, length: 50, background: null };
/** Squares that are there from frames on. */
const scene = (...from: readonly (readonly [frame: number, x: number])[]): Scene => {
  const empty = newScene('s', 'Depot', size);
  const layers = from.map(([frame, x], i): Layer => {
    const cards = [newItem('a', 'rectangle', { width: 20, height: 20 }), newItem('b', 'fill')];
    return { ...newDrawing(empty, `l${i}`, 'Lamp', cards, { position: [x, 50] }), from: frame };
  });
  return { ...empty, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) };
};
const opened = (of: Scene) => openingFrame(compileScene(of, NO_LIBRARY));

it('a scene is looked at where most of it is there: at its first frame, or at its poster', () => {
  expect(opened(scene())).toBe(0);
  expect(opened(scene([0, 100]))).toBe(0);
  expect(opened(scene([0, 100], [10, 100]))).toBe(0);
  expect(opened(scene([0, 100], [10, 100], [20, 100]))).toBe(25);
});
it('of very many layers some are looked at, all along the stack', () => {
  const late = Array.from({ length: 900 }, () => [10, 100] as const);
  expect(opened(scene(...late))).toBe(25);
  expect(opened(scene(...late, ...late.map(() => [0, 100] as const)))).toBe(0);
});
it('what is outside of it does not count, at either', () => {
  expect(opened(scene([0, -300], [10, 100]))).toBe(25);
  expect(opened(scene([0, 100], [10, -300], [10, 900]))).toBe(0);
});
