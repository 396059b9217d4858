/** A thread that draws the frames it is asked for. */
import { parentPort, workerData } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import { reasonOf } from './failure';
import { frameDrawer, type FrameSize } from './frames';
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
export type DrawReply =
  | { readonly index: number; readonly buffer: ArrayBuffer; readonly drawMs: number }
  | { readonly index: number; readonly error: string };

const port = parentPort;
if (!port) throw new Error('drawWorker runs as a thread');
const { scene, stock, size } = workerData as DrawJob;
const drawer = frameDrawer(scene, await materialsFor(scene, stock), size);

port.on('message', ({ index, frame, buffer }: DrawRequest) => {
  try {
    const from = performance.now();
    drawer.draw(frame);
    const pixels = drawer.pixels();
    const out = buffer ?? new ArrayBuffer(pixels.byteLength);
    new Uint8ClampedArray(out).set(pixels);
    port.postMessage({ index, buffer: out, drawMs: performance.now() - from } satisfies DrawReply, [out]);
  } catch (error) {
    port.postMessage({ index, error: reasonOf(error) } satisfies DrawReply);
  }
});
