import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Item, Project, Scene } from '../document/types';
import { checkProject } from '../check/project';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { setValue } from './properties';
import { addLayers, cardsAlone, pasteCards } from './layers';

const empty = newScene('s', 'S', { width: 200, height: 100, rate: { num: 25, den: 1 }, length: 20, background: null });
let ids = 0;
const makeId = () => `n${++ids}`;

/** A group that holds a square as wide as a formula says, of the group's own opacity; and a shadow. */
const from = ((): DrawingLayer => {
  const square: Item = {
    ...newItem('r', 'rectangle', { width: 10 }),
    formulas: { width: { text: '{@this/g/opacity} * 40', on: true } },
  };
  const group = { ...newItem('g', 'group', { opacity: 0.5 }), name: 'Box', children: ['r', 'f'] };
  const cards = [group, square, newItem('f', 'fill'), newItem('x', 'shadow', { distance: 9 })];
  return newDrawing(empty, 'a', 'From', cards);
})();
const to = newDrawing(empty, 'b', 'To', [newItem('e', 'ellipse'), newItem('ef', 'fill')]);
const doc = applyEdit(newProject('p', 'P', [empty]), addLayers('s', [from, to])).doc;
const drawingOf = (of: Project, id: string) => of.scenes.s?.layers[id] as DrawingLayer;

describe('cards that are copied', () => {
  it('stand alone with all that is in them, and are pasted in order where they are wanted', () => {
    const alone = cardsAlone(from, ['g', 'x']);
    expect(Object.keys(alone.items).sort()).toEqual(['f', 'g', 'r', 'x']);
    const next = applyEdit(doc, pasteCards('s', 'b', alone, null, 1, makeId)).doc;
    const { recipe, items } = drawingOf(next, 'b');
    expect(recipe.map((id) => items[id]?.kind)).toEqual(['ellipse', 'group', 'shadow', 'fill']);
    expect(items[recipe[2] ?? '']?.params).toEqual(from.items.x?.params);
    expect(drawingOf(next, 'a')).toBe(drawingOf(doc, 'a'));
    checkProject(next);
  });
  it('read in the copies what they read in themselves', () => {
    const next = applyEdit(doc, pasteCards('s', 'b', cardsAlone(from, ['g']), null, 0, makeId)).doc;
    const { recipe, items } = drawingOf(next, 'b');
    const square = items[items[recipe[0] ?? '']?.children?.[0] ?? ''] as Item;
    const program = compileScene(next.scenes.s as Scene, NO_LIBRARY);
    expect([program.problems, program.cardAt('b', square.id, 0)?.values.width]).toEqual([[], 20]);
  });
  it('read in the layer they come into what they read in their own, by its name too', () => {
    const own: Item = {
      ...newItem('o', 'blur'),
      formulas: { amount: { text: '{@a/opacity} * 8 + {@a/x/distance}', on: true } },
    };
    const reading = { ...from, items: { ...from.items, o: own }, recipe: [...from.recipe, 'o'] };
    const alone = cardsAlone(reading, ['x', 'o']);
    const faint = applyEdit(
      doc,
      setValue({ scene: 's', layer: 'b', key: 'opacity' }, 0.5, { write: 'curve', frame: 0 }),
    ).doc;
    const next = applyEdit(faint, pasteCards('s', 'b', alone, null, 2, makeId)).doc;
    const program = compileScene(next.scenes.s as Scene, NO_LIBRARY);
    const blur = drawingOf(next, 'b').recipe[3] as string;
    expect([program.problems, program.cardAt('b', blur, 0)?.values.amount]).toEqual([[], 13]);
  });
  it('come once more each time, with ids of their own', () => {
    const twice = [0, 1].reduce(
      (now) => applyEdit(now, pasteCards('s', 'a', cardsAlone(from, ['g']), null, 0, makeId)).doc,
      doc,
    );
    expect(Object.keys(drawingOf(twice, 'a').items)).toHaveLength(10);
    checkProject(twice);
  });
});
