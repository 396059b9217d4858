/** Points that are shared by layers. */
import { beforeEach, describe, expect, it } from 'vitest';
import { countingIds, newDrawing, newItem, newProject, stillAll } from '../document/make';
import type { Id, Layer, Point, Project, PropertyRef, Value } from '../document/types';
import { apply } from '../geometry/matrix';
import { PIN_CORNERS } from '../recipe/covers/pin';
import { leadsOf } from '../scene/follows';
import { BLANK, done, messages, programOf, ref, sceneOf, valueAt } from '../test/formulas';
import { addKeys } from './keyframes';
import { addLayers, copiesOf } from './layers';
import {
  canJoin,
  isJoined,
  joinedTo,
  joinPoint,
  jointOf,
  leadOfPoint,
  leadsOfPoints,
  turnJoint,
  unjoinPoints,
  writesOfPoint,
} from './joints';
import { animate, setValue } from './properties';
import { setParent } from './place';

/** A rectangle stretched by its corners, which stand in a group that is turned. */
const word = (id: Id, place: { readonly [key: string]: Value }): Layer => {
  const cards = [newItem(`${id}r`, 'rectangle', { width: 80, height: 40 }), newItem(`${id}f`, 'fill')];
  const group = { ...newItem(`${id}g`, 'group', { position: [5, 9], rotation: 10 }), children: [`${id}p`] };
  const layer = newDrawing(BLANK, id, id, [...cards, group]);
  return {
    ...layer,
    items: { ...layer.items, [`${id}p`]: newItem(`${id}p`, 'pin') },
    params: { ...layer.params, ...stillAll(place) },
  };
};
const corner = (id: Id, key: (typeof PIN_CORNERS)[number]): PropertyRef => ref(id, key, `${id}p`);
const [A, B, C] = [corner('a', 'topRight'), corner('b', 'topLeft'), corner('c', 'topLeft')];

/** Where a corner stands in the picture. */
const seen = (doc: Project, at: PropertyRef, frame: number): Point => {
  const card = programOf(doc).cardAt(at.layer, at.item as Id, frame);
  return apply(card!.matrix, card!.values[at.key] as Point);
};
const near = ([x, y]: Point, [u, v]: Point) => {
  expect(x).toBeCloseTo(u, 6);
  expect(y).toBeCloseTo(v, 6);
};

let doc: Project;
beforeEach(() => {
  doc = done(
    newProject('p', 'Corners', [BLANK]),
    addLayers('s', [
      word('a', { position: [120, 90], rotation: 30, scale: [1.5, 0.8] }),
      word('b', { position: [300, 200], rotation: -70, scale: [-1, 1.2], pivot: [7, 3] }),
      word('c', { position: [220, 320] }),
    ]),
    animate(A, [
      [0, [10, -30], { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 }],
      [30, [90, -60], { kind: 'linear' }],
      [60, [40, 20]],
    ]),
    setParent('s', ['c'], 'b', 0),
  );
});

describe('a joined corner', () => {
  it('is where its lead is, whatever both stand in, at every frame', () => {
    const joined = done(doc, joinPoint(B, A), joinPoint(C, B));
    for (const frame of [0, 7, 30, 44, 60, 99]) {
      near(seen(joined, B, frame), seen(doc, A, frame));
      near(seen(joined, C, frame), seen(doc, A, frame));
    }
    expect(messages(joined)).toEqual([]);
    // A layer that moves takes its own corner along, and what is joined to that stays with it.
    const turned = done(
      joined,
      animate(ref('a', 'rotation'), [
        [0, 0],
        [50, 120],
      ]),
    );
    near(seen(turned, C, 25), seen(turned, A, 25));
  });
  it('is known on both sides, and in what follows what', () => {
    const scene = sceneOf(done(doc, joinPoint(B, A)));
    expect(jointOf(scene, B)).toEqual({ to: A, along: 'both' });
    expect(joinedTo(scene, A)).toEqual([B]);
    expect([A, B, C].map((at) => isJoined(scene, at))).toEqual([true, true, false]);
    expect([...leadsOf(scene, 'b')]).toEqual(['a']);
  });
  it('follows in x or in y alone, and keeps its own in the other', () => {
    const own = valueAt(doc, C, 0) as Point;
    for (const [along, axis] of [
      ['x', 0],
      ['y', 1],
    ] as const) {
      const joined = done(doc, joinPoint(C, A), turnJoint(C, along));
      const both = valueAt(done(doc, joinPoint(C, A)), C, 20) as Point;
      const value = valueAt(joined, C, 20) as Point;
      expect(value[axis]).toBeCloseTo(both[axis], 9);
      expect(value[1 - axis]).toBe(own[1 - axis]);
      expect(jointOf(sceneOf(joined), C)?.along).toBe(along);
    }
  });
  it('takes its lead along where it is moved, in one number too', () => {
    for (const along of ['both', 'x', 'y'] as const) {
      const joined = done(doc, joinPoint(B, C), joinPoint(A, B, along));
      const program = programOf(joined);
      const writes = writesOfPoint(program, A, [33, -21], 30);
      const moved = done(joined, ...writes.map(([at, value]) => setValue(at, value, { write: 'key', frame: 30 })));
      near(valueAt(moved, A, 30) as Point, [33, -21]);
      near(seen(moved, B, 30), seen(moved, C, 30));
      expect(writes.some(([at]) => at.layer === 'c')).toBe(true);
    }
  });
  it('let go, has the motion that it had, with the keyframes of its lead', () => {
    const joined = done(doc, joinPoint(B, A));
    const free = done(joined, unjoinPoints(programOf(joined), [B]));
    expect(jointOf(sceneOf(free), B)).toBeNull();
    for (const frame of [0, 11, 29, 45, 70]) near(seen(free, B, frame), seen(joined, B, frame));
    const keys = (sceneOf(free).layers.b as { items: Record<string, { params: Record<string, { keys?: unknown[] }> }> })
      .items.bp?.params.topLeft?.keys;
    expect(keys?.map((key) => (key as { frame: number }).frame)).toEqual([0, 30, 60]);
  });
  it('let go in one number, or from a layer that moves, is as near as can be seen', () => {
    const moving = done(
      doc,
      animate(ref('a', 'rotation'), [
        [0, 0],
        [99, 90],
      ]),
      joinPoint(B, A),
      joinPoint(C, A, 'x'),
    );
    const free = done(moving, unjoinPoints(programOf(moving), [B, C]));
    for (let frame = 0; frame < 100; frame += 9) {
      for (const at of [B, C]) {
        const [[x, y], [u, v]] = [valueAt(free, at, frame) as Point, valueAt(moving, at, frame) as Point];
        expect(Math.hypot(x - u, y - v)).toBeLessThan(0.1);
      }
    }
  });
  it('never goes in a circle', () => {
    const joined = done(doc, joinPoint(B, A), joinPoint(C, B));
    const scene = sceneOf(joined);
    expect(leadOfPoint(scene, C)).toEqual(A);
    expect(canJoin(scene, A, C)).toBe(false);
    expect(canJoin(scene, B, B)).toBe(false);
    expect(() => done(joined, joinPoint(A, C))).toThrow('joined already');
    // Joining what follows takes its lead along: all are one.
    const other = corner('c', 'bottomLeft');
    expect(jointOf(sceneOf(done(joined, joinPoint(C, other))), A)).toEqual({ to: other, along: 'both' });
  });
  it('of a copy is joined to the copy of its lead', () => {
    const joined = done(doc, joinPoint(B, A));
    const { layers } = sceneOf(joined);
    const copies = copiesOf([layers.a as Layer, layers.b as Layer], countingIds('copy'));
    const scene = sceneOf(done(joined, addLayers('s', copies)));
    const [, b] = copies as [Layer, Layer];
    const item = Object.values((b as { items: Record<string, { id: Id; kind: string }> }).items).find(
      ({ kind }) => kind === 'pin',
    );
    expect(jointOf(scene, ref(b.id, 'topLeft', item!.id))?.to.layer).toBe(copies[0]?.id);
  });
  it('in depth is joined on the plane of its own layer', () => {
    const deep = done(
      doc,
      ...['a', 'b'].map((id) => setValue(ref(id, 'depth'), true, { write: 'curve' as const, frame: 0 })),
      ...['a', 'b'].map((id) => setValue(ref(id, 'z'), 50, { write: 'curve' as const, frame: 0 })),
      joinPoint(B, A),
    );
    near(seen(deep, B, 12), seen(deep, A, 12));
  });
});

describe('keyframes on corners', () => {
  it('come once to what leads them', () => {
    const joined = done(doc, joinPoint(B, A));
    const all = ['a', 'b'].flatMap((id) => PIN_CORNERS.map((key) => corner(id, key)));
    const keyed = done(joined, addKeys(leadsOfPoints(sceneOf(joined), all), 12));
    for (const at of all) expect(valueAt(keyed, at, 12)).toEqual(valueAt(joined, at, 12));
    const { items } = sceneOf(keyed).layers.b as { items: Record<string, { params: Record<string, unknown> }> };
    expect(Object.keys(items.bp?.params ?? {}).filter((key) => (items.bp?.params[key] as { keys?: [] }).keys)).toEqual([
      'topRight',
      'bottomRight',
      'bottomLeft',
    ]);
  });
});

describe('a point where it stands elsewhere', () => {
  it('that stands in what it would move is a circle, and named', () => {
    const circle = done(doc, {
      label: '',
      change: (draft) => {
        const layer = draft.scenes.s!.layers.a!;
        layer.formulas = { pivot: { text: 'here({@b/bp/topLeft})', on: true } };
      },
    });
    expect(messages(circle).join()).toContain('circle: a / Pivot → a / Pivot');
  });
  it.each([
    ['here({@b/rotation})', 'This wants a point'],
    ['here([1, 2])', 'here reads a point'],
    ['here({@gone/position})', 'wants a point'],
  ])('says what is wrong with %s', (text, says) => {
    const wrong = done(doc, {
      label: '',
      change: (draft) => {
        draft.scenes.s!.layers.c!.formulas = { position: { text, on: true } };
      },
    });
    expect(messages(wrong).join()).toContain(says);
  });
});
