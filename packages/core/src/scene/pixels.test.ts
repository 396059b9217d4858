import { describe, expect, it } from 'vitest';
import type { PictureAsset } from '../document/types';
import { IDENTITY } from '../geometry/matrix';
import type { Mark } from '../recipe/types';
import { MOST_PIXELS, marksWithin } from './pixels';

const picture = (sha: string, side: number): Mark => {
  const asset: PictureAsset = {
    id: sha,
    name: sha,
    sha,
    bytes: 1,
    kind: 'picture',
    type: 'image/png',
    width: side,
    height: side,
  };
  return { op: 'picture', asset, cut: null, matrix: [0.01, 0, 0, 0.01, 0, 0], alpha: 1 };
};

describe('pixels of a frame', () => {
  const side = 8000;
  const room = Math.floor(MOST_PIXELS / (4 * side * side));

  it('count every picture that has to be decoded', () => {
    const marks = Array.from({ length: room + 5 }, (_, i) => picture(`p${i}`, side));
    expect(marksWithin(marks, 100, 100)).toBe(room);
  });
  it('count the surface that noise in a gradient is drawn on', () => {
    const gradient = { stops: [{ at: 0, color: '#10132E00' as const }] };
    const marks = (grain: number) =>
      Array.from({ length: 60 }, (): Mark => {
        const ink = { style: 'linear', gradient, from: [0, 0], to: [0, 1], grain } as const;
        const outlines = [
          { points: Float64Array.of(0, 0, 0, 0, side, 0, side, 0, side, 0, side, side, side, side), closed: true },
        ];
        return { op: 'fill', rule: 'nonzero', outlines, matrix: IDENTITY, alpha: 1, ink };
      });
    expect(marksWithin(marks(0), side, side)).toBe(60);
    expect(marksWithin(marks(0.5), side, side)).toBeLessThan(60);
  });
  it('count a picture once, however often it is drawn', () => {
    const marks = Array.from({ length: room + 5 }, () => picture('p', side));
    expect(marksWithin(marks, 100, 100)).toBe(marks.length);
  });
});
