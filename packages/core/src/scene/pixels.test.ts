import { describe, expect, it } from 'vitest';
import type { PictureAsset } from '../document/types';
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
  it('count a picture once, however often it is drawn', () => {
    const marks = Array.from({ length: room + 5 }, () => picture('p', side));
    expect(marksWithin(marks, 100, 100)).toBe(marks.length);
  });
});
