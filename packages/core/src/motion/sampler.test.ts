import { describe, expect, it } from 'vitest';
import { color, number, point, switchParam } from '../document/params';
import type { Beyond, Keyframe, Property } from '../document/types';
import { samplerOf } from './sampler';

const linear = { kind: 'linear' } as const;
const hold = { kind: 'hold' } as const;
const param = number('Size', 5);
const key = (frame: number, value: Keyframe['value'], ease: Keyframe['ease'] = linear): Keyframe => ({
  frame,
  value,
  ease,
});
const at = (property: Property | undefined, frame: number) => samplerOf(param, property).at(frame);

describe('a property at a frame', () => {
  it('has its default while it has no value, and its value while it has no keyframes', () => {
    expect(at(undefined, 3)).toBe(5);
    expect(at({ value: 8 }, 3)).toBe(8);
  });
  it('lies between keyframes at whole frames and between them', () => {
    const property = { keys: [key(10, 0), key(20, 100)] };
    expect([at(property, 10), at(property, 15), at(property, 17.5), at(property, 20)]).toEqual([0, 50, 75, 100]);
  });
  it('stops at the limits of its parameter, wherever an ease or what goes on would carry it', () => {
    const sides = number('Sides', 6, { min: 3, max: 200 });
    const over = { kind: 'bezier', x1: 0, y1: -10, x2: 1, y2: 1 } as const;
    const property = { keys: [key(0, 3, over), key(10, 200)], after: 'continue' } as const;
    const sampler = samplerOf(sides, property);
    expect([sampler.at(2), sampler.at(10), sampler.at(50)]).toEqual([3, 200, 200]);
    const place = samplerOf(point('Place', [0, 0], { limit: 50 }), {
      keys: [key(0, [0, 0]), key(10, [50, -20])],
      after: 'continue',
    });
    const [x, y] = place.at(20) as [number, number];
    expect([x, Math.round(y * 1e6) / 1e6]).toEqual([50, -40]);
  });
  it('waits in a held span and jumps at its end', () => {
    const property = { keys: [key(0, 1, hold), key(10, 2)] };
    expect([at(property, 9.999), at(property, 10)]).toEqual([1, 2]);
  });
  it('holds switches whatever the ease', () => {
    const sampler = samplerOf(switchParam('On', false), { keys: [key(0, false), key(10, true)] });
    expect([sampler.at(9), sampler.at(10)]).toEqual([false, true]);
  });
  it('mixes points by their parts', () => {
    const sampler = samplerOf(point('At', [0, 0]), { keys: [key(0, [0, 10]), key(4, [8, 30])] });
    expect(sampler.at(1)).toEqual([2, 15]);
  });

  const beyond = (how: Beyond) => ({ keys: [key(10, 0), key(20, 100)], before: how, after: how });
  it.each<[Beyond, number, number]>([
    ['hold', 0, 100],
    ['cycle', 50, 30],
    ['pingpong', 50, 70],
    ['continue', -50, 130],
  ])('beyond its keyframes: %s', (how, before, after) => {
    expect(at(beyond(how), 5)).toBeCloseTo(before, 6);
    expect(at(beyond(how), 23)).toBeCloseTo(after, 6);
  });
});

describe('colours', () => {
  const mixed = (from: string, to: string, t: number) =>
    samplerOf(color('Ink', '#000000'), { keys: [key(0, from), key(10, to)] }).at(t * 10);

  it('are mixed in OKLab: half way from black to white is L = 0.5, which is #636363', () => {
    // CSS Color 4, 12.1: color-mix(in oklab, black, white) is oklab(0.5 0 0).
    expect(mixed('#000000', '#ffffff', 0.5)).toBe('#636363');
  });
  it('agree with color-mix(in oklab, red, blue)', () => {
    // oklab(0.54 0.0962 -0.0929), which is rgb(140 83 162).
    expect(mixed('#ff0000', '#0000ff', 0.5)).toBe('#8c53a2');
  });
  it('fade without going dark', () => {
    expect(mixed('#ff0000', '#00000000', 0.5)).toBe('#ff000080');
  });
  it('are exact at their keyframes', () => {
    expect([mixed('#FFB23E', '#2EC4B6', 0), mixed('#FFB23E', '#2EC4B6', 1)]).toEqual(['#FFB23E', '#2EC4B6']);
  });
});
