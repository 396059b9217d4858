import { writeFile } from 'node:fs/promises';
import { JPEG_QUALITY } from '@kite/core/delivery/formats/jpeg';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import type { Canvas } from '@napi-rs/canvas';
import { frameDrawer } from '../frames';
import { materialsFor } from '../materials';
import type { Encoder, EncodeJob } from './types';

const drawnBy = async ({ scene, stock, plan, under }: EncodeJob): Promise<Canvas> => {
  const drawer = frameDrawer(scene, await materialsFor(scene, stock), { ...plan, under });
  drawer.draw(plan.frames[0] as number);
  return drawer.canvas;
};

export const png: Encoder<FormatSettings<'png'>> = async (job) => {
  await writeFile(job.out, await (await drawnBy(job)).encode('png'));
  job.done();
};

export const jpeg: Encoder<FormatSettings<'jpeg'>> = async (job) => {
  await writeFile(job.out, await (await drawnBy(job)).encode('jpeg', JPEG_QUALITY[job.settings.quality]));
  job.done();
};
