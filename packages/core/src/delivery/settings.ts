/** What a render is asked for: format, size, rate, range, and what the format needs. */
import { LIMITS } from '../document/limits';
import type { Rate, Scene } from '../document/types';
import { framesPerSecond } from '../time/rate';

interface RangeSettings {
  /** Of the scene's size; 1 is the size itself. */
  readonly scale: number;
  /** null is the scene's own. */
  readonly rate: Rate | null;
  /** First frame, and the first that is no longer part of it. */
  readonly from: number;
  readonly to: number;
}
export interface Mp4Settings extends RangeSettings {
  readonly format: 'mp4';
  readonly quality: 'draft' | 'good' | 'best';
}
export interface GifSettings extends RangeSettings {
  readonly format: 'gif';
  /** How often it plays; 0 is for ever. */
  readonly loop: number;
  readonly palette: 'global' | 'local';
  readonly dither: 'none' | 'ordered' | 'diffuse';
}
export interface Html5Settings extends RangeSettings {
  readonly format: 'html5';
  readonly loop: number;
  /** The frame of the fallback image. */
  readonly fallback: number;
  /** Where a click leads while the ad server says nothing else. */
  readonly click: string;
}
/** One frame. */
export interface StillSettings {
  readonly format: 'png' | 'svg';
  readonly scale: number;
  readonly frame: number;
}
export type RenderSettings = Mp4Settings | GifSettings | Html5Settings | StillSettings;
export type Format = RenderSettings['format'];

export const FORMATS: {
  readonly [F in Format]: { readonly label: string; readonly extension: string; readonly mime: string };
} = {
  mp4: { label: 'MP4 video', extension: 'mp4', mime: 'video/mp4' },
  gif: { label: 'Animated GIF', extension: 'gif', mime: 'image/gif' },
  html5: { label: 'HTML5 banner', extension: 'zip', mime: 'application/zip' },
  png: { label: 'PNG', extension: 'png', mime: 'image/png' },
  svg: { label: 'SVG', extension: 'svg', mime: 'image/svg+xml' },
};

export const isStill = (settings: RenderSettings): settings is StillSettings =>
  settings.format === 'png' || settings.format === 'svg';

/** The whole scene in a format, at its own size and rate. */
export const defaultSettings = (format: Format, scene: Scene): RenderSettings => {
  const range = { scale: 1, rate: null, from: 0, to: scene.length };
  switch (format) {
    case 'mp4':
      return { format, ...range, quality: 'good' };
    case 'gif':
      return { format, ...range, loop: 0, palette: 'global', dither: 'diffuse' };
    case 'html5':
      return { format, ...range, loop: 0, fallback: scene.poster, click: 'https://nighttram.example' };
    case 'png':
    case 'svg':
      return { format, scale: 1, frame: scene.poster };
  }
};

/** GIF delays are whole hundredths of a second, and players slow down what is under two of them. */
export const FASTEST_GIF: Rate = { num: 50, den: 1 };

export interface RenderPlan {
  /** In pixels of the file. */
  readonly width: number;
  readonly height: number;
  /** The scene's part of the picture; a video may be a pixel larger. */
  readonly drawn: { readonly width: number; readonly height: number };
  readonly rate: Rate;
  /** The scene's frame, whole or not, behind each frame of the file. */
  readonly frames: readonly number[];
  /** What the person should know of the result. */
  readonly notes: readonly string[];
}

const MOST_PIXELS = 8_192;

/** What a render of a scene will be. Throws a RangeError that says what does not fit. */
export const planRender = (scene: Scene, settings: RenderSettings): RenderPlan => {
  const width = Math.max(1, Math.round(scene.width * settings.scale));
  const height = Math.max(1, Math.round(scene.height * settings.scale));
  if (width > MOST_PIXELS || height > MOST_PIXELS) {
    throw new RangeError(`scale: gives ${width} × ${height} pixels; the most is ${MOST_PIXELS} a side`);
  }
  const drawn = { width, height };
  if (isStill(settings)) {
    if (settings.frame >= scene.length)
      throw new RangeError(`frame: got ${settings.frame}, the last is ${scene.length - 1}`);
    return { ...drawn, drawn, rate: scene.rate, frames: [settings.frame], notes: [] };
  }
  const { from, to } = settings;
  if (to > scene.length || from >= to) {
    throw new RangeError(`range: got ${from} to ${to}, the scene has ${scene.length} frames`);
  }
  if (settings.format === 'html5' && settings.fallback >= scene.length) {
    throw new RangeError(`fallback: got ${settings.fallback}, the last frame is ${scene.length - 1}`);
  }
  const notes: string[] = [];
  let rate = settings.rate ?? scene.rate;
  if (settings.format === 'gif') {
    if (framesPerSecond(rate) > framesPerSecond(FASTEST_GIF)) {
      notes.push('GIF players cannot show more than 50 frames a second: made at 50.');
      rate = FASTEST_GIF;
    }
    if ((100 * rate.den) % rate.num !== 0) {
      notes.push(
        'GIF delays are whole hundredths of a second, so this rate cannot be exact frame by frame; delays alternate and the whole length is right.',
      );
    }
  }
  const ratio = framesPerSecond(scene.rate) / framesPerSecond(rate);
  const count = Math.max(1, Math.round((to - from) / ratio));
  if (count > LIMITS.length) {
    throw new RangeError(
      `rate: gives ${count.toLocaleString('en')} frames; the most is ${LIMITS.length.toLocaleString('en')}: take a lower rate or a shorter range`,
    );
  }
  const frames = Array.from({ length: count }, (_, i) => from + i * ratio);
  if (settings.format !== 'mp4') return { ...drawn, drawn, rate, frames, notes };
  const even = { width: width + (width % 2), height: height + (height % 2) };
  if (even.width !== width || even.height !== height) {
    notes.push(
      `H.264 needs even sizes: ${width} × ${height} became ${even.width} × ${even.height}, with a line of background added at the right or bottom.`,
    );
  }
  if (scene.background === null) notes.push('MP4 has no transparency: drawn on black.');
  return { ...even, drawn, rate, frames, notes };
};

/** The delay of each GIF frame in hundredths; their sum is the exact length, rounded once. */
export const gifDelays = (count: number, rate: Rate): number[] => {
  const until = (n: number) => Math.round((n * 100 * rate.den) / rate.num);
  return Array.from({ length: count }, (_, i) => until(i + 1) - until(i));
};
