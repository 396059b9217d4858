import { describe, expect, it } from 'vitest';
import { newScene } from '../document/make';
import { gifDelays } from './formats/gif';
import type { RenderSettings } from './formats/table';
import { defaultSettings, planRender } from './settings';

const scene = newScene('s', 'S', { width: 301, height: 250, rate: { num: 30, den: 1 }, length: 90, background: null });
const plan = (format: 'mp4' | 'gif' | 'html5' | 'png', part: object = {}) =>
  planRender(scene, { ...defaultSettings(format, scene), ...part } as RenderSettings);

describe('the frames of a file', () => {
  it('have a limit, told before any is planned', () => {
    const long = {
      ...newScene('s', 'Long', { width: 9, height: 9, rate: { num: 1, den: 1 }, length: 200_000, background: null }),
    };
    const settings = { ...defaultSettings('mp4', long), rate: { num: 240, den: 1 } } as never;
    expect(() => planRender(long, settings)).toThrow('rate: gives 48,000,000 frames; the most is 200,000');
  });
});

describe('a plan', () => {
  it('has every frame of the range at the scene’s own rate', () => {
    expect(plan('gif', { from: 10, to: 13 }).frames).toEqual([10, 11, 12]);
  });
  it('at another rate keeps the length: 90 frames at 30 are 72 at 24', () => {
    const { frames } = plan('gif', { rate: { num: 24, den: 1 } });
    expect([frames.length, frames[1]]).toEqual([72, 1.25]);
  });
  it('makes video sizes even and says so', () => {
    const p = plan('mp4');
    expect([p.width, p.height, p.drawn.width]).toEqual([302, 250, 301]);
    expect(p.notes.join()).toContain('301 × 250 became 302 × 250');
  });
  it('says when a GIF cannot be exact, and does not exceed what players can show', () => {
    expect(plan('gif').notes.join()).toContain('cannot be exact');
    expect(plan('gif', { rate: { num: 60, den: 1 } }).rate).toEqual({ num: 50, den: 1 });
    // A hundred are exact: each frame is one of a GIF's hundredths.
    expect(plan('gif', { rate: { num: 100, den: 1 } }).rate).toEqual({ num: 100, den: 1 });
    const exact = { ...defaultSettings('gif', scene), rate: { num: 25, den: 1 } };
    expect(planRender({ ...scene, background: '#1B1F4B' }, exact as RenderSettings).notes).toEqual([]);
    // Nor what becomes of fades, where the scene is see-through.
    expect(planRender(scene, exact as RenderSettings).notes.join()).toContain('mixed with #FFFFFF');
    const fewer = { format: 'gif', scale: 1, rate: { num: 25, den: 1 }, from: 0, to: 9 };
    expect(planRender(scene, fewer as RenderSettings).notes.join()).toContain('mixed with #FFFFFF');
  });
  it.each([
    ['png', { frame: 90 }, 'the last is 89'],
    ['gif', { from: 0, to: 91 }, 'the scene has 90 frames'],
    ['gif', { from: 5, to: 5 }, 'range'],
    ['html5', { fallback: 90 }, 'fallback'],
    ['mp4', { scale: 40 }, 'the most is 8192'],
  ] as const)('of %s %j is refused', (format, part, message) => {
    expect(() => plan(format, part)).toThrow(message);
  });
});

describe('GIF delays', () => {
  it('at 30 a second alternate 3, 4, 3 hundredths and add up to the length', () => {
    const delays = gifDelays(90, { num: 30, den: 1 });
    expect(delays.slice(0, 3)).toEqual([3, 4, 3]);
    expect(delays.reduce((a, b) => a + b)).toBe(300);
  });
  it('of NTSC rates add up too', () => {
    const delays = gifDelays(2997, { num: 30000, den: 1001 });
    expect(delays.reduce((a, b) => a + b)).toBe(Math.round((2997 * 100 * 1001) / 30000));
  });
});
