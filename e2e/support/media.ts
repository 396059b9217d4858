/** Reading rendered files with tools of their own: ffmpeg for video, a GIF reader, a PNG decoder. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { ffmpegPath } from '@kite/render/ffmpeg';
import { unzipSync } from 'fflate';
import omggif from 'omggif';

export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

export const folder = (): string => mkdtempSync(join(tmpdir(), 'kite-media-'));

const ffmpeg = (args: readonly string[], input?: Uint8Array) =>
  spawnSync(ffmpegPath(), ['-hide_banner', ...args], { ...(input && { input }), maxBuffer: 1 << 30 });

export interface Video {
  readonly head: string;
  readonly frames: number;
  readonly frame: (index: number) => Pixels;
}

/** What ffmpeg says of a video, and its frames as it shows them. */
export const readVideo = (bytes: Uint8Array, width: number, height: number): Video => {
  const file = join(folder(), 'video.mp4');
  writeFileSync(file, bytes);
  const head = ffmpeg(['-i', file]).stderr.toString();
  const raw = ffmpeg([
    '-loglevel',
    'error',
    '-i',
    file,
    '-vf',
    'scale=in_color_matrix=bt709:in_range=tv',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgba',
    '-',
  ]).stdout;
  const size = width * height * 4;
  return {
    head,
    frames: raw.length / size,
    frame: (index) => ({ width, height, data: new Uint8Array(raw.subarray(index * size, (index + 1) * size)) }),
  };
};

export const readPng = async (bytes: Uint8Array): Promise<Pixels> => {
  const image = await loadImage(Buffer.from(bytes));
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height);
};

export const readGif = (bytes: Uint8Array) => {
  const reader = new omggif.GifReader(bytes);
  return {
    width: reader.width,
    height: reader.height,
    loop: reader.loopCount(),
    delays: Array.from({ length: reader.numFrames() }, (_, i) => reader.frameInfo(i).delay),
    /** What shows after so many hundredths of a second: its pictures drawn over each other as players do (those that clear after themselves included). */
    at: (hundredths: number): Pixels => {
      const data = new Uint8ClampedArray(reader.width * reader.height * 4);
      for (let i = 0, begins = 0; begins <= hundredths; begins += reader.frameInfo(i).delay, i++) {
        if (i > 0 && reader.frameInfo(i - 1).disposal === 2) data.fill(0);
        reader.decodeAndBlitFrameRGBA(i, data);
      }
      return { width: reader.width, height: reader.height, data };
    },
  };
};

/** Unpacks a zip into a new folder. */
export const unpack = (bytes: Uint8Array): { folder: string; names: string[] } => {
  const to = folder();
  const files = unzipSync(bytes);
  for (const [name, content] of Object.entries(files)) {
    const path = join(to, name);
    if (dirname(path) === to) writeFileSync(path, content);
  }
  return { folder: to, names: Object.keys(files) };
};

export const colorAt = ({ width, data }: Pixels, x: number, y: number): number[] => [
  ...data.slice((y * width + x) * 4, (y * width + x) * 4 + 4),
];

/** How many pixels differ in some channel by more than so many levels. */
export const differing = (a: Pixels, b: Pixels, by = 0): number => {
  if (a.width !== b.width || a.height !== b.height) return Infinity;
  let count = 0;
  for (let p = 0; p < a.data.length; p += 4) {
    // What is fully transparent looks the same whatever its colour.
    if (a.data[p + 3] === 0 && b.data[p + 3] === 0) continue;
    for (let c = 0; c < 4; c++) {
      if (Math.abs((a.data[p + c] as number) - (b.data[p + c] as number)) > by) {
        count++;
        break;
      }
    }
  }
  return count;
};
