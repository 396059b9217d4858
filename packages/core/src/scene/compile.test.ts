import { describe, expect, it } from 'vitest';
import { newController, newDrawing, newItem, newScene } from '../document/make';
import type { Layer, Scene, Value } from '../document/types';
import type { FillMark } from '../recipe/types';
import { layerBox, layerBoxInScene } from './bounds';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';

const empty = newScene('s', 'Scene', {
  width: 200,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 50,
  background: '#10132E',
});
const square = (id: string, fields: Partial<Layer> = {}, params: { [key: string]: Value } = {}): Layer => {
  const layer = newDrawing(empty, id, id, [newItem('r', 'rectangle', { width: 20, height: 20 }), newItem('f', 'fill')]);
  const own = Object.fromEntries(
    Object.entries({ position: [0, 0], ...params }).map(([k, v]) => [k, { value: v as Value }]),
  );
  return { ...layer, ...fields, params: own } as Layer;
};
const sceneOf = (...layers: Layer[]): Scene => ({
  ...empty,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});
const at = (scene: Scene, frame = 0) => compileScene(scene, NO_LIBRARY).at(frame);
const origin = (mark: unknown) => (mark as FillMark).matrix.slice(4);

describe('a scene at a frame', () => {
  it('draws layers back to front: the first of the list is drawn last', () => {
    const marks = at(
      sceneOf(square('front', {}, { position: [1, 0] }), square('back', {}, { position: [2, 0] })),
    ).marks;
    expect(marks.map(origin)).toEqual([
      [2, 0],
      [1, 0],
    ]);
  });
  it('leaves out what is hidden, what has not begun and what has ended', () => {
    const scene = sceneOf(square('a', { hidden: true }), square('b', { from: 10, to: 20 }));
    expect([0, 9, 10, 19, 20].map((f) => at(scene, f).marks.length)).toEqual([0, 0, 1, 1, 0]);
  });
  it('carries layers along with their parents, but not their opacity', () => {
    const rig = {
      ...newController(empty, 'rig', 'Rig'),
      params: { position: { value: [100, 0] }, rotation: { value: 90 }, opacity: { value: 0 } },
    } as Layer;
    const [mark] = at(sceneOf(square('child', { parent: 'rig' }, { position: [10, 0] }), rig)).marks;
    expect(origin(mark)).toEqual([100, 10]);
    expect(mark?.alpha).toBe(1);
  });
  it('names a cycle of parents and draws on', () => {
    const list = at(sceneOf(square('a', { parent: 'b' }), square('b', { parent: 'a' })));
    expect(list.marks).toHaveLength(2);
    expect(list.problems[0]?.message).toBe('is its own parent: a → b → a');
  });
  it('fades a layer of several marks as one picture, and a single mark by itself', () => {
    const both = newDrawing(empty, 'x', 'x', [newItem('e', 'ellipse'), newItem('f', 'fill'), newItem('s', 'stroke')]);
    const half = { ...both, params: { ...both.params, opacity: { value: 0.5 } } };
    expect(at(sceneOf(half)).marks[0]).toMatchObject({ op: 'group', alpha: 0.5, marks: [{ alpha: 1 }, { alpha: 1 }] });
    expect(at(sceneOf(square('y', {}, { opacity: 0.25 }))).marks[0]).toMatchObject({ op: 'fill', alpha: 0.25 });
  });
  it('says when a layer would make too many copies', () => {
    const many = newDrawing(empty, 'x', 'x', [
      newItem('e', 'ellipse'),
      newItem('f', 'fill'),
      newItem('r1', 'repeater', { copies: 1000 }),
      newItem('r2', 'repeater', { copies: 1000 }),
    ]);
    expect(at(sceneOf(many)).problems[0]?.message).toContain('20,000 copies');
  });
});

describe('caches', () => {
  it('an edit to one layer leaves the other layers’ outlines the very same objects', () => {
    const [a, b] = [square('a'), square('b')];
    const before = at(sceneOf(a, b)).marks as FillMark[];
    const after = at(sceneOf({ ...a, name: 'renamed' }, b)).marks as FillMark[];
    expect(after[0]?.outlines[0]).toBe(before[0]?.outlines[0]);
  });
  it('moving a layer does not touch its recipe', () => {
    const a = square('a');
    const moved = { ...a, params: { ...a.params, position: { value: [50, 50] as const } } };
    const [before] = at(sceneOf(a)).marks as FillMark[];
    const [after] = at(sceneOf(moved)).marks as FillMark[];
    expect(after?.outlines[0]).toBe(before?.outlines[0]);
    expect(origin(after)).toEqual([50, 50]);
  });
});

it('a layer’s box is tight in its own pixels and upright in the scene', () => {
  const program = compileScene(sceneOf(square('a', {}, { position: [100, 50], rotation: 45 })), NO_LIBRARY);
  expect(layerBox(program, 'a', 0)).toEqual({ left: -10, top: -10, right: 10, bottom: 10 });
  const reach = Math.SQRT2 * 10;
  expect(layerBoxInScene(program, 'a', 0)?.right).toBeCloseTo(100 + reach, 9);
});
