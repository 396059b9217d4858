/** How long one waits for a file: of a process that has to begin, and of one that has rendered before. */
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { defaultSettings } from '@kite/core/delivery/settings';
import type { Scene } from '@kite/core/document/types';
import { EMPTY_STOCK } from '@kite/render/materials';
import { prepareRender, renderApart } from '@kite/render/process/renderApart';
import { median } from './median';
import { residentMiB, started } from './resident';

const FORMATS = ['png', 'html5', 'gif', 'mp4'] as const;
type Format = (typeof FORMATS)[number];
/** As an ad server has it. */
const SMALL = { html5: 0.15625, gif: 0.15625 } as const;

const waitFor = async (scene: Scene, format: Format, out: string, more: object = {}): Promise<number> => {
  const scaled = format in SMALL && { scale: SMALL[format as keyof typeof SMALL] };
  const settings = { ...defaultSettings(format, scene), ...scaled, ...more } as never;
  const start = performance.now();
  await renderApart({ name: scene.name, scene: JSON.stringify(scene), stock: EMPTY_STOCK, out, settings });
  return Math.round(performance.now() - start);
};

/** Nothing waits for what comes next any more: a render that fails takes its process with it. */
const coolDown = (scene: Scene, out: string) =>
  waitFor(scene, 'png', out, { frame: scene.length }).catch(() => undefined);

/** Somebody reads a dialog meanwhile. */
const READING_MS = 3_000;

/** What a process that renders 600 frames as a video holds, the encoder apart: the median and the most. */
export const measureResident = async (scene: Scene, folder: string) => {
  const out = join(folder, 'long.mp4');
  await coolDown(scene, out);
  const done = waitFor({ ...scene, length: 600 }, 'mp4', out);
  const held: number[] = [];
  let ended = false;
  void done.finally(() => (ended = true));
  while (!ended) {
    held.push(...started('renderJob').map(residentMiB).filter(Number.isFinite));
    await setTimeout(100);
  }
  return { renderResidentMiB: { median: median(held), most: Math.max(...held) } };
};

/** In ms: in a new process, in one that was prepared, and the median of the next three. */
export const measureRenders = async (scene: Scene, folder: string) => {
  const firstMs: Partial<Record<Format, number>> = {};
  const preparedMs: Partial<Record<Format, number>> = {};
  const nextMs: Partial<Record<Format, number>> = {};
  for (const format of FORMATS) {
    const out = join(folder, `file.${format}`);
    await coolDown(scene, out);
    firstMs[format] = await waitFor(scene, format, out);
    await coolDown(scene, out);
    prepareRender();
    await setTimeout(READING_MS);
    preparedMs[format] = await waitFor(scene, format, out);
    const next: number[] = [];
    for (let n = 0; n < 3; n++) next.push(await waitFor(scene, format, out));
    nextMs[format] = median(next);
  }
  return { renderFirstMs: firstMs, renderPreparedMs: preparedMs, renderNextMs: nextMs };
};
