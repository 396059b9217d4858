/** Edits that build the picture: each leaves what is seen where it was. */
import { describe, expect, it } from 'vitest';
import { newKnob } from '../document/knobs';
import { countingIds, newController, newDrawing, newItem, newProject, newScene, still } from '../document/make';
import { applyEdit } from './apply';
import type { DrawingLayer, Id, KeyedProperty, Layer, PathValue, Project, Property, Value } from '../document/types';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import type { Box } from '../geometry/bounds';
import { type Matrix, multiply } from '../geometry/matrix';
import { cardsBox, layerBoxInScene } from '../scene/bounds';
import { takeApart } from './takeApart';
import { addKnob, removeKnob, setKnob } from './knobs';
import { setFormula } from './formulas';
import { copiesOf } from './layers';
import { nestLayers } from './nests';
import { makeSet } from './sets';
import { slideLayers } from './timing';
import { reshapePath, turnIntoPath } from './paths';
import { flipLayers, groupLayers, moveBy, movePivot, setParent, ungroupLayers } from './place';
import { animate, setValue } from './properties';
import { withInserted, withoutVertices } from '../motion/paths';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 50, background: null };
const empty = newScene('s', 'Scene', size);
const box = (id: Id, place: { [key: string]: Value }, parent?: Id): Layer => ({
  ...newDrawing(empty, id, id, [newItem(`${id}r`, 'rectangle', { width: 60, height: 40 }), newItem(`${id}f`, 'fill')]),
  params: Object.fromEntries(Object.entries(place).map(([k, v]) => [k, still(v)])),
  parent: parent ?? null,
});
const projectOf = (...layers: Layer[]): Project =>
  newProject('p', 'P', [
    { ...empty, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) },
  ]);
const program = (doc: Project) => compileScene(doc.scenes.s!, NO_LIBRARY);
const matrix = (doc: Project, id: Id, frame = 0) => program(doc).matrixAt(id, frame);
const close = (a: readonly number[], b: readonly number[]) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 2));
const layerOf = (doc: Project, id: Id) => doc.scenes.s!.layers[id] as DrawingLayer;

describe('another parent', () => {
  const turned = newController(empty, 'c', 'Rig');
  const rig: Layer = {
    ...turned,
    params: { position: still([100, 50]), rotation: still(30), scale: still([2, 2]) },
  };
  const doc = projectOf(rig, box('a', { position: [200, 120], rotation: 15, scale: [0.5, 0.5] }));
  it('leaves the layer where it was, and so does none again', () => {
    const hung = done(doc, setParent('s', ['a'], 'c', 0));
    expect(layerOf(hung, 'a').parent).toBe('c');
    close(matrix(hung, 'a'), matrix(doc, 'a'));
    close(matrix(done(hung, setParent('s', ['a'], null, 0)), 'a'), matrix(doc, 'a'));
  });
  it('moves with it afterwards', () => {
    const hung = done(doc, setParent('s', ['a'], 'c', 0));
    const moved = done(
      hung,
      setValue({ scene: 's', layer: 'c', key: 'position' }, [150, 50], { write: 'curve', frame: 0 }),
    );
    expect(matrix(moved, 'a')[4] - matrix(doc, 'a')[4]).toBeCloseTo(50, 3);
  });
  it('whose place a formula computes leaves it where it is shown', () => {
    const computed = done(doc, setFormula({ scene: 's', layer: 'c', key: 'position' }, '[300, 200]'));
    const shown = (of: Id) => matrix(computed, of);
    expect(shown('c').slice(4)).toEqual([300, 200]);
    const hung = done(computed, setParent('s', ['a'], 'c', 0, shown));
    close(matrix(hung, 'a'), matrix(doc, 'a'));
    close(
      matrix(
        done(
          hung,
          setParent('s', ['a'], null, 0, (of) => matrix(hung, of)),
        ),
        'a',
      ),
      matrix(doc, 'a'),
    );
    const grouped = done(
      hung,
      ungroupLayers('s', ['c'], 0, (of) => matrix(hung, of)),
    );
    close(matrix(grouped, 'a'), matrix(doc, 'a'));
  });
  it('takes all keyframes into its pixels', () => {
    const keyed = done(
      doc,
      animate({ scene: 's', layer: 'a', key: 'position' }, [
        [0, [200, 120]],
        [20, [300, 20]],
      ]),
    );
    const hung = done(keyed, setParent('s', ['a'], 'c', 0));
    for (const frame of [0, 7, 20]) close(matrix(hung, 'a', frame), matrix(keyed, 'a', frame));
  });
  it('keeps a mirrored layer mirrored', () => {
    const mirrored = projectOf(rig, box('a', { position: [10, 20], scale: [-1, 1], rotation: 40 }));
    close(matrix(done(mirrored, setParent('s', ['a'], 'c', 0)), 'a'), matrix(mirrored, 'a'));
  });
  it('cannot be the layer itself or one that hangs from it', () => {
    const hung = done(doc, setParent('s', ['a'], 'c', 0));
    expect(() => applyEdit(hung, setParent('s', ['c'], 'a', 0))).toThrow('its own parent');
  });
});

it('a pivot that is moved leaves the picture', () => {
  const doc = projectOf(box('a', { position: [200, 120], rotation: 33, scale: [1.5, 0.7] }));
  const next = done(doc, movePivot('s', 'a', [-30, 20], 0));
  close(matrix(next, 'a'), matrix(doc, 'a'));
  expect(layerOf(next, 'a').params.pivot).toEqual({ value: [-30, 20] });
});

it('a pivot of a group among the cards that is moved leaves the picture', () => {
  const items = [
    { ...newItem('g', 'group', { position: [40, 10], rotation: 30, scale: [2, 2] }), children: ['r', 'f'] },
    newItem('r', 'rectangle', { width: 60, height: 40 }),
    newItem('f', 'fill'),
  ];
  const doc = projectOf(newDrawing(empty, 'a', 'a', items));
  const moved = done(doc, movePivot('s', 'a', [-30, -20], 0, 'g'));
  expect(layerOf(moved, 'a').items.g?.params.pivot).toEqual({ value: [-30, -20] });
  const boxIn = (of: Project) => Object.values(layerBoxInScene(program(of), 'a', 0) as Box);
  close(boxIn(moved), boxIn(doc));
  expect(cardsBox(program(doc), 'a', ['r'], 0)).toEqual({ left: -30, top: -20, right: 30, bottom: 20 });
});

it('layers in a turned parent move by the scene’s pixels', () => {
  const rig: Layer = { ...newController(empty, 'c', 'Rig'), params: { rotation: still(90), scale: still([2, 2]) } };
  const doc = projectOf(rig, box('a', { position: [10, 10] }, 'c'));
  const next = done(doc, moveBy('s', new Map([['a', [30, 0]]]), 'Move', 0));
  expect(matrix(next, 'a')[4] - matrix(doc, 'a')[4]).toBeCloseTo(30, 3);
  expect(matrix(next, 'a')[5] - matrix(doc, 'a')[5]).toBeCloseTo(0, 3);
});

it.each([0, 1] as const)(
  'layers are flipped along axis %i of the scene, whatever they hang from, at every keyframe',
  (axis) => {
    const rig: Layer = {
      ...newController(empty, 'c', 'Rig'),
      params: { position: still([120, 40]), rotation: still(25), scale: still([-2, 2]) },
    };
    const doc = done(
      projectOf(
        rig,
        box('a', { position: [10, 10], rotation: 40, scale: [1, 0.5] }, 'c'),
        box('b', { position: [90, 70] }),
      ),
      animate({ scene: 's', layer: 'b', key: 'scale' }, [
        [0, [0, 0]],
        [10, [1, 2]],
      ]),
    );
    const about = 150;
    const flipped = done(doc, flipLayers('s', ['a', 'b'], axis, about, 10));
    const mirror: Matrix = axis === 0 ? [-1, 0, 0, 1, 2 * about, 0] : [1, 0, 0, -1, 0, 2 * about];
    for (const id of ['a', 'b']) {
      for (const frame of [0, 5, 10]) close(matrix(flipped, id, frame), multiply(mirror, matrix(doc, id, frame)));
      close(matrix(done(flipped, flipLayers('s', ['a', 'b'], axis, about, 10)), id), matrix(doc, id));
    }
  },
);

it('a group and its undoing leave everything in place', () => {
  const doc = projectOf(
    box('a', { position: [50, 60] }),
    box('b', { position: [10, 0] }, 'a'),
    box('c', { position: [9, 9] }),
  );
  const grouped = done(doc, groupLayers(doc.scenes.s!, ['a', 'b', 'c'], 'g', 'Group', [30, 30], 0));
  expect(['a', 'b', 'c'].map((id) => layerOf(grouped, id).parent)).toEqual(['g', 'a', 'g']);
  expect(grouped.scenes.s!.order).toEqual(['g', 'a', 'b', 'c']);
  for (const id of ['a', 'b', 'c']) close(matrix(grouped, id), matrix(doc, id));
  const freed = done(grouped, ungroupLayers('s', ['g'], 0));
  expect(freed.scenes.s!.order).toEqual(['a', 'b', 'c']);
  for (const id of ['a', 'b', 'c']) close(matrix(freed, id), matrix(doc, id));
});

it('the members of a set that are nested stay a set, in their order, and the others too', () => {
  const four = projectOf(...['a', 'b', 'c', 'd'].map((id) => box(id, {})));
  const set = done(four, makeSet('s', { id: 'set', name: 'Boxes', members: ['c', 'a', 'd', 'b'] }));
  const nested = done(set, nestLayers('s', ['a', 'b'], 'Inside', 0, countingIds('n')));
  const [inner] = Object.values(nested.scenes).filter(({ id }) => id !== 's');
  expect(inner?.sets).toEqual([{ id: 'set', name: 'Boxes', members: ['a', 'b'] }]);
  expect(nested.scenes.s?.sets).toEqual([{ id: 'set', name: 'Boxes', members: ['c', 'd'] }]);
});

describe('a path with keyframes', () => {
  const path = (x: number): PathValue => ({
    closed: false,
    vertices: [
      [0, 0, 0, 0, 0, 0],
      [x, 0, 0, 0, 0, 0],
    ],
  });
  const ref = { scene: 's', layer: 'd', item: 'dp', key: 'path' };
  const layer = newDrawing(empty, 'd', 'd', [newItem('dp', 'path', { path: path(100) }), newItem('ds', 'stroke')]);
  const keyed = done(
    projectOf(layer),
    animate(ref, [
      [0, path(100)],
      [10, path(200)],
      [20, { closed: false, vertices: [...path(40).vertices, [9, 9, 0, 0, 0, 0]] }],
    ]),
  );
  const counts = (doc: Project) =>
    (layerOf(doc, 'd').items.dp!.params.path as KeyedProperty).keys.map((k) => (k.value as PathValue).vertices.length);
  it('has a vertex put in at the same place of every one with as many vertices', () => {
    const next = done(
      keyed,
      reshapePath(ref, 'Add', 10, (p) => withInserted(p, 0, 0.5)),
    );
    expect(counts(next)).toEqual([3, 3, 3]);
    const keys = (layerOf(next, 'd').items.dp!.params.path as KeyedProperty).keys;
    expect(keys.map((k) => (k.value as PathValue).vertices[1]![0])).toEqual([50, 100, 40]);
  });
  it('has one taken out of them all', () => {
    const three = done(
      keyed,
      reshapePath(ref, 'Add', 0, (p) => withInserted(p, 0, 0.5)),
    );
    expect(
      counts(
        done(
          three,
          reshapePath(ref, 'Remove', 0, (p) => withoutVertices(p, new Set([1]))),
        ),
      ),
    ).toEqual([2, 2, 2]);
  });
});

describe('turned into a path', () => {
  const turned = (kind: string, values: { [key: string]: Value }) => {
    const doc = projectOf(newDrawing(empty, 'd', 'd', [newItem('x', kind, values), newItem('f', 'fill')]));
    const next = done(doc, turnIntoPath({ scene: 's', layer: 'd', item: 'x' }, 0, program(doc), countingIds('n')));
    close(
      Object.values(layerBoxInScene(program(next), 'd', 0)!),
      Object.values(layerBoxInScene(program(doc), 'd', 0)!),
    );
    return layerOf(next, 'd').items.x!;
  };
  it('a star is one path with its vertices', () => {
    const card = turned('star', { points: 5 });
    expect([card.kind, (card.params.path as { value: PathValue }).value.vertices.length]).toEqual(['path', 10]);
  });
  it('a ring is a group of two', () => {
    const card = turned('wedge', { share: 1, inner: 40 });
    expect([card.kind, card.children?.length]).toEqual(['group', 2]);
  });
});

it('a drawing of groups comes apart into layers in its place', () => {
  const part = (id: Id) => [
    { ...newItem(id, 'group'), name: `Part ${id}`, children: [`${id}r`, `${id}f`] },
    newItem(`${id}r`, 'rectangle'),
    newItem(`${id}f`, 'fill'),
  ];
  const doc = projectOf(newDrawing(empty, 'd', 'Logo', [...part('a'), ...part('b')]), box('z', {}));
  const next = done(doc, takeApart('s', 'd', countingIds('n')));
  const names = next.scenes.s!.order.map((id) => next.scenes.s!.layers[id]!.name);
  expect(names).toEqual(['Part b', 'Part a', 'z']);
});

describe('knobs', () => {
  const rig = newController(empty, 'c', 'Rig');
  const doc = done(projectOf(rig), addKnob('s', 'c', newKnob('k', 'number', 'Delay')));
  const ref = { scene: 's', layer: 'c', item: 'k', key: 'value' };
  const value = (next: Project): Property | undefined => {
    const layer = next.scenes.s!.layers.c!;
    return layer.kind === 'controller' ? layer.knobs.k?.params.value : undefined;
  };
  it('are set and keyed like any property', () => {
    const set = done(doc, setValue(ref, 7, { write: 'key', frame: 10 }));
    expect((value(set) as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([[10, 7]]);
  });
  it('keep their values within their limits', () => {
    const set = done(doc, setValue(ref, 70, { write: 'curve', frame: 0 }));
    expect(value(done(set, setKnob('s', 'c', 'k', { min: 0, max: 5 })))).toEqual({ value: 5 });
    const past = done(done(doc, setKnob('s', 'c', 'k', { max: 5 })), setValue(ref, 70, { write: 'curve', frame: 0 }));
    expect(value(past)).toEqual({ value: 5 });
  });
  it('slide with their controller, are copied with it, and are taken away', () => {
    const keyed = done(doc, setValue(ref, 7, { write: 'key', frame: 10 }));
    expect((value(done(keyed, slideLayers('s', ['c'], 4))) as KeyedProperty).keys[0]?.frame).toBe(14);
    const [copy] = copiesOf([keyed.scenes.s!.layers.c!], countingIds('n'));
    expect(copy?.kind === 'controller' && copy.panel).toEqual(['n2']);
    expect(value(done(doc, removeKnob('s', 'c', 'k')))).toBeUndefined();
  });
});
