/** Animated GIF (GIF89a): frames cropped to what changed, exact total length, 1-bit transparency. */
import { open } from 'node:fs/promises';
import { gifDelays } from '@kite/core/delivery/formats/gif';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import omggif from 'omggif';
import { Cancelled } from '../failure';
import { choosePalette, indexed, NearestColor, type Region, type Rgb } from './palette';
import type { Encoder, EncodeJob } from './types';

/** One index is kept for pixels that show what was there before, or nothing. */
const CLEAR = 255;
const MOST_COLORS = 255;
const SAMPLED_FRAMES = 12;
const SAMPLED_PIXELS = 60_000;

/** Evenly spread pixels of a picture, without those that do not show. */
const sample = (pixels: Uint8Array, most: number): Uint8Array => {
  const every = Math.max(1, Math.floor(pixels.length / 4 / most));
  const kept: number[] = [];
  for (let p = 0; p < pixels.length; p += 4 * every) {
    if (pixels[p + 3]! >= 128) kept.push(pixels[p]!, pixels[p + 1]!, pixels[p + 2]!, 255);
  }
  return Uint8Array.from(kept.length > 0 ? kept : [0, 0, 0, 255]);
};

const commonPalette = async (job: EncodeJob<FormatSettings<'gif'>>): Promise<Rgb[]> => {
  const { frames } = job.plan;
  const count = Math.min(SAMPLED_FRAMES, frames.length);
  const chosen = Array.from(
    { length: count },
    (_, i) => frames[Math.round((i * (frames.length - 1)) / Math.max(1, count - 1))]!,
  );
  const parts: Uint8Array[] = [];
  for await (const { pixels } of job.frames(chosen)) parts.push(sample(pixels, SAMPLED_PIXELS));
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return choosePalette(all, MOST_COLORS);
};

/** GIF palettes have 2, 4 ... 256 colours; ours always has room for the clear index. */
const asPalette = (palette: readonly Rgb[]): number[] =>
  Array.from({ length: 256 }, (_, i) => {
    const [r, g, b] = palette[i] ?? [0, 0, 0];
    return (r << 16) | (g << 8) | b;
  });

/** The smallest region that holds all pixels for which `counts` says so; one pixel where there is none. */
const regionOf = (width: number, height: number, counts: (pixel: number) => boolean): Region => {
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!counts(y * width + x)) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  }
  return right < 0
    ? { x: 0, y: 0, width: 1, height: 1 }
    : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
};

/** Looks at the pixels of a frame as 32-bit words. */
const words = (pixels: Uint8Array): Uint32Array => new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length / 4);

export const gif: Encoder<FormatSettings<'gif'>> = async (job) => {
  const { scene, settings, plan, out, signal } = job;
  const { width, height } = plan;
  const transparent = scene.background === null || scene.background.length > 7;
  const delays = gifDelays(plan.frames.length, plan.rate);
  const common = settings.palette === 'global' ? await commonPalette(job) : null;
  let nearest = common && new NearestColor(common);

  const room = new Uint8Array(width * height * 2 + 4_096);
  // A loop count of n repeats n - 1 times; without the extension it plays once.
  const loop = settings.loop === 0 ? { loop: 0 } : settings.loop > 1 ? { loop: settings.loop - 1 } : {};
  const writer = new omggif.GifWriter(room, width, height, { ...loop, ...(common && { palette: asPalette(common) }) });
  const file = await open(out, 'w');
  const flush = async () => {
    await file.write(room, 0, writer.getOutputBufferPosition());
    writer.setOutputBufferPosition(0);
  };
  try {
    await flush();
    let before: Uint32Array | null = null;
    for await (const { index, pixels } of job.frames()) {
      if (signal.aborted) throw new Cancelled();
      const now = words(pixels);
      const shows = (p: number) => pixels[p * 4 + 3]! >= 128;
      const last: Uint32Array | null = before;
      const counts = transparent ? shows : (p: number) => last === null || now[p] !== last[p];
      const region = regionOf(width, height, counts);
      if (!common) nearest = new NearestColor(choosePalette(sampleRegion(pixels, width, region), MOST_COLORS));
      const colors = nearest as NearestColor;
      const indices = indexed(pixels, width, region, colors, settings.dither);
      for (let j = 0; j < region.height; j++) {
        for (let i = 0; i < region.width; i++) {
          if (!counts((region.y + j) * width + region.x + i)) indices[j * region.width + i] = CLEAR;
        }
      }
      writer.addFrame(region.x, region.y, region.width, region.height, indices, {
        delay: delays[index] as number,
        transparent: CLEAR,
        // A see-through frame is cleared before the next; an opaque one is drawn over.
        disposal: transparent ? 2 : 1,
        ...(!common && { palette: asPalette(colors.palette) }),
      });
      await flush();
      before = now.slice();
      job.done();
    }
    await file.write(room, 0, writer.end());
  } finally {
    await file.close();
  }
};

const sampleRegion = (pixels: Uint8Array, stride: number, region: Region): Uint8Array => {
  const rows: Uint8Array[] = [];
  for (let j = 0; j < region.height; j++) {
    const from = ((region.y + j) * stride + region.x) * 4;
    rows.push(pixels.subarray(from, from + region.width * 4));
  }
  const all = new Uint8Array(region.width * region.height * 4);
  rows.forEach((row, j) => all.set(row, j * region.width * 4));
  return sample(all, SAMPLED_PIXELS * 4);
};
