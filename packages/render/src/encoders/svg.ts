import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { setImmediate as turn } from 'node:timers/promises';
import type { FormatSettings, StillSettings } from '@kite/core/delivery/formats/table';
import { staying } from '@kite/core/delivery/stays';
import { movingSvgOf } from '@kite/core/paint/movingSvg';
import { type PictureAddress, svgOf } from '@kite/core/paint/svg';
import { compileScene } from '@kite/core/scene/compile';
import type { DisplayList } from '@kite/core/scene/program';
import { framesPerSecond } from '@kite/core/time/rate';
import type { Canvas } from '@napi-rs/canvas';
import { Cancelled } from '../failure';
import { type Materials, materialsFor, type Stock } from '../materials';
import type { Encoder } from './types';

/** Pictures as data addresses: the file asks for nothing else. */
const insideWith =
  ({ pictures }: Materials, stock: Stock): PictureAddress =>
  (asset, cut) => {
    const image = pictures.get(asset, cut);
    if (!image) return null;
    const bytes = cut ? (image as Canvas).toBuffer('image/png') : readFileSync(stock.files[asset.sha] ?? '');
    return `data:${cut ? 'image/png' : asset.type};base64,${bytes.toString('base64')}`;
  };

/** One frame as paths: text is outlines, pictures are in the file. */
export const svg: Encoder<StillSettings> = async ({ scene, stock, plan, out, done, note }) => {
  const materials = await materialsFor(scene, stock);
  const list = compileScene(scene, materials.library).at(plan.frames[0] as number);
  const made = svgOf(list, plan, insideWith(materials, stock));
  made.notes.forEach(note);
  await writeFile(out, made.svg);
  done();
};

/** All frames in one file that moves by itself. */
export const animatedSvg: Encoder<FormatSettings<'animated-svg'>> = async (job) => {
  const { scene, stock, settings, plan, out, done, note, signal } = job;
  const materials = await materialsFor(scene, stock);
  const program = compileScene(scene, materials.library);
  const more = staying(settings, plan);
  const frames: DisplayList[] = [];
  for (const frame of plan.frames) {
    if (signal.aborted) throw new Cancelled();
    frames.push(program.at(frame));
    done();
    await turn();
  }
  const seconds = more.map((s) => s + 1 / framesPerSecond(plan.rate));
  const { width, height } = plan;
  const made = movingSvgOf(frames, { width, height, seconds, plays: settings.loop }, insideWith(materials, stock));
  made.notes.forEach(note);
  await writeFile(out, made.svg);
};
