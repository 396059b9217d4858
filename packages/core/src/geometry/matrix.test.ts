import { describe, expect, it } from 'vitest';
import { apply, inverted, type Matrix, multiply, placed } from './matrix';

describe('placing', () => {
  it('moves the pivot to the position', () => {
    const m = placed({ position: [100, 50], pivot: [7, 9], scale: [3, 2], rotation: 33 });
    expect(apply(m, [7, 9]).map((v) => v.toFixed(9))).toEqual(['100.000000000', '50.000000000']);
  });
  it('turns clockwise on a screen whose y points down', () => {
    const m = placed({ position: [0, 0], pivot: [0, 0], scale: [1, 1], rotation: 90 });
    expect(apply(m, [1, 0])).toEqual([0, 1]);
  });
  it('scales before it turns', () => {
    const m = placed({ position: [0, 0], pivot: [0, 0], scale: [2, 1], rotation: 90 });
    expect(apply(m, [1, 0])).toEqual([0, 2]);
  });
});

it('an inverse undoes its matrix', () => {
  const m: Matrix = [2, 1, -0.5, 3, 40, -7];
  const same = multiply(inverted(m) as Matrix, m);
  [1, 0, 0, 1, 0, 0].forEach((v, i) => expect(same[i]).toBeCloseTo(v, 12));
  expect(inverted([1, 2, 2, 4, 0, 0])).toBeNull();
});
