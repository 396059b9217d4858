/** The thread that draws posters. */
import { parentPort } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import type { AtHand, Stock } from '@kite/render/materials';
import { smallPicture } from '@kite/render/small';
import { begunFrom } from '../archive/starterArchive';
import { Line } from '../threads/line';
import { firstScene } from './toLookAt';

/** Pixels: of a project's card, at two for each of CSS. */
const BOX = { width: 560, height: 315 };

const drawn = async (scene: Scene, atHand: AtHand): Promise<Uint8Array> => {
  const scale = Math.min(BOX.width / scene.width, BOX.height / scene.height);
  // One of its own: bytes that go over leave nothing behind.
  return Uint8Array.from(await smallPicture(scene, atHand, scene.poster, scale, null));
};

/** Each gives a WebP. */
const methods = {
  project: (scene: string, stock: Stock): Promise<Uint8Array> => drawn(JSON.parse(scene) as Scene, stock),
  starter: async (id: string): Promise<Uint8Array> => {
    const { project, files } = await begunFrom(id);
    return drawn(firstScene(project), { assets: project.assets, files: Object.fromEntries(files) });
  },
};
export type PosterMethods = typeof methods;

const port = parentPort;
if (!port) throw new Error('posterThread runs as a thread');
new Line(port, methods);
