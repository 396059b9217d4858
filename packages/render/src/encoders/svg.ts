import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import type { StillSettings } from '@kite/core/delivery/formats/table';
import { svgOf } from '@kite/core/paint/svg';
import { compileScene } from '@kite/core/scene/compile';
import type { Canvas } from '@napi-rs/canvas';
import { materialsFor } from '../materials';
import type { Encoder } from './types';

/** One frame as paths: text is outlines, pictures are in the file. */
export const svg: Encoder<StillSettings> = async ({ scene, stock, plan, out, done, note }) => {
  const { library, pictures } = await materialsFor(scene, stock);
  const list = compileScene(scene, library).at(plan.frames[0] as number);
  const made = svgOf(list, plan, (asset, cut) => {
    const image = pictures.get(asset, cut);
    if (!image) return null;
    const bytes = cut ? (image as Canvas).toBuffer('image/png') : readFileSync(stock.files[asset.sha] ?? '');
    return `data:${cut ? 'image/png' : asset.type};base64,${bytes.toString('base64')}`;
  });
  made.notes.forEach(note);
  await writeFile(out, made.svg);
  done();
};
