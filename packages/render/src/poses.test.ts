/** A film of few pictures, each of which stays for its own time: read back from files. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defaultSettings } from '@kite/core/delivery/settings';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { addLayers } from '@kite/core/edits/layers';
import { addHeld, keepPose } from '@kite/core/edits/poses';
import { setValue } from '@kite/core/edits/properties';
import { strFromU8, unzipSync } from 'fflate';
import omggif from 'omggif';
import { describe, expect, it } from 'vitest';
import { ffmpegPath } from './ffmpeg';
import { EMPTY_STOCK } from './materials';
import { renderScene } from './render';

/** Frames of a hundredth of a second. */
const STAYS = [7, 11, 23, 50, 3, 100, 2, 31, 64, 9, 120];
const GREYS = STAYS.map((_, i) => 15 + 20 * i);
const hex = (grey: number) => `#${grey.toString(16).padStart(2, '0').repeat(3)}`.toUpperCase();
const [W, H] = [40, 20];

const scene = ((): Scene => {
  const size = { width: W, height: H, rate: { num: 100, den: 1 }, length: 50, background: '#000000' } as const;
  const bare = newScene('s', 'Eleven', size);
  const cards = [newItem('e', 'rectangle', { width: W, height: H }), newItem('f', 'fill', { color: hex(0) })];
  const poses = GREYS.flatMap((grey, i) => [
    setValue({ scene: 's', layer: 'l', item: 'f', key: 'color' }, hex(grey), { write: 'curve', frame: 0 }),
    keepPose('s', `p${i}`, `Grey ${i}`, 0),
  ]);
  const held = STAYS.map((hold, i) => ({ id: `h${i}`, pose: `p${i}`, hold, between: 0, each: 1 }));
  const edit = together('All', [
    addLayers('s', [newDrawing(bare, 'l', 'Plane', cards)]),
    ...poses,
    addHeld('s', held, 0),
  ]);
  return applyEdit(newProject('p', 'Project', [bare]), edit).doc.scenes.s as Scene;
})();

const folder = mkdtempSync(join(tmpdir(), 'kite-poses-'));
const rendered = async (part: Partial<RenderSettings>): Promise<string> => {
  const out = join(folder, `${part.format}`);
  const settings = { ...defaultSettings(part.format ?? 'gif', scene), ...part } as RenderSettings;
  await renderScene({ scene, stock: EMPTY_STOCK, settings, out });
  return out;
};

/** The greys of a file's frames at their rate, and how many frames each of them lasts. */
const runsOf = (file: string): { greys: number[]; runs: number[] } => {
  const args = ['-loglevel', 'error', '-i', file, '-f', 'rawvideo', '-pix_fmt', 'gray', '-'];
  const all = execFileSync(ffmpegPath(), args, { maxBuffer: 2 ** 26 });
  const [greys, runs]: [number[], number[]] = [[], []];
  for (let at = 0; at < all.length; at += W * H) {
    const grey = all[at + (W * H) / 2] as number;
    if (Math.abs(grey - (greys.at(-1) ?? -99)) > 8) {
      greys.push(grey);
      runs.push(0);
    }
    runs[runs.length - 1] = (runs.at(-1) ?? 0) + 1;
  }
  return { greys, runs };
};

describe('eleven pictures of unequal durations', () => {
  it('are as many in a GIF, each for its hundredths of a second', async () => {
    const reader = new omggif.GifReader(Buffer.from(readFileSync(await rendered({ format: 'gif' }))));
    const frames = Array.from({ length: reader.numFrames() }, (_, i) => reader.frameInfo(i));
    expect(frames.map(({ delay }) => delay)).toEqual(STAYS);
    const pixels = new Uint8Array(W * H * 4);
    const greys = frames.map((_, i) => {
      reader.decodeAndBlitFrameRGBA(i, pixels);
      return pixels[(W * H * 4) / 2];
    });
    expect(greys).toEqual(GREYS);
  });

  it('are keyframes alone in a banner', async () => {
    const script = strFromU8(unzipSync(readFileSync(await rendered({ format: 'html5' })))['scene.js'] as Uint8Array);
    expect(script).toContain(hex(GREYS[4] as number));
    expect(script).not.toMatch(/poses|Grey 4/);
  });

  it.each(['mp4', 'apng'] as const)('last as long in %s', async (format) => {
    const { greys, runs } = runsOf(await rendered({ format }));
    expect(runs).toEqual(STAYS);
    greys.forEach((grey, i) => expect(Math.abs(grey - (GREYS[i] as number))).toBeLessThan(4));
  });
});
