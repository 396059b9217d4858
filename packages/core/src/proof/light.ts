/** How light colours are, and how far apart two of them: WCAG 2.2. */
import type { Rgb } from '../picture/pixels';

const LINEAR = Float32Array.from({ length: 256 }, (_, i) => {
  const c = i / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

/** Relative luminance of a colour of 0 to 255 each, 0..1. */
export const lightOf = ([red, green, blue]: Rgb): number =>
  0.2126 * (LINEAR[red] as number) + 0.7152 * (LINEAR[green] as number) + 0.0722 * (LINEAR[blue] as number);

/** Contrast ratio of two luminances, 1 to 21. */
export const contrastOf = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** The luminance of each pixel, of what is not opaque on black. */
export const lightsOf = (pixels: Uint8ClampedArray): Float32Array => {
  const lights = new Float32Array(pixels.length >> 2);
  for (let i = 0; i < lights.length; i++) {
    const k = i * 4;
    const light = 0.2126 * LINEAR[pixels[k]!]! + 0.7152 * LINEAR[pixels[k + 1]!]! + 0.0722 * LINEAR[pixels[k + 2]!]!;
    lights[i] = (light * pixels[k + 3]!) / 255;
  }
  return lights;
};
