import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { setImmediate as turn } from 'node:timers/promises';
import type { FormatSettings, StillSettings } from '@kite/core/delivery/formats/table';
import { staying } from '@kite/core/delivery/stays';
import { type Frame, paintMarks } from '@kite/core/paint/canvas';
import { movingSvgOf } from '@kite/core/paint/movingSvg';
import { same } from '@kite/core/paint/repaint';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { type Inside, svgOf } from '@kite/core/paint/svg';
import type { Mark } from '@kite/core/recipe/types';
import { compileScene } from '@kite/core/scene/compile';
import { framesPerSecond } from '@kite/core/time/rate';
import { Cancelled } from '../failure';
import { surface } from '../frames';
import { type Materials, materialsFor, type Stock } from '../materials';
import type { Encoder } from './types';

const dataAddress = (type: string, bytes: Buffer): string => `data:${type};base64,${bytes.toString('base64')}`;

type Address = (canvas: Canvas) => string;
/** What all programs read. */
const asPng: Address = (canvas) => dataAddress('image/png', canvas.toBuffer('image/png'));
/** Of 0 to 100: this one is without loss, as light as 90 and in half of its time. */
const WHOLE = 100;
/** What all read that play an SVG, at half the weight. */
const asWebp: Address = (canvas) => dataAddress('image/webp', canvas.toBuffer('image/webp', WHOLE));

/** Pictures of marks that are kept to be used again, as in the next frame. */
const KEPT = 32;

/** Everything inside as data addresses: the file asks for nothing else. */
const insideWith = ({ pictures }: Materials, stock: Stock, addressOf: Address): Inside => {
  const tools = { pool: new SurfacePool(surface), pictures };
  const kept: { readonly marks: readonly Mark[]; readonly frame: Frame; readonly address: string }[] = [];
  return {
    pictureAt: (asset, cut) => {
      const image = pictures.get(asset, cut);
      if (!image) return null;
      return cut ? asPng(image as Canvas) : dataAddress(asset.type, readFileSync(stock.files[asset.sha] ?? ''));
    },
    drawn: (marks, frame) => {
      const known = kept.find((picture) => same(picture.frame, frame) && same(picture.marks, marks));
      if (known) return known.address;
      const canvas = createCanvas(frame.width, frame.height);
      paintMarks(canvas.getContext('2d') as unknown as Context2D, marks, frame, tools);
      const address = addressOf(canvas);
      kept.unshift({ marks, frame, address });
      kept.length = Math.min(kept.length, KEPT);
      return address;
    },
  };
};

/** One frame as paths: text is outlines, pictures are in the file. */
export const svg: Encoder<StillSettings> = async ({ scene, stock, plan, out, done, note }) => {
  const materials = await materialsFor(scene, stock);
  const list = compileScene(scene, materials.library).at(plan.frames[0] as number);
  const made = svgOf(list, plan, insideWith(materials, stock, asPng));
  made.notes.forEach(note);
  await writeFile(out, made.svg);
  done();
};

/** All frames in one file that moves by itself. */
export const animatedSvg: Encoder<FormatSettings<'animated-svg'>> = async (job) => {
  const { scene, stock, settings, plan, out, done, note, signal } = job;
  const materials = await materialsFor(scene, stock);
  const program = compileScene(scene, materials.library);
  const inside = insideWith(materials, stock, asWebp);
  const notes = new Set<string>();
  const frames: string[] = [];
  for (const frame of plan.frames) {
    if (signal.aborted) throw new Cancelled();
    const made = svgOf(program.at(frame), plan, inside);
    made.notes.forEach((told) => notes.add(told));
    frames.push(made.svg);
    done();
    await turn();
  }
  const seconds = staying(settings, plan).map((s) => s + 1 / framesPerSecond(plan.rate));
  notes.forEach(note);
  await writeFile(out, movingSvgOf(frames, { seconds, plays: settings.loop }));
};
