import { describe, expect, it } from 'vitest';
import { newItem } from '../document/make';
import { seeded } from '../document/random';
import type { Item, Point, Property, Value } from '../document/types';
import { boxOfOutlines, outlineBox } from '../geometry/bounds';
import { IDENTITY } from '../geometry/matrix';
import { monotoneThrough, straightThrough } from '../geometry/outline';
import { area } from '../test/areas';
import { squareFonts } from '../test/fonts';
import { bareSupplies, compileRecipe } from './evaluate';
import { newRoom } from './room';
import type { Mark } from './types';

const keyed = (...keys: readonly (readonly [frame: number, value: Value])[]): Property => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: { kind: 'linear' } })),
});
const RISE = { grown: keyed([0, 0], [10, 1]) };
const chart = (values: { [key: string]: Value }, params: { [key: string]: Property } = {}): Item => {
  const item = newItem('c', 'chart', { width: 300, height: 200, gap: 0.5, ...values });
  return { ...item, params: { ...item.params, ...params } };
};
const flowOf = (frame: number, ...cards: readonly Item[]) =>
  compileRecipe(
    cards.map((card) => card.id),
    Object.fromEntries(cards.map((card) => [card.id, card])),
    bareSupplies(squareFonts),
  ).at(frame, newRoom());
const shapesOf = (frame: number, ...cards: readonly Item[]) => flowOf(frame, ...cards).shapes;
const boxes = (frame: number, ...cards: readonly Item[]) =>
  shapesOf(frame, ...cards).map(({ outlines }) => {
    const box = boxOfOutlines(IDENTITY, outlines);
    return box && [box.left, box.top, box.right, box.bottom].map((x) => Math.round(x * 1e6) / 1e6);
  });
const colorsOf = (marks: readonly Mark[]) =>
  marks.map((mark) => (mark.op === 'fill' && mark.ink.style === 'solid' ? mark.ink.color : null));

describe('a chart', () => {
  it('of columns fills its box with them, as high as their numbers', () => {
    expect(boxes(0, chart({ numbers: [10, 20, 40] }))).toEqual([
      [-125, 50, -75, 100],
      [-25, 0, 25, 100],
      [75, -100, 125, 100],
    ]);
    expect(boxes(0, chart({ numbers: [10, 20], top: 80, centre: [0, -100] }))).toEqual([
      [-112.5, -25, -37.5, 0],
      [37.5, -50, 112.5, 0],
    ]);
  });
  it('has its base line where nothing is, and what is less stands below it', () => {
    expect(boxes(0, chart({ numbers: [30, -10] }))).toEqual([
      [-112.5, -100, -37.5, 50],
      [37.5, 50, 112.5, 100],
    ]);
    expect(boxes(0, chart({ drawn: 'bars', numbers: [-5, 0, 10], gap: 0 }))[0]).toEqual(
      [-150, -100, -50, -100 / 3].map((x) => Math.round(x * 1e6) / 1e6),
    );
    expect(boxes(0, chart({ numbers: [0, 0] }))).toEqual([null, null]);
    expect(boxes(0, chart({ numbers: [] }))).toEqual([]);
  });
  it('grows one number after another, each by its keyframes', () => {
    const heights = (frame: number, values: { [key: string]: Value }) =>
      boxes(frame, chart({ numbers: [1, 1, 1], stagger: 5, ...values }, RISE)).map((box) =>
        box ? box[3]! - box[1]! : 0,
      );
    expect(heights(10, {})).toEqual([200, 100, 0]);
    expect(heights(10, { order: 'reversed' })).toEqual([0, 100, 200]);
    expect(heights(7, { order: 'centre' })).toEqual([40, 140, 40]);
    expect(heights(5, { stagger: 0 })).toEqual([100, 100, 100]);
  });
  it('changes one number after another', () => {
    const numbers = keyed([0, [10, 10, 100]], [10, [50, 30, 100]]);
    const tops = boxes(10, chart({ stagger: 5 }, { numbers })).map((box) => 100 - box![1]!);
    expect(tops).toEqual([100, 40, 200]);
  });
  it('as a pie has the shares of its numbers, clockwise from the top, and less than nothing has none', () => {
    const pie = chart({ drawn: 'pie', numbers: [50, 30, -4, 20], width: 200, inner: 0.5 });
    const areas = shapesOf(0, pie).map(({ outlines }) => area(outlines) / (Math.PI * (100 ** 2 - 50 ** 2)));
    expect(areas.map((share) => Math.round(share * 1e3) / 1e3)).toEqual([0.5, 0.3, 0, 0.2]);
    expect(boxes(0, pie)[0]).toEqual([0, -100, 100, 100]);
    const half = chart({ drawn: 'pie', numbers: [1, 1], width: 200 }, { grown: keyed([0, 0.5]) });
    expect(shapesOf(0, half).map(({ outlines }) => Math.round(area(outlines) / (Math.PI * 25)))).toEqual([100, 100]);
  });
  it('as a pie stands apart, and one part moves out', () => {
    const values = { drawn: 'pie', numbers: [1, 1], width: 200 };
    expect(boxes(0, chart({ ...values, spread: 10 })).map((box) => box![0])).toEqual([10, -110]);
    expect(boxes(0, chart({ ...values, picked: 2, out: 30 })).map((box) => box![0])).toEqual([0, -130]);
  });
  it('as a line goes through its numbers from edge to edge, and as an area down to the base line', () => {
    const line = shapesOf(0, chart({ drawn: 'line', numbers: [0, 20, 10] })).flatMap(({ outlines }) => outlines);
    const through: Point[] = [
      [-150, 100],
      [0, -100],
      [150, 0],
    ];
    expect(line).toEqual([straightThrough(through, false)]);
    const filled = shapesOf(0, chart({ drawn: 'area', numbers: [0, 20, 10] })).flatMap(({ outlines }) => outlines);
    expect(area(filled)).toBeCloseTo((150 * 200) / 2 + 150 * 150, 6);
    expect(filled[0]!.closed).toBe(true);
  });
});

describe('a smooth line', () => {
  it('has the slopes of Steffen’s method', () => {
    const { points } = monotoneThrough([
      [0, 0],
      [1, 1],
      [3, 2],
    ]);
    // Slopes 1 and 1/2 over 1 and 2: at the middle twice the least of both and of half of (1·2 + 1/2·1)/3.
    const slope = 5 / 6;
    expect(points[5]).toBeCloseTo(1 - slope / 3, 12);
    expect(points[9]).toBeCloseTo(1 + (slope * 2) / 3, 12);
    expect([points[3], points[11]]).toEqual([
      expect.closeTo((3 - slope) / 2 / 3, 12),
      expect.closeTo(2 - ((1.5 - slope) / 2) * (2 / 3), 12),
    ]);
  });
  it('swings nowhere beyond its points', () => {
    const random = seeded(7);
    for (let round = 0; round < 200; round++) {
      const points = Array.from({ length: 8 }, (_, i): Point => [i * 10, Math.round(random() * 6) * 10]);
      const { top, bottom } = outlineBox(monotoneThrough(points));
      expect(top).toBeGreaterThanOrEqual(Math.min(...points.map(([, y]) => y)) - 1e-9);
      expect(bottom).toBeLessThanOrEqual(Math.max(...points.map(([, y]) => y)) + 1e-9);
    }
  });
});

describe('a paint that gives each shape its own colour', () => {
  const each = newItem('f', 'fill', {
    style: 'each',
    gradient: {
      stops: [
        { at: 0, color: '#FF0000' },
        { at: 0.5, color: '#00FF00' },
        { at: 1, color: '#0000FF' },
      ],
    },
  });
  it('takes them along its gradient', () => {
    expect(colorsOf(flowOf(0, chart({ numbers: [1, 2, 3] }), each).marks)).toEqual(['#FF0000', '#00FF00', '#0000FF']);
  });
  it('colours letters that a card above it moves one by one', () => {
    const words = newItem('w', 'text', { text: 'ABC' });
    expect(colorsOf(flowOf(0, words, newItem('x', 'letters'), each).marks)).toEqual(['#FF0000', '#00FF00', '#0000FF']);
  });
  it('leaves each its own while others are not there', () => {
    const { marks } = flowOf(7, chart({ numbers: [1, 2, 3], stagger: 5, order: 'reversed' }, RISE), each);
    expect(colorsOf(marks)).toEqual(['#00FF00', '#0000FF']);
    const copies = newItem('r', 'repeater', { copies: 3 });
    const trimmed = newItem('t', 'trim', { mode: 'in-turn', start: 0.5 });
    expect(colorsOf(flowOf(0, newItem('s', 'rectangle'), copies, trimmed, each).marks)).toEqual(['#00FF00', '#0000FF']);
  });
});

describe('labels', () => {
  const labels = (values: { [key: string]: Value } = {}) => newItem('l', 'labels', { size: 10, away: 4, ...values });
  const fill = newItem('f', 'fill');
  const COLUMNS = { numbers: [10, 20, 40], names: 'Mill Lane\nSaltings\nOx' };
  /** Of each label the middle of its letters, and how many it has: a letter is a square of 3 within 5, and 5 high. */
  const labelled = (values: { [key: string]: Value }, of = chart(COLUMNS), frame = 0) =>
    shapesOf(frame, of, labels(values)).map(({ outlines }) => {
      const { left, top, right, bottom } = boxOfOutlines(IDENTITY, outlines)!;
      return [outlines.length, Math.round((left + right) * 1e3) / 2e3, Math.round((top + bottom) * 1e3) / 2e3];
    });
  it('stand beyond the ends of columns, and are painted by themselves', () => {
    expect(labelled({})).toEqual([
      [2, -100, 50 - 4 - 2.5],
      [2, 0, -4 - 2.5],
      [2, 100, -100 - 4 - 2.5],
    ]);
    const { marks, shapes } = flowOf(0, chart(COLUMNS), fill, labels());
    expect([marks.length, shapes.length]).toEqual([1, 3]);
  });
  it('stand within, in the middle and at the foot', () => {
    expect(labelled({ place: 'within' })[2]).toEqual([2, 100, -100 + 4 + 2.5]);
    expect(labelled({ place: 'middle' })[2]).toEqual([2, 100, 0]);
    expect(labelled({ place: 'foot', written: 'name' })).toEqual([
      [8, -100, 106.5],
      [8, 0, 106.5],
      [2, 100, 106.5],
    ]);
    // To the right of a bar, by half of its own width.
    expect(labelled({}, chart({ ...COLUMNS, drawn: 'bars' }))[2]).toEqual([2, 150 + 4 + 5, expect.closeTo(200 / 3, 3)]);
  });
  it('say numbers as they are wanted, and count as they grow', () => {
    const said = (values: { [key: string]: Value }, frame = 10) =>
      labelled(values, chart({ numbers: [1_000, 3_000] }, RISE), frame).map(([letters]) => letters);
    expect(said({})).toEqual([4, 4]);
    expect(said({ apart: ',', decimals: 1, after: ' km' })).toEqual([9, 9]);
    expect(said({ written: 'share', after: '%' })).toEqual([3, 3]);
    expect(said({}, 5)).toEqual([3, 4]);
  });
  it('come as what they stand at grows', () => {
    const alphas = (frame: number) =>
      shapesOf(frame, chart({ ...COLUMNS, stagger: 2 }, RISE), labels({ fade: 0.5 })).map(({ alpha }) => alpha);
    expect(alphas(4)).toEqual([0.8, 0.4, 0].map((x) => expect.closeTo(x, 9)));
  });
  it('go along with copies, and number what has no numbers', () => {
    const moved = newItem('r', 'repeater', { copies: 2, position: [1_000, 0] });
    const both = shapesOf(0, chart(COLUMNS), moved, labels());
    expect(both).toHaveLength(6);
    const [first, again] = [both[0], both[3]].map((shape) => boxOfOutlines(IDENTITY, shape!.outlines)!);
    expect(again!.left - first!.left).toBeCloseTo(1_000, 6);
    const squares = newItem('s', 'rectangle', { width: 20, height: 20 });
    expect(
      shapesOf(0, squares, newItem('r', 'repeater', { copies: 12 }), labels()).map((s) => s.outlines.length),
    ).toEqual([1, 1, 1, 1, 1, 1, 1, 1, 1, 2, 2, 2]);
  });
});
