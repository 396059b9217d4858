import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { setImmediate as turn } from 'node:timers/promises';
import type { FormatSettings, StillSettings } from '@kite/core/delivery/formats/table';
import { staying } from '@kite/core/delivery/stays';
import { type Frame, paintMarks } from '@kite/core/paint/canvas';
import { movingSvgOf } from '@kite/core/paint/movingSvg';
import { same } from '@kite/core/paint/repaint';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { type Inside, notesOf, svgOf, type WrittenSvg } from '@kite/core/paint/svg';
import { pictureKey } from '@kite/core/picture/key';
import type { Mark } from '@kite/core/recipe/types';
import { compileScene } from '@kite/core/scene/compile';
import { framesPerSecond } from '@kite/core/time/rate';
import { createCanvas, type Canvas } from '@napi-rs/canvas';
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

/** Pictures by short names: what shows them in many frames says so in a few bytes. */
const picturesWith = ({ pictures }: Materials, stock: Stock, addressOf: Address) => {
  const names = new Map<string, string>();
  const named = (address: string): string => {
    const name = names.get(address) ?? `picture${names.size + 1}`;
    names.set(address, name);
    return name;
  };
  const files = new Map<string, string | null>();
  const drawn: { readonly marks: readonly Mark[]; readonly frame: Frame; readonly name: string }[] = [];
  const tools = { pool: new SurfacePool(surface), pictures };
  const inside: Inside = {
    pictureAt: (asset, cut) => {
      const key = pictureKey(asset, cut);
      const known = files.get(key);
      if (known !== undefined) return known;
      const image = pictures.get(asset, cut);
      const file = () => dataAddress(asset.type, readFileSync(stock.files[asset.sha] ?? ''));
      const name = image ? named(cut ? asPng(image as Canvas) : file()) : null;
      files.set(key, name);
      return name;
    },
    drawn: (marks, frame) => {
      const known = drawn.find((picture) => same(picture.frame, frame) && same(picture.marks, marks));
      if (known) return known.name;
      const canvas = createCanvas(frame.width, frame.height);
      paintMarks(canvas.getContext('2d') as unknown as Context2D, marks, frame, tools);
      const name = named(addressOf(canvas));
      drawn.unshift({ marks, frame, name });
      drawn.length = Math.min(drawn.length, KEPT);
      return name;
    },
  };
  /** A document with everything inside it as data addresses, in pieces: it asks for nothing else. */
  const filled = function* (svg: string): Generator<string> {
    const addresses = new Map([...names].map(([address, name]) => [name, address]));
    // Every other piece is a name; what is in the document itself has none.
    for (const [i, piece] of svg.split(/ href="([^"#]*)"/).entries()) {
      yield i % 2 === 0 ? piece : ` href="${addresses.get(piece) ?? ''}"`;
    }
  };
  return { inside, filled };
};

/** One frame as paths: text is outlines, pictures are in the file. */
export const svg: Encoder<StillSettings> = async ({ scene, stock, plan, out, done, note }) => {
  const materials = await materialsFor(scene, stock);
  const list = compileScene(scene, materials.library).at(plan.frames[0] as number);
  const { inside, filled } = picturesWith(materials, stock, asPng);
  const made = svgOf(list, plan, inside);
  notesOf([made]).forEach(note);
  await writeFile(out, filled(made.svg));
  done();
};

/** All frames in one file that moves by itself. */
export const animatedSvg: Encoder<FormatSettings<'animated-svg'>> = async (job) => {
  const { scene, stock, settings, plan, out, done, note, signal } = job;
  const materials = await materialsFor(scene, stock);
  const program = compileScene(scene, materials.library);
  const { inside, filled } = picturesWith(materials, stock, asWebp);
  const frames: WrittenSvg[] = [];
  for (const frame of plan.frames) {
    if (signal.aborted) throw new Cancelled();
    frames.push(svgOf(program.at(frame), plan, inside));
    done();
    await turn();
  }
  const seconds = staying(settings, plan).map((s) => s + 1 / framesPerSecond(plan.rate));
  notesOf(frames).forEach(note);
  const documents = frames.map(({ svg: one }) => one);
  await writeFile(out, filled(movingSvgOf(documents, { seconds, plays: settings.loop })));
};
