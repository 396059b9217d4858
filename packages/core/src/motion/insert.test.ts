import { describe, expect, it } from 'vitest';
import { color, type Param, path, point, px } from '../document/params';
import type { Ease, KeyedProperty, PathValue, Point, Value } from '../document/types';
import { withKeyInserted } from './insert';
import { samplerOf } from './sampler';

const EASES: readonly (readonly [string, Ease])[] = [
  ['linear', { kind: 'linear' }],
  ['hold', { kind: 'hold' }],
  ['the default', { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 }],
  ['an overshoot', { kind: 'bezier', x1: 0.3, y1: -0.6, x2: 0.3, y2: 1.7 }],
  ['a Bézier whose handles cross', { kind: 'bezier', x1: 0.9, y1: 0, x2: 0.1, y2: 1 }],
  ['steps', { kind: 'steps', count: 7, jump: 'end' }],
  ['steps that jump at neither end', { kind: 'steps', count: 12, jump: 'none' }],
  ['a spring', { kind: 'spring', bounces: 3, damping: 0.5 }],
  ['a loose spring', { kind: 'spring', bounces: 8, damping: 0.1 }],
  ['a bounce', { kind: 'bounce', bounces: 3, height: 0.4 }],
  [
    'a drawn curve',
    {
      kind: 'drawn',
      points: [
        { x: 0.4, y: 1, corner: true },
        { x: 0.6, y: 0.7, corner: false },
        { x: 0.85, y: 1.2, corner: false },
      ],
    },
  ],
];

const LENGTH = 100;
const keyed = (ease: Ease, from: Value, to: Value): KeyedProperty => ({
  keys: [
    { frame: 0, value: from, ease },
    { frame: LENGTH, value: to, ease: { kind: 'linear' } },
  ],
});

/** The greatest distance between the values of two properties at 1,000 points, none of them at a whole frame. */
const furthest = (param: Param, a: KeyedProperty, b: KeyedProperty, parts: (v: Value) => readonly number[]): number => {
  const [before, after] = [samplerOf(param, a), samplerOf(param, b)];
  let most = 0;
  for (let i = 0; i < 1_000; i++) {
    const frame = ((i + 0.37) / 1_000) * LENGTH;
    const [p, q] = [parts(before.at(frame)), parts(after.at(frame))];
    p.forEach((v, k) => (most = Math.max(most, Math.abs(v - q[k]!))));
  }
  return most;
};

describe.each(EASES)('a keyframe put into a span of %s', (_name, ease) => {
  it.each([3, 31, 50, 77, 96])('at %i of 100 leaves the motion within a thousandth of its way', (frame) => {
    const param = px('Width', 0);
    const whole = keyed(ease, 0, 1_000);
    const cut = withKeyInserted(param, whole, frame) as KeyedProperty;
    expect(cut.keys.map((k) => k.frame)).toEqual([0, frame, LENGTH]);
    expect(furthest(param, whole, cut, (v) => [v as number])).toBeLessThanOrEqual(1);
  });
});

describe('what else a keyframe leaves as it was', () => {
  const soft: Ease = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 };
  it('a curved motion path, at its pace', () => {
    const param = point('Position', [0, 0]);
    const whole: KeyedProperty = {
      keys: [
        { frame: 0, value: [0, 0], ease: soft, handles: [0, 0, 300, 0] },
        { frame: LENGTH, value: [300, 300], ease: soft, handles: [0, -280, 40, 0] },
      ],
    };
    const cut = withKeyInserted(param, whole, 40) as KeyedProperty;
    expect(furthest(param, whole, cut, (v) => v as Point)).toBeLessThan(0.3);
    expect(cut.keys[2]?.handles?.slice(2)).toEqual([40, 0]);
  });
  it('a path of one pace, whose keyframes give the way alone', () => {
    const param = point('Position', [0, 0]);
    const whole: KeyedProperty = {
      even: true,
      keys: [
        { frame: 0, value: [0, 0], ease: soft, handles: [0, 0, 100, 0] },
        { frame: 60, value: [200, 200], ease: soft, handles: [0, -100, 0, 100] },
        { frame: LENGTH, value: [0, 400], ease: soft },
      ],
    };
    const cut = withKeyInserted(param, whole, 20) as KeyedProperty;
    expect([cut.keys.length, cut.even]).toEqual([4, true]);
    expect(furthest(param, whole, cut, (v) => v as Point)).toBeLessThan(0.3);
  });
  it('an outline that morphs, and a colour to what its eight bits hold', () => {
    const square = (side: number): PathValue => ({
      closed: true,
      vertices: [
        [0, 0, 0, 0, 0, 0],
        [side, 0, 0, 0, 0, 0],
        [side, side, -side / 4, 0, 0, 0],
      ],
    });
    const outline = path('Path', square(10));
    const morph = keyed(soft, square(10), square(110));
    const flat = (v: Value) => (v as PathValue).vertices.flat();
    expect(furthest(outline, morph, withKeyInserted(outline, morph, 30) as KeyedProperty, flat)).toBeLessThan(0.1);
    const ink = color('Colour', '#000000');
    const fade = keyed(soft, '#1B2A41', '#FFB23E');
    const channels = (v: Value) => [1, 3, 5].map((i) => parseInt((v as string).slice(i, i + 2), 16));
    expect(furthest(ink, fade, withKeyInserted(ink, fade, 30) as KeyedProperty, channels)).toBeLessThanOrEqual(2);
  });
  it('what is not keyed gets a keyframe with its value, and what has one there keeps it', () => {
    const param = px('Width', 5);
    expect(withKeyInserted(param, undefined, 8)).toMatchObject({ keys: [{ frame: 8, value: 5 }] });
    const whole = keyed(soft, 0, 10);
    expect((withKeyInserted(param, whole, LENGTH) as KeyedProperty).keys).toEqual(whole.keys);
  });
});
