/** Draws a run of frames in several threads and gives them in order. */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import type { DrawJob, DrawMessage, DrawReply } from './drawWorker';
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

/** Who hears of what a thread does. */
interface Hearing {
  readonly replied: (reply: DrawReply) => void;
  readonly failed: (error: Error) => void;
}

class Thread {
  private readonly worker = new Worker(bundleOf('drawWorker'));
  private hearing: Hearing | null = null;
  /** Whether it is of no more use. */
  ended = false;

  constructor() {
    this.worker.on('message', (reply: DrawReply) => this.hearing?.replied(reply));
    this.worker.on('error', (error) => {
      this.ended = true;
      this.hearing?.failed(error);
    });
  }

  say(message: DrawMessage, transfer: ArrayBuffer[] = []): void {
    this.worker.postMessage(message, transfer);
  }

  work(job: DrawJob, hearing: Hearing): void {
    this.hearing = hearing;
    this.worker.ref();
    this.say({ kind: 'scene', job });
  }

  /** Lets go of its scene, and keeps no process alive. */
  rest(): void {
    this.hearing = null;
    this.say({ kind: 'rest' });
    this.worker.unref();
  }

  async end(): Promise<void> {
    await this.worker.terminate();
  }
}

/** Those without work: starting one takes as long as many frames. */
const resting: Thread[] = [];

const takeThread = (): Thread => {
  for (let thread = resting.pop(); thread; thread = resting.pop()) if (!thread.ended) return thread;
  return new Thread();
};

/** As many as draw a long run. */
const MOST_THREADS = Math.min(availableParallelism(), 8);

/** Has the threads of the next run begin, which takes them as long as many frames. */
export const startThreads = (): void => {
  while (resting.length < MOST_THREADS) {
    const thread = new Thread();
    thread.rest();
    resting.push(thread);
  }
};

/**
 * Frames in order, drawn ahead by a few so that all threads stay busy while the reader encodes; memory
 * is bounded by that lead. When the reader stops, fails or aborts, threads that still draw are ended; the others rest.
 */
export async function* drawFrames(
  scene: Scene,
  stock: Stock,
  size: FrameSize,
  frames: readonly number[],
  signal: AbortSignal,
): AsyncGenerator<DrawnFrame> {
  const count = Math.max(1, Math.min(MOST_THREADS, frames.length));
  const lead = count * 2;
  const threads = Array.from({ length: count }, takeThread);
  const idle = new Set(threads);
  const spare: ArrayBuffer[] = [];
  const waiting = new Map<number, Waiting>();
  const results: Promise<ArrayBuffer>[] = [];
  let asked = 0;

  const failAll = (error: Error): void => {
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const dispatch = (taken: number): void => {
    for (const thread of idle) {
      if (asked >= frames.length || asked >= taken + lead) return;
      idle.delete(thread);
      const index = asked++;
      const buffer = spare.pop() ?? null;
      results[index] = new Promise((resolve, reject) => waiting.set(index, { resolve, reject }));
      // A rejection is met when the reader comes to the frame; until then it is not unhandled.
      results[index].catch(() => undefined);
      const request = { index, frame: frames[index] as number, buffer };
      thread.say({ kind: 'frame', request }, buffer ? [buffer] : []);
    }
  };
  let taken = 0;
  for (const thread of threads) {
    thread.work(
      { scene, stock, size },
      {
        replied: (reply) => {
          const waiter = waiting.get(reply.index);
          waiting.delete(reply.index);
          idle.add(thread);
          if ('error' in reply) {
            waiter?.reject(new RenderFailure(scene.name, frames[reply.index] as number, reply.error));
          } else waiter?.resolve(reply.buffer);
          dispatch(taken);
        },
        failed: (error) => failAll(new RenderFailure(scene.name, frames[taken] ?? null, error.message)),
      },
    );
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
    const isFree = (thread: Thread): boolean => idle.has(thread) && !thread.ended;
    for (const thread of threads.filter(isFree)) {
      thread.rest();
      resting.push(thread);
    }
    await Promise.all(threads.filter((thread) => !isFree(thread)).map((thread) => thread.end()));
  }
}
