import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Item, Project, Property, Scene, Value } from '../document/types';
import { applyEdit } from '../edits/apply';
import { splitText } from '../edits/text';
import { countingIds } from '../document/make';
import { compileScene } from '../scene/compile';
import { squareFonts } from '../test/fonts';
import { boxOfMarks } from './marks';
import type { Mark } from './types';

const EMPTY = newScene('s', 'S', { width: 900, height: 400, rate: { num: 25, den: 1 }, length: 99, background: null });
const LIBRARY = { assets: {}, fonts: squareFonts };

const keyed = (...keys: readonly (readonly [frame: number, value: Value])[]): Property => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: { kind: 'linear' } })),
});
const text = (words: string) => newItem('t', 'text', { text: words, size: 100 });
const letters = (values: { [key: string]: Value }, params: { [key: string]: Property } = {}): Item => {
  const item = newItem('x', 'letters', values);
  return { ...item, params: { ...item.params, ...params } };
};
const layerOf = (...items: readonly Item[]): DrawingLayer =>
  newDrawing(EMPTY, 'l', 'Words', items, { position: [0, 0] });
const programOf = (...items: readonly Item[]) =>
  compileScene({ ...EMPTY, layers: { l: layerOf(...items) }, order: ['l'] }, LIBRARY);
const marksOf = (frame: number, ...items: readonly Item[]) => programOf(...items).marksAt('l', frame);
const fill = newItem('f', 'fill');
const alphas = (marks: readonly Mark[]) => marks.map((mark) => Math.round(mark.alpha * 1_000) / 1_000);
const FADE = { opacity: keyed([0, 0], [10, 1]) };

describe('letters', () => {
  it('as they come stand where the text stands, one by one', () => {
    const whole = boxOfMarks(marksOf(0, text('AB CD'), fill));
    const marks = marksOf(0, text('AB CD'), fill, letters({}));
    expect([marks.length, boxOfMarks(marks)]).toEqual([4, whole]);
    expect(marksOf(0, text('AB CD'), fill, letters({ by: 'words' }))).toHaveLength(2);
    expect(marksOf(0, text('AB\nCD EF'), fill, letters({ by: 'lines' }))).toHaveLength(2);
  });
  it('have the outlines that they have when the text is split', () => {
    const scene: Scene = { ...EMPTY, layers: { l: layerOf(text('AB'), fill) }, order: ['l'] };
    const doc = newProject('p', 'P', [scene]);
    const edit = splitText(
      { scene: 's', layer: 'l', item: 't' },
      'letters',
      0,
      compileScene(scene, LIBRARY),
      countingIds('n'),
    );
    const split = applyEdit(doc, edit).doc as Project;
    const parted = compileScene(split.scenes.s!, LIBRARY)
      .at(0)
      .marks.map((mark) => boxOfMarks([mark]));
    expect(marksOf(0, text('AB'), fill, letters({})).map((mark) => boxOfMarks([mark]))).toEqual(parted.toReversed());
  });
  it('each play the keyframes so much later', () => {
    const at = (frame: number, values: { [key: string]: Value }) =>
      alphas(marksOf(frame, text('ABC'), fill, letters({ stagger: 3, ...values }, FADE)));
    expect(at(8, {})).toEqual([0.8, 0.5, 0.2]);
    expect(at(8, { order: 'reversed' })).toEqual([0.2, 0.5, 0.8]);
    expect(at(8, { order: 'centre' })).toEqual([0.5, 0.8, 0.5]);
    // What is not seen yet is not there.
    expect(at(3, {})).toEqual([0.3]);
    expect(at(30, { order: 'random', seed: 4 })).toEqual([1, 1, 1]);
  });
  it('go behind an edge of their place by a share of their font’s height, or of their own width, whatever the size', () => {
    // The font of the tests reaches 0.8 of its size above the base line and 0.2 below; a letter has half of it, 0.1 to 0.4 are ink.
    const boxes = (values: { [key: string]: Value }, size = 100) =>
      marksOf(0, newItem('t', 'text', { text: 'A', size, align: 'left' }), fill, letters(values)).map((mark) => {
        const { left, top, right, bottom } = boxOfMarks([mark])!;
        return [left, top, right, bottom].map((v) => Math.round(v * 1e6) / 1e6 + 0);
      })[0];
    expect(boxes({})).toEqual([10, -50, 40, 0]);
    expect(boxes({ behind: 0.3 })).toEqual([10, -20, 40, 20]);
    expect(boxes({ behind: 0.3 }, 200)).toEqual([20, -40, 80, 40]);
    expect(boxes({ behind: 0.6, edge: 'top' })).toEqual([10, -80, 40, -60]);
    expect(boxes({ behind: 0.5, edge: 'left' })).toEqual([0, -50, 15, 0]);
    expect(boxes({ behind: 0.5, edge: 'right' })).toEqual([35, -50, 50, 0]);
    expect(boxes({ behind: 1 })).toBeUndefined();
    const rising = letters({ stagger: 5 }, { behind: keyed([0, 1], [10, 0]) });
    const tops = (frame: number) => marksOf(frame, text('ABC'), fill, rising).map((mark) => boxOfMarks([mark])!.top);
    expect(tops(9)).toEqual([expect.closeTo(-40, 6), expect.closeTo(10, 6)]);
    expect(tops(20)).toEqual([-50, -50, -50]);
  });
  it('turn and grow about their middle, their base line or their word', () => {
    const boxes = (values: { [key: string]: Value }) =>
      marksOf(0, text('AB'), fill, letters(values)).map((mark) => boxOfMarks([mark])!);
    const plain = boxes({});
    const middle = (b: { left: number; right: number; top: number; bottom: number }) => [
      (b.left + b.right) / 2,
      (b.top + b.bottom) / 2,
    ];
    const half = boxes({ scale: [0.5, 0.5] });
    expect(half.map(middle)).toEqual(plain.map(middle));
    expect(half[0]!.right - half[0]!.left).toBeCloseTo((plain[0]!.right - plain[0]!.left) / 2, 9);
    // Letters that stand on the base line go on standing there.
    expect(boxes({ scale: [0.5, 0.5], about: 'base' }).map((b) => b.bottom)).toEqual(plain.map((b) => b.bottom));
    const word = boxes({ scale: [0.5, 0.5], about: 'word' });
    expect(word[1]!.left - word[0]!.left).toBeCloseTo((plain[1]!.left - plain[0]!.left) / 2, 9);
    const moved = boxes({ position: [7, -5] });
    expect(moved.map((b) => [b.left, b.top])).toEqual(plain.map((b) => [b.left + 7, b.top - 5]));
  });
  it('keep their motion when the words change, are keyed, or stand in a group', () => {
    const changing = { ...text('AB'), params: { ...text('AB').params, text: keyed([0, 'AB'], [5, 'ABCDEFGHI']) } };
    const count = (frame: number) => marksOf(frame, changing, fill, letters({ stagger: 1 }, FADE)).length;
    expect([count(4), count(50)]).toEqual([2, 9]);
    const group = { ...newItem('g', 'group', { scale: [2, 2] }), children: ['t', 'f'] };
    const inGroup = programOf(text('AB'), fill, group, letters({ scale: [0.5, 0.5] })).scene.layers.l as DrawingLayer;
    const scene = { ...EMPTY, layers: { l: { ...inGroup, recipe: ['g', 'x'] } }, order: ['l'] };
    const [a, b] = compileScene(scene, LIBRARY)
      .marksAt('l', 0)
      .map((mark) => boxOfMarks([mark])!);
    // Twice as far apart, and as large as they are: 30 pixels, 50 from each other.
    expect([a!.right - a!.left, b!.right - a!.left]).toEqual([30, 130]);
  });
  it('are cut by a mask above as the whole text is', () => {
    const window = newItem('w', 'rectangle', { width: 100, height: 300 });
    const mask = { ...newItem('m', 'mask'), children: ['w'] };
    const cards = [text('AB CD'), fill, mask, window, letters({})];
    expect(boxOfMarks(marksOf(0, ...cards))).toMatchObject({ left: -50, right: 50 });
  });
  it('leave what is no text as it is, behind them', () => {
    const line = newItem('r', 'rectangle', { width: 300, height: 10 });
    const marks = marksOf(0, text('AB'), line, fill, letters({ position: [0, -50] }));
    expect([marks.length, boxOfMarks(marks.slice(0, 1))]).toEqual([3, { left: -150, right: 150, top: -5, bottom: 5 }]);
    expect(marksOf(0, line, fill, letters({ position: [0, -50] }))).toEqual(marksOf(0, line, fill));
  });
  it('leave words that cels show as they are', () => {
    const shown = { ...newItem('c', 'cels'), children: ['k'] };
    const cel = { ...newItem('k', 'cel'), children: ['u'] };
    const drawn = { ...text('CD'), id: 'u' };
    const marks = marksOf(0, text('AB'), shown, cel, drawn, fill, letters({ position: [0, -50] }));
    expect(marks.map((mark) => Math.round(boxOfMarks([mark])!.bottom))).toEqual([0, -50, -50]);
  });
  it('are told apart by formulas, in their own card and in those above', () => {
    const rising = { ...letters({}), formulas: { position: { text: '[0, -10 * order]', on: true } } };
    const tops = marksOf(0, text('ABC'), fill, rising).map((mark) => boxOfMarks([mark])!.top);
    expect([tops[1]! - tops[0]!, tops[2]! - tops[0]!]).toEqual([-10, -20]);
    const tall = { ...letters({}), formulas: { scale: { text: 'if(letter = "B", [1, 2], [1, 1])', on: true } } };
    const heights = marksOf(0, text('ABC'), fill, tall).map(
      (mark) => boxOfMarks([mark])!.bottom - boxOfMarks([mark])!.top,
    );
    expect([heights[1]! / heights[0]!, heights[2]! / heights[0]!]).toEqual([2, 1]);
    const fading = { ...fill, formulas: { opacity: { text: '1 - order / count', on: true } } };
    expect(alphas(marksOf(0, text('AB'), fading, letters({})))).toEqual([1, 0.5]);
  });
  it('play what is above later too, where that is wanted, and are copied with their delays', () => {
    const growing = { ...fill, params: { opacity: keyed([0, 0], [10, 1]) } };
    const at = (values: { [key: string]: Value }) =>
      alphas(marksOf(8, text('AB'), growing, letters({ stagger: 4, ...values })));
    expect([at({}), at({ above: true })]).toEqual([
      [0.8, 0.8],
      [0.8, 0.4],
    ]);
    // Words come in, and within each its letters: both are cards, and each has its part.
    const both = (frame: number) =>
      marksOf(frame, text('AB CD'), fill, letters({ by: 'words', stagger: 5 }, FADE), {
        ...letters({ stagger: 0, position: [0, -9] }),
        id: 'y',
      });
    expect(both(50)).toHaveLength(4);
    expect(boxOfMarks(both(50))!.top).toBe(boxOfMarks(marksOf(0, text('AB CD'), fill))!.top - 9);
    expect(both(5)).toHaveLength(2);
    const inner = marksOf(
      50,
      text('AB CD'),
      fill,
      { ...letters({ position: [0, -9] }), id: 'y' },
      letters({ by: 'words', scale: [2, 2] }),
    );
    expect(inner).toHaveLength(4);
    const repeater = newItem('rep', 'repeater', { copies: 3, position: [0, 70] });
    expect(marksOf(0, text('AB'), fill, letters({}), repeater)).toHaveLength(6);
    expect(marksOf(0, text('AB'), fill, repeater, letters({}))).toHaveLength(6);
  });
});
