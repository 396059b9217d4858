import { describe, expect, it } from 'vitest';
import { Invalid } from '../check/problem';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newNest, newProject, newScene } from '../document/make';
import { wholeScene } from './whole';
import { applyEdit } from '../edits/apply';
import type { DrawingLayer, Project, Scene } from '../document/types';
import { addItem } from '../edits/recipe';
import type { Matrix } from '../geometry/matrix';
import { addLayers, setLayers } from '../edits/layers';
import { addNest, nestLayers } from '../edits/nests';
import { animate, setValue } from '../edits/properties';
import { addScene, removeScene, setScene } from '../edits/scenes';
import { slideLayers, stretchLayers } from '../edits/timing';
import type { GroupMark } from '../recipe/types';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';
import { nest, nestedFrame } from '../recipe/sources/nest';
import { done } from '../test/done';

const size = { width: 200, height: 100, rate: { num: 25, den: 1 }, length: 50, background: '#10132E' } as const;
const outer = newScene('o', 'Outer', size);
const inner = newScene('i', 'Inner', size);
const lamp = newDrawing(inner, 'l', 'Lamp', [newItem('e', 'ellipse'), newItem('f', 'fill')]);
const linear = { kind: 'linear' } as const;
const base = done(
  newProject('p', 'Project', [outer, inner]),
  addLayers('i', [lamp]),
  animate({ scene: 'i', layer: 'l', key: 'position' }, [
    [0, [0, 50], linear],
    [50, [100, 50]],
  ]),
  addNest('o', 'i', 'n', 0),
);
const frameOf = (doc: Project, frame: number) => {
  const scene = wholeScene(doc.scenes.o as Scene, doc);
  return compileScene(scene, NO_LIBRARY).at(frame);
};
/** The x of the lamp in the outer scene. */
const lampAt = (doc: Project, frame: number): number | null => {
  const [nest] = frameOf(doc, frame).marks as GroupMark[];
  const mark = nest?.marks[0];
  return mark && 'matrix' in mark ? mark.matrix[4] : null;
};
const set = (key: string, value: never) =>
  setValue({ scene: 'o', layer: 'n', item: 'n-nest', key }, value, { write: 'curve', frame: 0 });

describe('a nest of a scene', () => {
  it('begins where it is wanted, at the beginning of what it plays, and lasts as long by the clock', () => {
    const quick = done(
      base,
      addScene('q', 'Quick', { ...size, rate: { num: 50, den: 1 }, length: 30 }),
      addNest('o', 'q', 'm', 12),
    );
    const layer = quick.scenes.o?.layers.m as DrawingLayer;
    expect([layer.from, layer.to, layer.items['m-nest']?.params.start]).toEqual([12, 27, { value: 12 }]);
  });
  it('plays slower where it is stretched: all of it is still seen', () => {
    const longer = done(base, stretchLayers('o', ['n'], 2));
    expect([10, 40, 80].map((f) => lampAt(longer, f))).toEqual([5, 20, 40].map((f) => lampAt(base, f)));
  });
  it('is called by its scene when that is called otherwise, unless it has a name of its own', () => {
    const two = done(
      base,
      addNest('o', 'i', 'n2', 0),
      addNest('o', 'i', 'n3', 0),
      setLayers('o', ['n3'], { name: 'Lantern' }),
    );
    const names = (doc: Project) => ['n', 'n2', 'n3'].map((id) => doc.scenes.o?.layers[id]?.name);
    expect(names(two)).toEqual(['Inner', 'Inner 2', 'Lantern']);
    expect(names(done(two, setScene('i', { name: 'Lamp' })))).toEqual(['Lamp', 'Lamp 2', 'Lantern']);
  });
});

describe('the time of a nest', () => {
  const plays = (part: object, frame: number, rate = { num: 25, den: 1 }) =>
    nestedFrame(
      { play: 'forward', speed: 1, rounds: 1, start: 10, still: 0, time: 0, ...part },
      frame,
      { num: 25, den: 1 },
      { rate, length: 20 },
    );
  it.each([
    ['before it begins', {}, 9, null],
    ['forward', {}, 15, 5],
    ['after its end it waits', {}, 60, 19],
    ['half as fast', { speed: 0.5 }, 20, 5],
    ['three times, the third', { rounds: 3 }, 10 + 45, 5],
    ['backward', { play: 'backward' }, 14, 15],
    ['there and back', { play: 'pingpong' }, 10 + 19 + 4, 15],
    ['back where it began after the last round', { play: 'pingpong', rounds: 2 }, 10 + 80, 0],
    ['one frame', { play: 'freeze', still: 7 }, 30, 7],
    ['as it is keyed', { play: 'keyed', time: 12.5 }, 30, 12.5],
  ])('%s', (_name, part, frame, expected) => {
    expect(plays(part, frame)).toBe(expected);
  });
  it('runs by the clock where the rates differ', () => {
    expect(plays({}, 15, { num: 50, den: 1 })).toBe(10);
  });
  it('has all of its parameters described', () => {
    expect(Object.keys(nest.params)).toEqual([
      'scene',
      'play',
      'speed',
      'rounds',
      'start',
      'still',
      'time',
      'background',
      'space',
    ]);
  });
});

describe('a nest', () => {
  it('shows its scene about its middle, cut off at its edges', () => {
    expect(lampAt(base, 25)).toBe(50);
    const [mark] = frameOf(base, 25).marks as GroupMark[];
    expect(mark?.cuts?.map((cut) => cut.mode)).toEqual(['show']);
    expect(lampAt(done(base, set('speed', 0.5 as never)), 30)).toBe(30);
    expect(lampAt(done(base, slideLayers('o', ['n'], 10)), 30)).toBe(40);
  });
  it('follows its scene when that is edited', () => {
    const moved = done(
      base,
      setValue({ scene: 'i', layer: 'l', key: 'position' }, [70, 50], { write: 'curve', frame: 0 }),
    );
    expect(lampAt(moved, 0)).toBe(70);
  });
  it('shows the background only where that is wanted', () => {
    const inside = (doc: Project) => (frameOf(doc, 0).marks[0] as GroupMark).marks.length;
    expect([inside(base), inside(done(base, set('background', true as never)))]).toEqual([1, 2]);
  });
  it('never plays itself, and keeps its scene from being deleted', () => {
    expect(() => applyEdit(base, addNest('i', 'o', 'x', 0))).toThrow(
      '“Outer” cannot be nested in “Inner”: it would play itself',
    );
    expect(() => applyEdit(base, removeScene('i'))).toThrow('“Inner” is nested in “Outer”');
    const round = {
      ...base,
      scenes: { ...base.scenes, i: { ...inner, layers: { x: newNest(inner, 'x', 'X', 'o') }, order: ['x'] } },
    };
    expect(() => checkProject(round)).toThrow(Invalid);
  });
  it('takes layers in without a change of the picture', () => {
    const two = done(
      newProject('p', 'Project', [outer]),
      addLayers('o', [
        { ...lamp, id: 'a' },
        { ...lamp, id: 'b', params: { position: { value: [120, 30] } } },
      ]),
    );
    const nested = done(two, nestLayers('o', ['a', 'b'], 'Lamps', 0, countingIds('n')));
    expect([nested.order.length, nested.scenes.o?.order.length]).toEqual([2, 1]);
    const places = (doc: Project) =>
      frameOf(doc, 5)
        .marks.flatMap((m) => (m.op === 'group' ? m.marks : [m]))
        .map((m) => ('matrix' in m ? m.matrix : null));
    expect(places(nested)).toEqual(places(two));
  });
  it('is copied by a repeater, each copy so many frames later', () => {
    const card = newItem('r', 'repeater', { copies: 3, delay: 10, position: [0, 0] });
    const copies = done(base, addItem('o', 'n', card));
    const xs = (frame: number) => {
      const [all] = frameOf(copies, frame).marks as GroupMark[];
      return (all?.marks ?? []).map((copy) => ((copy as GroupMark).marks[0] as { matrix: Matrix }).matrix[4]);
    };
    // The lamp goes two pixels a frame.
    expect(xs(30)).toEqual([60, 40, 20]);
    // A copy has not begun where its scene has not.
    expect(xs(15)).toEqual([30, 10]);
  });
  it('is masked and grouped like anything that is drawn', () => {
    const hole = { ...newItem('m', 'mask', { mode: 'hide' }), children: ['c'] };
    const masked = done(
      base,
      addItem('o', 'n', { ...hole, children: [] }),
      addItem('o', 'n', newItem('c', 'ellipse'), 'm'),
    );
    const [mark] = frameOf(masked, 25).marks as GroupMark[];
    const modes = [mark, mark?.marks[0] as GroupMark].map((group) => group?.cuts?.map((cut) => cut.mode));
    expect(modes).toEqual([['hide'], ['show']]);
  });
  it('tells what is wrong with what it plays', () => {
    expect(compileScene(base.scenes.o as Scene, NO_LIBRARY).at(0).problems).toEqual([
      { layer: 'n', message: 'plays a scene that is gone' },
    ]);
  });
  it('in depth has the picture of a flat one for what looks at it, beside its planes', () => {
    const groupOf = (doc: Project): GroupMark => {
      const scene = wholeScene(doc.scenes.o as Scene, doc);
      return compileScene(scene, NO_LIBRARY).marksAt('n', 10)[0] as GroupMark;
    };
    const grounded = done(base, set('background', true as never));
    const [flat, own] = [groupOf(grounded), groupOf(done(grounded, set('space', true as never)))];
    expect(own.planes?.map(({ marks }) => marks.length)).toEqual([1, 1]);
    expect({ ...own, planes: undefined }).toEqual({ ...flat, planes: undefined });
    expect(flat.marks).toHaveLength(2);
  });
  it('can be told to play another scene, never one that plays its own', () => {
    const third = done(base, addScene('t', 'Third', size));
    const scene = { scene: 'o', layer: 'n', item: 'n-nest', key: 'scene' };
    const how = { write: 'key', frame: 7 } as const;
    const other = done(third, setValue(scene, 't', how));
    // Auto-key sets no keyframe on what a layer is.
    expect((other.scenes.o?.layers.n as DrawingLayer).items['n-nest']?.params.scene).toEqual({ value: 't' });
    expect(() => applyEdit(third, setValue(scene, 'o', how))).toThrow('it would play itself');
    expect(() => applyEdit(third, setValue(scene, 'gone', how))).toThrow('there is no scene "gone"');
  });
  it('is the same object for the same scenes', () => {
    const { scenes } = base;
    expect(wholeScene(scenes.o as Scene, base)).toBe(wholeScene(scenes.o as Scene, { ...base, scenes: { ...scenes } }));
    expect(wholeScene(scenes.i as Scene, base)).toBe(scenes.i);
  });
});

it('looks through the layers of a scene once, however often it is asked for', () => {
  let looks = 0;
  const watched = <S extends Scene>(scene: S): S => ({
    ...scene,
    layers: new Proxy(scene.layers, {
      ownKeys: (layers) => {
        looks++;
        return Reflect.ownKeys(layers);
      },
    }),
  });
  const scenes = { o: watched(base.scenes.o as Scene), i: watched(base.scenes.i as Scene) };
  const ask = () => wholeScene(scenes.o, { scenes, eases: [{ id: 'e', name: 'Soft', ease: linear }] });
  const first = ask();
  const once = looks;
  expect(once).toBeGreaterThan(0);
  expect([ask(), ask()]).toEqual([first, first]);
  expect(looks).toBe(once);
});
