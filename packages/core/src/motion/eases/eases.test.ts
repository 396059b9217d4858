import { describe, expect, it } from 'vitest';
import type { Ease } from '../../document/types';
import { curveOf, fittedEase, reversedEase, settingsOf } from './table';

const EVERY: readonly (readonly [string, Ease])[] = [
  ['linear', { kind: 'linear' }],
  ['a curve', { kind: 'bezier', x1: 0.3, y1: -0.4, x2: 0.3, y2: 1.7 }],
  ['steps', { kind: 'steps', count: 5, jump: 'end' }],
  ['steps with a jump at both ends', { kind: 'steps', count: 5, jump: 'both' }],
  ['a spring', { kind: 'spring', bounces: 3, damping: 0.5 }],
  ['a stiff spring', { kind: 'spring', bounces: 1, damping: 1 }],
  ['a bounce', { kind: 'bounce', bounces: 3, height: 0.4 }],
  ['a dead bounce', { kind: 'bounce', bounces: 2, height: 0 }],
  [
    'a drawn rebound',
    {
      kind: 'drawn',
      points: [
        { x: 0.4, y: 1, corner: true },
        { x: 0.6, y: 0.7, corner: false },
        { x: 0.8, y: 1, corner: true },
      ],
    },
  ],
];

describe.each(EVERY)('%s', (name, ease) => {
  const curve = curveOf(ease);
  it('hits its ends exactly, and holds them outside', () => {
    expect(curve(1)).toBe(1);
    expect(Number.isFinite(curve(1.3))).toBe(true);
    // Straight lines and curves are never asked beyond their spans.
    if (name !== 'linear' && name !== 'a curve') expect(curve(1.3)).toBe(1);
    if (!name.endsWith('both ends')) expect(curve(0)).toBe(0);
  });
  it('is what it is made of, and fits', () => {
    for (const [key, { is }] of Object.entries(settingsOf(ease))) {
      expect(is((ease as unknown as Record<string, unknown>)[key]), key).toBe(true);
    }
    expect(fittedEase(ease)).toBe(ease);
  });
  it('runs backwards as 1 − ease(1 − t)', () => {
    const back = curveOf(reversedEase(ease));
    // Between steps, where nothing jumps; what has no form of its own backwards goes through points.
    for (const t of [0.05, 0.13, 0.37, 0.55, 0.71, 0.93]) expect(back(t)).toBeCloseTo(1 - curve(1 - t), 1);
  });
  if (!name.startsWith('steps')) {
    it('is continuous', () => {
      let most = 0;
      for (let i = 0; i < 20_000; i++) most = Math.max(most, Math.abs(curve((i + 1) / 20_000) - curve(i / 20_000)));
      expect(most).toBeLessThan(2e-3);
    });
  }
});

it('a spring passes its end as often as it bounces', () => {
  for (const bounces of [1, 2, 5]) {
    const curve = curveOf({ kind: 'spring', bounces, damping: 0.2 });
    let above = 0;
    let was = false;
    for (let i = 0; i <= 5000; i++) {
      const now = curve(i / 5000) > 1 + 1e-9;
      if (now && !was) above++;
      was = now;
    }
    expect(above).toBe(bounces);
  }
});

it('a bounce falls like a ball: its rebounds reach their shares of the height, as long as gravity makes them', () => {
  const curve = curveOf({ kind: 'bounce', bounces: 2, height: 0.25 });
  // Halves of 1/2 and 1/4: the whole lasts 1 + 1 + 1/2 falls.
  expect(curve(1 / 2.5)).toBeCloseTo(1, 9);
  expect(curve(0.5 / 2.5)).toBeCloseTo(0.25, 9);
  expect(curve(1.5 / 2.5)).toBeCloseTo(1 - 0.25, 9);
  expect(curve(2 / 2.5)).toBeCloseTo(1, 9);
  expect(curve(2.25 / 2.5)).toBeCloseTo(1 - 0.0625, 9);
});

it.each<readonly [string, Ease, Ease]>([
  ['steps', { kind: 'steps', count: 1e9, jump: 'end' }, { kind: 'steps', count: 1_000, jump: 'end' }],
  ['a spring', { kind: 'spring', bounces: 0, damping: NaN }, { kind: 'spring', bounces: 1, damping: 0 }],
  ['a curve', { kind: 'bezier', x1: -1, y1: 500, x2: 2, y2: 1 }, { kind: 'bezier', x1: 0, y1: 100, x2: 1, y2: 1 }],
  [
    'points out of order',
    {
      kind: 'drawn',
      points: [
        { x: 0.5, y: 900, corner: false },
        { x: 0.4, y: 0, corner: true },
      ],
    },
    { kind: 'drawn', points: [{ x: 0.5, y: 100, corner: false }] },
  ],
])('%s beyond limits are brought to the nearest within', (_name, ease, nearest) => {
  expect(fittedEase(ease)).toEqual(nearest);
});

it('a drawn curve goes through its points and nowhere beyond them', () => {
  const points = [
    { x: 0.2, y: 0.9, corner: false },
    { x: 0.5, y: 0.4, corner: false },
    { x: 0.7, y: 1.2, corner: true },
  ];
  const curve = curveOf({ kind: 'drawn', points });
  for (const { x, y } of points) expect(curve(x)).toBeCloseTo(y, 9);
  const values = Array.from({ length: 1001 }, (_, i) => curve(i / 1000));
  expect(Math.max(...values)).toBeLessThanOrEqual(1.2 + 1e-9);
  expect(Math.min(...values.slice(200))).toBeGreaterThanOrEqual(0.4 - 1e-9);
});
