import { describe, expect, it } from 'vitest';
import { number, point } from '../document/params';
import type { Ease, KeyedProperty, PathHandles } from '../document/types';
import { seeded } from '../document/random';
import { curveOf } from './eases/table';
import { endsOf, speedOf, wayOf, withEnd } from './speed';

const size = number('Size', 0);
const at = point('Position', [0, 0]);
const linear = { kind: 'linear' } as const;
const span = (ease: Ease): KeyedProperty => ({
  keys: [
    { frame: 10, value: 20, ease },
    { frame: 34, value: 140, ease: linear },
  ],
});
/** Simpson's rule over the span, from after its first keyframe to before its last. */
const area = (speed: ReturnType<typeof speedOf>, from: number, to: number): number => {
  const n = 4000;
  const h = (to - from) / n;
  let sum = speed(from, 'after') + speed(to, 'before');
  for (let i = 1; i < n; i++) sum += (i % 2 ? 4 : 2) * speed(from + i * h);
  return (sum * h) / 3;
};

describe('speed', () => {
  it.each<[string, Ease]>([
    ['linear', linear],
    ['a CSS curve', { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 }],
    ['back', { kind: 'bezier', x1: 0.3, y1: -0.6, x2: 0.3, y2: 1.6 }],
    ['a spring', { kind: 'spring', bounces: 3, damping: 0.5 }],
    [
      'a drawn curve',
      {
        kind: 'drawn',
        points: [
          { x: 0.3, y: 0.7, corner: false },
          { x: 0.6, y: 0.4, corner: false },
        ],
      },
    ],
  ])('of %s has the change of the value for its area', (_name, ease) => {
    expect(area(speedOf(size, span(ease)), 10, 34)).toBeCloseTo(120, 1);
  });
  it('of a point has the length of its path for its area', () => {
    const handles: PathHandles = [0, 0, 60, 0];
    const bent: KeyedProperty = {
      keys: [
        { frame: 0, value: [0, 0], ease: { kind: 'bezier', x1: 0.6, y1: 0, x2: 0.4, y2: 1 }, handles },
        { frame: 40, value: [100, 80], ease: linear, handles: [0, -60, 0, 0] },
      ],
    };
    expect(area(speedOf(at, bent), 0, 40)).toBeCloseTo(wayOf(at, bent)[0] as number, 1);
  });
  it('of a point that swings back along its path is below zero there', () => {
    const back: KeyedProperty = {
      keys: [
        { frame: 0, value: [0, 0], ease: { kind: 'bezier', x1: 0.3, y1: 0, x2: 0.5, y2: 1.8 } },
        { frame: 20, value: [30, 40], ease: linear },
      ],
    };
    expect(speedOf(at, back)(20, 'before')).toBeLessThan(-1);
    expect(area(speedOf(at, back), 0, 20)).toBeCloseTo(50, 1);
  });
  it('starts as steep as the handle says', () => {
    const ease = withEnd(linear, 'start', { reach: 0.4, slope: 2.5 });
    // 120 units in 24 frames are 5 a frame at an even pace.
    expect(speedOf(size, span(ease))(10)).toBeCloseTo(12.5, 2);
    expect(speedOf(size, span(withEnd(ease, 'end', { reach: 0.5, slope: 0 })))(34, 'before')).toBeCloseTo(0, 2);
  });
});

describe('the ends of an ease', () => {
  it('are read as they were written, and the ease still goes from 0 to 1', () => {
    const random = seeded(11);
    for (let n = 0; n < 300; n++) {
      const start = { reach: 0.01 + 0.98 * random(), slope: 4 * random() - 1 };
      const end = { reach: 0.01 + 0.98 * random(), slope: 4 * random() - 1 };
      const ease = withEnd(withEnd(linear, 'start', start), 'end', end);
      const read = endsOf(ease);
      expect(read?.start.slope).toBeCloseTo(start.slope, 9);
      expect(read?.end.slope).toBeCloseTo(end.slope, 9);
      expect([curveOf(ease)(0), curveOf(ease)(1)]).toEqual([0, 1]);
    }
  });
  it('are not to be had of springs', () => {
    expect(endsOf({ kind: 'spring', bounces: 2, damping: 0.5 })).toBeNull();
  });
});
