import { describe, expect, it } from 'vitest';
import { newKnob } from '../document/knobs';
import { newController, newDrawing, newItem, newScene } from '../document/make';
import { wordsOf } from './words';

const EMPTY = newScene('s', 'Words', {
  width: 100,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 20,
  background: null,
});

describe('the words of a scene', () => {
  it('are those of texts, knobs and what nests set, as they are at a frame, from the back to the front', () => {
    const keyed = { ...newItem('k', 'text'), name: 'Small' };
    const title = newDrawing(EMPTY, 'a', 'Title', [
      newItem('t', 'text', { text: 'Night Tram' }),
      {
        ...keyed,
        params: {
          text: {
            keys: [
              { frame: 0, value: 'Last', ease: { kind: 'hold' } },
              { frame: 10, value: '02:40', ease: { kind: 'hold' } },
            ],
          },
        },
      } as never,
    ]);
    const rig = {
      ...newController(EMPTY, 'c', 'Rig'),
      knobs: { w: { ...newKnob('w', 'text', 'Stop'), params: { value: { value: 'Quill Square' } } } },
    };
    const nest = newDrawing(EMPTY, 'n', 'Sign', [
      { ...newItem('o', 'own-text', { value: 'Saltings' }), name: 'Stop', sets: 'w' },
    ] as never);
    const scene = { ...EMPTY, layers: { a: title, c: rig, n: nest }, order: ['c', 'a', 'n'] };
    const said = (frame: number) => wordsOf(scene, frame).map(({ layer, part, text }) => [layer, part, text]);
    expect(said(12)).toEqual([
      ['Sign', 'Stop', 'Saltings'],
      ['Title', '', 'Night Tram'],
      ['Title', 'Small', '02:40'],
      ['Rig', 'Stop', 'Quill Square'],
    ]);
    expect(said(3)[2]).toEqual(['Title', 'Small', 'Last']);
  });

  it('are not those of layers that are parts of one word', () => {
    const letter = (id: string, text: string) => newDrawing(EMPTY, id, text, [newItem('t', 'text', { text })]);
    const word = {
      by: 'letters',
      text: newItem('w', 'text', { text: 'Go' }),
      parts: ['g', 'o'],
      way: [1, 0, 0, 1],
    } as const;
    const layers = { g: letter('g', 'G'), o: letter('o', 'o'), x: letter('x', 'x') };
    const sets = [{ id: 'set', name: 'Go', members: ['g', 'o', 'x'], word }];
    const said = wordsOf({ ...EMPTY, layers, order: ['g', 'o', 'x'], sets }, 0).map(({ text }) => text);
    expect(said).toEqual(['x']);
  });

  it('are not those that a formula writes, nor of a locked layer', () => {
    const written = {
      ...newItem('t', 'text', { text: 'x' }),
      formulas: { text: { source: '"a"', refs: [] } },
    } as never;
    const one = newDrawing(EMPTY, 'a', 'By formula', [written]);
    const locked = { ...newDrawing(EMPTY, 'b', 'Locked', [newItem('u', 'text', { text: 'y' })]), locked: true };
    expect(wordsOf({ ...EMPTY, layers: { a: one, b: locked }, order: ['a', 'b'] }, 0)).toEqual([]);
  });
});
