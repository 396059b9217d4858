/** Effects that go by where pixels are: outlines against areas in closed form, the others by what they keep. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Point, Scene, Value } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { describe, expect, it } from 'vitest';
import { type Drawn, drawn } from './test/drawn';

const SIZE = { width: 160, height: 160, rate: { num: 25, den: 1 }, length: 20, background: null } as const;
const card = (kind: string, values: { [key: string]: Value } = {}): Item => newItem(`c-${kind}`, kind, values);
const sceneOf = (shape: Item, cards: readonly Item[], at: Point = [80, 80], color = '#808080'): Scene => {
  const scene = newScene('s', 'Places', SIZE);
  const items = [shape, newItem('f', 'fill', { color }), ...cards];
  return { ...scene, layers: { l: newDrawing(scene, 'l', 'L', items, { position: at }) }, order: ['l'] };
};
const square = newItem('r', 'rectangle', { width: 40, height: 40 });
const disc = newItem('e', 'ellipse', { width: 60, height: 60 });
const pixels = ({ at }: ReturnType<typeof drawn>) =>
  Array.from({ length: 160 * 160 }, (_, i) => at(i % 160, Math.floor(i / 160)));

describe('an outline', () => {
  const line = (values: { [key: string]: Value }) => card('outline', { color: '#FF0000', ...values });
  const red = (scene: Scene) =>
    pixels(drawn(scene)).reduce(
      (sum, [r, g, , a]) => sum + (a / 255) * (g < 64 && r > 128 ? 1 : r > g ? (r - 128) / 127 : 0),
      0,
    );

  it.each([2, 5, 10, 20])('of %d px round a square grows it by that, its corners round', (width) => {
    const wanted = 1_600 + 160 * width + Math.PI * width * width;
    expect(Math.abs(drawn(sceneOf(square, [line({ width })])).alpha / wanted - 1)).toBeLessThan(0.012);
  });
  it('round a disc is a ring', () => {
    const wanted = Math.PI * 40 ** 2;
    expect(Math.abs(drawn(sceneOf(disc, [line({ width: 10 })])).alpha / wanted - 1)).toBeLessThan(0.012);
  });
  it.each([
    ['inside', 1_600 - 30 * 30, 1_600],
    ['middle', 1_600 + 160 * 2.5 + Math.PI * 6.25 - 35 * 35, 1_600 + 160 * 2.5 + Math.PI * 6.25],
  ])('%s lies over what it is round', (side, lineArea, all) => {
    const scene = sceneOf(square, [line({ width: 5, side })]);
    expect(Math.abs(drawn(scene).alpha / all - 1)).toBeLessThan(0.02);
    expect(Math.abs(red(scene) / lineArea - 1)).toBeLessThan(0.06);
    expect(drawn(scene).at(80, 80)).toEqual([128, 128, 128, 255]);
  });
  it('leaves what it is round as it is, and is as strong as it is said', () => {
    const { at } = drawn(sceneOf(square, [line({ width: 8, strength: 0.5 })]));
    expect([at(80, 80), at(104, 80)[3]]).toEqual([[128, 128, 128, 255], 128]);
  });
});

describe('squares', () => {
  it('are each the mean of what they cover, and stand on the origin of the layer', () => {
    // The square covers 40 of 48 pixels each way of the middle four: from 60 to 100, in squares of 24 from 80 on.
    const { at, alpha } = drawn(sceneOf(square, [card('pixelate', { side: 24 })]));
    const share = (20 / 24) ** 2;
    for (const [x, y] of [
      [57, 57],
      [79, 79],
      [103, 80],
      [80, 103],
    ] as const) {
      expect(at(x, y).slice(0, 3)).toEqual([128, 128, 128]);
      expect(Math.abs(at(x, y)[3] - 255 * share)).toBeLessThanOrEqual(1);
    }
    expect([at(55, 80)[3], at(104, 80)[3]]).toEqual([0, 0]);
    expect(Math.abs(alpha - 1_600)).toBeLessThan(8);
  });
});

/** Moved by 13 and -9 pixels there is the same to be seen. */
const goesAlong = (here: Drawn, there: Drawn) => {
  for (const [x, y] of [
    [65, 70],
    [80, 80],
    [99, 61],
  ] as const)
    expect(there.at(x + 13, y - 9)).toEqual(here.at(x, y));
};

describe('grain', () => {
  const grain = (values: { [key: string]: Value } = {}) => card('grain', { strength: 0.5, ...values });
  const shot = (values = {}, at: Point = [80, 80], frame = 0) => drawn(sceneOf(square, [grain(values)], at), { frame });
  it('is lighter and darker about the colour, and leaves alpha', () => {
    const inside = pixels(shot()).filter(([, , , a]) => a === 255);
    const mean = inside.reduce((sum, [r]) => sum + r, 0) / inside.length;
    expect([inside.length, Math.abs(mean - 128) < 3]).toEqual([1_600, true]);
    // Even between -64 and 64: the deviation is 64 / √3.
    const deviation = Math.sqrt(inside.reduce((sum, [r]) => sum + (r - mean) ** 2, 0) / inside.length);
    expect(Math.abs(deviation - 64 / Math.sqrt(3))).toBeLessThan(2);
  });
  it('goes along with its layer', () => {
    goesAlong(shot(), shot({}, [93, 71]));
  });
  it('stays from frame to frame, or moves', () => {
    expect(shot({}, [80, 80], 3).at(80, 80)).toEqual(shot().at(80, 80));
    const moving = [0, 1, 2].map((frame) => shot({ moving: true }, [80, 80], frame).at(80, 80)[0]);
    expect(new Set(moving).size).toBe(3);
  });
});

describe('clouds', () => {
  const black = {
    stops: [
      { at: 0, color: '#000000' },
      { at: 1, color: '#FFFFFF' },
    ],
  };
  const shot = (values: { [key: string]: Value } = {}, frame = 0, at: Point = [80, 80]) =>
    drawn(sceneOf(square, [card('clouds', { size: 20, colors: black, ...values })], at), { frame });
  const inside = (of: Drawn) => pixels(of).filter(([, , , a]) => a === 255);
  it('of one octave are halfway where four cells meet, and reach no farther than they may', () => {
    // Gradient noise is 0 at the corners of its cells; pixels have their colour at their middle.
    const { at } = shot({ octaves: 1, shift: [0.5, 0.5] });
    const [halfway] = shot({ contrast: 0 }).at(80, 80);
    for (const [x, y] of [
      [80, 80],
      [60, 80],
      [80, 60],
      [60, 60],
    ] as const)
      expect(Math.abs(at(x, y)[0] - halfway!)).toBeLessThanOrEqual(1);
    const far = inside(shot({ octaves: 1, contrast: 1 })).map(([r]) => r);
    expect([Math.min(...far) >= 0, Math.max(...far) <= 255, Math.max(...far) - Math.min(...far) > 90]).toEqual([
      true,
      true,
      true,
    ]);
  });
  it('have no edge where cells meet', () => {
    const { at } = shot({ octaves: 1 });
    for (let y = 61; y < 99; y++) {
      for (let x = 61; x < 99; x++) {
        // The slope of the noise is at most 4.2 a cell; neighbours are a twentieth of one apart.
        expect(Math.abs(at(x + 1, y)[0] - at(x, y)[0])).toBeLessThan(40);
        expect(Math.abs(at(x, y + 1)[0] - at(x, y)[0])).toBeLessThan(40);
      }
    }
  });
  it('come round exactly after the frames of their loop, and after a full turn of their flow', () => {
    const frames = [0, 2, 6, 12].map((frame) => pixels(shot({ loop: 6 }, frame)).join());
    expect([frames[2] === frames[0], frames[3] === frames[0], frames[1] === frames[0]]).toEqual([true, true, false]);
    expect(pixels(shot({ flow: 720 })).join()).toBe(pixels(shot({ flow: 0 })).join());
    expect(pixels(shot({}, 7)).join()).toBe(pixels(shot({}, 0)).join());
  });
  it('with folds have creases where the soft ones are halfway, and with ridges crests', () => {
    const one = { octaves: 1, shift: [0.5, 0.5] as const };
    expect(shot({ ...one, form: 'folded' }).at(80, 80)[0]).toBeLessThanOrEqual(1);
    expect(shot({ ...one, form: 'ridged' }).at(80, 80)[0]).toBeGreaterThanOrEqual(254);
  });
  it('go along with their layer, and are as opaque as what they fill and their colours are', () => {
    goesAlong(shot(), shot({}, 0, [93, 71]));
    const clear = { stops: black.stops.map((stop) => ({ ...stop, color: `${stop.color}80` })) };
    expect(shot({ colors: clear }).at(80, 80)[3]).toBe(128);
    expect(shot().at(20, 20)[3]).toBe(0);
  });
  it('turn with their layer, or in it: pixel by pixel they are what they are level', () => {
    const level = shot({ octaves: 3 });
    // Turned by next to nothing each pixel is looked up by itself.
    const same = shot({ octaves: 3, angle: 1e-6 });
    // A quarter clockwise about the middle of the layer: what was above is on the right.
    const quarter = shot({ octaves: 3, angle: 90 });
    const scene = sceneOf(square, [card('clouds', { size: 20, colors: black, octaves: 3 })]);
    const layers = Object.entries(scene.layers).map(([id, own]) => {
      const params = { ...own.params, rotation: { value: 90 } };
      return [id, { ...own, params }] as const;
    });
    const layer = drawn({ ...scene, layers: Object.fromEntries(layers) });
    for (let y = -15; y < 15; y++) {
      for (let x = -15; x < 15; x++) {
        const [own] = level.at(80 + x, 80 + y);
        expect(Math.abs(same.at(80 + x, 80 + y)[0] - own)).toBeLessThanOrEqual(1);
        for (const turned of [quarter, layer])
          expect(Math.abs(turned.at(79 - y, 80 + x)[0] - own)).toBeLessThanOrEqual(1);
      }
    }
  });
  it('come again after as many pixels as they are to, at every octave', () => {
    const { at } = shot({ tile: 15, size: 7, octaves: 3 });
    const other = shot({ size: 7, octaves: 3 });
    let differ = 0;
    for (let y = 62; y < 80; y++) {
      for (let x = 62; x < 80; x++) {
        expect(Math.abs(at(x + 15, y)[0] - at(x, y)[0])).toBeLessThanOrEqual(1);
        expect(Math.abs(at(x, y + 15)[0] - at(x, y)[0])).toBeLessThanOrEqual(1);
        if (other.at(x + 15, y)[0] !== other.at(x, y)[0]) differ++;
      }
    }
    expect(differ).toBeGreaterThan(100);
  });
  it('are the same seed for seed, lighter by their level, and one colour without contrast', () => {
    expect(pixels(shot({ seed: 3 })).join()).not.toBe(pixels(shot({ seed: 4 })).join());
    expect(shot({ level: 1 }).at(80, 80).slice(0, 3)).toEqual([255, 255, 255]);
    expect(new Set(inside(shot({ contrast: 0 })).map(([r]) => r)).size).toBe(1);
  });
});

describe('ripple and warp', () => {
  it('takes pixels from no farther away than its amount, and most of what there is stays', () => {
    const list = pixels(drawn(sceneOf(square, [card('warp', { amount: 6, size: 30 })])));
    list.forEach(([, , , a], i) => {
      const [x, y] = [(i % 160) + 0.5 - 80, Math.floor(i / 160) + 0.5 - 80];
      if (Math.max(Math.abs(x), Math.abs(y)) > 27.5) expect(a).toBe(0);
      if (Math.max(Math.abs(x), Math.abs(y)) < 12.5) expect(a).toBe(255);
    });
  });
  it('flows with its phase, and is where it was for the same', () => {
    const at = (phase: number) => pixels(drawn(sceneOf(square, [card('warp', { phase })]))).join();
    expect([at(0) === at(0), at(0) === at(0.5)]).toEqual([true, false]);
  });
});

describe('tiles', () => {
  const tile = (values: { [key: string]: Value }) => card('tile', { across: 1, down: 1, ...values });
  it('stand beside each other without a gap, or with one', () => {
    expect(drawn(sceneOf(square, [tile({})])).alpha).toBeCloseTo(9 * 1_600, 0);
    const gap = drawn(sceneOf(square, [tile({ gap: [10, 4] })]));
    expect([gap.at(103, 80)[3], gap.at(80, 101)[3], gap.at(112, 80)[3]]).toEqual([0, 0, 255]);
  });
  it('moved along come in again on the other side', () => {
    const { at } = drawn(sceneOf(square, [tile({ moved: [20, 0], down: 0, gap: [20, 0] })]));
    expect([40, 70, 100, 130, 150].map((x) => at(x, 80)[3])).toEqual([255, 0, 255, 0, 255]);
  });
  it('are mirrored every other one', () => {
    // A bar of 20 with a mark in white near its right end: the next one begins with it.
    const bar = newItem('m', 'rectangle', { width: 20, height: 40 });
    const dot = { ...newItem('g', 'group'), children: ['d', 'df'] };
    const inner = [
      newItem('d', 'rectangle', { width: 4, height: 4, centre: [7, 0] }),
      newItem('df', 'fill', { color: '#FFFFFF' }),
    ];
    const { at } = drawn(sceneOf(bar, [dot, ...inner, tile({ mirror: 'across', down: 0 })]));
    expect([87, 93, 73, 53].map((x) => at(x, 80)[0])).toEqual([255, 255, 128, 255]);
  });
  it('are bounded, and told', () => {
    const many = Array.from({ length: 3 }, (_, i) => ({ ...card('tile', { across: 50, down: 50 }), id: `t${i}` }));
    const { problems } = compileScene(sceneOf(square, many), NO_LIBRARY).at(0);
    expect(problems.map((p) => p.message).join()).toMatch(/copies|intricate/);
  });
});

describe('a blur', () => {
  const blurred = (values: { [key: string]: Value }) =>
    drawn(sceneOf(square, [card('blur', { amount: 6, ...values })]));
  it('across leaves rows as high as they were, down columns as wide', () => {
    const [across, down] = [blurred({ way: 'across' }), blurred({ way: 'down' })];
    for (let i = 0; i < 160; i++) expect(across.at(i, 80)[3]).toBe(down.at(80, i)[3]);
    expect([across.at(80, 59)[3], across.at(80, 61)[3], across.at(56, 80)[3] > 20]).toEqual([
      0,
      across.at(80, 80)[3],
      true,
    ]);
    // Half there on the edge, as a step is.
    expect(Math.abs((across.at(59, 80)[3] + across.at(60, 80)[3]) / 2 - 127.5)).toBeLessThan(2);
  });
  it('that keeps edges blurs colours alone', () => {
    const dark = [
      newItem('d', 'rectangle', { width: 20, height: 40, centre: [-10, 0] }),
      newItem('df', 'fill', { color: '#000000' }),
    ];
    const half = { ...newItem('g', 'group'), children: ['d', 'df'] };
    const { at, alpha } = drawn(sceneOf(square, [half, ...dark, card('blur', { amount: 6, edges: 'kept' })]));
    expect([Math.round(alpha), at(59, 80)[3], at(60, 80)[3]]).toEqual([1_600, 0, 255]);
    expect([at(62, 80)[0] < 20, Math.abs(at(80, 80)[0] - 64) < 6, at(98, 80)[0] > 108]).toEqual([true, true, true]);
  });
});
