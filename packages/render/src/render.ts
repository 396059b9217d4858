/** A scene and settings in, a file out. The server's jobs and the command line both come here. */
import { rename, rm, stat, writeFile } from 'node:fs/promises';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { completed, isStill, keepsTransparency, planRender } from '@kite/core/delivery/settings';
import type { RenderPlan, RenderResult } from '@kite/core/delivery/types';
import type { Color, Scene } from '@kite/core/document/types';
import { needsOf } from '@kite/core/recipe/needs';
import { allLayers } from '@kite/core/scene/whole';
import { compileScene } from '@kite/core/scene/compile';
import { framesPerSecond } from '@kite/core/time/rate';
import { drawFrames } from './drawPool';
import { encode } from './encoders/table';
import { Cancelled, reasonOf, RenderFailure } from './failure';
import { frameDrawer } from './frames';
import { materialsFor, type Stock } from './materials';

export interface RenderProgress {
  readonly done: number;
  readonly total: number;
}
export interface RenderOptions {
  readonly scene: Scene;
  /** The assets that it uses. */
  readonly stock: Stock;
  readonly settings: RenderSettings;
  /** Appears only when it is whole. */
  readonly out: string;
  /** Where a small picture of it goes, as a WebP; none is made where this is missing. */
  readonly small?: string;
  readonly signal?: AbortSignal;
  readonly onProgress?: (progress: RenderProgress) => void;
}

const planOf = (scene: Scene, settings: RenderSettings): RenderPlan => {
  try {
    return planRender(scene, settings);
  } catch (error) {
    throw new RenderFailure(scene.name, null, reasonOf(error));
  }
};

/** What compiling and a first look at the frames find wrong, once each, named by layer. */
const problemNotes = async (scene: Scene, stock: Stock, plan: RenderPlan): Promise<string[]> => {
  const { library, pictures } = await materialsFor(scene, stock);
  const program = compileScene(scene, library);
  const frame = plan.frames[Math.floor(plan.frames.length / 2)] as number;
  const texts = program
    .at(frame)
    .problems.map((p) => `Layer "${scene.layers[p.layer]?.name ?? p.layer}" ${p.message}.`);
  const unread = allLayers(scene).filter((layer) =>
    [...needsOf(layer).assets].some((id) => {
      const asset = stock.assets[id];
      return asset?.kind === 'picture' && pictures.get(asset, null) === null;
    }),
  );
  return [...new Set([...texts, ...unread.map((l) => `Layer "${l.name}" shows a picture whose file cannot be read.`)])];
};

/** Pixels along the longer side. */
const SMALL_SIDE = 160;

/** The poster, where it is in the file, else its middle. */
const posterOf = (scene: Scene, { frames }: RenderPlan): number =>
  frames.find((frame) => frame >= scene.poster) ?? (frames[frames.length >> 1] as number);

const writeSmall = async (
  out: string,
  scene: Scene,
  stock: Stock,
  frame: number,
  under: Color | null,
): Promise<void> => {
  const scale = Math.min(1, SMALL_SIDE / Math.max(scene.width, scene.height));
  const [width, height] = [scene.width, scene.height].map((side) => Math.max(1, Math.round(side * scale))) as [
    number,
    number,
  ];
  const drawer = frameDrawer(scene, await materialsFor(scene, stock), {
    width,
    height,
    drawn: { width, height },
    under,
  });
  drawer.draw(frame);
  await writeFile(out, await drawer.canvas.encode('webp', 80));
};

export const renderScene = async ({
  scene,
  stock,
  settings: asked,
  out,
  small,
  signal,
  onProgress,
}: RenderOptions): Promise<RenderResult> => {
  const settings = completed(asked, scene);
  const plan = planOf(scene, settings);
  const stop = signal ?? new AbortController().signal;
  const under = keepsTransparency(settings) ? null : (scene.background?.slice(0, 7) ?? '#000000');
  const partial = `${out}.part`;
  const encoderNotes: string[] = [];
  // Meanwhile, so that it costs the render no time of its own.
  const problems = problemNotes(scene, stock, plan);
  problems.catch(() => undefined);
  let done = 0;
  try {
    await encode({
      scene,
      stock,
      settings,
      plan,
      out: partial,
      under,
      signal: stop,
      frames: (of = plan.frames) => drawFrames(scene, stock, { ...plan, under }, of, stop),
      note: (text) => encoderNotes.push(text),
      done: () => onProgress?.({ done: ++done, total: plan.frames.length }),
    });
    if (stop.aborted) throw new Cancelled();
    if (small !== undefined) await writeSmall(small, scene, stock, posterOf(scene, plan), under);
    await rename(partial, out);
  } catch (error) {
    await rm(partial, { force: true });
    if (stop.aborted) throw new Cancelled();
    if (error instanceof RenderFailure || error instanceof Cancelled) throw error;
    throw new RenderFailure(scene.name, plan.frames[done] ?? null, reasonOf(error));
  }
  return {
    width: plan.width,
    height: plan.height,
    frames: plan.frames.length,
    seconds: isStill(settings) ? 0 : plan.frames.length / framesPerSecond(plan.rate),
    bytes: (await stat(out)).size,
    notes: [...plan.notes, ...encoderNotes, ...(await problems)],
  };
};
