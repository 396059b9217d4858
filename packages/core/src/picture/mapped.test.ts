import { describe, expect, it } from 'vitest';
import type { Homography } from '../geometry/homography';
import { mapPixels, type Pixels } from './mapped';

const filled = (width: number, height: number, at: (x: number, y: number) => readonly number[]): Pixels => {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(at(x, y), (y * width + x) * 4);
  return { width, height, data };
};
const empty = (width: number, height: number) => filled(width, height, () => [0, 0, 0, 0]);
const mapped = (picture: Pixels, back: Homography, width: number, height: number) => {
  const to = empty(width, height);
  mapPixels(picture, back, to);
  return (x: number, y: number) => [...to.data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)];
};

describe('a picture that is mapped', () => {
  const ramp = filled(64, 64, (x, y) => [x * 4, y * 4, 128, 255]);
  it('stays where the map does nothing, and goes by whole pixels exactly', () => {
    const same = mapped(ramp, [1, 0, 0, 0, 1, 0, 0, 0, 1], 64, 64);
    const moved = mapped(ramp, [1, 0, 5, 0, 1, -3, 0, 0, 1], 64, 64);
    for (const [x, y] of [
      [1, 1],
      [20, 41],
      [62, 62],
    ] as const)
      expect(same(x, y)).toEqual([x * 4, y * 4, 128, 255]);
    expect(moved(10, 20)).toEqual([60, 68, 128, 255]);
    // Beyond its edge there is nothing.
    expect(moved(10, 1)).toEqual([0, 0, 0, 0]);
    expect(moved(62, 20)[3]).toBe(0);
  });
  it('is read between its pixels, by closed form on a ramp, in perspective', () => {
    const back: Homography = [0.5, 0.1, 8, 0.05, 0.6, 6, 0.002, 0.001, 1];
    const at = mapped(ramp, back, 60, 60);
    for (let y = 0; y < 60; y += 7) {
      for (let x = 0; x < 60; x += 7) {
        const w = back[6] * (x + 0.5) + back[7] * (y + 0.5) + 1;
        const u = (back[0] * (x + 0.5) + back[1] * (y + 0.5) + back[2]) / w;
        const v = (back[3] * (x + 0.5) + back[4] * (y + 0.5) + back[5]) / w;
        const [red, green] = at(x, y) as [number, number];
        expect(Math.abs(red - (u - 0.5) * 4)).toBeLessThan(1.6);
        expect(Math.abs(green - (v - 0.5) * 4)).toBeLessThan(1.6);
      }
    }
  });
  it('that is made much smaller is the mean of its pixels, in one way or in both', () => {
    const checks = filled(256, 256, (x, y) => ((x + y) % 2 === 0 ? [255, 255, 255, 255] : [0, 0, 0, 255]));
    for (const back of [
      [8, 0, 0, 0, 8, 0, 0, 0, 1],
      [8, 0, 0, 0, 1, 0, 0, 0, 1],
      [1, 0, 0, 0, 12, 0, 0, 0, 1],
    ] as const) {
      const at = mapped(checks, back, 20, 16);
      for (let x = 4; x < 16; x++) expect(Math.abs(at(x, 8)[0]! - 127.5)).toBeLessThan(12);
    }
  });
  it('mixes colours by how much they show', () => {
    const half = filled(8, 8, (x) => (x < 4 ? [255, 0, 0, 255] : [0, 255, 0, 0]));
    const at = mapped(half, [1, 0, 0.5, 0, 1, 0, 0, 0, 1], 8, 8);
    // Half a pixel of red, and nothing of what does not show.
    expect(at(3, 4)).toEqual([255, 0, 0, 128]);
  });
  it('shows nothing of what lies behind the eye', () => {
    const at = mapped(ramp, [0, 0, 10, 0, 0, 10, 1, 0, -20], 40, 40);
    expect(at(10, 5)).toEqual([0, 0, 0, 0]);
    expect(at(30, 5)[3]).toBe(255);
  });
});
