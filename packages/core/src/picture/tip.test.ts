import { describe, expect, it } from 'vitest';
import { toTip } from './tip';

/** Pixels of one row after another, each of red, green, blue and alpha. */
const pixels = (...all: readonly (readonly number[])[]) => Uint8ClampedArray.from(all.flat());
const [PAPER, INK, GREY, NONE] = [
  [255, 255, 255, 255],
  [0, 0, 0, 255],
  [128, 128, 128, 255],
  [0, 0, 0, 0],
];

describe('a tip out of a picture', () => {
  it('presses where an opaque picture is dark, as much as it is', () => {
    const data = pixels(PAPER!, INK!, PAPER!, PAPER!, GREY!, PAPER!);
    expect(toTip(data, 3)).toEqual({ x: 1, y: 0, width: 1, height: 2 });
    expect([...data].filter((_, i) => i % 4 === 3)).toEqual([0, 255, 0, 0, 127, 0]);
  });

  it('presses where a picture with transparent parts is opaque, whatever its colours', () => {
    const data = pixels(NONE!, [255, 255, 255, 200], NONE!, NONE!);
    expect(toTip(data, 2)).toEqual({ x: 1, y: 0, width: 1, height: 1 });
    expect([...data.slice(4, 8)]).toEqual([0, 0, 0, 200]);
  });

  it('is none where nothing of a picture presses', () => {
    expect(toTip(pixels(PAPER!, PAPER!), 2)).toBeNull();
  });
});
