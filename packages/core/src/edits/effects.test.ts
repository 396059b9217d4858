import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Item, Project, Scene } from '../document/types';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { addLayers } from './layers';
import { cardsOfKind, effectsIn, forgetEffects, giveCards, keepEffects, putEffects, switchCards } from './effects';

const empty = newScene('s', 'S', { width: 200, height: 100, rate: { num: 25, den: 1 }, length: 20, background: null });
const blur: Item = {
  ...newItem('b', 'blur', { amount: 3 }),
  formulas: { amount: { text: '{@a/t/strength} * 10', on: true } },
};
const cards = [newItem('r', 'rectangle'), newItem('f', 'fill'), newItem('t', 'tint', { strength: 0.5 }), blur];
const from = newDrawing(empty, 'a', 'From', [
  ...cards,
  { ...newItem('m', 'mask'), children: [] },
  newItem('tr', 'trail'),
]);
const to = newDrawing(empty, 'z', 'To', [newItem('e', 'ellipse'), newItem('ef', 'fill')]);
const doc = applyEdit(newProject('p', 'P', [empty]), addLayers('s', [from, to])).doc;
const drawingOf = (of: Project, id: string) => of.scenes.s?.layers[id] as DrawingLayer;
const kept = applyEdit(doc, keepEffects('k', 'Neon', from, from.recipe)).doc;

describe('effects kept under a name', () => {
  it('are the effects alone, without what draws and what holds cards', () => {
    expect(effectsIn(from, from.recipe)).toEqual(['t', 'b', 'tr']);
    expect(kept.effects).toMatchObject([
      { id: 'k', name: 'Neon', cards: [{ kind: 'tint' }, { kind: 'blur' }, { kind: 'trail' }] },
    ]);
    checkProject(kept);
    expect(applyEdit(kept, forgetEffects('k')).doc.effects).toEqual([]);
  });
  it('are put in elsewhere in their order, and read in each other what they did', () => {
    const next = applyEdit(kept, putEffects('s', to, kept.effects[0]!, null, 2, countingIds('n'))).doc;
    checkProject(next);
    const { recipe, items } = drawingOf(next, 'z');
    expect(recipe.map((id) => items[id]?.kind)).toEqual(['ellipse', 'fill', 'tint', 'blur', 'trail']);
    const program = compileScene(next.scenes.s as Scene, NO_LIBRARY);
    expect([program.problems, program.cardAt('z', recipe[3]!, 0)?.values.amount]).toEqual([[], 5]);
  });
  it('are refused by the schema where they are no effects', () => {
    const wrong = { ...kept, effects: [{ ...kept.effects[0]!, cards: [newItem('x', 'rectangle')] }] };
    expect(() => checkProject(wrong)).toThrow('wanted an effect');
  });
});

describe('blur by motion of a scene', () => {
  const kind = 'motion-blur';
  const given = applyEdit(doc, giveCards('s', ['a', 'z'], kind, countingIds('n'))).doc;
  const onOf = (of: Project) =>
    cardsOfKind(of.scenes.s as Scene, kind).map(({ layer, item }) => drawingOf(of, layer).items[item]?.on);
  it('is given to each layer once, last in its recipe, and switched for all at once', () => {
    expect(drawingOf(given, 'z').recipe.map((id) => drawingOf(given, 'z').items[id]?.kind)).toEqual([
      'ellipse',
      'fill',
      kind,
    ]);
    const off = applyEdit(given, switchCards('s', kind, false)).doc;
    expect([onOf(given), onOf(off)]).toEqual([
      [true, true],
      [false, false],
    ]);
    const again = applyEdit(off, giveCards('s', ['a'], kind, countingIds('q'))).doc;
    expect(onOf(again).sort()).toEqual([false, true]);
    checkProject(again);
  });
});
