import { describe, expect, it } from 'vitest';
import type { Ease } from '../../document/types';
import { curveOf, easeOfStrength, strengthOf } from './table';

/** CSS Easing Functions Level 1: the point of the curve with this x, found by bisection on the parameter. */
const cssCubicBezier = (x1: number, y1: number, x2: number, y2: number, x: number): number => {
  const at = (a: number, b: number, t: number) => 3 * (1 - t) ** 2 * t * a + 3 * (1 - t) * t ** 2 * b + t ** 3;
  let [low, high] = [0, 1];
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (at(x1, x2, mid) < x) low = mid;
    else high = mid;
  }
  return at(y1, y2, low);
};

describe('bezier ease', () => {
  it.each([
    ['ease', 0.25, 0.1, 0.25, 1],
    ['ease-in', 0.42, 0, 1, 1],
    ['ease-out', 0, 0, 0.58, 1],
    ['ease-in-out', 0.42, 0, 0.58, 1],
    ['overshoot', 0.3, -0.4, 0.3, 1.7],
    ['full strength', 1, 0, 0, 1],
  ])('%s is the CSS curve at 1,000 points', (_name, x1, y1, x2, y2) => {
    const curve = curveOf({ kind: 'bezier', x1, y1, x2, y2 });
    for (let i = 0; i <= 1000; i++) {
      expect(curve(i / 1000)).toBeCloseTo(cssCubicBezier(x1, y1, x2, y2, i / 1000), 5);
    }
  });

  it('goes beyond its end where a handle does', () => {
    const curve = curveOf({ kind: 'bezier', x1: 0.3, y1: 0, x2: 0.3, y2: 1.7 });
    expect(Math.max(...Array.from({ length: 100 }, (_, i) => curve(i / 100)))).toBeGreaterThan(1.1);
  });

  it('hits its ends exactly', () => {
    const eases: Ease[] = [{ kind: 'linear' }, { kind: 'bezier', x1: 0.9, y1: 2, x2: 0.1, y2: -1 }];
    for (const ease of eases) expect([curveOf(ease)(0), curveOf(ease)(1)]).toEqual([0, 1]);
  });
});

describe('strength', () => {
  it('is the share of the span that the flat handle reaches', () => {
    expect(easeOfStrength({ start: 0.3, end: 0.8 })).toEqual({
      kind: 'bezier',
      x1: 0.3,
      y1: 0,
      x2: 0.19999999999999996,
      y2: 1,
    });
  });
  it('reads back what was set', () => {
    const { start, end } = strengthOf(easeOfStrength({ start: 0.25, end: 0.75 }));
    expect([start, end]).toEqual([0.25, 0.75]);
  });
  it('of none at either end is linear', () => {
    expect(easeOfStrength({ start: 0, end: 0 })).toEqual({ kind: 'linear' });
  });
});
