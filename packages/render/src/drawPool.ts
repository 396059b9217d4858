/** Draws a run of frames in several threads and gives them in order. */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import type { DrawJob, DrawReply, DrawRequest } from './drawWorker';
import { Cancelled, RenderFailure } from './failure';
import type { FrameSize } from './frames';
import type { Stock } from './materials';
import { bundleOf } from './root';

export interface DrawnFrame {
  readonly index: number;
  /** RGBA, straight alpha. Valid until the next frame is asked for. */
  readonly pixels: Uint8Array;
}

interface Waiting {
  readonly resolve: (buffer: ArrayBuffer) => void;
  readonly reject: (error: Error) => void;
}

const start = (job: DrawJob): Worker => new Worker(bundleOf('drawWorker'), { workerData: job });

/**
 * Frames in order, drawn ahead by a few so that all threads stay busy while the reader encodes; memory
 * is bounded by that lead. Stops its threads when the reader stops, fails or aborts.
 */
export async function* drawFrames(
  scene: Scene,
  stock: Stock,
  size: FrameSize,
  frames: readonly number[],
  signal: AbortSignal,
): AsyncGenerator<DrawnFrame> {
  const threads = Math.max(1, Math.min(availableParallelism(), frames.length, 8));
  const lead = threads * 2;
  const workers = Array.from({ length: threads }, () => start({ scene, stock, size }));
  const idle = [...workers];
  const spare: ArrayBuffer[] = [];
  const waiting = new Map<number, Waiting>();
  const results: Promise<ArrayBuffer>[] = [];
  let asked = 0;

  const failAll = (error: Error): void => {
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const dispatch = (taken: number): void => {
    while (idle.length > 0 && asked < frames.length && asked < taken + lead) {
      const worker = idle.pop() as Worker;
      const index = asked++;
      const buffer = spare.pop() ?? null;
      results[index] = new Promise((resolve, reject) => waiting.set(index, { resolve, reject }));
      // A rejection is met when the reader comes to the frame; until then it is not unhandled.
      results[index].catch(() => undefined);
      worker.postMessage(
        { index, frame: frames[index] as number, buffer } satisfies DrawRequest,
        buffer ? [buffer] : [],
      );
    }
  };
  let taken = 0;
  for (const worker of workers) {
    worker.on('message', (reply: DrawReply) => {
      const waiter = waiting.get(reply.index);
      waiting.delete(reply.index);
      idle.push(worker);
      if ('error' in reply) {
        waiter?.reject(new RenderFailure(scene.name, frames[reply.index] as number, reply.error));
      } else waiter?.resolve(reply.buffer);
      dispatch(taken);
    });
    worker.on('error', (error) => failAll(new RenderFailure(scene.name, frames[taken] ?? null, error.message)));
  }
  const onAbort = () => failAll(new Cancelled());
  signal.addEventListener('abort', onAbort);
  try {
    for (taken = 0; taken < frames.length; taken++) {
      if (signal.aborted) throw new Cancelled();
      dispatch(taken);
      const buffer = await (results[taken] as Promise<ArrayBuffer>);
      delete results[taken];
      yield { index: taken, pixels: new Uint8Array(buffer) };
      spare.push(buffer);
    }
  } finally {
    signal.removeEventListener('abort', onAbort);
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
