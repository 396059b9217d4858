/** Masks drawn, made of layers and made layers again: what they cut by stays where it is in the scene. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Id, Item, Layer, Point, Project, Properties, Scene } from '../document/types';
import { apply } from '../geometry/matrix';
import type { GroupMark } from '../recipe/types';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY, type Program } from '../scene/program';
import { applyEdit } from './apply';
import { addLayers } from './layers';
import { drawInside } from './drawn';
import { drawMask, layAlong, layerOfCard, maskBy } from './masks';
import { done } from '../test/done';

const empty = newScene('s', 'One', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const linear = { kind: 'linear' } as const;
const keyed = (from: unknown, to: unknown) =>
  ({
    keys: [
      { frame: 0, value: from, ease: linear },
      { frame: 40, value: to, ease: linear },
    ],
  }) as Properties[string];
const box = (id: Id, params: Properties, more: Partial<DrawingLayer> = {}): Layer => {
  const made = newDrawing(empty, id, `Box ${id}`, [
    newItem(`${id}r`, 'rectangle', { width: 40, height: 20 }),
    newItem(`${id}f`, 'fill'),
  ]);
  return { ...made, ...more, params: { ...made.params, ...params } };
};
const projectOf = (...layers: Layer[]): Project =>
  checkProject(applyEdit(newProject('p', 'P', [empty]), addLayers('s', layers)).doc);
const sceneOf = (doc: Project) => doc.scenes.s as Scene;
const programOf = (doc: Project): Program => compileScene(sceneOf(doc), NO_LIBRARY);
const drawingOf = (doc: Project, id: Id) => sceneOf(doc).layers[id] as DrawingLayer;
const masksOf = (doc: Project, id: Id): Item[] =>
  drawingOf(doc, id).recipe.flatMap((card) => {
    const item = drawingOf(doc, id).items[card];
    return item?.kind === 'mask' ? [item] : [];
  });

/** The corners of what some cards of a layer give, in the scene, to a tenth of a pixel. */
const cornersOf = (doc: Project, layer: Id, cards: readonly Id[], frame: number): Point[] => {
  const program = programOf(doc);
  const m = program.matrixAt(layer, frame);
  return program.flowAt(layer, cards, frame).shapes.flatMap(({ outlines }) =>
    outlines.flatMap(({ points }) =>
      Array.from({ length: Math.floor(points.length / 6) }, (_, i): Point => {
        const [x, y] = apply(m, [points[i * 6]!, points[i * 6 + 1]!]);
        return [Math.round(x * 10) / 10 + 0, Math.round(y * 10) / 10 + 0];
      }),
    ),
  );
};
const ofLayer = (doc: Project, id: Id, frame: number) => cornersOf(doc, id, drawingOf(doc, id).recipe, frame);
const ofMask = (doc: Project, id: Id, frame: number, nth = 0) =>
  cornersOf(doc, id, masksOf(doc, id)[nth]?.children ?? [], frame);

const ids = countingIds('made');
const turned = box('t', { position: { value: [200, 150] }, rotation: { value: 30 }, scale: { value: [2, 2] } });

describe('a mask that is drawn', () => {
  const shape = newItem('shape', 'rectangle', { width: 10, height: 10 });
  const doc = projectOf(turned);
  const edit = drawMask(programOf(doc), 't', { mask: 'm', group: 'g' }, shape, [230, 140], 0, ids);
  it('stands upright where it was drawn, whatever its layer does', () => {
    const corners = ofMask(done(doc, edit), 't', 0);
    expect(corners).toEqual([
      [225, 135],
      [235, 135],
      [235, 145],
      [225, 145],
    ]);
  });
  it('stands upright on what is turned and stretched, in two groups', () => {
    const slanted = projectOf(box('t', { rotation: { value: 30 }, scale: { value: [3, 1] } }));
    const drawn = done(slanted, drawMask(programOf(slanted), 't', { mask: 'm', group: 'g' }, shape, [60, 50], 0, ids));
    const corners = [
      [55, 45],
      [65, 45],
      [65, 55],
      [55, 55],
    ];
    expect(ofMask(drawn, 't', 0)).toEqual(corners);
    const inside = done(drawn, drawInside(programOf(drawn), 't', 'm', 'h', { ...shape, id: 'o' }, [60, 50], 0, ids));
    expect(ofMask(inside, 't', 0).slice(-4)).toEqual(corners);
  });
  it('stands below those that are there, and adds to them', () => {
    const once = done(doc, edit);
    const next = newItem('other', 'ellipse');
    const twice = done(once, drawMask(programOf(once), 't', { mask: 'n', group: 'h' }, next, [0, 0], 0, ids));
    expect(masksOf(twice, 't').map(({ id }) => id)).toEqual(['m', 'n']);
    const [group] = programOf(twice).marksAt('t', 0) as GroupMark[];
    expect(group?.cuts?.map(({ mode }) => mode)).toEqual(['add', 'add']);
  });
  it('cannot be drawn on what is flattened', () => {
    const flat = projectOf(box('t', { scale: { value: [0, 1] } }));
    const on = drawMask(programOf(flat), 't', { mask: 'm', group: 'g' }, shape, [0, 0], 0, ids);
    expect(() => applyEdit(flat, on)).toThrow('flattened');
  });
});

describe('a shape that is drawn into what is open', () => {
  const shape = newItem('shape', 'rectangle', { width: 10, height: 10 });
  const path = newItem('path', 'path', {
    path: {
      closed: true,
      vertices: [
        [-5, -5, 0, 0, 2, 0],
        [5, -5, 0, 0, 0, 0],
        [5, 5, 0, 0, 0, 0],
      ],
    },
  });
  const base = projectOf(turned);
  const masked = done(base, drawMask(programOf(base), 't', { mask: 'm', group: 'g' }, shape, [230, 140], 0, ids));
  it('goes there upright and in its place, through the mask and the group that it is in', () => {
    const two = done(
      masked,
      drawInside(programOf(masked), 't', 'm', 'h', { ...shape, id: 'other' }, [100, 50], 0, ids),
    );
    expect(masksOf(two, 't')[0]?.children).toEqual(['g', 'h']);
    expect(ofMask(two, 't', 0).slice(-4)).toEqual([
      [95, 45],
      [105, 45],
      [105, 55],
      [95, 55],
    ]);
    // A path as it is, without a group around it, in one that is turned and scaled itself.
    const three = done(two, drawInside(programOf(two), 't', 'h', 'x', path, [60, 70], 0, ids));
    expect(drawingOf(three, 't').items.h?.children).toEqual(['other', 'path']);
    expect(cornersOf(three, 't', ['h'], 0).slice(-3)).toEqual([
      [55, 65],
      [65, 65],
      [65, 75],
    ]);
  });
  it('stands above the paints of a group', () => {
    const group: Item = { ...newItem('k', 'group'), children: ['kf'] };
    const layer = newDrawing(empty, 't', 'T', [group, newItem('kf', 'fill')]);
    const doc = projectOf(layer);
    const next = done(doc, drawInside(programOf(doc), 't', 'k', 'x', path, [10, 10], 0, ids));
    expect(drawingOf(next, 't').items.k?.children).toEqual(['path', 'kf']);
  });
});

describe('a layer that becomes a mask', () => {
  const moving = box('by', {
    position: keyed([100, 100], [300, 200]),
    rotation: { value: 45 },
    opacity: keyed(1, 0.5),
  });
  const doc = projectOf(moving, turned);
  const masked = done(doc, maskBy('s', 'by', ['t'], 10, countingIds('n')));
  it('cuts where it was, at every frame of a layer that stands still, and is gone', () => {
    for (const frame of [0, 10, 25, 49]) expect(ofMask(masked, 't', frame)).toEqual(ofLayer(doc, 'by', frame));
    expect(sceneOf(masked).order).toEqual(['t']);
  });
  it('is as strong as the layer was opaque, keyframes too, and keeps its name', () => {
    const [mask] = masksOf(masked, 't');
    expect([mask?.name, mask?.params.strength]).toEqual(['Box by', moving.params.opacity]);
  });
  it('goes along with a layer that moves, from the frame at hand', () => {
    const runner = box('t', { position: keyed([0, 0], [40, 80]) });
    const by = box('by', { position: { value: [100, 100] } });
    const both = projectOf(by, runner);
    const next = done(both, maskBy('s', 'by', ['t'], 20, countingIds('n')));
    expect(ofMask(next, 't', 20)).toEqual(ofLayer(both, 'by', 20));
    const moved = ofLayer(both, 'by', 20).map(([x, y]) => [x + 20, y + 40]);
    expect(ofMask(next, 't', 40)).toEqual(moved);
  });
  it('cuts where it was, turning, on a layer that would slant it, and is a layer there again', () => {
    const stretched = box('t', {
      position: { value: [150, 120] },
      rotation: { value: 20 },
      scale: { value: [3, 0.5] },
    });
    const turning = box('by', { position: keyed([100, 100], [300, 200]), rotation: keyed(0, 90) });
    const both = projectOf(turning, stretched);
    const next = done(both, maskBy('s', 'by', ['t'], 10, countingIds('n')));
    // Places are kept to four digits.
    const same = (corners: readonly Point[], frame: number) =>
      ofLayer(both, 'by', frame).forEach((point, i) =>
        point.forEach((v, axis) => expect(Math.abs(corners[i]![axis]! - v)).toBeLessThan(0.11)),
      );
    for (const frame of [0, 10, 25, 49]) same(ofMask(next, 't', frame), frame);
    const back = done(next, layerOfCard('s', 't', masksOf(next, 't')[0]?.id as Id, countingIds('m')));
    const [front] = sceneOf(back).order as [Id];
    for (const frame of [0, 10, 25, 49]) same(ofLayer(back, front, frame), frame);
  });
  it('masks several at once, each by cards of its own', () => {
    const third = box('u', { position: { value: [50, 60] } });
    const all = projectOf(moving, turned, third);
    const next = done(all, maskBy('s', 'by', ['t', 'u'], 0, countingIds('n')));
    for (const id of ['t', 'u']) expect(ofMask(next, id, 30)).toEqual(ofLayer(all, 'by', 30));
    expect(Object.keys(drawingOf(next, 't').items).filter((id) => drawingOf(next, 'u').items[id])).toEqual([]);
  });
  it('takes its formulas along: what read the layer reads its mask', () => {
    const ruled = box(
      'by',
      {},
      {
        formulas: { opacity: { text: '0.5', on: true }, position: { text: '[time * 10, 0]', on: true } },
      },
    );
    const { items } = ruled as DrawingLayer;
    const width = {
      ...items.byr!,
      formulas: { width: { text: '{@this/opacity} * 100 + {@by/position}.x', on: true } },
    };
    const before = projectOf({ ...ruled, items: { ...items, byr: width } } as Layer, box('t', {}));
    const next = done(before, maskBy('s', 'by', ['t'], 0, countingIds('n')));
    const program = programOf(next);
    expect(program.problems).toEqual([]);
    const [mask] = masksOf(next, 't');
    expect(program.cardAt('t', mask?.id as Id, 25)?.values.strength).toBe(0.5);
    const inner = Object.values(drawingOf(next, 't').items).find((item) => item.formulas?.width) as Item;
    expect(program.cardAt('t', inner.id, 25)?.values.width).toBe(60);
  });
  it('frees the layers that followed it, where they stand', () => {
    const child = box('c', { position: { value: [10, 0] } }, { parent: 'by' });
    const family = projectOf(child, moving, turned);
    const next = done(family, maskBy('s', 'by', ['t'], 10, countingIds('n')));
    expect(drawingOf(next, 'c').parent).toBe(null);
    expect(ofLayer(next, 'c', 10)).toEqual(ofLayer(family, 'c', 10));
  });
  it.each([
    ['itself', ['by'], 'wants another drawing'],
    ['nothing', [], 'wants another drawing'],
    ['what is gone', ['z'], 'no layer "z"'],
  ])('does not mask %s', (_name, targets, message) => {
    expect(() => applyEdit(doc, maskBy('s', 'by', targets, 0, countingIds('n')))).toThrow(message);
  });
  it('does not mask what follows it', () => {
    const child = box('c', {}, { parent: 'by' });
    const family = projectOf(child, moving);
    const next = done(family, maskBy('s', 'by', ['c'], 0, countingIds('n')));
    // It is freed first.
    expect(ofMask(next, 'c', 0)).toEqual(ofLayer(family, 'by', 0));
  });
});

describe('a mask that becomes a layer', () => {
  const by = box('by', { position: keyed([100, 100], [300, 200]), opacity: { value: 0.5 } });
  const doc = projectOf(by, turned);
  const masked = done(doc, maskBy('s', 'by', ['t'], 0, countingIds('n')));
  const [mask] = masksOf(masked, 't');
  const back = done(masked, layerOfCard('s', 't', mask?.id as Id, countingIds('b')));
  const [front] = sceneOf(back).order as [Id];
  it('stands in front of its layer, as it was before it became one', () => {
    for (const frame of [0, 20, 40]) expect(ofLayer(back, front, frame)).toEqual(ofLayer(doc, 'by', frame));
    const layer = drawingOf(back, front);
    expect([layer.name, layer.parent, layer.params.opacity]).toEqual(['Box by', 't', { value: 0.5 }]);
    expect(layer.recipe.map((id) => layer.items[id]?.kind)).toEqual(['rectangle', 'fill']);
    expect([sceneOf(back).order.length, masksOf(back, 't'), Object.keys(drawingOf(back, 't').items).length]).toEqual([
      2,
      [],
      2,
    ]);
  });
  it('is filled where nothing in it paints', () => {
    const drawn = drawMask(programOf(doc), 't', { mask: 'm', group: 'g' }, newItem('e', 'ellipse'), [10, 10], 0, ids);
    const next = done(done(doc, drawn), layerOfCard('s', 't', 'm', countingIds('b')));
    const layer = drawingOf(next, sceneOf(next).order[1] as Id);
    expect(layer.recipe.map((id) => layer.items[id]?.kind)).toEqual(['ellipse', 'fill']);
  });
});

describe('a layer that others are laid along', () => {
  const by = box('by', { position: keyed([100, 100], [300, 200]), opacity: { value: 0.5 } });
  const doc = projectOf(by, turned);
  const next = done(doc, layAlong('s', 'by', ['t'], 0, countingIds('n')));
  const along = Object.values(drawingOf(next, 't').items).find(({ kind }) => kind === 'along')!;
  it('is a card of theirs, where it was, that fades what is painted in it', () => {
    for (const frame of [0, 20, 40]) {
      expect(cornersOf(next, 't', along.children!, frame)).toEqual(ofLayer(doc, 'by', frame));
    }
    expect([along.name, along.params, sceneOf(next).order]).toEqual(['Box by', {}, ['t']]);
    expect(drawingOf(next, 't').items[along.children![0]!]?.params.opacity).toEqual({ value: 0.5 });
  });
  it('is a layer again', () => {
    const back = done(next, layerOfCard('s', 't', along.id, countingIds('b')));
    const [front] = sceneOf(back).order as [Id];
    for (const frame of [0, 20, 40]) expect(ofLayer(back, front, frame)).toEqual(ofLayer(doc, 'by', frame));
    expect(drawingOf(back, front).params.opacity).toEqual({ value: 0.5 });
  });
  it('is stroked there where nothing in it paints', () => {
    const bare = newDrawing(empty, 't', 'T', [{ ...newItem('a', 'along'), children: ['e'] }, newItem('e', 'ellipse')]);
    const free = done(projectOf(bare), layerOfCard('s', 't', 'a', countingIds('b')));
    const layer = drawingOf(free, sceneOf(free).order[0] as Id);
    expect([layer.name, layer.recipe.map((id) => layer.items[id]?.kind)]).toEqual(['Path', ['ellipse', 'stroke']]);
  });
  it('takes the formulas of its opacity along with the others', () => {
    const ruled = box(
      'by',
      {},
      { formulas: { opacity: { text: '0.25', on: true }, rotation: { text: '9', on: true } } },
    );
    const one = done(projectOf(ruled, turned), layAlong('s', 'by', ['t'], 0, countingIds('n')));
    const group = Object.values(drawingOf(one, 't').items).find((item) => item.formulas?.opacity)!;
    expect(programOf(one).cardAt('t', group.id, 0)?.values).toMatchObject({ opacity: 0.25, rotation: 9 });
    expect(() => applyEdit(doc, layAlong('s', 'by', [], 0, countingIds('n')))).toThrow(
      'wants another drawing to lie along it',
    );
  });
});
