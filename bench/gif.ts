/** How long a GIF and a sequence of PNGs take beside the MP4 of the same scene, and how near the GIF is to what was drawn. */
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { Format } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import type { Scene } from '@kite/core/document/types';
import { ffmpegPath } from '@kite/render/ffmpeg';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { renderScene } from '@kite/render/render';

const seconds = async (scene: Scene, format: Format, out: string): Promise<number> => {
  const start = performance.now();
  await renderScene({ scene, stock: EMPTY_STOCK, settings: defaultSettings(format, scene), out });
  return (performance.now() - start) / 1_000;
};

/** Peak signal to noise of the red, green and blue of all frames, in decibels. */
const decibels = async (scene: Scene, file: string): Promise<number> => {
  const { width, height, length } = scene;
  const drawer = frameDrawer(scene, await materialsFor(scene, EMPTY_STOCK), {
    width,
    height,
    drawn: scene,
    under: null,
  });
  const args = ['-loglevel', 'error', '-i', file, '-vsync', '0', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'];
  const shown = execFileSync(ffmpegPath(), args, { maxBuffer: 2 ** 31 - 1 });
  let sum = 0;
  const size = width * height * 4;
  for (let frame = 0; frame < length; frame++) {
    drawer.draw(frame);
    const drawn = drawer.pixels();
    for (let i = 0; i < size; i++) if ((i & 3) !== 3) sum += (drawn[i]! - shown[frame * size + i]!) ** 2;
  }
  return 10 * Math.log10(255 ** 2 / (sum / (length * width * height * 3)));
};

const round = (v: number): number => Number(v.toFixed(2));

export const measureGif = async (
  scene: Scene,
  folder: string,
): Promise<{ gifToMp4: number; gifDb: number; gifSeconds: number; framesToMp4: number }> => {
  const file = join(folder, 'timed.gif');
  const mp4 = await seconds(scene, 'mp4', join(folder, 'timed.mp4'));
  const gif = await seconds(scene, 'gif', file);
  const frames = await seconds(scene, 'frames', join(folder, 'timed.zip'));
  // Raw frames of a part are enough, and fit into memory.
  const part = { ...scene, length: Math.min(scene.length, 60) };
  await seconds(part, 'gif', file);
  return {
    gifToMp4: round(gif / mp4),
    gifDb: round(await decibels(part, file)),
    gifSeconds: round(gif),
    framesToMp4: round(frames / mp4),
  };
};
