import { describe, expect, it } from 'vitest';
import { countingIds, newDrawing, newItem, newProject, newRoutine, newScene } from '../document/make';
import { PLACE } from '../document/params';
import { samplerOf } from '../motion/sampler';
import { applyEdit } from './apply';
import type { DrawingLayer, Ease, KeyedProperty, Project, Scene } from '../document/types';
import type { Routine, RoutineStep } from '../document/moves';
import { changeKey } from './keyframes';
import { addLayers, copiesOf, removeLayers } from './layers';
import { addRoutine, joinRoutines, removeRoutine, setRoutine } from './routines';
import { slideLayers, stretchLayers } from './timing';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 200, background: '#10132E' } as const;
const first = newScene('s', 'One', size);
const stop = (id: string) =>
  newDrawing(
    first,
    id,
    id,
    [newItem(`${id}-e`, 'ellipse'), newItem(`${id}-t`, 'trim'), newItem(`${id}-f`, 'fill', { color: '#FFB23E' })],
    { position: [100, 150] },
  );
const base = applyEdit(newProject('p', 'Project', [first]), addLayers('s', [stop('a'), stop('b'), stop('c')])).doc;
const ease: Ease = { kind: 'bezier', x1: 0.6, y1: 0, x2: 0.9, y2: 0.8 };
const steps: readonly RoutineStep[] = [
  { kind: 'move', value: [60, 0], frames: 10, gap: 0, ease },
  { kind: 'grow', value: 1.5, frames: 8, gap: -4, ease },
  { kind: 'colour', value: '#2EC4B6', frames: 6, gap: 2, ease },
];
const routine: Routine = newRoutine('r', 'Leave the stop', steps, ['a', 'b'], { start: 5, stagger: 3 });
const layerOf = (doc: Project, id: string) => (doc.scenes.s as Scene).layers[id] as DrawingLayer;
const keys = (doc: Project, id: string, key: string) =>
  (layerOf(doc, id).params[key] as KeyedProperty | undefined)?.keys?.map((k) => [k.frame, k.value]);
const color = (doc: Project, id: string) => layerOf(doc, id).items[`${id}-f`]?.params.color;
const played = done(base, addRoutine('s', routine));

describe('a routine', () => {
  it('goes through its steps on each layer, one after another, overlapping where they are told to', () => {
    expect(keys(played, 'a', 'position')).toEqual([
      [5, [100, 150]],
      [15, [160, 150]],
    ]);
    expect(keys(played, 'a', 'scale')).toEqual([
      [11, [1, 1]],
      [19, [1.5, 1.5]],
    ]);
    expect(keys(played, 'b', 'position')?.map(([f]) => f)).toEqual([8, 18]);
    expect((color(played, 'b') as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
      [24, '#FFB23E'],
      [30, '#2EC4B6'],
    ]);
  });
  it('turns layers in depth and moves them away, round after round', () => {
    const deep: readonly RoutineStep[] = [
      { kind: 'turnY', value: 90, frames: 10, gap: 0, ease },
      { kind: 'turnX', value: -45, frames: 10, gap: 0, ease },
      { kind: 'away', value: 50, frames: 10, gap: 0, ease },
    ];
    const over = newRoutine('o', 'Over', deep, ['a'], { start: 0, stagger: 0 });
    const turned = done(base, addRoutine('s', { ...over, forever: true }));
    expect(layerOf(turned, 'a').params.depth).toEqual({ value: true });
    const at = (key: 'turnX' | 'turnY' | 'z', frame: number) =>
      samplerOf(PLACE[key], layerOf(turned, 'a').params[key]).at(frame);
    // Each round goes on from where the one before it ended.
    expect([10, 40, 70].map((f) => at('turnY', f))).toEqual([90, 180, 270]);
    expect([20, 50].map((f) => at('turnX', f))).toEqual([-45, -90]);
    expect([30, 60].map((f) => at('z', f))).toEqual([50, 100]);
    expect(keys(done(turned, removeRoutine('s', 'o')), 'a', 'turnY')).toBeUndefined();
  });
  it('changes on all its layers when a step changes', () => {
    const next = done(played, setRoutine('s', 'r', { steps: [{ ...steps[0]!, value: [0, -40], frames: 4 }] }));
    for (const [id, start] of [
      ['a', 5],
      ['b', 8],
    ] as const) {
      expect(keys(next, id, 'position')).toEqual([
        [start, [100, 150]],
        [start + 4, [100, 110]],
      ]);
      expect(layerOf(next, id).params.scale).toEqual({ value: [1, 1] });
      expect(color(next, id)).toEqual({ value: '#FFB23E' });
    }
  });
  it('is gone through again, further on, or there and back', () => {
    const move = { steps: [steps[0]!], rounds: 3 };
    expect(keys(done(played, setRoutine('s', 'r', move)), 'a', 'position')?.map(([, v]) => v)).toEqual([
      [100, 150],
      [160, 150],
      [220, 150],
      [280, 150],
    ]);
    const back = done(played, setRoutine('s', 'r', { ...move, rounds: 2, pingpong: true }));
    expect(keys(back, 'a', 'position')).toEqual([
      [5, [100, 150]],
      [15, [160, 150]],
      [25, [100, 150]],
    ]);
    // The way back is the way there, backwards.
    const eases = (layerOf(back, 'a').params.position as KeyedProperty).keys.map((k) => k.ease);
    expect(eases[1]).toMatchObject({
      kind: 'bezier',
      x1: expect.closeTo(0.1),
      y1: expect.closeTo(0.2),
      x2: 0.4,
      y2: 1,
    });
  });
  it('takes layers in and lets them go', () => {
    const more = done(played, setRoutine('s', 'r', { players: ['a', 'b', 'c'] }));
    expect(keys(more, 'c', 'position')?.[0]).toEqual([11, [100, 150]]);
    const less = done(more, setRoutine('s', 'r', { players: ['b', 'c'] }));
    expect(layerOf(less, 'a').params.position).toEqual({ value: [100, 150] });
    expect(keys(less, 'b', 'position')?.[0]).toEqual([5, [100, 150]]);
    expect(done(more, removeLayers('s', ['b'])).scenes.s?.routines[0]?.players).toEqual(['a', 'c']);
  });
  it('leaves a layer that was edited by hand as it is, from then on', () => {
    const edited = done(played, changeKey({ scene: 's', layer: 'a', key: 'position' }, 15, { value: [0, 0] }));
    const next = done(edited, setRoutine('s', 'r', { start: 20 }));
    expect(keys(next, 'a', 'position')).toEqual(keys(edited, 'a', 'position'));
    expect(next.scenes.s?.routines[0]?.players).toEqual(['b']);
    expect(keys(next, 'b', 'position')?.[0]?.[0]).toBe(20);
  });
  it('goes at another speed as a whole', () => {
    const quick = done(played, setRoutine('s', 'r', { speed: 2 }));
    expect(keys(quick, 'a', 'position')?.map(([f]) => f)).toEqual([5, 10]);
    // Eight frames from two before the end of the first: half of all of it.
    expect(keys(quick, 'a', 'scale')?.map(([f]) => f)).toEqual([8, 12]);
    expect(keys(done(quick, setRoutine('s', 'r', { speed: 1 })), 'a', 'scale')).toEqual(keys(played, 'a', 'scale'));
  });
  it('has an order of its players', () => {
    const all = setRoutine('s', 'r', { players: ['a', 'b', 'c'] });
    const first = (doc: Project) => ['a', 'b', 'c'].map((id) => keys(doc, id, 'position')?.[0]?.[0]);
    expect(first(done(played, all))).toEqual([5, 8, 11]);
    expect(first(done(played, all, setRoutine('s', 'r', { order: 'reversed' })))).toEqual([11, 8, 5]);
    expect(first(done(played, all, setRoutine('s', 'r', { order: 'centre' })))).toEqual([8, 5, 8]);
  });
  it('goes on for ever: what moves goes on from there, what grows begins anew', () => {
    const on = done(played, setRoutine('s', 'r', { forever: true, steps: steps.slice(0, 2) }));
    const at = (key: 'position' | 'scale', frame: number) =>
      samplerOf(PLACE[key], layerOf(on, 'a').params[key]).at(frame);
    // A round is of 14 frames: ten, and eight from four before its end.
    expect([5, 15, 19, 29, 33, 43, 47].map((f) => (at('position', f) as number[])[0])).toEqual([
      100, 160, 160, 220, 220, 280, 280,
    ]);
    expect([5, 11, 19, 20, 25].map((f) => (at('scale', f) as number[])[0])).toEqual([1, 1, 1.5, 1, 1]);
    const back = done(on, setRoutine('s', 'r', { pingpong: true }));
    const there = samplerOf(PLACE.position, layerOf(back, 'a').params.position);
    expect([5, 15, 19, 23, 33, 43].map((f) => (there.at(f) as number[])[0])).toEqual([100, 160, 160, 160, 100, 160]);
    expect(layerOf(done(back, removeRoutine('s', 'r')), 'a').params.position).toEqual({ value: [100, 150] });
  });
  it('is played by the copies of its players too', () => {
    const copies = copiesOf([layerOf(played, 'b')], countingIds('k'), () => 'd');
    const more = done(played, addLayers('s', copies), joinRoutines('s', new Map([['b', 'd']])));
    expect(more.scenes.s?.routines[0]?.players).toEqual(['a', 'b', 'd']);
    expect(keys(more, 'd', 'position')).toEqual([
      [11, [100, 150]],
      [21, [160, 150]],
    ]);
    expect(keys(done(more, setRoutine('s', 'r', { start: 0 })), 'd', 'position')?.[0]?.[0]).toBe(6);
  });
  it('goes along when all its players are slid or stretched', () => {
    const slid = done(played, slideLayers('s', ['a', 'b'], 10));
    expect(slid.scenes.s?.routines[0]?.start).toBe(15);
    expect(keys(done(slid, setRoutine('s', 'r', { stagger: 0 })), 'b', 'position')?.[0]?.[0]).toBe(15);
    const long = done(played, stretchLayers('s', ['a', 'b'], 2));
    expect(long.scenes.s?.routines[0]).toMatchObject({ start: 10, stagger: 6, speed: 0.5, players: ['a', 'b'] });
    expect(keys(long, 'b', 'position')?.map(([f]) => f)).toEqual([16, 36]);
    // By a third nothing falls on whole frames: it is written to them, and can be adjusted still.
    const odd = done(played, stretchLayers('s', ['a', 'b'], 4 / 3));
    const next = done(odd, setRoutine('s', 'r', { start: 0 }));
    expect(next.scenes.s?.routines[0]?.players).toEqual(['a', 'b']);
  });
  it('is taken away without a trace', () => {
    const back = done(played, removeRoutine('s', 'r'));
    for (const id of ['a', 'b']) {
      expect(layerOf(back, id).params.position).toEqual({ value: [100, 150] });
      expect(color(back, id)).toEqual({ value: '#FFB23E' });
    }
    expect(back.scenes.s?.routines).toEqual([]);
  });
});
