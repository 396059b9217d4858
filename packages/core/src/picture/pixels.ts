/**
 * Colours of pixels changed one by one. `data` has red, green, blue and alpha from 0 to 255 for each pixel, not multiplied by
 * alpha; what shows nothing is passed over.
 */
import type { Color } from '../document/types';

export type Rgb = readonly [red: number, green: number, blue: number];

/** 0 to 255 each; the alpha of the colour is left out. */
export const rgbOf = (color: Color): Rgb => [
  parseInt(color.slice(1, 3), 16),
  parseInt(color.slice(3, 5), 16),
  parseInt(color.slice(5, 7), 16),
];

/** What a channel of 0 to 255 becomes, for each of its values. */
export type Table = Uint8ClampedArray;
/** A table by a function of 0..1. */
export const tableOf = (f: (x: number) => number): Table =>
  Uint8ClampedArray.from({ length: 256 }, (_, i) => f(i / 255) * 255);

/** The pixels as whole numbers, red in the lowest byte: every machine that runs this keeps the lowest first. */
const wholePixels = (data: Uint8ClampedArray): Uint32Array =>
  new Uint32Array(data.buffer, data.byteOffset, data.length >> 2);

/** Tables as they are put together in whole pixels. */
const wholeTables = (tables: readonly [Table, Table, Table]): readonly [Uint32Array, Uint32Array, Uint32Array] => [
  Uint32Array.from(tables[0]),
  Uint32Array.from(tables[1], (v) => v << 8),
  Uint32Array.from(tables[2], (v) => v << 16),
];

export const throughTables = (data: Uint8ClampedArray, tables: readonly [Table, Table, Table]): void => {
  const pixels = wholePixels(data);
  const [red, green, blue] = wholeTables(tables);
  for (let i = 0; i < pixels.length; i++) {
    const pixel = pixels[i]!;
    if (pixel === 0) continue;
    pixels[i] = (pixel & 0xff000000) | red[pixel & 255]! | green[(pixel >>> 8) & 255]! | blue[(pixel >>> 16) & 255]!;
  }
};

/** How bright a colour is, of channels as they are stored: Filter Effects Module Level 1, 8.1, grayscale. */
export const LUMA: Rgb = [0.2126, 0.7152, 0.0722];

/** The same in parts of 65536. */
const WHOLE_LUMA = LUMA.map((share) => Math.round(share * 65_536)) as unknown as Rgb;

/** Colours by how bright they are, `strength` of the way. */
export const throughBrightness = (
  data: Uint8ClampedArray,
  tables: readonly [Table, Table, Table],
  strength: number,
): void => {
  const pixels = wholePixels(data);
  const [red, green, blue] = wholeTables(tables);
  const colors = Uint32Array.from({ length: 256 }, (_, y) => red[y]! | green[y]! | blue[y]!);
  const [r, g, b] = WHOLE_LUMA;
  for (let i = 0; i < pixels.length; i++) {
    const pixel = pixels[i]!;
    if (pixel === 0) continue;
    const y = (r * (pixel & 255) + g * ((pixel >>> 8) & 255) + b * ((pixel >>> 16) & 255) + 32_768) >>> 16;
    if (strength >= 1) {
      pixels[i] = (pixel & 0xff000000) | colors[y]!;
      continue;
    }
    const k = i * 4;
    for (let c = 0; c < 3; c++) data[k + c] = data[k + c]! + (tables[c]![y]! - data[k + c]!) * strength;
  }
};

/** Rows of red, green and blue, each of what it takes of the three, in order. */
export type ColorMatrix = readonly [number, number, number, number, number, number, number, number, number];

/** Filter Effects Module Level 1, 9.6, feColorMatrix of type hueRotate; `angle` in degrees. */
export const hueMatrix = (angle: number): ColorMatrix => {
  const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  return [
    0.213 + c * 0.787 - s * 0.213,
    0.715 - c * 0.715 - s * 0.715,
    0.072 - c * 0.072 + s * 0.928,
    0.213 - c * 0.213 + s * 0.143,
    0.715 + c * 0.285 + s * 0.14,
    0.072 - c * 0.072 - s * 0.283,
    0.213 - c * 0.213 - s * 0.787,
    0.715 - c * 0.715 + s * 0.715,
    0.072 + c * 0.928 + s * 0.072,
  ];
};

/** The same of type saturate: 0 is grey, 1 leaves it. */
export const colorfulnessMatrix = (s: number): ColorMatrix => [
  0.213 + 0.787 * s,
  0.715 - 0.715 * s,
  0.072 - 0.072 * s,
  0.213 - 0.213 * s,
  0.715 + 0.285 * s,
  0.072 - 0.072 * s,
  0.213 - 0.213 * s,
  0.715 - 0.715 * s,
  0.072 + 0.928 * s,
];

export const throughMatrix = (data: Uint8ClampedArray, m: ColorMatrix): void => {
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    const r = data[i]!;
    const g = data[i + 1]!;
    const b = data[i + 2]!;
    data[i] = m[0] * r + m[1] * g + m[2] * b;
    data[i + 1] = m[3] * r + m[4] * g + m[5] * b;
    data[i + 2] = m[6] * r + m[7] * g + m[8] * b;
  }
};

/** Alpha made stronger so many times: soft edges become firm ones. */
export const firmer = (data: Uint8ClampedArray, times: number): void => {
  for (let i = 3; i < data.length; i += 4) data[i] = data[i]! * times;
};
