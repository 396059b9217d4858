import { describe, expect, it } from 'vitest';
import type { Matrix } from '../geometry/matrix';
import { type Outline, OutlineWriter, straightThrough, turnOf } from '../geometry/outline';
import { blendsBehind, faded, flatFill, grouped, laidOver, seamless } from './marks';

const square = new OutlineWriter(0, 0).line(10, 0).line(10, 10).line(0, 10).close();
const back = new OutlineWriter(0, 0).line(0, 10).line(10, 10).line(10, 0).close();
const disc = new OutlineWriter(0, -5)
  .quarter(5, -5, 5, 0)
  .quarter(5, 5, 0, 5)
  .quarter(-5, 5, -5, 0)
  .quarter(-5, -5, 0, -5)
  .close();
const dented = straightThrough(
  [
    [0, 0],
    [10, 0],
    [5, 3],
    [10, 10],
    [0, 10],
  ],
  true,
);
const crossed = straightThrough(
  [
    [0, 0],
    [10, 10],
    [10, 0],
    [0, 10],
  ],
  true,
);
const pentagram = straightThrough(
  [0, 2, 4, 1, 3].map((i) => [Math.sin(i * 1.2566), -Math.cos(i * 1.2566)] as const),
  true,
);

describe('the way an outline turns', () => {
  it('is one for what has no dents, and none for the rest', () => {
    expect([square, back, disc].map(turnOf)).toEqual([1, -1, 1]);
    expect([dented, crossed, pentagram, { ...square, closed: false }].map(turnOf)).toEqual([0, 0, 0, 0]);
  });
});

const fill = (outline: Outline, x: number, color = '#FFB23E', matrix: Matrix = [1, 0, 0, 1, x, 0]) => ({
  ...flatFill([outline], color),
  matrix,
});

describe('fills of one colour', () => {
  it('become one where their areas add up', () => {
    const marks = seamless([fill(square, 0), fill(square, 10), fill(disc, 20)]);
    expect(marks).toMatchObject([{ op: 'fill', rule: 'nonzero', ink: { color: '#FFB23E' }, alpha: 1 }]);
    expect(marks[0]).toHaveProperty('outlines.length', 3);
  });
  it('stay as they are where one shows through, is of another colour, has dents, or turns the other way', () => {
    for (const other of [
      fill(square, 10, '#FFB23E80'),
      { ...fill(square, 10), alpha: 0.5 },
      fill(square, 10, '#1B2A41'),
      fill(dented, 10),
      fill(back, 10),
      fill(square, 10, '#FFB23E', [-1, 0, 0, 1, 20, 0]),
    ]) {
      const marks = [fill(square, 0), other];
      expect(seamless(marks)).toBe(marks);
    }
  });
});

describe('what blends', () => {
  const blending = grouped([fill(square, 0)], { blend: 'multiply' });
  it('blends within what fades around it', () => {
    expect(faded([blending], 0.5)).toEqual([grouped([blending], { alpha: 0.5 })]);
    expect(laidOver([blending], 'normal', 0.5)).toEqual(grouped([blending], { alpha: 0.5 }));
    expect(faded([blending], 1)).toEqual([blending]);
    expect(faded([fill(square, 0)], 0.5, 'screen')).toEqual([
      grouped([fill(square, 0)], { alpha: 0.5, blend: 'screen' }),
    ]);
    expect(faded([fill(square, 0)], 0.5)).toEqual([{ ...fill(square, 0), alpha: 0.5 }]);
  });
  it('does so with what is behind, unless it stands in a picture of its own', () => {
    expect(blendsBehind([fill(square, 0), grouped([blending])])).toBe(true);
    expect(blendsBehind([grouped([blending], { alpha: 0.5 }), grouped([fill(square, 0)])])).toBe(false);
    expect(blendsBehind([grouped([blending], { cuts: [] })])).toBe(false);
    const within = grouped([blending], { blend: 'within' });
    expect(blendsBehind([within])).toBe(false);
    // One that is a picture of its own fades by itself.
    expect(faded([within], 0.5)).toEqual([{ ...within, alpha: 0.5 }]);
  });
});
