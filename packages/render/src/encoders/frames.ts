/** Frames as pictures: each by itself, or all on one sheet. */
import { buffer } from 'node:stream/consumers';
import { rgb } from '@kite/core/delivery/ffmpeg';
import { frameName } from '@kite/core/delivery/formats/frames';
import { JPEG_QUALITY } from '@kite/core/delivery/formats/jpeg';
import { sheetOf } from '@kite/core/delivery/formats/sheet';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { isOpaque } from '@kite/core/delivery/opaque';
import { rateLabel } from '@kite/core/time/rate';
import { createCanvas, ImageData } from '@napi-rs/canvas';
import { strToU8 } from 'fflate';
import type { EncodeJob, Encoder } from './types';
import { video } from './video';
import { writeZip, type ZipFile } from './zip';

const imageOf = (pixels: Uint8Array, width: number, height: number): ImageData =>
  new ImageData(new Uint8ClampedArray(pixels.buffer, pixels.byteOffset, width * height * 4), width, height);

/** What a PNG ends with: its last chunk, which is empty (W3C PNG, 11.2.5). */
const PNG_END = Buffer.from([0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82]);

/** PNGs that come one behind the other. */
export async function* pngsOf(written: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let rest: Buffer = Buffer.alloc(0);
  let more: Buffer[] = [];
  let size = 0;
  function* whole(): Generator<Buffer> {
    let from = Math.max(0, rest.length - PNG_END.length);
    rest = Buffer.concat([rest, ...more]);
    [more, size] = [[], 0];
    for (let end = rest.indexOf(PNG_END, from); end >= 0; end = rest.indexOf(PNG_END, from)) {
      yield rest.subarray(0, end + PNG_END.length);
      rest = rest.subarray(end + PNG_END.length);
      from = 0;
    }
  }
  for await (const bytes of written) {
    more.push(bytes);
    size += bytes.length;
    // Joined when there is as much again, so that no byte is copied more than a few times.
    if (size >= rest.length) yield* whole();
  }
  yield* whole();
}

/** Arguments of ffmpeg, which packs PNGs in a third of the time that the canvas takes, and as small. */
const asPng = (opaque: boolean) => ['-c:v', 'png', ...rgb(opaque), '-pred', 'none', '-f', 'image2pipe'];

const pngs = (job: EncodeJob, zip: ZipFile): Promise<void> =>
  video(job, asPng(isOpaque(job.scene)), async (written) => {
    let index = 0;
    for await (const bytes of pngsOf(written)) await zip.add(frameName(index++, job.plan.frames.length, 'png'), bytes);
  });

const jpegs = async ({ plan, frames: drawn, done }: EncodeJob, zip: ZipFile): Promise<void> => {
  const { width, height } = plan;
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  for await (const { index, pixels } of drawn()) {
    context.putImageData(imageOf(pixels, width, height), 0, 0);
    const bytes = await canvas.encode('jpeg', JPEG_QUALITY.best);
    await zip.add(frameName(index, plan.frames.length, 'jpg'), bytes);
    done();
  }
};

export const frames: Encoder<FormatSettings<'frames'>> = (job) =>
  writeZip(job.out, (zip) => (job.settings.as === 'png' ? pngs(job, zip) : jpegs(job, zip)));

/** The JSON beside a sheet. Places and sizes are in pixels; `seconds` is how long each frame shows. */
export interface SheetJson {
  readonly image: string;
  readonly width: number;
  readonly height: number;
  readonly columns: number;
  readonly rate: string;
  readonly seconds: number;
  readonly frames: readonly {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  }[];
}

/** Put together by ffmpeg as well, with nothing where there are no frames left. */
export const sheet: Encoder<FormatSettings<'sheet'>> = (job) =>
  writeZip(job.out, async (zip) => {
    const { settings, plan } = job;
    const { width, height, rate } = plan;
    const on = sheetOf(plan, settings.columns);
    const tiles = `tile=${on.columns}x${on.rows}:color=black@0`;
    await video(job, ['-vf', tiles, ...asPng(false)], async (written) => zip.add('sheet.png', await buffer(written)));
    const json: SheetJson = {
      image: 'sheet.png',
      width: on.width,
      height: on.height,
      columns: on.columns,
      rate: rateLabel(rate),
      seconds: rate.den / rate.num,
      frames: plan.frames.map((_, i) => ({
        x: (i % on.columns) * width,
        y: Math.floor(i / on.columns) * height,
        width,
        height,
      })),
    };
    await zip.add('sheet.json', strToU8(`${JSON.stringify(json, null, 2)}\n`));
  });
