import { describe, expect, it } from 'vitest';
import { Chance } from '../test/random';
import { KAPPA, type Outline, OutlineWriter, polygon, straightThrough } from './outline';
import { areaOf, combined, intricacyOf, intricacyOfGrowth, type Join, outlinesOf } from './polygons';

const circle = (x: number, y: number, r: number): Outline => {
  const k = r * KAPPA;
  return new OutlineWriter(x + r, y)
    .cubic(x + r, y + k, x + k, y + r, x, y + r)
    .cubic(x - k, y + r, x - r, y + k, x - r, y)
    .cubic(x - r, y - k, x - k, y - r, x, y - r)
    .cubic(x + k, y - r, x + r, y - k, x + r, y)
    .close();
};
const square = (x: number, y: number, side: number): Outline =>
  polygon([
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ]);
/** The shoelace formula. */
const sizeOf = (outlines: readonly Outline[]): number =>
  outlines.reduce((sum, { points: p }) => {
    let twice = 0;
    for (let k = 0; k + 7 < p.length; k += 6) twice += p[k]! * p[k + 7]! - p[k + 6]! * p[k + 1]!;
    return sum + twice / 2;
  }, 0);

describe('areas', () => {
  const areas = [areaOf([square(0, 0, 10)]), areaOf([square(5, 5, 10)])];
  it.each([
    ['union', 175],
    ['intersect', 25],
    ['subtract', 75],
    ['exclude', 150],
  ] as const)('of two squares: %s covers %d', (operation, size) => {
    expect(Math.abs(sizeOf(outlinesOf(combined(operation, areas))))).toBeCloseTo(size, 6);
  });
});

describe('what it takes to combine areas', () => {
  const row = (count: number) => Array.from({ length: count }, (_, i) => circle(i * 45, Math.sin(i) * 3, 20));
  // Measured on two cores: a hundred take 0.15 s, a thousand more than two.
  it('counts points, where none cross: a row of a hundred circles is little, of a thousand too much', () => {
    expect(intricacyOf(row(100))).toBeLessThan(50_000);
    expect(intricacyOf(row(1_000))).toBeGreaterThan(250_000);
  });
  it('counts crossings', () => {
    const bars = (turned: boolean) =>
      Array.from({ length: 100 }, (_, i) => {
        const [a, b] = [i * 10, i * 10 + 5];
        const corners = [
          [0, a],
          [1000, a],
          [1000, b],
          [0, b],
        ] as const;
        return polygon(turned ? corners.map(([x, y]) => [y, x] as const) : corners);
      });
    const [level, upright] = [bars(false), bars(true)];
    expect(intricacyOf([...level, ...upright])).toBeGreaterThan(
      intricacyOf(level) + intricacyOf(upright) + 0.5 * 4 * 100 * 100 - 1,
    );
  });
  // Measured: growing this tangle takes ten seconds, and letters as many as these a third of one.
  it('counts mitres as far as they reach', () => {
    const teeth = Array.from({ length: 2_000 }, (_, i) => [i / 4, i % 2 === 0 ? 0 : 6] as const);
    const growth = (limit: number) => intricacyOfGrowth([], [straightThrough(teeth, false)], 1, 'miter', limit);
    expect(growth(60)).toBeGreaterThan(2 * growth(2));
  });
  // Measured: ten seconds for 44,000 points, however they lie.
  it('counts that a sweep is slower for many points', () => {
    const line = (count: number) => [
      straightThrough(
        Array.from({ length: count }, (_, i) => [i * 9, i * 7]),
        false,
      ),
    ];
    const growth = (count: number) => intricacyOfGrowth([], line(count), 1, 'bevel', 2);
    expect(growth(5_000)).toBeLessThan(100_000);
    expect(growth(44_000)).toBeGreaterThan(250_000);
  });
  // Measured: growing this tangle takes ten seconds, and letters as many as these a third of one.
  // Measured: twelve seconds, with mitres as long as these.
  it('counts mitres as far as they reach', () => {
    const teeth = Array.from({ length: 20_000 }, (_, i) => [i / 4, i % 2 === 0 ? 0 : 6] as const);
    const growth = (limit: number) => intricacyOfGrowth([], [straightThrough(teeth, false)], 10, 'miter', limit);
    expect(growth(60)).toBe(Infinity);
    expect(growth(2)).toBeGreaterThan(growth(60) === Infinity ? 0 : Infinity);
  });
  it('counts what becomes of crossings where areas grow: a tangle is too much, a row of letters is not', () => {
    const chance = new Chance(1);
    const place = () => [chance.between(-300, 300), chance.between(-300, 300)] as const;
    const tangle = polygon(Array.from({ length: 1_200 }, place));
    expect(intricacyOf([tangle])).toBeLessThan(250_000);
    const growth = (outlines: Outline[], by: number, join: Join) =>
      intricacyOfGrowth(areaOf(outlines), [], by, join, 4);
    expect(growth([tangle], 10, 'bevel')).toBeGreaterThan(250_000);
    expect(growth(row(100), 2, 'round')).toBeLessThan(250_000);
  });
});
