import { expect, it } from 'vitest';
import { newScene } from '../document/make';
import { estimateOf } from './estimate';
import { defaultSettings, planRender } from './settings';
import type { RangeSettings } from './types';

const scene = newScene('s', 'S', { width: 100, height: 100, rate: { num: 30, den: 1 }, length: 300, background: null });
const of = (format: 'mp4' | 'html5' | 'png' | 'gif', more: object = {}) => {
  const settings = { ...defaultSettings(format, scene), ...more };
  return estimateOf(settings, planRender(scene, settings).frames.length);
};
/** Of a format whose files weigh so much at first, and so much for each frame. */
const weighed = (samples: readonly object[], head: number, each: number, perFrame: number): number[] =>
  samples.map((sample) => {
    const { from, to } = sample as RangeSettings;
    return head + each * Math.round((to - from) / perFrame);
  });

it('is exact where each frame weighs the same', () => {
  const whole = of('mp4');
  expect(whole?.total(weighed(whole.samples, 5_000, 700, 1))).toBe(5_000 + 300 * 700);
  // Every third frame of the scene is one of the file.
  const sparse = of('gif', { rate: { num: 10, den: 1 } });
  expect(sparse?.total(weighed(sparse.samples, 900, 400, 3))).toBe(900 + 100 * 400);
});

it('keeps within the frames, and to a weight that is not to be passed', () => {
  const part = of('mp4', { from: 100, to: 200, budget: 20 });
  for (const sample of (part?.samples ?? []) as readonly (RangeSettings & object)[]) {
    expect([sample.from >= 100, sample.to <= 200, (sample as { budget?: number }).budget]).toEqual([true, true, 0]);
  }
  expect(part?.total(weighed(part.samples, 5_000, 700, 1))).toBe(20 * 1024);
});

it('is not made of what is rendered whole as soon', () => {
  expect([of('png'), of('html5'), of('mp4', { from: 0, to: 48 })]).toEqual([null, null, null]);
});
