/** Mattes by what they leave of a square of 80 pixels, on the server's canvas: against areas in closed form. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Id, Item, Layer, Project, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { copiesOf } from '@kite/core/edits/layers';
import { matteBy, relinkMatte } from '@kite/core/edits/mattes';
import { nestLayers } from '@kite/core/edits/nests';
import { splitLayers } from '@kite/core/edits/timing';
import { checkProject } from '@kite/core/check/project';
import { needsOf } from '@kite/core/recipe/needs';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { wouldCutItself } from '@kite/core/scene/follows';
import { wholeScene } from '@kite/core/scene/whole';
import { describe, expect, it } from 'vitest';
import { drawn } from './test/drawn';

const SIDE = 120;
const SIZE = { width: SIDE, height: SIDE, rate: { num: 25, den: 1 }, length: 10, background: null } as const;
const empty = newScene('s', 'Mattes', SIZE);
let ids = 0;
const makeId = () => `n${++ids}`;

const still = (params: object) => Object.fromEntries(Object.entries(params).map(([key, value]) => [key, { value }]));
/** A rectangle about the middle of the scene, with more cards below its fill. */
const box = (id: Id, width: number, height: number, more: readonly Item[] = [], color = '#FFFFFF'): Layer => {
  const cards = [newItem(`${id}-r`, 'rectangle', { width, height }), newItem(`${id}-f`, 'fill', { color }), ...more];
  return newDrawing(empty, id, id.toUpperCase(), cards);
};
const by = (layer: Id, params: object = {}): Item => newItem(`by-${layer}-${++ids}`, 'matte', { layer, ...params });
const hidden = (layer: Layer): Layer => ({ ...layer, hidden: true });
const placed = (layer: Layer, params: object): Layer => ({ ...layer, params: { ...layer.params, ...still(params) } });
const sceneOf = (...layers: Layer[]): Scene => ({
  ...empty,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});
const told = (scene: Scene) =>
  compileScene(scene, NO_LIBRARY)
    .at(0)
    .problems.map((p) => p.message);

const WIDE = hidden(box('wide', 40, 20));
const TALL = hidden(box('tall', 20, 40));
const ALL = 80 * 80;

describe('a matte', () => {
  const left = (cards: readonly Item[], ...mattes: Layer[]) => drawn(sceneOf(...mattes, box('l', 80, 80, cards))).alpha;
  it.each([
    ['shows where the other layer is, hidden as that is', [by('wide')], 800],
    ['or where it is not', [by('wide', { inverted: true })], ALL - 800],
    ['at half strength', [by('wide', { strength: 0.5 })], 400],
    ['and another narrows it down', [by('wide'), by('tall')], 400],
    ['of white by how bright it is', [by('wide', { by: 'brightness' })], 800],
    ['cuts what stands above it, not what is painted below', [by('wide'), newItem('f2', 'fill')], ALL],
  ])('%s', (_name, cards, area) => {
    expect(Math.abs(left(cards, WIDE, TALL) - area)).toBeLessThanOrEqual(area * 0.004 + 1);
  });
  // CSS Masking Level 1, 6.1: luminance of the colour, times its alpha.
  it.each([
    ['#FF0000', 0.2125],
    ['#00FF00', 0.7154],
    ['#0000FF', 0.0721],
    ['#808080', 128 / 255],
    ['#FFFFFF80', 128 / 255],
    ['#000000', 0],
  ])('takes %s for %f bright', (color, bright) => {
    const alpha = left([by('m', { by: 'brightness' })], hidden(box('m', 40, 20, [], color)));
    expect(alpha).toBeGreaterThan(800 * (bright - 0.006));
    expect(alpha).toBeLessThan(800 * (bright + 0.006));
  });
  it('stays where its layer is, whatever its own layer and groups do', () => {
    const turned = (params: object, group: object) => {
      const layer = placed(box('l', 300, 300), params);
      const [rectangle, fill] = Object.values((layer as { items: { [id: string]: Item } }).items) as [Item, Item];
      const inner = [rectangle, fill, by('wide')];
      const outer = { ...newItem('g', 'group', group as Record<string, never>), children: inner.map(({ id }) => id) };
      return drawn(
        sceneOf(WIDE, {
          ...layer,
          items: Object.fromEntries([...inner, outer].map((item) => [item.id, item])),
          recipe: ['g'],
        } as Layer),
      );
    };
    const straight = turned({}, {});
    const other = turned({ rotation: 33, scale: [1.5, 0.8], position: [70, 50] }, { rotation: -12, scale: [2, 2] });
    expect(straight.alpha).toBeCloseTo(800, 0);
    expect(Math.abs(other.alpha - 800)).toBeLessThan(4);
    expect([other.at(42, 52)[3], other.at(77, 67)[3], other.at(38, 60)[3]]).toEqual([255, 255, 0]);
  });
  it('moves with its layer, fades with it, and is nothing outside of its time', () => {
    const moved = placed(WIDE, { position: [60, 90], opacity: 0.5 });
    const half = drawn(sceneOf(moved, box('l', 80, 80, [by('wide')])));
    expect([half.at(60, 60)[3], half.at(60, 90)[3]]).toEqual([0, 128]);
    expect(drawn(sceneOf({ ...WIDE, from: 5 }, box('l', 80, 80, [by('wide')])), { frame: 0 }).alpha).toBe(0);
  });
  it('can be cut by another in turn', () => {
    const chain = sceneOf(TALL, hidden(box('wide', 40, 20, [by('tall')])), box('l', 80, 80, [by('wide')]));
    expect(drawn(chain).alpha).toBeCloseTo(400, 0);
  });
  it('that is gone is told, and nothing vanishes', () => {
    const scene = sceneOf(box('l', 80, 80, [by('nobody')]));
    expect(drawn(scene).alpha).toBeCloseTo(ALL, 0);
    expect(told(scene)).toEqual(['is cut by a layer that is gone']);
  });
  it('in a circle is told by name, and refused', () => {
    const scene = sceneOf(box('a', 40, 40, [by('b')]), box('b', 80, 80, [by('a')]));
    expect(drawn(scene).alpha).toBeCloseTo(ALL, 0);
    expect(told(scene)).toEqual(['would be cut by itself: “B” → “A” → “B”', 'would be cut by itself: “A” → “B” → “A”']);
    expect(() => checkProject(newProject('p', 'P', [scene]))).toThrow('layers cut each other: A → B → A');
    expect([wouldCutItself(sceneOf(box('a', 1, 1), box('b', 1, 1, [by('a')])), 'a', 'b')]).toEqual([true]);
  });
});

describe('edits keep mattes', () => {
  const bare = newProject('p', 'P', [sceneOf(box('m', 40, 20), box('l', 80, 80))]);
  const linked = applyEdit(bare, matteBy('s', 'm', ['l'], makeId)).doc;
  const scene = (doc: Project) => wholeScene(doc.scenes.s as Scene, doc);
  const alpha = (doc: Project, frame = 0) => drawn(scene(doc), { frame }).alpha;

  it('by one of which a layer is cut and the other is no longer seen', () => {
    expect([alpha(bare) > 6_000, Math.round(alpha(linked)), scene(linked).layers.m?.hidden]).toEqual([true, 800, true]);
    checkProject(linked);
  });
  it('that would go in a circle are refused by name', () => {
    expect(() => applyEdit(linked, matteBy('s', 'l', ['m'], makeId))).toThrow(
      'would be cut by itself: “M” → “L” → “M”',
    );
    const card = Object.keys((linked.scenes.s?.layers.l as { items: object }).items).at(-1) as Id;
    expect(() => applyEdit(linked, relinkMatte({ scene: 's', layer: 'l', item: card }, 'l'))).toThrow('cut by itself');
    expect(() => applyEdit(linked, matteBy('s', 'l', ['l'], makeId))).toThrow('wants another layer to cut');
  });
  it('copied along, copies are cut by copies; copied alone, by the same', () => {
    const { m, l } = scene(linked).layers as { m: Layer; l: Layer };
    const both = copiesOf([m, l], makeId) as [Layer, Layer];
    expect([...needsOf(both[1]).layers]).toEqual([both[0].id]);
    expect([...needsOf(copiesOf([l], makeId)[0] as Layer).layers]).toEqual(['m']);
  });
  it.each([
    ['both', ['m', 'l']],
    ['what is cut', ['l']],
    ['what cuts', ['m']],
  ])('with %s nested', (_name, nested) => {
    const after = applyEdit(linked, nestLayers('s', nested, 'Inner', 0, makeId)).doc;
    checkProject(after);
    expect(Math.round(alpha(after))).toBe(800);
    expect(told(scene(after))).toEqual([]);
  });
  it('split in time, at every frame', () => {
    const inverted = applyEdit(bare, matteBy('s', 'm', ['l'], makeId)).doc;
    const after = applyEdit(inverted, splitLayers('s', ['m'], 4, makeId)).doc;
    expect(scene(after).order).toHaveLength(4);
    expect([0, 3, 4, 9].map((frame) => Math.round(alpha(after, frame)))).toEqual([800, 800, 800, 800]);
  });
});
