import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newScene } from '../document/make';
import { commonCards } from './common';

const scene = newScene('s', 'S', { width: 9, height: 9, rate: { num: 25, den: 1 }, length: 9, background: null });
const cards = (id: string, ...kinds: readonly string[]) => kinds.map((kind, i) => newItem(`${id}${i}`, kind));

describe('common cards', () => {
  it('are those that all have, each with the one that stands for it', () => {
    const a = newDrawing(scene, 'a', 'A', cards('a', 'rectangle', 'fill', 'stroke', 'fill'));
    const b = newDrawing(scene, 'b', 'B', cards('b', 'ellipse', 'stroke', 'fill'));
    expect(commonCards([a, b])).toEqual([
      {
        kind: 'fill',
        nth: 0,
        cards: [
          { layer: 'a', item: 'a1' },
          { layer: 'b', item: 'b2' },
        ],
      },
      {
        kind: 'stroke',
        nth: 0,
        cards: [
          { layer: 'a', item: 'a2' },
          { layer: 'b', item: 'b1' },
        ],
      },
    ]);
    expect(commonCards([a]).map(({ kind, nth }) => `${kind} ${nth}`)).toEqual([
      'rectangle 0',
      'fill 0',
      'stroke 0',
      'fill 1',
    ]);
    expect(commonCards([])).toEqual([]);
  });
  it('are found in groups too, and settings are none', () => {
    const [group, rectangle, fill] = cards('g', 'group', 'rectangle', 'fill') as [never, never, never];
    const nested = newDrawing(scene, 'n', 'N', [
      { ...(group as ReturnType<typeof newItem>), children: ['g1', 'g2'] },
      rectangle,
      fill,
    ]);
    const flat = newDrawing(scene, 'f', 'F', cards('f', 'rectangle', 'fill'));
    expect(commonCards([flat, nested]).map(({ cards: each }) => each[1]?.item)).toEqual(['g1', 'g2']);
    const nest = newDrawing(scene, 'x', 'X', [
      { ...newItem('x0', 'nest'), children: ['x1'] },
      { ...newItem('x1', 'own-number'), sets: 'k' },
    ]);
    expect(commonCards([nest]).map(({ kind }) => kind)).toEqual(['nest']);
  });
});
