/**
 * Colours of pixels changed one by one. `data` has red, green, blue and alpha from 0 to 255 for each pixel, not multiplied by
 * alpha; what shows nothing goes on showing nothing, of whatever colour.
 */
import type { Color, Point } from '../document/types';
import { throughLoop } from './compiled';

export type Rgb = readonly [red: number, green: number, blue: number];

/** 0 to 255 each; the alpha of the colour is left out. */
export const rgbOf = (color: Color): Rgb => [
  parseInt(color.slice(1, 3), 16),
  parseInt(color.slice(3, 5), 16),
  parseInt(color.slice(5, 7), 16),
];

/** How opaque a colour is, 0..1. */
export const opacityOf = (color: Color): number => (color.length === 9 ? parseInt(color.slice(7), 16) / 255 : 1);

/** What a channel of 0 to 255 becomes, for each of its values. */
export type Table = Uint8ClampedArray;
/** A table by a function of 0..1. */
export const tableOf = (f: (x: number) => number): Table =>
  Uint8ClampedArray.from({ length: 256 }, (_, i) => f(i / 255) * 255);

/** The pixels as whole numbers, red in the lowest byte: every machine that runs this keeps the lowest first. */
export const wholePixels = (data: Uint8ClampedArray): Uint32Array =>
  new Uint32Array(data.buffer, data.byteOffset, data.length >> 2);

/**
 * What red, green and blue become in whole pixels, one table after another. One plain list: a typed one is looked up more slowly
 * once any buffer has been handed to another thread, and three more slowly than one.
 */
const wholeTable = (tables: readonly [Table, Table, Table]): readonly number[] =>
  Array.from({ length: 768 }, (_, i) => tables[i >> 8]![i & 255]! << (8 * (i >> 8)));

/** Whether the alphas of pixels, each bit of them set where it is in all, are full. */
const isFull = (alphas: number): boolean => alphas >>> 24 === 255;

/** Whole pixels with their channels by tables; gives all bits that were set in every one of them. */
export const channelsThrough = (pixels: Uint32Array, whole: readonly number[]): number => {
  const { length } = pixels;
  let all = -1;
  for (let i = 0; i < length; i++) {
    const pixel = pixels[i]!;
    all &= pixel;
    pixels[i] =
      whole[pixel & 255]! |
      whole[256 + ((pixel >>> 8) & 255)]! |
      whole[512 + ((pixel >>> 16) & 255)]! |
      (pixel & 0xff000000);
  }
  return all;
};

/** Channels by tables; says whether nothing shows through. */
export const throughTables = (data: Uint8ClampedArray, tables: readonly [Table, Table, Table]): boolean => {
  const pixels = wholePixels(data);
  const whole = wholeTable(tables);
  return isFull(throughLoop('channels', pixels, whole) ?? channelsThrough(pixels, whole));
};

/** How bright a colour is, of channels as they are stored: Filter Effects Module Level 1, 8.1, grayscale. */
export const LUMA: Rgb = [0.2126, 0.7152, 0.0722];

/** From 0 to 255, of a whole pixel: by LUMA in parts of 65536, written out, since what is looked up takes twice the time. */
const brightnessOf = (pixel: number): number => {
  const red = Math.imul(13_933, pixel & 255);
  const green = Math.imul(46_871, (pixel >>> 8) & 255);
  const blue = Math.imul(4_732, (pixel >>> 16) & 255);
  return (red + green + blue + 32_768) >>> 16;
};

/** Whole pixels in the colours of how bright they are; gives all bits that were set in every one of them. */
export const brightnessThrough = (pixels: Uint32Array, colors: readonly number[]): number => {
  const { length } = pixels;
  let all = -1;
  for (let i = 0; i < length; i++) {
    const pixel = pixels[i]!;
    all &= pixel;
    pixels[i] = colors[brightnessOf(pixel)]! | (pixel & 0xff000000);
  }
  return all;
};

/** Colours by how bright they are, `strength` of the way; says whether nothing shows through. */
export const throughBrightness = (
  data: Uint8ClampedArray,
  tables: readonly [Table, Table, Table],
  strength: number,
): boolean => {
  const pixels = wholePixels(data);
  if (strength >= 1) {
    const whole = wholeTable(tables);
    const colors = Array.from({ length: 256 }, (_, y) => whole[y]! | whole[256 + y]! | whole[512 + y]!);
    return isFull(throughLoop('brightness', pixels, colors) ?? brightnessThrough(pixels, colors));
  }
  const { length } = pixels;
  let alphas = -1;
  for (let i = 0; i < length; i++) {
    const pixel = pixels[i]!;
    alphas &= pixel;
    const y = brightnessOf(pixel);
    const k = i * 4;
    for (let c = 0; c < 3; c++) data[k + c] = data[k + c]! + (tables[c]![y]! - data[k + c]!) * strength;
  }
  return isFull(alphas);
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

/** Where the pixels of a picture are in those of what fills it. */
export interface Placed {
  /** Pixels of the picture for one of its own. */
  readonly scale: number;
  readonly origin: Point;
  /** In radians. */
  readonly turn: number;
}

/** What brightnesses of 0 to 255 are shown as: whole pixels, red in the lowest byte. */
export type Shades = readonly number[];

/** A pixel in one of the shades, as opaque as it is itself and as the shade is. */
export const inShade = (pixel: number, shade: number): number => {
  const [own, alpha] = [shade >>> 24, pixel >>> 24];
  return (shade & 0xffffff) | ((own === 255 ? alpha : Math.round((alpha * own) / 255)) << 24);
};

/** Alpha made stronger so many times: soft edges become firm ones. */
export const firmer = (data: Uint8ClampedArray, times: number): void => {
  for (let i = 3; i < data.length; i += 4) data[i] = data[i]! * times;
};
