/** Effects on the server's canvas, with its filters and with kernels of our own, against what the W3C's texts say. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Scene, Value } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { describe, expect, it } from 'vitest';
import { drawn, type Pixel } from './test/drawn';

const SIDE = 100;
/** Pixels of the square that effects are put on. */
const ALL = 40 * 40;
const SIZE = { width: SIDE, height: SIDE, rate: { num: 25, den: 1 }, length: 20, background: null } as const;

/** The square in the middle of a scene with this side. */
const sceneIn = (side: number, color: string, ...cards: readonly Item[]): Scene => {
  const scene = newScene('s', 'Effects', { ...SIZE, width: side, height: side });
  const square = [newItem('r', 'rectangle', { width: 40, height: 40 }), newItem('f', 'fill', { color })];
  return { ...scene, layers: { l: newDrawing(scene, 'l', 'Square', [...square, ...cards]) }, order: ['l'] };
};
const sceneOf = (color: string, ...cards: readonly Item[]): Scene => sceneIn(SIDE, color, ...cards);
const made = (kind: string, values: { [key: string]: Value } = {}): Item => newItem(`c${kind}`, kind, values);

const RED: Pixel = [255, 0, 0, 255];

const clamp = (x: number) => Math.min(1, Math.max(0, x));
const hex = (color: string) => [1, 3, 5].map((i) => parseInt(color.slice(i, i + 2), 16) / 255);
const luma = ([r = 0, g = 0, b = 0]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
/** Filter Effects Module Level 1, 8.1. */
const hueRotated = ([r = 0, g = 0, b = 0]: readonly number[], degrees: number): number[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [
    r * (0.213 + c * 0.787 - s * 0.213) + g * (0.715 - c * 0.715 - s * 0.715) + b * (0.072 - c * 0.072 + s * 0.928),
    r * (0.213 - c * 0.213 + s * 0.143) + g * (0.715 + c * 0.285 + s * 0.14) + b * (0.072 - c * 0.072 - s * 0.283),
    r * (0.213 - c * 0.213 - s * 0.787) + g * (0.715 - c * 0.715 + s * 0.715) + b * (0.072 + c * 0.928 + s * 0.072),
  ].map(clamp);
};

/** The share of the normal distribution below z: Abramowitz and Stegun, 26.2.17, to 7.5e-8. */
const normal = (z: number): number => {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    (t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429)))));
  return z < 0 ? tail : 1 - tail;
};

const COLORS = ['#B2613A', '#1B2A41', '#F2E9DC', '#00FF40', '#808080'];
const black = '#000000';
const white = '#FFFFFF';

/** Each with what becomes of a colour of 0..1. */
const CHANGES: readonly (readonly [string, Item, (color: readonly number[]) => readonly number[]])[] = [
  ['brightness', made('brightness', { brightness: 1.4 }), (c) => c.map((x) => clamp(x * 1.4))],
  ['contrast', made('brightness', { contrast: 0.6 }), (c) => c.map((x) => clamp(x * 0.6 + 0.2))],
  [
    'brightness, then contrast',
    made('brightness', { brightness: 2, contrast: 1.5 }),
    (c) => c.map((x) => clamp(clamp(x * 2) * 1.5 - 0.25)),
  ],
  ['all inverted', made('invert'), (c) => c.map((x) => 1 - x)],
  ['inverted by a third', made('invert', { strength: 0.3 }), (c) => c.map((x) => x * 0.4 + 0.3)],
  [
    'levels',
    made('levels', { black: 0.2, white: 0.8, low: 0.1 }),
    (c) => c.map((x) => 0.1 + 0.9 * clamp((x - 0.2) / 0.6)),
  ],
  ['a bent middle', made('levels', { middle: 2 }), (c) => c.map((x) => x ** 0.5)],
  ['a hue turned', made('colorturn', { hue: 90 }), (c) => hueRotated(c, 90)],
  ['no colour', made('colorturn', { strength: 0 }), (c) => c.map(() => 0.213 * c[0]! + 0.715 * c[1]! + 0.072 * c[2]!)],
  ['lighter', made('colorturn', { light: 0.5 }), (c) => c.map((x) => x + (1 - x) / 2)],
  ['darker', made('colorturn', { light: -0.5 }), (c) => c.map((x) => x / 2)],
  // hsl(0 100% L) of a brightness above a half: red is full, the others are 2 L - 1.
  [
    'one hue',
    made('colorturn', { one: true, hue: 0 }),
    (c) => [clamp(2 * luma(c)), clamp(2 * luma(c) - 1), clamp(2 * luma(c) - 1)],
  ],
  ['a threshold', made('threshold', { at: 0.5 }), (c) => (luma(c) < 0.5 ? [0, 0, 0] : [1, 1, 1])],
  ['a tint from black to white', made('tint', { dark: black, light: black }), () => [0, 0, 0]],
  ['half a tint', made('tint', { dark: white, light: white, strength: 0.5 }), (c) => c.map((x) => x / 2 + 0.5)],
  ['a colour over it', made('flood', { color: '#336699' }), () => hex('#336699')],
  [
    'a colour half over it',
    made('flood', { color: '#336699', strength: 0.5 }),
    (c) => c.map((x, i) => (x + hex('#336699')[i]!) / 2),
  ],
];

describe.each([
  ['filters', true],
  ['kernels of our own', false],
])('by %s', (_name, filters) => {
  it.each(CHANGES)('%s changes colours as the text says, and no alpha', (_what, effect, wanted) => {
    for (const color of COLORS) {
      const [r, g, b, a] = drawn(sceneOf(`${color}80`, effect), { filters }).at(50, 50);
      expect(Math.abs(a - 128)).toBeLessThanOrEqual(1);
      // Pixels are kept multiplied by alpha: half of it leaves half of the levels.
      wanted(hex(color)).forEach((v, i) => expect(Math.abs([r, g, b][i]! - v * 255), color).toBeLessThanOrEqual(4));
      const solid = drawn(sceneOf(color, effect), { filters }).at(50, 50);
      wanted(hex(color)).forEach((v, i) => expect(Math.abs(solid[i]! - v * 255), color).toBeLessThanOrEqual(1));
      expect(drawn(sceneOf(color, effect), { filters }).at(10, 10)[3]).toBe(0);
    }
  });

  it('a shadow is what casts it, moved, in its colour and strength, behind it', () => {
    const cast = made('shadow', { direction: 0, distance: 30, softness: 0, color: '#336699', strength: 0.5 });
    const { at } = drawn(sceneOf('#C2714A', cast), { filters });
    // The square reaches from 30 to 70, its shadow from 60 to 100.
    const near = (pixel: Pixel, [r, g, b, a]: Pixel) => pixel.every((v, i) => Math.abs(v - [r, g, b, a][i]!) <= 2);
    expect(near(at(65, 50), [194, 113, 74, 255])).toBe(true);
    expect(near(at(85, 50), [51, 102, 153, 128])).toBe(true);
    expect(at(85, 25)[3]).toBe(0);
    const only = { ...cast, params: { ...cast.params, alone: { value: true } } };
    const alone = drawn(sceneOf('#C2714A', only), { filters }).at;
    expect([alone(50, 50)[3], near(alone(65, 50), [51, 102, 153, 128])]).toEqual([0, true]);
  });
  it.each([4.3, 6.4, 7.9, 13, 20.7, 32, 48])('a blur of %s pixels is the bell curve of that deviation', (amount) => {
    const side = 300;
    const { at } = drawn(sceneIn(side, white, made('blur', { amount })), { filters });
    // What a square of 40 becomes along one of its sides, x from its middle.
    const blurred = (x: number) => normal((x + 20) / amount) - normal((x - 20) / amount);
    let most = 0;
    for (let y = 0; y < side; y += 3) {
      for (let x = 0; x < side; x += 3) {
        const [across, down] = [x, y].map((v) => blurred(v + 0.5 - side / 2)) as [number, number];
        most = Math.max(most, Math.abs(at(x, y)[3] - 255 * across * down));
      }
    }
    expect(most).toBeLessThanOrEqual(6);
  });
  it.each([
    // From here on it is enlarged, whose own rounding comes to it.
    [4.55, 3],
    [8, 2],
    [16, 2],
    [32, 2],
  ])('a blur that grows past %s does not jump, though it is drawn smaller and smaller', (amount, levels) => {
    const star = (by: number) =>
      drawn(sceneOf(white, made('flood', { color: '#C2714A' }), made('blur', { amount: by, edges: 'soft' })), {
        filters,
      }).at;
    const [before, after] = [star(amount - 0.01), star(amount + 0.01)];
    let most = 0;
    for (let y = 0; y < SIDE; y += 3) {
      for (let x = 0; x < SIDE; x += 3) {
        before(x, y).forEach((v, c) => (most = c === 3 ? Math.max(most, Math.abs(v - after(x, y)[c]!)) : most));
      }
    }
    expect(most).toBeLessThanOrEqual(levels);
  });
  it.each([7, 11, 17.3, 29])('a blur of %s pixels shows nothing of what was drawn on its surfaces before', (amount) => {
    const soft = sceneOf(white, made('blur', { amount }));
    const full = sceneIn(3 * SIDE, white, made('flood', { strength: 0.5 }), made('tile', {}), made('invert'));
    const after = drawn(soft, { filters, before: [full, full] });
    const fresh = drawn(soft, { filters });
    for (let y = 0; y < SIDE; y++) for (let x = 0; x < SIDE; x++) expect(after.at(x, y)).toEqual(fresh.at(x, y));
  });
  it('a soft shadow is half there on its edge; spread makes more of it whole', () => {
    const soft = (spread: number) =>
      drawn(
        sceneOf(white, made('shadow', { distance: 0, softness: 16, spread, strength: 1, color: black, alone: true })),
        { filters },
      ).at;
    const [plain, wide] = [soft(0), soft(0.5)];
    expect(Math.abs((plain(29, 50)[3] + plain(30, 50)[3]) / 2 - 127.5)).toBeLessThanOrEqual(3);
    expect(Math.abs((wide(29, 50)[3] + wide(30, 50)[3]) / 2 - (127.5 * 4) / 3)).toBeLessThanOrEqual(5);
    expect(wide(12, 50)[3]).toBeLessThan(60);
  });
  it('a glow lies around what glows, as strong on all sides', () => {
    const { at } = drawn(sceneOf('#1B2A41', made('glow', { size: 20, color: '#FFE3A3' })), { filters });
    expect(at(50, 50).slice(0, 3)).toEqual([27, 42, 65]);
    const around = [at(26, 50), at(73, 50), at(50, 26), at(50, 73)].map(([, , , a]) => a);
    expect(Math.max(...around) - Math.min(...around)).toBeLessThanOrEqual(2);
    expect(around[0]).toBeGreaterThan(60);
  });
  it('a glow inside falls from the edge inwards by the bell curve, and nothing grows', () => {
    const lit = made('glow', { side: 'inside', size: 10, spread: 0, color: '#FF0000' });
    const { at, alpha } = drawn(sceneOf('#0000FF', lit), { filters });
    // The normal distribution at 0.1, 1 and 4 deviations of 5 pixels.
    for (const [x, share] of [
      [30, 0.46],
      [34, 0.184],
      [50, 0],
    ] as const) {
      const [r, g, b, a] = at(x, 50);
      expect([g, a]).toEqual([0, 255]);
      expect(Math.abs(r - share * 255)).toBeLessThanOrEqual(5);
      expect(Math.abs(b - (1 - share) * 255)).toBeLessThanOrEqual(5);
    }
    expect([at(29, 50)[3], alpha]).toEqual([0, ALL]);
  });
  it('grain takes a glow apart into specks that are there or not, as much in all', () => {
    const of = (grain: number) =>
      drawn(sceneOf(white, made('glow', { size: 20, spread: 0, grain, color: black })), { filters });
    const [smooth, grainy] = [of(0), of(1)];
    const specks = new Set<number>();
    for (let y = 20; y < 80; y++) for (let x = 14; x < 28; x++) specks.add(grainy.at(x, y)[3]);
    expect([...specks].sort((a, b) => a - b)).toEqual([0, 255]);
    expect(Math.abs(grainy.alpha - smooth.alpha)).toBeLessThan((smooth.alpha - ALL) * 0.06);
  });
});

const leftOf = (effect: Item): number => drawn(sceneOf(white, effect)).alpha;

describe('a wipe', () => {
  it.each([
    ['a quarter along its way', { shown: 0.25 }, ALL / 4],
    ['hiding a quarter', { shown: 0.25, hides: true }, (3 * ALL) / 4],
    ['downwards', { shown: 0.6, angle: 90 }, 0.6 * ALL],
    ['on the diagonal, half', { shown: 0.5, angle: 45 }, ALL / 2],
    // A disc of half the diagonal's half: 10 √2.
    ['round', { style: 'round', shown: 0.5 }, Math.PI * 200],
    ['by clock', { style: 'clock', shown: 0.25 }, ALL / 4],
    ['by blinds', { style: 'blinds', shown: 0.3, blinds: 5 }, 0.3 * ALL],
    ['sliding', { style: 'slide', shown: 0.25 }, ALL / 4],
    ['sliding away', { style: 'slide', shown: 0.25, hides: true }, (3 * ALL) / 4],
    // Half of the way is half of the width and half of the height.
    ['sliding on the diagonal', { style: 'slide', shown: 0.5, angle: 45 }, ALL / 4],
    ['not begun', { shown: 0 }, 0],
    ['over', { shown: 1, soft: 30 }, ALL],
    ['over, hiding', { shown: 1, hides: true }, 0],
  ] as const)('%s leaves so much', (_name, values, area) => {
    expect(Math.abs(leftOf(made('wipe', values)) - area)).toBeLessThanOrEqual(area * 0.004 + 1);
  });
  it('that slides takes along what it shows', () => {
    const right = [
      newItem('r2', 'rectangle', { width: 20, height: 40, centre: [10, 0] }),
      newItem('f2', 'fill', { color: '#FF0000' }),
    ];
    const group = { ...newItem('g', 'group'), children: right.map(({ id }) => id) };
    const redOf = (values: { [key: string]: Value }) => {
      const picture = drawn(sceneOf('#0000FF', group, ...right, made('wipe', { style: 'slide', ...values })));
      return [-15, -5, 5, 15].map((x) => {
        const [red = 0, , , alpha] = picture.at(SIDE / 2 + x, SIDE / 2);
        return alpha === 0 ? '.' : red > 128 ? 'r' : 'b';
      });
    };
    expect(redOf({ shown: 1 }).join('')).toBe('bbrr');
    expect(redOf({ shown: 0.5 }).join('')).toBe('rr..');
    expect(redOf({ shown: 0.75 }).join('')).toBe('brr.');
    expect(redOf({ shown: 0.75, angle: 180 }).join('')).toBe('.bbr');
    expect(redOf({ shown: 0.75, hides: true }).join('')).toBe('...b');
  });
  it('goes on without a jump where its edge is soft', () => {
    let before = 0;
    for (let shown = 0; shown <= 1.0001; shown += 0.05) {
      const now = leftOf(made('wipe', { shown: Math.min(1, shown), soft: 8 }));
      expect(now).toBeGreaterThanOrEqual(before - 1);
      expect(now - before).toBeLessThan(ALL * 0.12);
      before = now;
    }
  });
});

it('held frames show what was there at every third frame', () => {
  const scene = sceneOf(white, made('held', { every: 3 }), newItem('g', 'fill', { color: '#336699' }));
  const growing = {
    ...scene.layers.l,
    items: {
      ...(scene.layers.l as { items: Record<string, Item> }).items,
      r: {
        ...newItem('r', 'rectangle', { height: 40 }),
        params: {
          height: { value: 40 },
          width: { keys: [0, 18].map((frame) => ({ frame, value: 2 + frame * 2, ease: { kind: 'linear' as const } })) },
        },
      },
    },
  } as Scene['layers'][string];
  const moving = { ...scene, layers: { l: growing } };
  const widths = Array.from({ length: 9 }, (_, frame) => {
    const { at } = drawn(moving, { frame });
    return Array.from({ length: SIDE }, (_x, x) => at(x, 50)[3]).filter((a) => a > 128).length;
  });
  expect(widths).toEqual([2, 2, 2, 8, 8, 8, 14, 14, 14]);
});

it('a line inside is on the edge alone: of what is see-through, and where the picture ends', () => {
  const line = made('outline', { width: 6, color: '#FF0000', side: 'inside' });
  const { at } = drawn(sceneOf('#0000FF80', line));
  expect(at(50, 50)).toEqual([0, 0, 255, 128]);
  const [red, , blue] = at(33, 50);
  expect(red).toBeGreaterThan(blue);
  // The square is cut by the upper side of the picture: its left edge has a line all the way up.
  const cut = sceneOf('#0000FF', line);
  const moved = { ...cut, layers: { l: { ...cut.layers.l!, params: { position: { value: [50, 10] } } } } } as Scene;
  const { at: there } = drawn(moved);
  for (const y of [0, 3, 20]) expect([there(32, y), there(50, y)]).toEqual([RED, [0, 0, 255, 255]]);
});

it('two hundred shadows on one layer are cut off by what a frame may cost, and told', () => {
  const cards = Array.from({ length: 200 }, (_, i) => newItem(`s${i}`, 'shadow', { distance: 1, softness: 0 }));
  const list = compileScene(sceneOf(white, ...cards), NO_LIBRARY).at(0);
  expect(list.problems.map(({ message }) => message)).toEqual([expect.stringContaining('too intricate for one frame')]);
  expect(list.marks.length).toBeGreaterThan(0);
});

it.each([3, 8, 11, 16, 23, 40])('a blur of %i is as soft with filters as without', (amount) => {
  const [one, other] = [true, false].map(
    (filters) => drawn(sceneOf(white, made('blur', { amount, edges: 'soft' })), { filters }).at,
  ) as [(x: number, y: number) => Pixel, (x: number, y: number) => Pixel];
  const places = Array.from({ length: SIDE }, (_, i) => i);
  const differ = places.map((i) =>
    Math.max(Math.abs(one(i, 50)[3] - other(i, 50)[3]), Math.abs(one(i, i)[3] - other(i, i)[3])),
  );
  expect(Math.max(...differ)).toBeLessThanOrEqual(2);
});
