import { describe, expect, it } from 'vitest';
import { number, point } from '../document/params';
import type { ApartProperty, Ease, KeyedProperty, Property } from '../document/types';
import {
  displaced,
  reversed,
  shifted,
  withCopiedKeys,
  withEase,
  withKey,
  withKeyMoved,
  withKeysAt,
  withoutKeys,
  withReversedKeys,
  withValue,
} from './keys';
import { seeded } from '../document/random';
import { samplerOf } from './sampler';

const param = number('Size', 0);
const linear = { kind: 'linear' } as const;
const property: KeyedProperty = {
  keys: [
    { frame: 0, value: 10, ease: linear },
    { frame: 10, value: 20, ease: { kind: 'hold' } },
    { frame: 20, value: 40, ease: linear },
  ],
};
const frames = (p: Property) => (p as KeyedProperty).keys.map((k) => k.frame);
const values = (p: Property) => (p as KeyedProperty).keys.map((k) => k.value);

describe('keyframes', () => {
  it('go in where they belong, with the ease of the span they cut', () => {
    const next = withKey(param, property, 15, 7) as KeyedProperty;
    expect(frames(next)).toEqual([0, 10, 15, 20]);
    expect(next.keys[2]?.ease).toEqual({ kind: 'hold' });
  });
  it('replace the one at their frame', () => {
    expect(values(withKey(param, property, 10, 99))).toEqual([10, 99, 40]);
  });
  it('can all be taken away, leaving the first value', () => {
    expect(withoutKeys(property, new Set([0, 10, 20]))).toEqual({ value: 10 });
  });
  it('moved onto another take its place', () => {
    const next = withKeysAt(property, new Set([0]), (f) => f + 10);
    expect([frames(next), values(next)]).toEqual([
      [10, 20],
      [10, 40],
    ]);
  });
  it('moved past another change order', () => {
    expect(values(withKeysAt(property, new Set([0]), (f) => f + 15))).toEqual([20, 10, 40]);
  });
  it('take an ease only where it is meant', () => {
    expect(withEase(property, new Set([10]), linear).keys.map((k) => k.ease.kind)).toEqual([
      'linear',
      'linear',
      'linear',
    ]);
  });
  it('are copied with their eases, and the first ones stay', () => {
    const next = withCopiedKeys(property, new Set([0, 10]), 30);
    expect([frames(next), values(next)]).toEqual([
      [0, 10, 20, 30, 40],
      [10, 20, 40, 10, 20],
    ]);
    expect(next.keys[4]?.ease.kind).toBe('hold');
  });
  it('take another frame and value by number', () => {
    const next = withKeyMoved(property, 10, { frame: 25, value: 7 });
    expect([frames(next), values(next)]).toEqual([
      [0, 20, 25],
      [10, 40, 7],
    ]);
  });
  it('run backwards where they are reversed', () => {
    const eased: KeyedProperty = {
      keys: [
        { frame: 0, value: 0, ease: { kind: 'bezier', x1: 0.6, y1: 0, x2: 0.9, y2: 0.8 } },
        { frame: 12, value: 30, ease: { kind: 'spring', bounces: 2, damping: 0.4 } },
        { frame: 40, value: 10, ease: linear },
      ],
    };
    const back = withReversedKeys(eased, new Set([0, 12, 40]), 0, 40);
    expect(frames(back)).toEqual([0, 28, 40]);
    const [on, off] = [samplerOf(param, eased), samplerOf(param, back)];
    for (let f = 0; f <= 40; f++) expect(off.at(40 - f) as number).toBeCloseTo(on.at(f) as number, 1);
  });
  it('come back as they were when they are reversed twice', () => {
    const random = seeded(7);
    for (let n = 0; n < 200; n++) {
      const eases: Ease[] = [linear, { kind: 'bezier', x1: random(), y1: random(), x2: random(), y2: random() }];
      let frame = 0;
      const keys = Array.from({ length: 2 + Math.floor(random() * 5) }, () => ({
        frame: (frame += 1 + Math.floor(random() * 9)),
        value: random(),
        ease: eases[Math.floor(random() * 2)] as Ease,
      }));
      const span = [keys[0]?.frame ?? 0, keys.at(-1)?.frame ?? 0] as const;
      const all = new Set(keys.map((k) => k.frame));
      const twice = withReversedKeys(
        withReversedKeys({ keys }, all, ...span),
        new Set(keys.map((k) => span[0] + span[1] - k.frame)),
        ...span,
      );
      expect(frames(twice)).toEqual(frames({ keys }));
      const [a, b] = [samplerOf(param, { keys }), samplerOf(param, twice)];
      for (let f = span[0]; f <= span[1]; f++) expect(b.at(f) as number).toBeCloseTo(a.at(f) as number, 9);
    }
  });
  it('swap what they do before and after when the whole property is reversed', () => {
    expect(reversed({ ...property, after: 'cycle' }, 0, 20)).toMatchObject({ before: 'cycle' });
  });
  it('shift as a whole', () => {
    expect(frames(shifted(property, -5) as KeyedProperty)).toEqual([-5, 5, 15]);
  });
});

describe('a change of value', () => {
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

describe('a point with its parts apart', () => {
  const at = point('At', [0, 0]);
  const parts = { parts: [{ keys: property.keys }, { value: 5 }] } as const;
  it('moves the part that was changed and leaves the other alone', () => {
    const next = withValue(at, parts, [18, 5], { write: 'key', frame: 5 }) as ApartProperty;
    expect(frames(next.parts[0])).toEqual([0, 5, 10, 20]);
    expect(next.parts[1]).toEqual({ value: 5 });
  });
  it('is keyed in both parts at once', () => {
    const next = withKey(at, parts, 30, [1, 2]) as ApartProperty;
    expect([frames(next.parts[0]).at(-1), values(next.parts[1])]).toEqual([30, [2]]);
  });
  it('is moved as a whole', () => {
    const next = displaced(parts, [0, 0], [2, -1]) as ApartProperty;
    expect([values(next.parts[0]), next.parts[1]]).toEqual([[12, 22, 42], { value: 4 }]);
  });
});
