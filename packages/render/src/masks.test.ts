/** Masks by what they leave of a square of 80 pixels, on the server's canvas: against areas in closed form. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Scene } from '@kite/core/document/types';
import { describe, expect, it } from 'vitest';
import { drawn } from './test/drawn';

const SIDE = 120;
const SIZE = { width: SIDE, height: SIDE, rate: { num: 25, den: 1 }, length: 10, background: null } as const;

interface Mask {
  readonly params?: Parameters<typeof newItem>[2];
  readonly shape: Item;
}
let ids = 0;
const box = (width: number, height: number, centre: readonly [number, number] = [0, 0]): Item =>
  newItem(`b${++ids}`, 'rectangle', { width, height, centre });

/** A square that is masked, in the middle of its scene; `between` stands below the first mask. */
const sceneOf = (masks: readonly Mask[], between: readonly Item[] = []): Scene => {
  const scene = newScene('s', 'Masks', SIZE);
  const cards = masks.map(({ params = {}, shape }, i) => ({
    ...newItem(`m${i}`, 'mask', params),
    children: [shape.id],
  }));
  const square = [box(80, 80), newItem('f', 'fill', { color: '#FFFFFF' })];
  const order = [...square, ...cards.slice(0, 1), ...between, ...cards.slice(1)];
  const layer = newDrawing(scene, 'l', 'Square', square);
  const items = [...order, ...masks.map(({ shape }) => shape)];
  const placed = {
    ...layer,
    items: Object.fromEntries(items.map((item) => [item.id, item])),
    recipe: order.map((c) => c.id),
  };
  return { ...scene, layers: { l: placed as typeof layer }, order: ['l'] };
};

/** Alpha from 0 to 1 by column and row, and of all pixels. `filters`: whether canvases have filters. */
const alphaOf = (scene: Scene, filters = true): ((x: number, y: number) => number) & { sum: number } => {
  const { at, alpha } = drawn(scene, { filters });
  return Object.assign((x: number, y: number) => at(x, y)[3] / 255, { sum: alpha });
};
const areaLeft = (...masks: Mask[]): number => alphaOf(sceneOf(masks)).sum;

// Two rectangles of 40 by 20 and 20 by 40 about one middle meet in 20 by 20.
const WIDE: Mask = { params: { mode: 'add' }, shape: box(40, 20) };
const tall = (mode: string, more: object = {}): Mask => ({ params: { mode, ...more }, shape: box(20, 40) });
const ALL = 80 * 80;

describe('masks right below each other make one area', () => {
  it.each([
    ['one that adds shows alone', [WIDE], 800],
    ['one that takes away leaves the rest', [tall('hide')], ALL - 800],
    ['one that excludes leaves the rest', [tall('exclude')], ALL - 800],
    ['added to', [WIDE, tall('add')], 800 + 800 - 400],
    ['taken away from', [WIDE, tall('hide')], 800 - 400],
    ['intersected', [WIDE, tall('show')], 400],
    ['excluded', [WIDE, tall('exclude')], 800 + 800 - 2 * 400],
    ['of three, in order', [WIDE, tall('exclude'), { params: { mode: 'add' }, shape: box(20, 20) }], 1_200],
    ['a hole that is filled again', [tall('hide'), { params: { mode: 'add' }, shape: box(20, 20) }], ALL - 400],
    ['inverted', [{ params: { mode: 'add', inverted: true }, shape: box(40, 20) }], ALL - 800],
    ['what is outside of another taken away', [WIDE, tall('hide', { inverted: true })], 400],
    ['at half strength', [{ params: { mode: 'add', strength: 0.5 }, shape: box(40, 20) }], 400],
    ['half taken away', [tall('hide', { strength: 0.5 })], ALL - 400],
    ['halves added', [WIDE, tall('add', { strength: 0.5 })], 800 + 200],
    ['halves excluded', [WIDE, tall('exclude', { strength: 0.5 })], 400 + 200 + 200],
    ['grown', [{ params: { mode: 'add', grow: 10 }, shape: box(40, 20) }], 60 * 40 - (4 - Math.PI) * 100],
    ['shrunk', [{ params: { mode: 'add', grow: -5 }, shape: box(40, 20) }], 30 * 10],
    ['of nothing', [{ params: { mode: 'add' }, shape: box(0, 0) }], 0],
  ] as const)('%s', (_name, masks, area) => {
    const left = areaLeft(...masks);
    // Corners are rounded to pixels: within a few in a thousand.
    expect(Math.abs(left - area)).toBeLessThanOrEqual(area * 0.004 + 1);
  });
  it('with a card between them each cuts what the one above has left', () => {
    const masks = [WIDE, tall('add')];
    expect(alphaOf(sceneOf(masks, [newItem('x', 'blur', { amount: 0 })])).sum).toBeCloseTo(400, 0);
  });
});

/** The share of a bell curve below x (Abramowitz and Stegun 7.1.26, within 1.5e-7). */
const belowOf = (x: number): number => {
  const t = 1 / (1 + 0.3275911 * (Math.abs(x) / Math.SQRT2));
  const rest = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - rest * Math.exp((-x * x) / 2);
  return 0.5 * (1 + (x < 0 ? -erf : erf));
};

describe.each([
  ['by filters', true],
  ['by kernels of our own', false],
])('a feathered edge %s', (_name, filters) => {
  // Its left edge lies at 50; the other edges are far away.
  const edge = { params: { mode: 'add', feather: 8 }, shape: box(400, 800, [190, 0]) };
  const alpha = alphaOf(sceneOf([edge]), filters);
  it('is half there on the outline, and fades over its feather to both sides as a bell curve does', () => {
    for (let x = 36; x < 66; x++) {
      const wanted = belowOf((x + 0.5 - 50) / 4);
      expect(Math.abs(alpha(x, 60) - wanted), `at ${x}`).toBeLessThanOrEqual(0.02);
    }
    expect((alpha(49, 60) + alpha(50, 60)) / 2).toBeCloseTo(0.5, 2);
    expect([alpha(40, 60) < 0.03, alpha(60, 60) > 0.97]).toEqual([true, true]);
  });
  it('is the same the other way round where it is inverted', () => {
    const inverted = alphaOf(sceneOf([{ ...edge, params: { ...edge.params, inverted: true } }]), filters);
    for (let x = 30; x < 70; x++) expect(alpha(x, 60) + inverted(x, 60)).toBeCloseTo(1, 1);
  });
  it('does not fade where the mask goes on beyond what is seen', () => {
    expect([alpha(98, 60), alpha(70, 22)]).toEqual([1, 1]);
  });
});

it('a mask goes along with its layer, feather and all', () => {
  const masks = [{ params: { mode: 'add', feather: 4 }, shape: box(40, 40) }];
  const scene = sceneOf(masks);
  const layer = scene.layers.l as Scene['layers'][string];
  const twice = { ...layer, params: { ...layer.params, scale: { value: [0.5, 0.5] } } };
  const small = alphaOf({ ...scene, layers: { l: twice as typeof layer } });
  const whole = alphaOf(scene);
  expect(small.sum).toBeCloseTo(whole.sum / 4, -1);
  for (let d = 0; d < 14; d++) expect(Math.abs(small(60 + d, 60) - whole(60 + 2 * d, 60))).toBeLessThan(0.1);
});
