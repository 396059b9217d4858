/** A thread that draws the frames it is asked for, of one scene after another. */
import { setImmediate as turn } from 'node:timers/promises';
import { parentPort } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import { reasonOf } from './failure';
import { type FrameDrawer, frameDrawer, type FrameSize } from './frames';
import { materialsFor, type Stock } from './materials';

export interface DrawJob {
  readonly scene: Scene;
  readonly stock: Stock;
  readonly size: FrameSize;
}
export interface DrawRequest {
  readonly index: number;
  readonly frame: number;
  /** A buffer to use again. */
  readonly buffer: ArrayBuffer | null;
}
/** What it draws from now on, a frame of that, or nothing until it is told of another. */
export type DrawMessage =
  | { readonly kind: 'scene'; readonly job: DrawJob }
  | { readonly kind: 'frame'; readonly request: DrawRequest }
  | { readonly kind: 'rest' };
export type DrawReply =
  | { readonly index: number; readonly buffer: ArrayBuffer; readonly drawMs: number }
  | { readonly index: number; readonly error: string };

const port = parentPort;
if (!port) throw new Error('drawWorker runs as a thread');
let drawing: Promise<FrameDrawer> | null = null;

const draw = async ({ index, frame, buffer }: DrawRequest): Promise<DrawReply> => {
  try {
    if (!drawing) throw new Error('there is no scene to draw');
    const drawer = await drawing;
    const from = performance.now();
    drawer.draw(frame);
    const pixels = drawer.pixels();
    const out = buffer ?? new ArrayBuffer(pixels.byteLength);
    new Uint8ClampedArray(out).set(pixels);
    return { index, buffer: out, drawMs: performance.now() - from };
  } catch (error) {
    return { index, error: reasonOf(error) };
  }
};

const reply = async (request: DrawRequest): Promise<void> => {
  const drawn = await draw(request);
  // Every picture that is read takes memory of its own. Nobody holds it any more: what is held while young is collected twice
  // counts as old, and lies about for seconds.
  globalThis.gc?.({ type: 'minor' });
  // It is given back by the event loop, which is not come to while one request is there after the other.
  await turn();
  port.postMessage(drawn, 'buffer' in drawn ? [drawn.buffer] : []);
};

port.on('message', (message: DrawMessage) => {
  if (message.kind === 'frame') void reply(message.request);
  else if (message.kind === 'rest') drawing = null;
  else {
    const { scene, stock, size } = message.job;
    drawing = materialsFor(scene, stock).then((materials) => frameDrawer(scene, materials, size));
    // What goes wrong is said of each frame.
    drawing.catch(() => undefined);
  }
});
