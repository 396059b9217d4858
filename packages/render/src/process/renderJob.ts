/** A process that renders one job after another: whoever asked for it goes on whatever happens here. */
import { Worker } from 'node:worker_threads';
import type { Scene } from '@kite/core/document/types';
import { startThreads } from '../drawPool';
import { reasonOf } from '../failure';
import type { RenderResult } from '@kite/core/delivery/types';
import { renderScene, type RenderOptions, type RenderProgress } from '../render';
import { bundleOf } from '../root';

export interface RenderJob extends Omit<RenderOptions, 'scene' | 'signal' | 'onProgress'> {
  /** Of the scene. */
  readonly name: string;
  /** As JSON: whoever asks need not have it as objects. */
  readonly scene: string;
}
/** What a process is asked: to render, or to have ready what renders draw with. */
export type JobRequest = { readonly kind: 'render'; readonly job: RenderJob } | { readonly kind: 'prepare' };
export type JobMessage =
  | { readonly kind: 'progress'; readonly progress: RenderProgress }
  | { readonly kind: 'done'; readonly result: RenderResult }
  | { readonly kind: 'failed'; readonly reason: string };

const say = (message: JobMessage) =>
  new Promise<void>((resolve) => (process.send ? process.send(message, () => resolve()) : resolve()));

/** What is rendered now. */
let stop: AbortController | null = null;
process.on('SIGTERM', () => (stop ? stop.abort() : process.exit(0)));
// A terminal interrupts every process of its own; the one that asked says what is to become of this one.
process.on('SIGINT', () => undefined);
// Without who asked there is nobody to render for. This thread may be too busy to hear of it: another one watches.
process.on('disconnect', () => process.exit(1));
new Worker(bundleOf('orphanWatch'), { workerData: process.ppid }).unref();

const render = async ({ scene, stock, settings, out, small }: RenderJob): Promise<void> => {
  stop = new AbortController();
  try {
    const result = await renderScene({
      scene: JSON.parse(scene) as Scene,
      stock,
      settings,
      out,
      ...(small !== undefined && { small }),
      signal: stop.signal,
      onProgress: (progress) => void say({ kind: 'progress', progress }),
    });
    stop = null;
    await say({ kind: 'done', result });
  } catch (error) {
    await say({ kind: 'failed', reason: reasonOf(error) });
    // What went wrong is not to go on into what comes next.
    process.exit(0);
  }
};

process.on('message', (request: JobRequest) => {
  if (request.kind === 'render') void render(request.job);
  else startThreads();
});
