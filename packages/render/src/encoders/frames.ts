/** Frames as pictures: each by itself, or all on one sheet. */
import { frameName } from '@kite/core/delivery/formats/frames';
import { JPEG_QUALITY } from '@kite/core/delivery/formats/jpeg';
import { sheetOf } from '@kite/core/delivery/formats/sheet';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { rateLabel } from '@kite/core/time/rate';
import { createCanvas, ImageData } from '@napi-rs/canvas';
import { strToU8 } from 'fflate';
import type { Encoder } from './types';
import { writeZip } from './zip';

const imageOf = (pixels: Uint8Array, width: number, height: number): ImageData =>
  new ImageData(new Uint8ClampedArray(pixels.buffer, pixels.byteOffset, width * height * 4), width, height);

export const frames: Encoder<FormatSettings<'frames'>> = ({ settings, plan, out, frames: drawn, done }) =>
  writeZip(out, async (zip) => {
    const { width, height } = plan;
    const canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    for await (const { index, pixels } of drawn()) {
      context.putImageData(imageOf(pixels, width, height), 0, 0);
      const [bytes, extension] =
        settings.as === 'png'
          ? [await canvas.encode('png'), 'png']
          : [await canvas.encode('jpeg', JPEG_QUALITY.best), 'jpg'];
      await zip.add(frameName(index, plan.frames.length, extension), bytes);
      done();
    }
  });

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

export const sheet: Encoder<FormatSettings<'sheet'>> = ({ settings, plan, out, frames: drawn, done }) =>
  writeZip(out, async (zip) => {
    const { width, height, rate } = plan;
    const on = sheetOf(plan, settings.columns);
    const canvas = createCanvas(on.width, on.height);
    const context = canvas.getContext('2d');
    const placed = plan.frames.map((_, i) => ({
      x: (i % on.columns) * width,
      y: Math.floor(i / on.columns) * height,
      width,
      height,
    }));
    for await (const { index, pixels } of drawn()) {
      const { x, y } = placed[index] as (typeof placed)[number];
      context.putImageData(imageOf(pixels, width, height), x, y);
      done();
    }
    const json: SheetJson = {
      image: 'sheet.png',
      width: on.width,
      height: on.height,
      columns: on.columns,
      rate: rateLabel(rate),
      seconds: rate.den / rate.num,
      frames: placed,
    };
    await zip.add('sheet.png', await canvas.encode('png'));
    await zip.add('sheet.json', strToU8(`${JSON.stringify(json, null, 2)}\n`));
  });
