/** Renders in a process of its own, which is ended if it does not end by itself. */
import { type ChildProcess, fork } from 'node:child_process';
import { rm } from 'node:fs/promises';
import { Cancelled, RenderFailure } from '../failure';
import type { RenderResult } from '@kite/core/delivery/types';
import type { RenderProgress } from '../render';
import { bundleOf } from '../root';
import type { JobMessage, RenderJob } from './renderJob';

export interface ApartOptions {
  readonly signal?: AbortSignal;
  readonly onProgress?: (progress: RenderProgress) => void;
  /** A render of which nothing is heard for so long is ended. */
  readonly stalledAfterMs?: number;
}

export const STALLED_AFTER_MS = 10 * 60_000;
/** How long a process that was told to end may take to clear up. */
const PATIENCE_MS = 1_000;

const spoken = (ms: number) => (ms < 60_000 ? `${ms / 1_000} seconds` : `${Math.round(ms / 60_000)} minutes`);

/** Rejects with Cancelled within about a second of the signal, and with RenderFailure for anything that goes wrong. */
export const renderApart = async (
  job: RenderJob,
  { signal, onProgress, stalledAfterMs = STALLED_AFTER_MS }: ApartOptions = {},
): Promise<RenderResult> => {
  if (signal?.aborted) throw new Cancelled();
  const child: ChildProcess = fork(bundleOf('renderJob'), { serialization: 'advanced' });
  let result: RenderResult | null = null;
  let reason = 'The render process ended without a word. It may have run out of memory.';
  let told = false;
  const timers = new Set<ReturnType<typeof setTimeout>>();
  const later = (work: () => void, ms: number) => {
    const timer = setTimeout(work, ms);
    timers.add(timer);
    return timer;
  };
  const stalled = () => {
    reason = `It made no progress for ${spoken(stalledAfterMs)} and was ended.`;
    child.kill('SIGKILL');
  };
  let watch = later(stalled, stalledAfterMs);
  const stop = () => {
    child.kill('SIGTERM');
    later(() => child.kill('SIGKILL'), PATIENCE_MS);
  };
  signal?.addEventListener('abort', stop);
  child.on('message', (message: JobMessage) => {
    clearTimeout(watch);
    watch = later(stalled, stalledAfterMs);
    if (message.kind === 'done') result = message.result;
    else if (message.kind === 'failed') [reason, told] = [message.reason, true];
    else onProgress?.(message.progress);
  });
  await new Promise<void>((ended) => {
    child.on('error', (error) => {
      reason = error.message;
      ended();
    });
    child.on('exit', () => ended());
    child.send(job, (error) => {
      if (error) reason = error.message;
    });
  });
  signal?.removeEventListener('abort', stop);
  for (const timer of timers) clearTimeout(timer);
  if (result) return result;
  // What a process that was killed had half-made.
  for (const part of ['part', 'try']) await rm(`${job.out}.${part}`, { force: true });
  if (signal?.aborted) throw new Cancelled();
  const failure = new RenderFailure(job.name, null, reason);
  // What the process said names the scene already.
  if (told) failure.message = reason;
  throw failure;
};
