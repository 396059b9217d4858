import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import type { Layer, Scene } from '../document/types';
import { layersThatMove, leadsOf, readersOf, readersOfPart, withFollowers } from './follows';

const empty = newScene('s', 'S', { width: 9, height: 9, rate: { num: 25, den: 1 }, length: 9, background: null });
const layer = (id: string, fields: Partial<Layer> = {}): Layer =>
  ({ ...newDrawing(empty, id, id.toUpperCase(), [newItem(`${id}-e`, 'ellipse')]), ...fields }) as Layer;
const formula = (text: string, on = true) => ({ rotation: { text, on } });
const sceneOf = (...layers: Layer[]): Scene => ({
  ...empty,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});

describe('what follows what', () => {
  const scene = sceneOf(
    layer('lead'),
    layer('child', { parent: 'lead' }),
    layer('reader', { formulas: formula('{@child/rotation} + {@this/opacity}') }),
    layer('named', { formulas: formula('{Reader / Turn} * 2') }),
    layer('off', { formulas: formula('{@lead/rotation}', false) }),
    layer('free'),
  );
  it('is by parent, and by what formulas at work read', () => {
    expect([...leadsOf(scene, 'reader')]).toEqual(['child']);
    expect([...leadsOf(scene, 'named')]).toEqual(['reader']);
    expect([...leadsOf(scene, 'off'), ...leadsOf(scene, 'gone')]).toEqual([]);
  });
  it('moves what has keyframes or formulas, and what goes along', () => {
    const keys = [0, 9].map((frame) => ({ frame, value: frame, ease: { kind: 'linear' } }) as const);
    const turning = sceneOf(
      layer('lead', { params: { rotation: { keys } } }),
      layer('child', { parent: 'lead' }),
      layer('free'),
    );
    expect([layersThatMove(turning), layersThatMove(scene)]).toEqual([
      ['lead', 'child'],
      ['reader', 'named'],
    ]);
  });
  it('goes down the line', () => {
    expect([...withFollowers(scene, ['lead'])].sort()).toEqual(['child', 'lead', 'named', 'reader']);
    expect([...withFollowers(scene, ['free'])]).toEqual(['free']);
  });
  it('ends where layers follow each other in a circle', () => {
    const round = sceneOf(layer('a', { formulas: formula('{@b/rotation}') }), layer('b', { parent: 'a' }));
    expect([...withFollowers(round, ['a'])]).toEqual(['a', 'b']);
  });
  it('reads the formulas of cards as well', () => {
    const card = { ...newItem('r', 'rectangle'), formulas: { width: { text: '{@lead/rotation}', on: true } } };
    const scene = sceneOf(layer('lead'), newDrawing(empty, 'bar', 'Bar', [card]));
    expect([...withFollowers(scene, ['lead'])]).toEqual(['lead', 'bar']);
  });
  it('tells who reads what is to go, by id or by name, and not itself', () => {
    const card = { ...newItem('r', 'rectangle'), formulas: { width: { text: '{@lead/rotation}', on: true } } };
    const bar = newDrawing(empty, 'bar', 'Bar', [card, newItem('f', 'fill')]);
    const reader = layer('reader', { formulas: formula('{Bar / Rectangle / Width} + {Lead / Turn}') });
    const scene = sceneOf({ ...layer('lead'), name: 'Lead' }, bar, reader);
    const by = (all: ReturnType<typeof readersOf>) => all.map((r) => [r.by.layer, r.by.item, r.by.key]);
    expect(by(readersOf(scene, ['lead']))).toEqual([
      ['bar', 'r', 'width'],
      ['reader', undefined, 'rotation'],
    ]);
    expect(by(readersOf(scene, ['lead', 'reader']))).toEqual([['bar', 'r', 'width']]);
    expect(by(readersOfPart(scene, 'bar', 'r'))).toEqual([['reader', undefined, 'rotation']]);
    expect(readersOfPart(scene, 'bar', 'f')).toEqual([]);
  });
});
