import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings, planRender } from '@kite/core/delivery/settings';
import { newScene } from '@kite/core/document/make';
import { describe, expect, it } from 'vitest';
import { Clock, momentAt, type Played } from './schedule';

const PAL = { num: 25, den: 1 };
const HALF = { num: 25, den: 2 };
const NTSC = { num: 30_000, den: 1_001 };
const played = (fields: Partial<Played> = {}): Played => ({ from: 0, to: 50, rate: PAL, loop: 0, stop: 0, ...fields });

describe('a banner', () => {
  it('shows each frame for as long as its rate says, and begins anew', () => {
    const at = (ms: number) => momentAt(played(), PAL, ms).frame;
    expect([0, 39.9, 40, 1_999, 2_000, 2_041].map(at)).toEqual([0, 0, 1, 49, 0, 1]);
  });
  it('that plays some times stands on its last frame', () => {
    const at = (ms: number) => momentAt(played({ from: 10, to: 20, loop: 2 }), PAL, ms);
    expect(at(399)).toEqual({ frame: 19, over: false });
    expect(at(400)).toEqual({ frame: 10, over: false });
    expect(at(800)).toEqual({ frame: 19, over: true });
    expect(at(1e9)).toEqual({ frame: 19, over: true });
  });
  it('that has played long enough stands on its last frame', () => {
    const at = (ms: number) => momentAt(played({ stop: 5 }), PAL, ms);
    expect(at(4_990)).toEqual({ frame: 24, over: false });
    expect(at(5_000)).toEqual({ frame: 49, over: true });
    // What stops sooner by its rounds does.
    expect(momentAt(played({ stop: 5, loop: 1 }), PAL, 2_000)).toEqual({ frame: 49, over: true });
  });
  it('plays on where it was once it is seen again, and after a sleep', () => {
    const clock = new Clock();
    expect([0, 40, 80].map((now) => clock.at(now))).toEqual([0, 40, 80]);
    clock.rest();
    expect([5_016, 5_032].map((now) => clock.at(now))).toEqual([80, 96]);
    expect(clock.at(60_000)).toBe(96 + 250);
  });
  it('at another rate takes the same time', () => {
    expect(momentAt(played({ rate: HALF }), PAL, 1_000).frame).toBe(24);
    expect(momentAt(played({ rate: { num: 50, den: 1 } }), PAL, 20).frame).toBe(0.5);
  });
  it('of one frame shows it', () => {
    expect(momentAt(played({ from: 7, to: 8 }), PAL, 12_345)).toEqual({ frame: 7, over: false });
  });
  it.each([
    ['its scene’s rate', PAL],
    ['half of it', HALF],
    ['a broken rate', NTSC],
  ])('at %s shows the frames that its render was planned with', (_name, rate) => {
    const scene = newScene('s', 'Depot', { width: 300, height: 250, rate: PAL, length: 50, background: null });
    const { frames } = planRender(scene, { ...defaultSettings('html5', scene), rate } as RenderSettings);
    const fps = rate.num / rate.den;
    const shown = Array.from({ length: frames.length }, (_, i) =>
      momentAt(played({ rate }), PAL, ((i + 0.5) * 1_000) / fps),
    );
    shown.forEach(({ frame }, i) => expect(frame).toBeCloseTo([...frames][i] as number, 9));
    expect(momentAt(played({ rate }), PAL, ((frames.length + 0.5) * 1_000) / fps).frame).toBe(0);
  });
});
