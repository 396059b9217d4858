import { describe, expect, it } from 'vitest';
import { type Pattern, patterned } from './pattern';

const [WIDTH, HEIGHT] = [240, 200];
const GREYS = Array.from({ length: 256 }, (_, i) => ((255 << 24) | (i << 16) | (i << 8) | i) >>> 0);
const BASE: Pattern = {
  form: 'stripes',
  size: 20,
  count: 12,
  share: 0.5,
  soft: 0,
  angle: 0,
  middle: [0, 0],
  phase: 0,
  seed: 1,
};
const PLACED = { scale: 1, origin: [120, 100], turn: 0 } as const;

/** How strongly each pixel is covered, 0 to 255, of a picture that is opaque all over. */
const drawn = (of: Partial<Pattern>, placed: Partial<typeof PLACED> | object = {}) => {
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4).fill(255);
  patterned({ width: WIDTH, height: HEIGHT, data }, { ...BASE, ...of }, GREYS, { ...PLACED, ...placed });
  const greys = Array.from({ length: WIDTH * HEIGHT }, (_, i) => data[4 * i]!);
  return {
    greys,
    mean: greys.reduce((a, b) => a + b, 0) / greys.length / 255,
    at: (x: number, y: number) => greys[y * WIDTH + x]!,
  };
};

describe('a pattern', () => {
  it('covers its share as stripes, whichever way they are turned', () => {
    for (const angle of [0, 0.4, Math.PI / 2, 2]) {
      for (const share of [0.2, 0.5, 0.85]) expect(drawn({ angle, share }).mean).toBeCloseTo(share, 1.6);
    }
    expect(drawn({ share: 0 }).mean).toBe(0);
    expect(drawn({ share: 1 }).mean).toBe(1);
  });

  it('stands with a stripe, or a dot, in its middle', () => {
    for (const form of ['stripes', 'dots'] as const) {
      expect(drawn({ form, middle: [33, -20] }).at(120 + 33, 80)).toBe(255);
      expect(drawn({ form, middle: [33, -20] }).at(120 + 43, 80)).toBe(0);
    }
  });

  it('covers a quarter of pi of the square of its share as dots', () => {
    for (const share of [0.3, 0.6, 1])
      expect(drawn({ form: 'dots', share }).mean).toBeCloseTo((Math.PI / 4) * share ** 2, 1.7);
  });

  it('has as many rays as it is told', () => {
    const { at } = drawn({ form: 'rays', count: 12 });
    let edges = 0;
    let before = at(120 + 80, 100) > 127;
    for (let n = 1; n <= 720; n++) {
      const a = (n / 720) * 2 * Math.PI;
      const now = at(Math.floor(120 + 80 * Math.cos(a)), Math.floor(100 + 80 * Math.sin(a))) > 127;
      if (now !== before) edges++;
      before = now;
    }
    expect(edges).toBe(24);
  });

  it('is the same after a whole period, and other in between', () => {
    for (const form of ['stripes', 'dots', 'rays'] as const) {
      expect(drawn({ form, phase: 1 }).greys).toEqual(drawn({ form }).greys);
      expect(drawn({ form, phase: 0.5 }).greys).not.toEqual(drawn({ form }).greys);
    }
    expect(drawn({ form: 'static', phase: 3.4 }).greys).toEqual(drawn({ form: 'static', phase: 3 }).greys);
    expect(drawn({ form: 'static', phase: 4 }).greys).not.toEqual(drawn({ form: 'static', phase: 3 }).greys);
  });

  it('goes with what it is turned, moved and scaled with', () => {
    const own = drawn({ angle: 0.7 }).greys;
    expect(drawn({}, { turn: 0.7 }).greys).toEqual(own);
    expect(drawn({ size: 40 }).greys).toEqual(drawn({ size: 20 }, { scale: 2 }).greys);
    const { at } = drawn({ form: 'dots' }, { origin: [127, 96] });
    expect(at(127, 95)).toBe(drawn({ form: 'dots' }).at(120, 99));
  });

  it('is even as static, with every grey as often', () => {
    const { greys, mean } = drawn({ form: 'static', size: 1 });
    expect(mean).toBeCloseTo(0.5, 1.7);
    const dark = greys.filter((grey) => grey < 64).length / greys.length;
    expect(dark).toBeCloseTo(0.25, 1.7);
  });

  it('is as opaque as what it fills', () => {
    const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4).fill(255);
    data[3] = 0;
    data[7] = 100;
    patterned({ width: WIDTH, height: HEIGHT, data }, BASE, GREYS, PLACED);
    expect([data[3], data[7], data[11]]).toEqual([0, 100, 255]);
  });
});
