import type { Effect, Mark } from '../types';
import { changedBy } from './effect';

/** How much each channel counts: the luminance of the W3C's Compositing and Blending, 10.2, in sRGB as CSS Masking's 6.1. */
const [RED, GREEN, BLUE] = [0.2125, 0.7154, 0.0721];

/** What is bright becomes opaque, what is dark transparent: as with luminance masks (CSS Masking Level 1, 6.1). */
export const lightness: Effect = {
  reach: 0,
  pixels: (data) => {
    for (let i = 0; i < data.length; i += 4) {
      const bright = RED * (data[i] as number) + GREEN * (data[i + 1] as number) + BLUE * (data[i + 2] as number);
      data[i + 3] = (bright * (data[i + 3] as number)) / 255;
      data.fill(0, i, i + 3);
    }
  },
  // On black, since the filter takes no account of how opaque a pixel is.
  svg: () =>
    '<feFlood flood-color="#000" result="dark"/><feComposite in="SourceGraphic" in2="dark" operator="over"/><feColorMatrix type="luminanceToAlpha"/>',
};

/** What cuts by how bright it is, as what cuts by how opaque it is. */
export const byBrightness = (marks: readonly Mark[]): readonly Mark[] =>
  marks.length > 0 ? [changedBy(lightness, marks)] : marks;
