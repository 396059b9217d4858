/** Animated GIF (GIF89a): a picture for each change, cropped to what changed, exact total length, 1-bit transparency. */
import { open } from 'node:fs/promises';
import { gifDelays } from '@kite/core/delivery/formats/gif';
import { isOpaque } from '@kite/core/delivery/opaque';
import { staying } from '@kite/core/delivery/stays';
import { keyFramesOf } from '@kite/core/properties/find';
import { rgbOf } from '@kite/core/picture/pixels';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import omggif from 'omggif';
import { Cancelled } from '../failure';
import { settling } from './seeThrough';
import { choosePalette, GIFEncoder, indexed, NearestColor, type Region, type Rgb } from './palette';
import type { Encoder, EncodeJob } from './types';

const SAMPLED_FRAMES = 12;
/** Of those at which something of a scene changes: a film of few pictures has the colours of each. */
const SAMPLED_CHANGES = 24;
const SAMPLED_PIXELS = 60_000;

/** So many of a list at the most, evenly spread from its first to its last. */
const spread = <T>(list: readonly T[], most: number): T[] =>
  list.length <= most
    ? [...list]
    : Array.from({ length: most }, (_, i) => list[Math.round((i * (list.length - 1)) / (most - 1))]!);

/** Frames of the file whose colours stand for all of it. */
const sampledFrames = ({ plan, scene }: EncodeJob<FormatSettings<'gif'>>): number[] => {
  const changes = new Set(Object.values(scene.layers).flatMap((layer) => keyFramesOf(layer)));
  const there = plan.frames.filter((frame) => changes.has(frame));
  const chosen = new Set([...spread(plan.frames, SAMPLED_FRAMES), ...spread(there, SAMPLED_CHANGES)]);
  return [...chosen].sort((a, b) => a - b);
};

/** Evenly spread pixels of a picture, without those that do not show. */
const sample = (pixels: Uint8Array, most: number): Uint8Array => {
  const every = Math.max(1, Math.floor(pixels.length / 4 / most));
  const kept: number[] = [];
  for (let p = 0; p < pixels.length; p += 4 * every) {
    if (pixels[p + 3]! >= 128) kept.push(pixels[p]!, pixels[p + 1]!, pixels[p + 2]!, 255);
  }
  return Uint8Array.from(kept.length > 0 ? kept : [0, 0, 0, 255]);
};

const commonPalette = async (job: EncodeJob<FormatSettings<'gif'>>, most: number): Promise<Rgb[]> => {
  const parts: Uint8Array[] = [];
  const settled = settling(job.scene, job.settings, job.plan.width);
  for await (const { pixels } of job.frames(sampledFrames(job))) {
    settled(pixels);
    parts.push(sample(pixels, SAMPLED_PIXELS));
  }
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return choosePalette(all, most);
};

/** A palette as a GIF has it: of 4, 8 ... 256 colours, the last of which is kept for what shows nothing, or what was there before. */
const asPalette = (palette: readonly Rgb[], clear: number): number[] =>
  Array.from({ length: clear + 1 }, (_, i) => {
    const [r, g, b] = palette[i] ?? [0, 0, 0];
    return (r << 16) | (g << 8) | b;
  });

/** The pixels of a frame that are written, 1 each, and the smallest region that holds them; one pixel where there is none. */
const writtenOf = (
  now: Uint32Array,
  before: Uint32Array | null,
  width: number,
): { readonly written: Uint8Array; readonly region: Region } => {
  const written = new Uint8Array(now.length);
  let [left, top, right, bottom] = [width, now.length, -1, -1];
  for (let p = 0, y = 0; p < now.length; y++) {
    let [first, last] = [-1, -1];
    for (let x = 0; x < width; x++, p++) {
      const pixel = now[p]!;
      // Of what is see-through the pixels that show, else those that have changed.
      if (before ? pixel === before[p] : pixel >>> 24 < 128) continue;
      written[p] = 1;
      if (first < 0) first = x;
      last = x;
    }
    if (first < 0) continue;
    left = Math.min(left, first);
    right = Math.max(right, last);
    top = Math.min(top, y);
    bottom = y;
  }
  return {
    written,
    region:
      right < 0
        ? { x: 0, y: 0, width: 1, height: 1 }
        : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 },
  };
};

/** Looks at the pixels of a frame as 32-bit words. */
const words = (pixels: Uint8Array): Uint32Array => new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length / 4);

const TRAILER = 0x3b;

/** Hundredths of a second that a picture is shown: GIF89a, 23 has 16 bits for them, and players slow down what is under two. */
const [SHORTEST, LONGEST] = [2, 0xffff];

/** A picture, and how long nothing changes. */
interface Staying {
  readonly pixels: Uint8Array;
  delay: number;
}

interface FrameHow {
  /** In hundredths of a second. */
  readonly delay: number;
  readonly dispose: 1 | 2;
  /** Of this frame alone; null for the one for all. */
  readonly palette: readonly Rgb[] | null;
}

/** Frames as the bytes of a GIF: a control block, a descriptor, a table of colours where there is one, and the pixels. */
class FrameBlock {
  private readonly encoder = GIFEncoder({ auto: false });

  /** `clear` is the last index of palettes. */
  constructor(private readonly clear: number) {}

  /** Valid until the next is asked for. */
  of(indices: Uint8Array, { x, y, width, height }: Region, { delay, dispose, palette }: FrameHow): Uint8Array {
    this.encoder.reset();
    this.encoder.writeFrame(indices, width, height, {
      delay: delay * 10,
      dispose,
      transparent: true,
      transparentIndex: this.clear,
      colorDepth: Math.log2(this.clear + 1),
      // As many as there are indices, so that the clear one is among them.
      palette: palette && Array.from({ length: this.clear + 1 }, (_, i) => palette[i] ?? [0, 0, 0]),
    });
    const bytes = this.encoder.bytesView();
    // The encoder puts frames at 0, 0. GIF89a, 20: behind the 8 bytes of the control block and the separator stand left and top.
    new DataView(bytes.buffer, bytes.byteOffset).setUint16(9, x, true);
    new DataView(bytes.buffer, bytes.byteOffset).setUint16(11, y, true);
    return bytes;
  }
}

/** Colours written one after another. */
const inksOf = (text: string): Rgb[] => text.split(/\s+/).map(rgbOf);

export const gif: Encoder<FormatSettings<'gif'>> = async (job) => {
  const { scene, settings, plan, out, signal } = job;
  const { width, height } = plan;
  const transparent = settings.edge !== 'none' && !isOpaque(scene);
  const delays = gifDelays(plan.frames.length, plan.rate, staying(settings, plan));
  const settled = settling(scene, settings, width);
  const inks = settings.palette === 'own' ? inksOf(settings.inks) : null;
  const most = Math.min(255, inks ? inks.length : settings.colors);
  // A power of two with room for one more than the colours.
  const clear = 2 ** Math.max(2, Math.ceil(Math.log2(most + 1))) - 1;
  const common = inks ?? (settings.palette === 'global' ? await commonPalette(job, most) : null);
  let nearest = common && new NearestColor(common);

  // A loop count of n repeats n - 1 times; without the extension it plays once.
  const loop = settings.loop === 0 ? { loop: 0 } : settings.loop > 1 ? { loop: settings.loop - 1 } : {};
  const head = new Uint8Array(1_024);
  const header = new omggif.GifWriter(head, width, height, {
    ...loop,
    ...(nearest && { palette: asPalette(nearest.palette, clear) }),
  });
  const file = await open(out, 'w');
  const block = new FrameBlock(clear);
  try {
    await file.write(head, 0, header.getOutputBufferPosition());
    let before: Uint32Array | null = null;
    const write = async ({ pixels, delay }: Staying): Promise<void> => {
      const now = words(pixels);
      // The first frame is written whole: of what is not transparent every pixel shows.
      const { written, region } = writtenOf(now, transparent ? null : before, width);
      if (!common) nearest = new NearestColor(choosePalette(sampleRegion(pixels, width, region), most));
      const colors = nearest as NearestColor;
      const indices = indexed({ pixels, stride: width, region, written, clear }, colors, settings.dither);
      await file.write(
        block.of(indices, region, {
          delay,
          // A see-through frame is cleared before the next; an opaque one is drawn over.
          dispose: transparent ? 2 : 1,
          palette: common ? null : colors.palette,
        }),
      );
      before = now;
    };
    let last: Staying | null = null;
    for await (const { index, pixels } of job.frames()) {
      if (signal.aborted) throw new Cancelled();
      settled(pixels);
      const delay = delays[index] as number;
      const both: number = (last?.delay ?? 0) + delay;
      if (last && both <= LONGEST && Buffer.compare(last.pixels, pixels) === 0) last.delay = both;
      else if (last && last.delay < SHORTEST) last = { pixels: pixels.slice(), delay: both };
      else {
        if (last) await write(last);
        last = { pixels: pixels.slice(), delay };
      }
      job.done();
    }
    if (last) await write(last);
    await file.write(Uint8Array.of(TRAILER));
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
