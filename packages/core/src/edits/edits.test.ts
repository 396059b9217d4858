import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newController, newDrawing, newItem, newProject, newScene } from '../document/make';
import { applyPatches, changeOf, type Edit, type Patch } from '../document/patches';
import { applyEdit } from './apply';
import { addSwatch, removeSwatch } from './swatches';
import type {
  ControllerLayer,
  DrawingLayer,
  Id,
  KeyedProperty,
  Layer,
  PictureAsset,
  Project,
  Scene,
} from '../document/types';
import { newKnob } from '../document/knobs';
import { samplerOf } from '../motion/sampler';
import { rectangle } from '../recipe/sources/rectangle';
import { addAsset, removeAsset, renameAsset, swapAsset } from './assets';
import { forgetEase, keepEase } from './eases';
import { removeFormula, setFormula } from './formulas';
import { addKnob, moveKnob } from './knobs';
import { makeSet, removeSet, renameSet } from './sets';
import { slideLayers } from './timing';
import { addLayers, copiesOf, moveLayers, removeLayers, setLayers } from './layers';
import { addKey, addKeys, moveKeys, removeKeys, setEase } from './keyframes';
import { animate, removeAnimation, setBeyond, setValue } from './properties';
import { addItem, groupOf, moveItem, removeItem, setItem } from './recipe';
import { addScene, duplicateScene, moveScene, removeScene, renameProject, setGuides, setScene } from './scenes';

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
const widthAt = (doc: Project, frame: number) =>
  samplerOf(rectangle.params.width, layer(doc, 'a').items['a-r']?.params.width).at(frame);
const group = { ...newItem('g', 'group'), children: [] };
const grouped = applyEdit(base, addItem('s1', 'a', group, null, 0)).doc;

const ticket: PictureAsset = {
  id: 'ticket',
  name: 'Ticket',
  kind: 'picture',
  type: 'image/png',
  sha: 'a'.repeat(64),
  bytes: 10,
  width: 40,
  height: 30,
};
const withTicket = applyEdit(base, addAsset(ticket)).doc;
const shown = applyEdit(
  withTicket,
  addLayers('s1', [newDrawing(scene, 'pic', 'Poster', [newItem('p', 'picture', { asset: 'ticket' })])]),
).doc;
const amber = { id: 'amber', name: 'Amber', color: '#FFB23E' };
const soft = { id: 'soft', name: 'Soft', ease: { kind: 'hold' } } as const;
const row = applyEdit(base, makeSet('s1', { id: 'row', name: 'Row', members: ['a', 'b'] })).doc;
const tuned = ['k1', 'k2', 'k3'].reduce(
  (doc, id) => applyEdit(doc, addKnob('s1', 'dial', newKnob(id, 'number', id))).doc,
  applyEdit(base, addLayers('s1', [newController(scene, 'dial', 'Dial')])).doc,
);
const computed = applyEdit(base, setFormula(width, 'frame * 2')).doc;

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
  ['key several properties', keyed, addKeys([width, position], 10)],
  ['import a picture', base, addAsset(ticket)],
  ['swap a picture', shown, swapAsset('ticket', { ...ticket, id: 'other', name: 'Pass', sha: 'b'.repeat(64) })],
  ['rename a picture', withTicket, renameAsset('ticket', 'Day ticket')],
  ['remove a picture', withTicket, removeAsset('ticket')],
  ['keep a colour', base, addSwatch(amber)],
  ['let a colour go', applyEdit(base, addSwatch(amber)).doc, removeSwatch('amber')],
  ['keep an ease', base, keepEase(soft)],
  ['let an ease go', applyEdit(base, keepEase(soft)).doc, forgetEase('soft')],
  ['rename a set', row, renameSet('s1', 'row', 'Rails')],
  ['dissolve a set', row, removeSet('s1', 'row')],
  ['move a knob', tuned, moveKnob('s1', 'dial', 'k3', 0)],
  ['move guides', base, setGuides('s1', { x: [10, 20], y: [30] })],
  ['remove a formula', computed, removeFormula(width)],
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
    const good: Patch = { op: 'replace', path: ['name'], value: 'Other' };
    expect(() => applyPatches(base, [good, { op: 'remove', path: ['scenes', 's1', 'nope', 'x'] }])).toThrow('patch 1');
  });
  it('may change what those before them put there, are taken back exactly, and stay as they are themselves', () => {
    const scene = base.scenes.s1 as Scene;
    const [first] = scene.order as [string];
    const at = (...path: (string | number)[]) => ['scenes', 's1', ...path];
    const patches: readonly Patch[] = [
      { op: 'add', path: at('layers', 'new'), value: { ...scene.layers[first], id: 'new', name: 'New' } },
      { op: 'replace', path: at('layers', 'new', 'name'), value: 'Newer' },
      { op: 'add', path: at('order', 0), value: 'new' },
      { op: 'replace', path: at('layers', first, 'name'), value: 'Once' },
      { op: 'replace', path: at('layers', first, 'name'), value: 'Twice' },
      { op: 'replace', path: at('layers', 'new'), value: { ...scene.layers[first], id: 'new', name: 'Newest' } },
      { op: 'remove', path: at('order', 1) },
      { op: 'remove', path: at('layers', first) },
    ];
    const given = JSON.stringify(patches);
    const { doc, inverse } = changeOf(base, patches);
    expect(doc).toEqual(applyPatches(base, patches));
    expect(doc.scenes.s1?.layers.new?.name).toBe('Newest');
    expect(doc.scenes.s1?.layers[first]).toBeUndefined();
    expect(JSON.stringify(patches)).toBe(given);
    expect(inverse).toHaveLength(patches.length);
    expect(inverse[3]).toEqual({ op: 'replace', path: at('layers', first, 'name'), value: 'Once' });
    expect(applyPatches(doc, inverse)).toEqual(base);
  });
  it.each([['__proto__'], ['constructor']])('may not go through %s', (key) => {
    expect(() => applyPatches(base, [{ op: 'add', path: [key, 'polluted'], value: 1 }])).toThrow('may not be changed');
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});

describe('files and colours', () => {
  it('a swapped picture is the new file under the old id, wherever it is shown', () => {
    const other = { ...ticket, id: 'other', name: 'Pass', sha: 'b'.repeat(64), width: 80 };
    const { assets, scenes } = done(shown, swapAsset('ticket', other));
    expect(assets).toEqual({ ticket: { ...other, id: 'ticket' } });
    // But for its size: half as wide a file before, as large as that.
    const [before, after] = [shown, { scenes }].map((doc) => doc.scenes.s1?.layers.pic as DrawingLayer);
    const [card] = Object.values(after?.items ?? {});
    expect(card?.params.size).toEqual({ value: ticket.width / 80 });
    expect({ ...after, items: {} }).toEqual({ ...before, items: {} });
  });
  it('a picture is swapped for a picture alone, and one that is shown stays', () => {
    const font = { ...ticket, kind: 'font' } as unknown as PictureAsset;
    expect(() => done(shown, swapAsset('ticket', font))).toThrow();
    expect(() => done(shown, removeAsset('ticket'))).toThrow('it is shown by “Poster” in “One”');
    expect(done(withTicket, removeAsset('ticket')).assets).toEqual({});
    expect(() => done(base, renameAsset('ticket', 'x'))).toThrow();
  });
  it('are kept in the order in which they came, and go by their ids', () => {
    const two = done(done(base, addSwatch(amber)), addSwatch({ ...amber, id: 'teal', color: '#2EC4B6' }));
    expect(two.swatches.map((s) => s.id)).toEqual(['amber', 'teal']);
    expect(done(two, removeSwatch('amber')).swatches.map((s) => s.id)).toEqual(['teal']);
    expect(done(done(base, keepEase(soft)), forgetEase('none')).eases).toEqual([soft]);
  });
});

describe('what a scene has beside its layers', () => {
  it('a set is renamed and dissolved; its layers stay', () => {
    expect(done(row, renameSet('s1', 'row', 'Rails')).scenes.s1?.sets[0]?.name).toBe('Rails');
    const { sets, order: left } = done(row, removeSet('s1', 'row')).scenes.s1 as Scene;
    expect([sets, left]).toEqual([[], order(row)]);
    expect(() => done(row, renameSet('s1', 'gone', 'x'))).toThrow();
  });
  it('knobs are brought into another order', () => {
    const panel = (doc: Project) => (doc.scenes.s1?.layers.dial as ControllerLayer).panel;
    expect(panel(done(tuned, moveKnob('s1', 'dial', 'k3', 0)))).toEqual(['k3', 'k1', 'k2']);
    expect(panel(done(tuned, moveKnob('s1', 'dial', 'k1', 9)))).toEqual(['k2', 'k3', 'k1']);
  });
  it('guides are those that are given', () => {
    expect(done(base, setGuides('s1', { x: [10], y: [] })).scenes.s1?.guides).toEqual({ x: [10], y: [] });
  });
  it('without its formula a property has its own value again', () => {
    expect(layer(computed, 'a').items['a-r']?.formulas).toEqual({ width: { text: 'frame * 2', on: true } });
    const left = layer(done(computed, removeFormula(width)), 'a').items['a-r'];
    expect(left?.formulas ?? {}).toEqual({});
    expect(left?.params.width).toEqual(layer(base, 'a').items['a-r']?.params.width);
  });
  it('several properties are keyed at once, with the values that they have there', () => {
    const next = done(keyed, addKeys([width, position], 10));
    expect(widthOf(next).keys.map((k) => [k.frame, k.value])).toEqual([
      [0, 10],
      [10, widthAt(keyed, 10)],
      [20, 50],
    ]);
    expect((layer(next, 'a').params.position as KeyedProperty).keys.map((k) => k.frame)).toEqual([10]);
  });
});
