/** Cards that look at other frames, and at what lies behind: on the server's canvas, against the same drawn by itself. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Layer, Scene } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { withFollowers } from '@kite/core/scene/follows';
import { describe, expect, it } from 'vitest';
import { type Drawn, drawn } from './test/drawn';

const SIZE = { width: 160, height: 60, rate: { num: 25, den: 1 }, length: 40, background: null } as const;
const empty = newScene('s', 'Time', SIZE);
const still = (params: object) => Object.fromEntries(Object.entries(params).map(([key, value]) => [key, { value }]));
const LINEAR = { kind: 'linear' } as const;
/** Ten pixels a frame to the right. */
const moving = {
  position: {
    keys: [
      { frame: 0, value: [20, 30], ease: LINEAR },
      { frame: 10, value: [120, 30], ease: LINEAR },
    ],
  },
} as Layer['params'];
const square = (id: string, cards: readonly Item[], color = '#FFFFFF'): Layer =>
  newDrawing(empty, id, id.toUpperCase(), [
    newItem(`${id}r`, 'rectangle', { width: 20, height: 20 }),
    newItem(`${id}f`, 'fill', { color }),
    ...cards,
  ]);
const sceneOf = (layers: readonly Layer[], background: string | null = null): Scene => ({
  ...empty,
  background,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});
const differing = (a: Drawn, b: Drawn): number => {
  let count = 0;
  for (let y = 0; y < SIZE.height; y++) {
    for (let x = 0; x < SIZE.width; x++) {
      if (a.at(x, y).some((v, c) => Math.abs(v - b.at(x, y)[c]!) > 1)) count++;
    }
  }
  return count;
};

describe('a trail', () => {
  const values = { count: 3, every: 2, opacity: 1 };
  it('shows the layer where it was, as drawn at the earlier frames', () => {
    const trailed = { ...square('a', [newItem('t', 'trail', values)]), params: moving };
    const plain = { ...square('a', []), params: moving };
    const apart = [0, 2, 4, 6].map((back, i): Layer => {
      const { params } = plain;
      const at = 20 + 10 * (8 - back);
      return { ...plain, id: `p${i}`, params: { ...params, ...still({ position: [at, 30] }) } };
    });
    expect(differing(drawn(sceneOf([trailed]), { frame: 8 }), drawn(sceneOf(apart), { frame: 8 }))).toBe(0);
    // A square of twenty every twenty pixels: they touch.
    expect(drawn(sceneOf([trailed]), { frame: 8 }).alpha).toBeCloseTo(4 * 400, 0);
  });
  it('fades and shrinks towards the earliest', () => {
    const cards = [newItem('t', 'trail', { count: 1, every: 5, opacity: 0, scale: 0 })];
    const { at } = drawn(sceneOf([{ ...square('a', cards), params: moving }]), { frame: 10 });
    expect([at(120, 30)[3], at(70, 30)[3], at(64, 30)[3]]).toEqual([255, 128, 0]);
  });
  it('follows what its recipe does, too, and stays with a layer that stands still', () => {
    const turning = square('a', [newItem('t', 'trail', values)]);
    const scene = sceneOf([{ ...turning, params: still({ position: [80, 30] }) as Layer['params'] }]);
    expect(drawn(scene, { frame: 9 }).alpha).toBeCloseTo(400, 0);
  });
  it('is bounded by what a frame may cost, and told', () => {
    const trails = Array.from({ length: 6 }, (_, i) => newItem(`t${i}`, 'trail', { count: 200 }));
    const { problems } = compileScene(sceneOf([square('a', trails)]), NO_LIBRARY).at(5);
    expect(problems.map((p) => p.message).join()).toMatch(/copies|intricate/);
  });
});

describe('blur by motion', () => {
  const blurred = (shutter: number, samples: number) => ({
    ...square('a', [newItem('m', 'motion-blur', { shutter, samples })]),
    params: moving,
  });
  it('is the share of the time that the shutter is open in which each pixel is covered', () => {
    // Open for a whole frame it goes 10 pixels, 5 to each side: 40 pictures are a quarter of a pixel apart.
    const { at } = drawn(sceneOf([blurred(360, 40)]), { frame: 5 });
    for (let x = 50; x < 90; x++) {
      const centre = x + 0.5;
      const wanted = Math.min(1, Math.max(0, (15 - Math.abs(centre - 70)) / 10));
      expect(Math.abs(at(x, 30)[3] / 255 - wanted), `at ${x}`).toBeLessThan(0.06);
    }
  });
  it('shows what each of its pictures covers in its own colour, however many there are', () => {
    for (let samples = 2; samples <= 64; samples += samples < 20 ? 1 : 11) {
      for (const color of ['#646464', '#102030', '#FFB23E', '#1B1F4B', '#FEFDFC']) {
        const cards = [newItem('m', 'motion-blur', { shutter: 180, samples })];
        const scene = sceneOf([{ ...square('a', cards, color), params: moving }]);
        const [r, g, b, alpha] = drawn(scene, { frame: 5 }).at(70, 30);
        const wanted = [1, 3, 5].map((i) => parseInt(color.slice(i, i + 2), 16));
        expect(alpha).toBe(255);
        [r, g, b].forEach((level, i) => {
          expect(Math.abs(level! - wanted[i]!), `${samples} of ${color}`).toBeLessThanOrEqual(3);
        });
      }
    }
  });
  it('leaves what stands still as it is, and keeps as much of what moves', () => {
    const standing = { ...blurred(180, 12), params: still({ position: [80, 30] }) as Layer['params'] };
    const plain = { ...square('a', []), params: standing.params };
    expect(drawn(sceneOf([standing])).at(80, 30)[3]).toBeGreaterThanOrEqual(251);
    expect(Math.abs(drawn(sceneOf([standing])).alpha - drawn(sceneOf([plain])).alpha)).toBeLessThan(8);
    expect(Math.abs(drawn(sceneOf([blurred(180, 12)]), { frame: 5 }).alpha - 400)).toBeLessThan(8);
  });
  it('is that of a layer that turns in depth, too', () => {
    const turning = {
      ...still({ depth: true, position: [80, 30] }),
      turnY: {
        keys: [
          { frame: 0, value: 0, ease: LINEAR },
          { frame: 4, value: 160, ease: LINEAR },
        ],
      },
    } as Layer['params'];
    const [plain, blur] = [square('a', []), blurred(360, 16)].map((layer) => sceneOf([{ ...layer, params: turning }]));
    const moments = Array.from({ length: 16 }, (_, i) => drawn(plain!, { frame: 2 + (i + 0.5) / 16 - 0.5 }));
    const shown = drawn(blur!, { frame: 2 });
    for (let x = 66; x < 94; x++) {
      const wanted = moments.reduce((sum, { at }) => sum + at(x, 30)[3]!, 0) / moments.length;
      expect(Math.abs(shown.at(x, 30)[3]! - wanted), `at ${x}`).toBeLessThan(12);
    }
  });
  it('does nothing with its shutter shut', () => {
    const plain = { ...square('a', []), params: moving };
    expect(differing(drawn(sceneOf([blurred(0, 12)]), { frame: 5 }), drawn(sceneOf([plain]), { frame: 5 }))).toBe(0);
  });
});

describe('all that is behind a layer', () => {
  const over = (cards: readonly Item[], values = {}, params = {}): Layer => ({
    ...newDrawing(empty, 'over', 'Over', [newItem('b', 'below', values), ...cards]),
    params: still({ position: [80, 30], ...params }) as Layer['params'],
  });
  const red = { ...square('a', [], '#FF0000'), params: still({ position: [40, 30] }) as Layer['params'] };
  const blue = { ...square('z', [], '#0000FF'), params: still({ position: [100, 30] }) as Layer['params'] };
  const invert = newItem('i', 'invert');

  it('is changed with the background; what lies in front is not', () => {
    const { at } = drawn(sceneOf([blue, over([invert]), red], '#102030'));
    const inverted = ['#102030'].map((c) => [1, 3, 5].map((i) => 255 - parseInt(c.slice(i, i + 2), 16)))[0];
    expect([at(40, 30), at(100, 30), at(150, 10)].map((p) => p.slice(0, 3))).toEqual([
      [0, 255, 255],
      [0, 0, 255],
      inverted,
    ]);
  });
  it('stays where its layer and groups are moved, and shows only where it is masked', () => {
    const mask = { ...newItem('m', 'mask'), children: ['r'] };
    const layer = over([invert, mask], {}, { rotation: 40, scale: [2, 1.5], pivot: [3, 4] });
    const items = { ...(layer as { items: object }).items, r: newItem('r', 'rectangle', { width: 20, height: 12 }) };
    const { at } = drawn(
      sceneOf([{ ...layer, items } as Layer, { ...red, params: still({ position: [80, 30] }) as Layer['params'] }]),
    );
    expect([at(80, 30).slice(0, 3), at(72, 36).slice(0, 3).join() !== '']).toEqual([[0, 255, 255], true]);
    expect(at(40, 30)[3]).toBe(0);
  });
  it('is seen over what it was, or instead of it', () => {
    const fade = newItem('w', 'wipe', { shown: 0 });
    const shown = (stays: string) => drawn(sceneOf([over([fade], { stays, background: false }), red])).alpha;
    const half = (stays: string) =>
      drawn(sceneOf([over([], { stays, background: false }, { opacity: 0.5 }), red])).at(40, 30)[3];
    expect([shown('over'), half('over'), half('instead')]).toEqual([400, 255, 128]);
  });
  it('follows all of that: what moves behind it moves in it', () => {
    const scene = sceneOf([blue, over([invert]), red]);
    expect([...withFollowers(scene, ['a'])].sort()).toEqual(['a', 'over']);
    expect([...withFollowers(scene, ['z'])]).toEqual(['z']);
  });
  it('that cuts what is behind it is told, and draws on', () => {
    const cut = { ...square('a', [newItem('m', 'matte', { layer: 'over' })]), params: red.params };
    const list = compileScene(sceneOf([over([]), cut]), NO_LIBRARY).at(0);
    expect(list.problems.map((p) => p.message)).toEqual(['would be cut by itself: “A” → “Over” → “A”']);
    expect(list.marks.length).toBe(2);
  });
});
