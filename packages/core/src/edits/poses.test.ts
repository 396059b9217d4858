import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import { PLACE } from '../document/params';
import type { HeldPose } from '../document/poses';
import { type DrawingLayer, isKeyed, type Project, type Property, type Scene, type Value } from '../document/types';
import { checkProject } from '../check/project';
import { samplerOf } from '../motion/sampler';
import { changesOf, inPose, posedAt } from '../moves/poses';
import { editedByHand, heldAt } from '../moves/poseStrip';
import { paramsOf } from '../recipe/table';
import { done } from '../test/done';
import { applyEdit } from './apply';
import { addLayers, copiesOf, removeLayers, setLayers } from './layers';
import {
  addHeld,
  changePoses,
  dropStrip,
  followPoses,
  joinPoses,
  keepPose,
  moveHeld,
  removeHeld,
  removePose,
  setHeld,
  setStrip,
  showPose,
} from './poses';
import { animate, setValue } from './properties';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 200, background: '#10132E' } as const;
const scene = newScene('s', 'One', size);
const stop = (id: string) =>
  newDrawing(scene, id, id, [newItem(`${id}-e`, 'ellipse'), newItem(`${id}-f`, 'fill', { color: '#FFB23E' })], {
    position: [100, 150],
  });
const here = { write: 'curve', frame: 0 } as const;
const own = (layer: string, key: string) => ({ scene: 's', layer, key });
const fillOf = (layer: string) => ({ scene: 's', layer, item: `${layer}-f`, key: 'color' });
const set = (layer: string, key: string, value: Value) => setValue(own(layer, key), value, here);
const held = (id: string, pose: string, hold: number, between = 0, each = 1): HeldPose => ({
  id,
  pose,
  hold,
  between,
  each,
});

const sceneOf = (doc: Project) => doc.scenes.s as Scene;
const layerOf = (doc: Project, id: string) => sceneOf(doc).layers[id] as DrawingLayer;
const at = (doc: Project, id: string, key: keyof typeof PLACE, frame: number) =>
  samplerOf(PLACE[key], layerOf(doc, id).params[key]).at(frame);
const colorAt = (doc: Project, id: string, frame: number) => {
  const { color } = paramsOf('fill') as { color: Parameters<typeof samplerOf>[0] };
  return samplerOf(color, layerOf(doc, id).items[`${id}-f`]?.params.color).at(frame);
};
const keysOf = (property: Property | undefined) =>
  isKeyed(property) ? property.keys.map((k) => [k.frame, k.value, k.ease.kind]) : null;

const base = applyEdit(newProject('p', 'Project', [scene]), addLayers('s', [stop('a'), stop('b')])).doc;
/** Left: both there. Right: “a” moved and of another colour, “b” hidden. */
const kept = done(
  base,
  keepPose('s', 'left', 'Left', 0),
  set('a', 'position', [300, 150]),
  setValue(fillOf('a'), '#2EC4B6', here),
  setLayers('s', ['b'], { hidden: true }),
  keepPose('s', 'right', 'Right', 0),
);
const strip = (...pictures: readonly HeldPose[]) => done(kept, addHeld('s', pictures, 0));

describe('poses', () => {
  it('are what a scene shows: where, how strongly, in what colours', () => {
    const [left, right] = sceneOf(kept).poses?.kept ?? [];
    expect(left?.layers.a?.own.position).toEqual([100, 150]);
    expect(right?.layers.a?.own.position).toEqual([300, 150]);
    expect(right?.layers.a?.parts['a-f']).toEqual({ color: '#2EC4B6' });
    expect(right?.layers.b?.own.opacity).toBe(0);
  });

  it('are written where they change alone: a pose holds all that a scene shows', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5));
    const paths = (edit: Parameters<typeof applyEdit>[1]) =>
      applyEdit(doc, edit)
        .patches.map(({ path }) => path.join('/'))
        .filter((path) => path.startsWith('scenes/s/poses'));
    expect(paths(setHeld('s', ['1'], { hold: 12 }))).toEqual(['scenes/s/poses/strip']);
    expect(paths(keepPose('s', 'third', 'Third', 0))).toEqual(['scenes/s/poses/kept/2']);
    expect(paths(changePoses('s', 'right', ['right'], 0))).toEqual(['scenes/s/poses/kept/1']);
  });

  it('are shown again, in the scene or beside it', () => {
    const beside = inPose(sceneOf(kept), (sceneOf(kept).poses?.kept ?? [])[0] as never);
    const again = done(kept, showPose('s', 'left', here));
    for (const shown of [beside, sceneOf(again)]) {
      expect(shown.layers.a?.params.position).toEqual({ value: [100, 150] });
      expect(shown.layers.b?.hidden).toBe(false);
    }
    expect(colorAt(again, 'a', 0)).toBe('#FFB23E');
    expect(at(again, 'b', 'opacity', 0)).toBe(1);
  });

  it('one after another are held keyframes, of what differs alone; the scene ends with them', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5), held('3', 'left', 1));
    expect(keysOf(layerOf(doc, 'a').params.position)).toEqual([
      [0, [100, 150], 'hold'],
      [10, [300, 150], 'hold'],
      [15, [100, 150], 'hold'],
    ]);
    expect([0, 9, 10, 14, 15].map((f) => at(doc, 'b', 'opacity', f))).toEqual([1, 1, 0, 0, 1]);
    expect(layerOf(doc, 'b').hidden).toBe(false);
    expect(isKeyed(layerOf(doc, 'a').params.scale)).toBe(false);
    expect(sceneOf(doc).length).toBe(16);
    expect(layerOf(doc, 'a').to).toBe(16);
  });

  it('show as they were kept, however the scene moved before', () => {
    const moving = done(
      base,
      animate(own('a', 'position'), [
        [0, [0, 0]],
        [20, [100, 150]],
        [40, [0, 0]],
      ]),
      animate(own('b', 'scale'), [
        [0, [0, 0]],
        [20, [1, 1]],
      ]),
      keepPose('s', 'one', 'One', 20),
      keepPose('s', 'two', 'Two', 40),
      addHeld('s', [held('1', 'one', 5), held('2', 'two', 5)], 0),
    );
    expect([0, 5].map((f) => at(moving, 'a', 'position', f))).toEqual([
      [100, 150],
      [0, 0],
    ]);
    expect(layerOf(moving, 'b').params.scale).toEqual({ value: [1, 1] });
  });

  it('are kept as the next picture, while the one before shows as it was', () => {
    const doc = strip(held('1', 'left', 10));
    const moved = done(doc, set('a', 'position', [200, 200]), set('a', 'rotation', 90));
    const next = { held: held('2', 'third', 10), at: 1, since: 'left' };
    const three = done(moved, keepPose('s', 'third', 'Third', 0, next));
    expect([0, 10].map((f) => [at(three, 'a', 'position', f), at(three, 'a', 'rotation', f)])).toEqual([
      [[100, 150], 0],
      [[200, 200], 90],
    ]);
    const byHand = done(three, animate(own('a', 'position'), [[10, [10, 10]]]));
    const again = { held: held('3', 'fourth', 10), at: 2, since: 'third' };
    const four = done(byHand, keepPose('s', 'fourth', 'Fourth', 10, again));
    expect([0, 10, 20].map((f) => (at(four, 'a', 'position', f) as number[])[0])).toEqual([100, 200, 10]);
  });

  it('have as many pictures in between as wanted, each as long', () => {
    const one = strip(held('1', 'left', 4, 3), held('2', 'right', 4));
    // A quarter of the way for each of three pictures, and none before the first has stayed its four frames.
    expect([3, 4, 5, 6, 7].map((f) => (at(one, 'a', 'position', f) as number[])[0])).toEqual([100, 150, 200, 250, 300]);
    const long = strip(held('1', 'left', 4, 1, 3), held('2', 'right', 4));
    expect([3, 4, 6, 7].map((f) => (at(long, 'a', 'position', f) as number[])[0])).toEqual([100, 200, 200, 300]);
    expect(sceneOf(long).length).toBe(11);
  });

  it('start anew: within a scene that ends with them, or over and over', () => {
    const pictures = [held('1', 'left', 4, 1), held('2', 'right', 4, 1)];
    const fits = done(kept, setStrip('s', { loops: true }), addHeld('s', pictures, 0));
    expect(sceneOf(fits).length).toBe(10);
    expect((at(fits, 'a', 'position', 9) as number[])[0]).toBe(200);
    const goesOn = done(kept, setStrip('s', { loops: true, fits: false }), addHeld('s', pictures, 0));
    expect(sceneOf(goesOn).length).toBe(200);
    for (const f of [0, 3, 4, 5, 8, 9]) {
      expect(at(goesOn, 'a', 'position', f + 30)).toEqual(at(goesOn, 'a', 'position', f));
    }
    const { strip } = sceneOf(goesOn).poses ?? {};
    expect(strip && [0, 4, 5, 9, 10, 34].map((f) => heldAt(strip, f))).toEqual([
      { held: pictures[0], leaves: false },
      { held: pictures[0], leaves: true },
      { held: pictures[1], leaves: false },
      { held: pictures[1], leaves: true },
      { held: pictures[0], leaves: false },
      { held: pictures[0], leaves: true },
    ]);
  });

  it('are written anew as the strip is changed, until they are edited by hand', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5));
    const slower = done(doc, setHeld('s', ['1', '2'], { hold: 20 }));
    expect(keysOf(layerOf(slower, 'a').params.position)?.map(([f]) => f)).toEqual([0, 20]);
    expect(sceneOf(slower).length).toBe(40);
    const turned = done(doc, moveHeld('s', '2', 0));
    expect(at(turned, 'a', 'position', 0)).toEqual([300, 150]);
    const byHand = done(doc, animate(own('a', 'position'), [[10, [350, 150]]]));
    expect(editedByHand(sceneOf(byHand))).toEqual([own('a', 'position')]);
    const later = done(byHand, setHeld('s', ['1'], { hold: 3 }));
    expect(keysOf(layerOf(later, 'a').params.position)?.map(([f]) => f)).toEqual([0, 10]);
    expect(keysOf(layerOf(later, 'b').params.opacity)?.map(([f]) => f)).toEqual([0, 3]);
    const back = done(later, followPoses('s'));
    expect(keysOf(layerOf(back, 'a').params.position)?.map(([f]) => f)).toEqual([0, 3]);
    expect(editedByHand(sceneOf(back))).toEqual([]);
  });

  it('take what was changed where they are shown, one of them or all', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5));
    const byHand = done(doc, animate(own('a', 'position'), [[10, [350, 150]]]), set('a', 'rotation', 30));
    const shown = posedAt(sceneOf(byHand), 12);
    const right = sceneOf(byHand).poses?.kept[1] as Parameters<typeof changesOf>[0];
    expect([...changesOf(right, shown)].map(([id, { own }]) => [id, [...own.keys()]])).toEqual([
      ['a', ['position', 'rotation']],
    ]);
    const one = done(byHand, changePoses('s', 'right', ['right'], 12));
    expect([0, 12].map((f) => [at(one, 'a', 'position', f), at(one, 'a', 'rotation', f)])).toEqual([
      [[100, 150], 0],
      [[350, 150], 30],
    ]);
    expect(editedByHand(sceneOf(one))).toEqual([]);
    const all = done(byHand, changePoses('s', 'right', ['left', 'right'], 12));
    expect([0, 12].map((f) => at(all, 'a', 'rotation', f))).toEqual([30, 30]);
    expect(isKeyed(layerOf(all, 'a').params.position)).toBe(false);
  });

  it('leave words and pictures to the scene, and what is the same in all of them to it too', () => {
    const text = newDrawing(scene, 'w', 'Words', [newItem('w-t', 'text', { text: 'Night tram' })]);
    const doc = done(
      base,
      addLayers('s', [text]),
      keepPose('s', 'left', 'Left', 0),
      set('w', 'position', [50, 50]),
      keepPose('s', 'right', 'Right', 0),
      addHeld('s', [held('1', 'left', 5), held('2', 'right', 5)], 0),
      setValue({ scene: 's', layer: 'w', item: 'w-t', key: 'text' }, 'Last tram', here),
      setValue(fillOf('b'), '#FF0000', here),
      setHeld('s', ['1'], { hold: 9 }),
    );
    expect(layerOf(doc, 'w').items['w-t']?.params.text).toEqual({ value: 'Last tram' });
    expect(colorAt(doc, 'b', 0)).toBe('#FF0000');
  });

  it('go: what only they moved rests, or keeps its keyframes', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5));
    const none = done(doc, removeHeld('s', ['1', '2']));
    expect(layerOf(none, 'a').params.position).toEqual({ value: [100, 150] });
    const alone = done(doc, dropStrip('s'));
    expect(keysOf(layerOf(alone, 'a').params.position)).toHaveLength(2);
    const forgotten = done(doc, removePose('s', 'right'));
    expect(sceneOf(forgotten).poses?.strip.held).toEqual([held('1', 'left', 10)]);
    expect(at(forgotten, 'a', 'position', 5)).toEqual([100, 150]);
  });

  it('know copies of layers, and no more what is deleted', () => {
    const doc = strip(held('1', 'left', 10), held('2', 'right', 5));
    let next = 0;
    const [copy] = copiesOf([layerOf(doc, 'a')], () => `c${next++}`) as [DrawingLayer];
    const joined = done(doc, addLayers('s', [copy]), joinPoses('s', new Map([['a', copy.id]])));
    const slower = done(joined, setHeld('s', ['1'], { hold: 12 }));
    expect(keysOf(layerOf(slower, copy.id).params.position)?.map(([f]) => f)).toEqual([0, 12]);
    const gone = done(slower, removeLayers('s', ['a']));
    expect(Object.keys(sceneOf(gone).poses?.kept[0]?.layers ?? {})).not.toContain('a');
  });

  it('keep to what they may be, and say what they may not', () => {
    const doc = strip(held('1', 'left', 0, -4, 0), held('2', 'right', NaN));
    expect(sceneOf(doc).poses?.strip.held.map(({ hold, between, each }) => [hold, between, each])).toEqual([
      [1, 0, 1],
      [1, 0, 1],
    ]);
    const endless = Array.from({ length: 3 }, (_, i) => held(`${i}`, 'left', 100_000));
    expect(() => done(kept, addHeld('s', endless, 0))).toThrow('would last 300000 frames: a scene has at most 200000');
    expect(() => done(kept, addHeld('s', [held('1', 'nowhere', 4)], 0))).toThrow('there is no pose "nowhere"');
    const broken = JSON.parse(JSON.stringify(kept)) as { scenes: { s: { poses: { strip: { held: unknown } } } } };
    broken.scenes.s.poses.strip.held = [{ ...held('1', 'left', 4), hold: 0.5 }];
    expect(() => checkProject(broken)).toThrow(/poses\.strip\.held\[0\]\.hold: got 0\.5, wanted a whole number from 1/);
  });
});
