import {
  choice,
  color,
  cutout,
  mesh,
  font,
  gradient,
  number,
  numbers,
  path,
  point,
  text,
  UNCUT,
} from '../../document/params';
import type { Param } from '../../document/params';
import type { Value } from '../../document/types';
import { describe, expect, it } from 'vitest';
import { gradientAt } from '../gradients';
import { fittedValue, kindOfValue, KINDS, movedBy } from './table';

const stops = (...list: (readonly [number, string])[]) => ({ stops: list.map(([at, color]) => ({ at, color })) });

describe('gradients', () => {
  it('of as many stops mix stop by stop', () => {
    const half = KINDS.gradient.mix(
      stops([0, '#000000'], [1, '#000000']),
      stops([0.5, '#000000'], [1, '#ffffff']),
      0.5,
    );
    expect(half.stops.map((s) => s.at)).toEqual([0.25, 1]);
    expect(half.stops[1]?.color).toBe('#636363');
  });
  it('of unequal counts mix at all their places', () => {
    const mixed = KINDS.gradient.mix(
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
    expect(KINDS.numbers.mix([0, 10], [10, 30], 0.5)).toEqual([5, 20]);
    expect([KINDS.numbers.mix([1], [2, 3], 0.9), KINDS.numbers.mix([1], [2, 3], 1)]).toEqual([[1], [2, 3]]);
  });
});

describe('moving a curve', () => {
  it('adds the way for numbers and points, and sets everything else', () => {
    expect(movedBy('number', 10, 2, 5)).toBe(13);
    expect(movedBy('point', [1, 2], [0, 0], [10, 20])).toEqual([11, 22]);
    expect(movedBy('color', '#000000', '#111111', '#222222')).toBe('#222222');
  });
});

const FAR_AWAY = [1e9, -1e9, 0, 0, 0, 0] as const;
const STOPS = {
  stops: [
    { at: 2, color: '#ff0000' },
    { at: -1, color: '#00ff00' },
  ],
};
/** A value beyond the limits, and the nearest within them. */
const BEYOND: readonly (readonly [string, Param, Value, Value])[] = [
  ['a number', number('n', 0, { min: -1, max: 2 }), 7, 2],
  ['what is no number', number('n', 1, { min: -1, max: 2 }), NaN, 1],
  ['a number that is not whole', number('n', 0, { min: 0, max: 9, whole: true }), 4.6, 5],
  ['a point', point('p', [0, 0], { limit: 10 }), [11, -12], [10, -10]],
  ['a colour', color('c', '#123456'), 'red', '#123456'],
  [
    'a gradient',
    gradient('g', STOPS),
    STOPS,
    {
      stops: [
        { at: 0, color: '#00ff00' },
        { at: 1, color: '#ff0000' },
      ],
    },
  ],
  [
    'a path',
    path('p', { closed: true, vertices: [] }),
    { closed: true, vertices: [FAR_AWAY] },
    { closed: true, vertices: [[100_000, -100_000, 0, 0, 0, 0]] },
  ],
  ['a list', numbers('d', [], { unit: 'px', min: 0, max: 9, most: 2 }), [5, 50, 1], [5, 9]],
  ['a choice', choice('c', [{ value: 'a', label: 'A' }], 'a'), 'b', 'a'],
  ['a text of lines', text('t', '', { most: 6, lines: 'one' }), 'Depot\n  Harbour', 'Depot '],
  [
    'a font',
    font('f', { family: 'Inter', weight: 400, italic: false }),
    { family: '', weight: 0, italic: true },
    { family: 'Inter', weight: 1, italic: true },
  ],
  [
    'a mesh',
    mesh('m', 1, 1),
    { columns: 1, rows: 1, ways: [0, 1e9, 0, 0, 0, 0, 0, -3] },
    { columns: 1, rows: 1, ways: [0, 100_000, 0, 0, 0, 0, 0, -3] },
  ],
  [
    'a mesh of too many columns',
    mesh('m', 1, 1),
    { columns: 90, rows: 1, ways: [] },
    { columns: 8, rows: 1, ways: Array.from({ length: 36 }, () => 0) },
  ],
  [
    'a cut-out',
    cutout('c'),
    { ...UNCUT, grow: 900, seeds: [{ x: 1e9, y: 0, tolerance: 3 }] },
    { ...UNCUT, grow: 200, seeds: [{ x: 100_000, y: 0, tolerance: 1 }] },
  ],
];

describe.each(BEYOND)('%s beyond its limits', (_name, param, value, nearest) => {
  const { is, wanted } = kindOfValue(param.kind);
  it('does not fit, and is brought to the nearest that does', () => {
    expect(is(param, value)).toBe(false);
    const fitting = fittedValue(param, value);
    expect(fitting).toEqual(nearest);
    expect(is(param, fitting)).toBe(true);
  });
  it('is the same object once it fits', () => {
    expect(fittedValue(param, nearest)).toBe(nearest);
    expect(wanted(param)).not.toBe('');
  });
});
