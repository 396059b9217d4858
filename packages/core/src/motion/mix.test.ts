import { describe, expect, it } from 'vitest';
import { gradientAt, MIX, movedBy } from './mix';

const stops = (...list: (readonly [number, string])[]) => ({ stops: list.map(([at, color]) => ({ at, color })) });

describe('gradients', () => {
  it('of as many stops mix stop by stop', () => {
    const half = MIX.gradient(stops([0, '#000000'], [1, '#000000']), stops([0.5, '#000000'], [1, '#ffffff']), 0.5);
    expect(half.stops.map((s) => s.at)).toEqual([0.25, 1]);
    expect(half.stops[1]?.color).toBe('#636363');
  });
  it('of unequal counts mix at all their places', () => {
    const mixed = MIX.gradient(
      stops([0, '#ff0000'], [1, '#ff0000']),
      stops([0, '#ff0000'], [0.3, '#ff0000'], [1, '#ff0000']),
      0.5,
    );
    expect(mixed.stops).toEqual([
      { at: 0, color: '#ff0000' },
      { at: 0.3, color: '#ff0000' },
      { at: 1, color: '#ff0000' },
    ]);
  });
  it('have their end colours beyond their ends', () => {
    const g = stops([0.2, '#ff0000'], [0.8, '#0000ff']);
    expect([gradientAt(g, 0), gradientAt(g, 1), gradientAt(g, 0.5)]).toEqual(['#ff0000', '#0000ff', '#8c53a2']);
  });
});

describe('lists of numbers', () => {
  it('of one length mix, of two lengths jump', () => {
    expect(MIX.numbers([0, 10], [10, 30], 0.5)).toEqual([5, 20]);
    expect([MIX.numbers([1], [2, 3], 0.9), MIX.numbers([1], [2, 3], 1)]).toEqual([[1], [2, 3]]);
  });
});

describe('moving a curve', () => {
  it('adds the way for numbers and points, and sets everything else', () => {
    expect(movedBy('number', 10, 2, 5)).toBe(13);
    expect(movedBy('point', [1, 2], [0, 0], [10, 20])).toEqual([11, 22]);
    expect(movedBy('color', '#000000', '#111111', '#222222')).toBe('#222222');
  });
});
