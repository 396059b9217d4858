import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Edit } from '../document/patches';
import { applyEdit } from './apply';
import type { Ease, KeyedProperty, Point, Project, Property, PropertyRef, Scene } from '../document/types';
import { seeded } from '../document/random';
import { samplerOf } from '../motion/sampler';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { paramAt, propertyAt } from '../properties/find';
import {
  changeKey,
  copiedKeys,
  copyKeys,
  flash,
  type KeyChoice,
  keysOfLayers,
  moveKeys,
  pasteKeys,
  repeatFirstKeys,
  reverseKeys,
  setEven,
  setHandles,
  setSmooth,
  spin,
  stretchedTo,
  stretchKeys,
} from './keyframes';
import { addLayers } from './layers';
import { addMarker, removeMarker, setMarker } from './markers';
import { animate, setApart } from './properties';
import { extendLayers, reverseLayers, splitLayers, stretchLayers } from './timing';

const size = { width: 100, height: 100, rate: { num: 24, den: 1 }, length: 60, background: '#10132E' } as const;
const first = newScene('s', 'One', size);
const drawing = (id: string) =>
  newDrawing(first, id, id, [newItem(`${id}-r`, 'rectangle'), newItem(`${id}-f`, 'fill', { color: '#FF5D5D' })]);
const soft: Ease = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 };
const position: PropertyRef = { scene: 's', layer: 'a', key: 'position' };
const rotation: PropertyRef = { scene: 's', layer: 'a', key: 'rotation' };
const width: PropertyRef = { scene: 's', layer: 'a', item: 'a-r', key: 'width' };
const fill: PropertyRef = { scene: 's', layer: 'a', item: 'a-f', key: 'color' };
const base = [
  addLayers('s', [drawing('a'), drawing('b'), drawing('c')]),
  animate(position, [
    [0, [0, 0], soft],
    [20, [80, 0], soft],
    [40, [80, 60]],
  ]),
  animate(width, [
    [10, 20],
    [30, 50],
  ]),
  animate(rotation, [
    [0, 0],
    [20, 90],
    [40, 100],
  ]),
].reduce((doc, edit) => applyEdit(doc, edit).doc, newProject('p', 'Project', [first]));

/** The edit done and checked by the schema; undoing it gives back what there was. */
const done = (doc: Project, edit: Edit): Project => {
  const change = applyEdit(doc, edit);
  checkProject(JSON.parse(JSON.stringify(change.doc)));
  return change.doc;
};
const keysAt = (doc: Project, ref = width) => (propertyAt(doc, ref) as KeyedProperty).keys;
const frames = (doc: Project, ref = width) => keysAt(doc, ref).map((k) => k.frame);
const valueAt = (doc: Project, ref: PropertyRef, frame: number) =>
  samplerOf(paramAt(doc, ref) as never, propertyAt(doc, ref) as Property).at(frame);
const sceneOf = (doc: Project) => doc.scenes.s as Scene;
const picture = (doc: Project, frame: number) => JSON.stringify(compileScene(sceneOf(doc), NO_LIBRARY).at(frame).marks);
const both: KeyChoice[] = [
  { ref: position, frames: [0, 20, 40] },
  { ref: width, frames: [10, 30] },
];

describe('chosen keyframes', () => {
  it('stretch in proportion about the edge that stays', () => {
    const next = done(base, stretchKeys(both, 0, 40, 60));
    expect([frames(next, position), frames(next)]).toEqual([
      [0, 30, 60],
      [15, 45],
    ]);
  });
  it('stretched by any factor keep their order and their ends, and whole frames', () => {
    const random = seeded(3);
    for (let n = 0; n < 500; n++) {
      const [a, b, to] = [Math.floor(random() * 50), 51 + Math.floor(random() * 100), 51 + Math.floor(random() * 300)];
      const go = stretchedTo(a, b, to);
      const inner = Array.from({ length: 8 }, () => a + Math.floor(random() * (b - a))).sort((x, y) => x - y);
      const sent = inner.map(go);
      expect([go(a), go(b)]).toEqual([a, to]);
      expect(sent.every(Number.isInteger)).toBe(true);
      expect(sent.every((f, i) => i === 0 || f >= (sent[i - 1] as number))).toBe(true);
    }
  });
  it('are copied, repeated at the end, typed in', () => {
    expect(frames(done(base, copyKeys([{ ref: width, frames: [10, 30] }], 40)))).toEqual([10, 30, 50, 70]);
    const looped = done(base, repeatFirstKeys([width, position]));
    expect([keysAt(looped).at(-1), keysAt(looped, position).at(-1)?.value]).toMatchObject([
      { frame: 59, value: 20 },
      [0, 0],
    ]);
    expect(keysAt(done(base, changeKey(width, 30, { frame: 33, value: 44 })))[1]).toMatchObject({
      frame: 33,
      value: 44,
    });
  });
  it('are reversed together about their common middle', () => {
    const next = done(base, reverseKeys(both));
    expect([frames(next), keysAt(next).map((k) => k.value)]).toEqual([
      [10, 30],
      [50, 20],
    ]);
    for (let f = 0; f <= 40; f++) {
      const [on, off] = [valueAt(base, position, f) as Point, valueAt(next, position, 40 - f) as Point];
      expect(Math.hypot(on[0] - off[0], on[1] - off[1])).toBeLessThan(1e-6);
    }
  });
  it('are moved without those of other properties', () => {
    const next = done(base, moveKeys([both[1]!], 5));
    expect([frames(next, position), frames(next)]).toEqual([
      [0, 20, 40],
      [15, 35],
    ]);
  });
  it('are pasted to the playhead on other layers, into the cards that are alike', () => {
    const paste = pasteKeys(sceneOf(base), copiedKeys(base, both), ['b', 'c'], 15);
    const next = done(base, paste.edit);
    expect(frames(next, { scene: 's', layer: 'b', item: 'b-r', key: 'width' })).toEqual([25, 45]);
    expect(keysAt(next, { ...position, layer: 'c' }).map((k) => k.value)).toEqual([
      [0, 0],
      [80, 0],
      [80, 60],
    ]);
    expect(paste.left).toBe(0);
  });
  it('say what found no place', () => {
    const bare = done(base, addLayers('s', [newDrawing(sceneOf(base), 'd', 'Bare', [])]));
    expect(pasteKeys(sceneOf(bare), copiedKeys(base, both), ['d'], 0).left).toBe(1);
  });
  it('turn so many times in the direction asked for, and what follows turns along', () => {
    const next = done(base, spin(rotation, 0, -2));
    expect(keysAt(next, rotation).map((k) => k.value)).toEqual([0, -720, -710]);
  });
});

describe('a motion path', () => {
  it('is bent, smoothed, straightened, evened and taken apart', () => {
    const bent = done(base, setHandles(position, 20, [-10, -10, 10, 10]));
    expect(keysAt(bent, position)[1]?.handles).toEqual([-10, -10, 10, 10]);
    const smooth = done(base, setSmooth([{ ref: position, frames: [20] }], true));
    expect(valueAt(smooth, position, 10)).not.toEqual(valueAt(base, position, 10));
    expect(done(smooth, setSmooth([{ ref: position, frames: [20] }], false))).toEqual(base);
    expect((propertyAt(done(base, setEven(position, true)), position) as KeyedProperty).even).toBe(true);
    const apart = done(smooth, setApart(position, true));
    for (let f = 0; f <= 45; f++) {
      const [a, b] = [valueAt(smooth, position, f) as Point, valueAt(apart, position, f) as Point];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.02);
    }
    expect(
      keysOfLayers(sceneOf(apart), ['a'])
        .filter((c) => c.ref.key === 'position')
        .map((c) => c.ref.part),
    ).toEqual([0, 1]);
  });
});

describe('a flash', () => {
  it('holds each colour for its frames and gives the old one back', () => {
    const next = done(base, flash(fill, ['#FFFFFF', '#10132E'], 3, 12, 24));
    const colors = [0, 11, 12, 14, 15, 17, 18, 21, 23, 24, 50].map((f) => valueAt(next, fill, f));
    const [own, a, b] = ['#FF5D5D', '#FFFFFF', '#10132E'];
    expect(colors).toEqual([own, own, a, a, b, b, a, b, b, own, own]);
  });
  it('leaves what moves before and after it alone', () => {
    const fading = done(
      base,
      animate(fill, [
        [0, '#000000', soft],
        [40, '#FFFFFF'],
      ]),
    );
    const next = done(fading, flash(fill, ['#FF0000'], 4, 12, 20));
    const red = (doc: Project, f: number) => parseInt((valueAt(doc, fill, f) as string).slice(1, 3), 16);
    for (const f of [0, 5, 11, 20, 25, 33, 40]) expect(Math.abs(red(next, f) - red(fading, f))).toBeLessThanOrEqual(1);
    expect([12, 19].map((f) => valueAt(next, fill, f))).toEqual(['#FF0000', '#FF0000']);
  });
});

describe('the time of layers', () => {
  it('is cut in two without a change of the picture', () => {
    const cut = done(base, splitLayers('s', ['a'], 17, countingIds('n')));
    expect(sceneOf(cut).order.length).toBe(4);
    for (let f = 0; f < 60; f++) expect(picture(cut, f)).toBe(picture(base, f));
  });
  it('is not cut where the layer does not show', () => {
    expect(done(base, splitLayers('s', ['a'], 0, countingIds('n')))).toEqual(base);
  });
  it('is stretched with its keyframes', () => {
    const next = done(base, stretchLayers('s', ['a'], 1.5));
    expect([sceneOf(next).layers.a?.to, frames(next), frames(next, position)]).toEqual([90, [15, 45], [0, 30, 60]]);
  });
  it('is extended to the end of the scene', () => {
    const short = done(base, stretchLayers('s', ['a'], 0.5));
    expect(sceneOf(done(short, extendLayers('s', ['a']))).layers.a?.to).toBe(60);
  });
  it('runs backwards', () => {
    const back = done(base, reverseLayers('s', ['a']));
    for (let f = 0; f < 60; f++) {
      const [on, off] = [valueAt(base, position, f) as Point, valueAt(back, position, 59 - f) as Point];
      expect(Math.hypot(on[0] - off[0], on[1] - off[1])).toBeLessThan(1e-6);
    }
  });
});

describe('markers', () => {
  it('stand in the order of their frames', () => {
    const two = done(
      done(base, addMarker('s', { id: 'm', frame: 30, name: 'Out' })),
      addMarker('s', { id: 'n', frame: 12, name: 'In' }),
    );
    expect(sceneOf(two).markers.map((m) => m.name)).toEqual(['In', 'Out']);
    const moved = done(two, setMarker('s', 'n', { frame: 44 }));
    expect(sceneOf(moved).markers.map((m) => m.name)).toEqual(['Out', 'In']);
    expect(sceneOf(done(moved, removeMarker('s', 'm'))).markers.map((m) => m.name)).toEqual(['In']);
  });
});
