import { describe, expect, it } from 'vitest';
import { number } from '../document/params';
import type { KeyedProperty } from '../document/types';
import { shifted, withEase, withKey, withMovedKeys, withoutKeys, withValue } from './keys';

const linear = { kind: 'linear' } as const;
const property: KeyedProperty = {
  keys: [
    { frame: 0, value: 10, ease: linear },
    { frame: 10, value: 20, ease: { kind: 'hold' } },
    { frame: 20, value: 40, ease: linear },
  ],
};
const frames = (p: KeyedProperty) => p.keys.map((k) => k.frame);
const values = (p: KeyedProperty) => p.keys.map((k) => k.value);

describe('keyframes', () => {
  it('go in where they belong, with the ease of the span they cut', () => {
    const next = withKey(property, 15, 7);
    expect(frames(next)).toEqual([0, 10, 15, 20]);
    expect(next.keys[2]?.ease).toEqual({ kind: 'hold' });
  });
  it('replace the one at their frame', () => {
    expect(values(withKey(property, 10, 99))).toEqual([10, 99, 40]);
  });
  it('can all be taken away, leaving the first value', () => {
    expect(withoutKeys(property, new Set([0, 10, 20]))).toEqual({ value: 10 });
  });
  it('moved onto another take its place', () => {
    const next = withMovedKeys(property, new Set([0]), 10);
    expect([frames(next), values(next)]).toEqual([
      [10, 20],
      [10, 40],
    ]);
  });
  it('moved past another change order', () => {
    expect(values(withMovedKeys(property, new Set([0]), 15))).toEqual([20, 10, 40]);
  });
  it('take an ease only where it is meant', () => {
    expect(withEase(property, new Set([10]), linear).keys.map((k) => k.ease.kind)).toEqual([
      'linear',
      'linear',
      'linear',
    ]);
  });
  it('shift as a whole', () => {
    expect(frames(shifted(property, -5) as KeyedProperty)).toEqual([-5, 5, 15]);
  });
});

describe('a change of value', () => {
  const param = number('Size', 0);
  it('sets a keyframe where asked to', () => {
    expect(frames(withValue(param, property, 5, { write: 'key', frame: 12 }) as KeyedProperty)).toEqual([
      0, 10, 12, 20,
    ]);
  });
  it('moves the whole curve otherwise, so that the value is right at its frame', () => {
    // Half way along the first span the curve has 15.
    expect(values(withValue(param, property, 18, { write: 'curve', frame: 5 }) as KeyedProperty)).toEqual([13, 23, 43]);
  });
  it('is just the value where nothing is animated', () => {
    expect(withValue(param, { value: 1 }, 18, { write: 'curve', frame: 5 })).toEqual({ value: 18 });
  });
});
