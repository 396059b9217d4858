import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import { applyPatches, type Edit } from '../document/patches';
import { applyEdit } from './apply';
import type { DrawingLayer, Id, KeyedProperty, Layer, Project } from '../document/types';
import { slideLayers } from './timing';
import { addLayers, copiesOf, moveLayers, removeLayers, setLayers } from './layers';
import { addKey, moveKeys, removeKeys, setEase } from './keyframes';
import { animate, removeAnimation, setBeyond, setValue } from './properties';
import { addItem, groupOf, moveItem, removeItem, setItem } from './recipe';
import { addScene, duplicateScene, moveScene, removeScene, renameProject, setScene } from './scenes';

const size = { width: 100, height: 100, rate: { num: 25, den: 1 }, length: 50, background: '#10132E' } as const;
const scene = newScene('s1', 'One', size);
const drawing = (id: string): Layer =>
  newDrawing(scene, id, id, [newItem(`${id}-r`, 'rectangle'), newItem(`${id}-f`, 'fill')]);
const base = applyEdit(
  newProject('p', 'Project', [scene]),
  addLayers('s1', [drawing('a'), drawing('b'), drawing('c')]),
).doc;
const position = { scene: 's1', layer: 'a', key: 'position' };
const width = { scene: 's1', layer: 'a', item: 'a-r', key: 'width' };
const keyed = applyEdit(
  base,
  animate(width, [
    [0, 10],
    [20, 50],
  ]),
).doc;

const layer = (doc: Project, id: Id) => doc.scenes.s1?.layers[id] as DrawingLayer;
const order = (doc: Project) => doc.scenes.s1?.order;
const widthOf = (doc: Project) => layer(doc, 'a').items['a-r']?.params.width as KeyedProperty;
const group = { ...newItem('g', 'group'), children: [] };
const grouped = applyEdit(base, addItem('s1', 'a', group, null, 0)).doc;

const EVERY: readonly (readonly [string, Project, Edit])[] = [
  ['rename the project', base, renameProject('Night Tram')],
  ['add a scene', base, addScene('s2', 'One', size)],
  ['duplicate a scene', base, duplicateScene('s1', 's2')],
  ['move a scene', applyEdit(base, addScene('s2', 'Two', size)).doc, moveScene('s2', 0)],
  ['remove a scene', applyEdit(base, addScene('s2', 'Two', size)).doc, removeScene('s1')],
  ['resize a scene', base, setScene('s1', { length: 80 })],
  ['add layers', base, addLayers('s1', [drawing('x'), drawing('y')], 'b')],
  ['remove layers', base, removeLayers('s1', ['a', 'c'])],
  ['move layers', base, moveLayers('s1', ['a'], 2)],
  ['hide a layer', base, setLayers('s1', ['a', 'b'], { hidden: true })],
  ['slide a layer', keyed, slideLayers('s1', ['a'], 7)],
  ['set a value', base, setValue(position, [3, 4], { write: 'curve', frame: 0 })],
  ['set a keyframe by value', base, setValue(width, 40, { write: 'key', frame: 9 })],
  ['add a keyframe', keyed, addKey(width, 10)],
  ['move keyframes', keyed, moveKeys([{ ref: width, frames: [0, 20] }], 5)],
  ['remove keyframes', keyed, removeKeys([{ ref: width, frames: [0, 20] }])],
  ['set an ease', keyed, setEase([{ ref: width, frames: [0] }], { kind: 'hold' })],
  ['loop', keyed, setBeyond(width, 'after', 'cycle')],
  ['remove the animation', keyed, removeAnimation(width, 10)],
  ['add a card', base, addItem('s1', 'a', newItem('n', 'trim'), null, 1)],
  ['remove a card', base, removeItem({ scene: 's1', layer: 'a', item: 'a-f' })],
  ['move a card into a group', grouped, moveItem({ scene: 's1', layer: 'a', item: 'a-r' }, 'g', 0)],
  ['switch a card off', base, setItem({ scene: 's1', layer: 'a', item: 'a-f' }, { on: false })],
];

describe.each(EVERY)('%s', (_name, doc, edit) => {
  const before = JSON.stringify(doc);
  const change = applyEdit(doc, edit);
  it('leaves the old document alone and gives a sound new one', () => {
    expect(JSON.stringify(doc)).toBe(before);
    expect(change.patches.length).toBeGreaterThan(0);
    expect(checkProject(JSON.parse(JSON.stringify(change.doc)))).toBeTruthy();
  });
  it('is made again by its patches, and undone by their inverse', () => {
    const sent = JSON.parse(JSON.stringify(change.patches)) as typeof change.patches;
    expect(applyPatches(doc, sent)).toEqual(change.doc);
    expect(applyPatches(change.doc, change.inverse)).toEqual(doc);
  });
});

const done = (doc: Project, edit: Edit) => applyEdit(doc, edit).doc;

describe('layers', () => {
  it('go in before the one named, keep their order and get names of their own', () => {
    const next = done(base, addLayers('s1', [{ ...drawing('x'), name: 'a' }, drawing('y')], 'b'));
    expect(order(next)).toEqual(['a', 'x', 'y', 'b', 'c']);
    expect(layer(next, 'x').name).toBe('a 2');
  });
  it('free what had a removed one for a parent', () => {
    const child = done(base, setLayers('s1', ['b'], { parent: 'a' }));
    expect(layer(done(child, removeLayers('s1', ['a'])), 'b').parent).toBeNull();
  });
  it('are moved together in their own order', () => {
    expect(order(done(base, moveLayers('s1', ['c', 'a'], 1)))).toEqual(['b', 'a', 'c']);
  });
  it('slide with all their keyframes', () => {
    const next = done(keyed, slideLayers('s1', ['a'], 7));
    expect([layer(next, 'a').from, layer(next, 'a').to, widthOf(next).keys.map((k) => k.frame)]).toEqual([
      7,
      57,
      [7, 27],
    ]);
  });
  it('are copied with new ids throughout; a parent among them becomes its copy', () => {
    const child = done(base, setLayers('s1', ['b'], { parent: 'a' }));
    const [a, b] = copiesOf([layer(child, 'a'), layer(child, 'b')], countingIds('n'));
    expect(b?.parent).toBe(a?.id);
    expect(Object.keys((a as DrawingLayer).items).some((id) => id.startsWith('a-'))).toBe(false);
    expect(() => checkProject(done(child, addLayers('s1', [a as Layer, b as Layer])))).not.toThrow();
  });
});

describe('scenes', () => {
  it('carry along what ended with them when their length changes', () => {
    const short = done(base, setLayers('s1', ['b'], { to: 30 }));
    const next = done(short, setScene('s1', { length: 80 }));
    expect([layer(next, 'a').to, layer(next, 'b').to]).toEqual([80, 30]);
  });
});

describe('cards', () => {
  it('of a removed group go with it', () => {
    const inside = done(grouped, moveItem({ scene: 's1', layer: 'a', item: 'a-r' }, 'g', 0));
    expect(groupOf(layer(inside, 'a').items, 'a-r')).toBe('g');
    expect(Object.keys(layer(done(inside, removeItem({ scene: 's1', layer: 'a', item: 'g' })), 'a').items)).toEqual([
      'a-f',
    ]);
  });
  it('cannot be put into themselves', () => {
    expect(() => done(grouped, moveItem({ scene: 's1', layer: 'a', item: 'g' }, 'g', 0))).toThrow('in itself');
  });
});

describe('patches from elsewhere', () => {
  it('that do not fit are refused by number', () => {
    expect(() => applyPatches(base, [{ op: 'replace', path: ['scenes', 'nope', 'name'], value: 'x' }])).toThrow(
      'patch 0',
    );
  });
  it.each([['__proto__'], ['constructor']])('may not go through %s', (key) => {
    expect(() => applyPatches(base, [{ op: 'add', path: [key, 'polluted'], value: 1 }])).toThrow('may not be changed');
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});
