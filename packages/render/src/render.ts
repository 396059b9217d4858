/** A scene and settings in, a file out. The server's jobs and the command line both come here. */
import { rename, rm, stat, writeFile } from 'node:fs/promises';
import { formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import { completed, isStill, keepsTransparency, planRender } from '@kite/core/delivery/settings';
import type { Lighter, Part, RenderPlan, RenderResult } from '@kite/core/delivery/types';
import type { Color, Scene } from '@kite/core/document/types';
import { settledScene } from '@kite/core/edits/settling';
import { needsOf } from '@kite/core/recipe/needs';
import { allLayers, isUnsettled } from '@kite/core/scene/whole';
import { compileScene } from '@kite/core/scene/compile';
import { framesPerSecond } from '@kite/core/time/rate';
import { drawFrames } from './drawPool';
import { encode } from './encoders/table';
import { Cancelled, reasonOf, RenderFailure } from './failure';
import { materialsFor, type Stock } from './materials';
import { smallPicture } from './small';

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

const writeSmall = async (out: string, { scene, stock, settings }: RenderOptions, plan: RenderPlan): Promise<void> => {
  const scale = Math.min(1, SMALL_SIDE / Math.max(scene.width, scene.height));
  await writeFile(out, await smallPicture(scene, stock, posterOf(scene, plan), scale, underOf(scene, settings)));
};

/** One way of making a file: settings, and what is said of them. */
interface Way {
  readonly settings: RenderSettings;
  readonly says: string | null;
}

/** As asked, then ever lighter ones where there is a budget. */
const waysOf = (settings: RenderSettings, plan: RenderPlan, budget: number): readonly Way[] => {
  const lighter = budget > 0 ? formatOf(settings.format).lighter?.(settings as never, plan) : undefined;
  const scaled = (own: Lighter['settings']) =>
    // Sizes of the lighter ones are shares of the one that was asked for.
    'scale' in own ? { scale: settings.scale * (own.scale as number) } : {};
  const all = (lighter ?? []).map(({ says, settings: own }) => ({
    settings: { ...settings, ...own, ...scaled(own) } as RenderSettings,
    says,
  }));
  return [{ settings, says: null }, ...all];
};

/** The file made in one way, under a name of its own. */
const made = async (
  { scene, stock, out }: RenderOptions,
  settings: RenderSettings,
  signal: AbortSignal,
  onDone: (share: number) => void,
): Promise<RenderResult> => {
  const plan = planOf(scene, settings);
  const under = underOf(scene, settings);
  const notes: string[] = [];
  const parts: Part[] = [];
  let done = 0;
  try {
    await encode({
      scene,
      stock,
      settings,
      plan,
      out,
      under,
      signal,
      frames: (of = plan.frames) => drawFrames(scene, stock, { ...plan, under }, of, signal),
      part: (name, bytes) => parts.push({ name, bytes }),
      note: (text) => notes.push(text),
      done: () => onDone(++done / plan.frames.length),
    });
  } catch (error) {
    if (signal.aborted) throw new Cancelled();
    if (error instanceof RenderFailure || error instanceof Cancelled) throw error;
    throw new RenderFailure(scene.name, plan.frames[done] ?? null, reasonOf(error));
  }
  if (signal.aborted) throw new Cancelled();
  return {
    width: plan.width,
    height: plan.height,
    frames: plan.frames.length,
    seconds: isStill(settings) ? 0 : plan.frames.length / framesPerSecond(plan.rate),
    bytes: (await stat(out)).size,
    ...(parts.length > 0 && { parts }),
    notes: [...plan.notes, ...notes],
  };
};

/** What a scene is drawn on that its file has no transparency for. */
const underOf = (scene: Scene, settings: RenderSettings): Color | null =>
  keepsTransparency(settings) ? null : (scene.background?.slice(0, 7) ?? '#000000');

/** The scene, with what a version left to its fonts. */
const laidOut = async ({ scene, stock }: RenderOptions): Promise<Scene> =>
  isUnsettled(scene) ? settledScene(scene, (await materialsFor(scene, stock)).library) : scene;

const kilobytes = (bytes: number): string => `${Math.ceil(bytes / 1024)} KB`;

/**
 * Makes a file. One with a budget is made as asked first; where that is too heavy, the best of the lighter ways that meets
 * it is found by halving, each being lighter than the one before. What met it, or that nothing did, is among the notes.
 */
export const renderScene = async (given: RenderOptions): Promise<RenderResult> => {
  const options = { ...given, scene: await laidOut(given) };
  const { scene, stock, settings: asked, out, small, onProgress } = options;
  const settings = completed(asked, scene);
  const plan = planOf(scene, settings);
  const signal = options.signal ?? new AbortController().signal;
  const { budget = 0 } = settings as { readonly budget?: number };
  const ways = waysOf(settings, plan, budget);
  const partial = `${out}.part`;
  const attempt = `${out}.try`;
  const total = plan.frames.length;
  // Once as asked, then as often as halving takes.
  const attempts = 1 + Math.ceil(Math.log2(ways.length));
  let tried = 0;
  const tryWay = async ({ settings: own }: Way): Promise<RenderResult> => {
    const before = Math.min(tried++, attempts - 1);
    return made({ ...options, out: attempt }, own, signal, (share) => {
      const whole = ways.length === 1 ? share : (before + share) / attempts;
      onProgress?.({ done: Math.min(total, Math.round(whole * total)), total });
    });
  };
  // Meanwhile, so that it costs the render no time of its own.
  const problems = problemNotes(scene, stock, plan);
  problems.catch(() => undefined);
  const pictured = small === undefined ? Promise.resolve() : writeSmall(small, options, plan);
  pictured.catch(() => undefined);
  try {
    const first = await tryWay(ways[0] as Way);
    await rename(attempt, partial);
    let result = first;
    const notes: string[] = [];
    if (ways.length > 1 && first.bytes > budget * 1024) {
      let [low, high] = [1, ways.length - 1];
      let fits = false;
      while (low <= high) {
        const middle = (low + high) >> 1;
        const way = ways[middle] as Way;
        const next = await tryWay(way);
        const meets = next.bytes <= budget * 1024;
        if (meets || (!fits && next.bytes < result.bytes)) {
          await rename(attempt, partial);
          result = next;
          notes.splice(0, 1, `Made lighter, from ${kilobytes(first.bytes)} to ${kilobytes(next.bytes)}: ${way.says}.`);
        }
        if (meets) [high, fits] = [middle - 1, true];
        else low = middle + 1;
      }
      if (!fits) notes.push(`It could not be brought under ${budget} KB.`);
    } else if (budget > 0 && first.bytes > budget * 1024) {
      notes.push(`It weighs ${kilobytes(first.bytes)}, more than its budget of ${budget} KB.`);
    }
    await pictured;
    await rename(partial, out);
    return { ...result, notes: [...result.notes, ...notes, ...(await problems)] };
  } finally {
    await rm(partial, { force: true });
    await rm(attempt, { force: true });
  }
};
