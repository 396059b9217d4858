import { describe, expect, it } from 'vitest';
import { point } from '../document/params';
import type { ApartProperty, Keyframe, KeyedProperty, PathHandles, Point } from '../document/types';
import { KAPPA } from '../geometry/outline';
import { broughtTogether, takenApart } from './parting';
import { samplerOf } from './sampler';
import { pulledHandles, smoothHandles } from './smooth';

const param = point('Position', [0, 0]);
const linear = { kind: 'linear' } as const;
const key = (frame: number, value: Point, handles?: PathHandles, ease: Keyframe['ease'] = linear): Keyframe => ({
  frame,
  value,
  ease,
  ...(handles && { handles }),
});
const r = 100;
/** A quarter of a circle about the origin, from the right to below. */
const quarter: KeyedProperty = {
  keys: [key(0, [r, 0], [0, 0, 0, KAPPA * r]), key(90, [0, r], [KAPPA * r, 0, 0, 0])],
};
const at = (property: KeyedProperty | ApartProperty, frame: number) => samplerOf(param, property).at(frame) as Point;
const heading = (property: KeyedProperty, frame: number) => samplerOf(param, property).heading(frame) ?? NaN;

describe('a motion path', () => {
  it('is straight between keyframes without handles, also past an overshoot', () => {
    const spring = {
      keys: [key(0, [0, 0], undefined, { kind: 'spring', bounces: 3, damping: 0.2 }), key(30, [60, 30])],
    };
    for (let f = 0; f <= 30; f++) {
      const [x, y] = at(spring, f);
      expect(y).toBeCloseTo(x / 2, 9);
    }
  });
  it('follows its handles: a quarter circle stays on its circle', () => {
    for (let f = 0; f <= 90; f += 5) expect(Math.hypot(...at(quarter, f))).toBeCloseTo(r, 1);
  });
  it('is passed at a constant speed within half a percent', () => {
    const steps = Array.from({ length: 90 }, (_, f) => {
      const [a, b] = [at(quarter, f), at(quarter, f + 1)];
      return Math.hypot(b[0] - a[0], b[1] - a[1]);
    });
    const mean = steps.reduce((a, b) => a + b) / steps.length;
    expect(Math.max(...steps.map((s) => Math.abs(s / mean - 1)))).toBeLessThan(0.005);
    expect(mean * 90).toBeCloseTo((Math.PI / 2) * r, 0);
  });
  it('has the direction of its tangent', () => {
    expect(heading(quarter, 0)).toBeCloseTo(90, 1);
    expect(heading(quarter, 45)).toBeCloseTo(135, 1);
    expect(heading(quarter, 90)).toBeCloseTo(180, 1);
    // Afterwards it looks where it went.
    expect(heading(quarter, 200)).toBeCloseTo(180, 1);
  });
  it('keeps its direction while it waits', () => {
    const waits = { keys: [key(0, [0, 0]), key(10, [0, 50]), key(20, [0, 50]), key(30, [50, 50])] };
    expect([heading(waits, 5), heading(waits, 15), heading(waits, 25)]).toEqual([90, 90, 0]);
  });
  it('has one pace over all keyframes where that is wanted', () => {
    const uneven: KeyedProperty = { even: true, keys: [key(0, [0, 0]), key(5, [30, 0]), key(40, [30, 10])] };
    const close = ([x, y]: Point) => [expect.closeTo(x, 9), expect.closeTo(y, 9)];
    expect([at(uneven, 10), at(uneven, 30), at(uneven, 40)]).toEqual([close([10, 0]), close([30, 0]), close([30, 10])]);
  });
  it('leads smoothly through a keyframe along the chord of its neighbours', () => {
    const bend = { keys: [key(0, [0, 0]), key(10, [30, 40]), key(20, [60, 0])] };
    expect(smoothHandles(bend, 10)).toEqual([expect.closeTo(-50 / 3), expect.closeTo(0), expect.closeTo(50 / 3), 0]);
  });
  it('carries on round and round from where it ended', () => {
    const step: KeyedProperty = { keys: [key(0, [0, 5]), key(10, [20, 5])], after: 'offset', before: 'offset' };
    expect([at(step, 25), at(step, -5)]).toEqual([
      [50, 5],
      [-10, 5],
    ]);
  });
});

describe('x and y', () => {
  const soft = { kind: 'bezier', x1: 0.5, y1: 0, x2: 0.2, y2: 1 } as const;
  it('go apart and come together again as they were, where the way is straight', () => {
    const straight: KeyedProperty = { keys: [key(0, [0, 0], undefined, soft), key(20, [50, 10])], after: 'pingpong' };
    expect(broughtTogether(param, takenApart(param, straight))).toEqual(straight);
  });
  it('keep a curved motion at every frame', () => {
    const apart = takenApart(param, quarter);
    for (let f = 0; f <= 90; f++) {
      const [a, b] = [at(quarter, f), at(apart, f)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.02);
    }
  });
  it('keep motions of different eases at every frame when they come together', () => {
    const apart: ApartProperty = {
      parts: [
        {
          keys: [
            { frame: 0, value: 0, ease: soft },
            { frame: 30, value: 90, ease: linear },
          ],
        },
        {
          keys: [
            { frame: 10, value: 5, ease: { kind: 'bounce', bounces: 2, height: 0.4 } },
            { frame: 40, value: 80, ease: linear },
          ],
        },
      ],
    };
    const whole = broughtTogether(param, apart) as KeyedProperty;
    for (let f = 0; f <= 45; f++) {
      const [a, b] = [at(apart, f), at(whole, f)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.02);
    }
  });
});

describe('a handle that is pulled', () => {
  const plain = { both: false, parted: false };
  it('turns the other one along, as long as that is, while they lie in one line', () => {
    expect(pulledHandles([-10, 0, 20, 0], 'out', [0, 30], plain)).toEqual([expect.closeTo(0), -10, 0, 30]);
    expect(pulledHandles([-10, 0, 20, 0], 'in', [0, 30], plain)).toEqual([0, 30, expect.closeTo(0), -20]);
    expect(pulledHandles([-10, 0, 20, 0], 'out', [0, 30], { both: false, parted: true })).toEqual([-10, 0, 0, 30]);
  });
  it('leaves the other one of a corner, and makes both of what had none where that is wanted', () => {
    expect(pulledHandles([0, 10, 20, 0], 'out', [5, 5], plain)).toEqual([0, 10, 5, 5]);
    expect(pulledHandles([0, 0, 0, 0], 'out', [6, 8], plain)).toEqual([0, 0, 6, 8]);
    expect(pulledHandles([0, 0, 0, 0], 'out', [6, 8], { both: true, parted: true })).toEqual([-6, -8, 6, 8]);
  });
});
