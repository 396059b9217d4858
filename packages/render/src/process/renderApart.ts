/** Renders in a process of its own, which is ended if it does not end by itself, and kept for a while if it does. */
import { type ChildProcess, fork } from 'node:child_process';
import { rm } from 'node:fs/promises';
import { Cancelled, RenderFailure } from '../failure';
import type { RenderResult } from '@kite/core/delivery/types';
import type { RenderProgress } from '../render';
import { bundleOf } from '../root';
import type { JobMessage, JobRequest, RenderJob } from './renderJob';

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

/** How long a process that has done waits for something else to do: a new one takes most of a second to its first frame. */
const KEPT_MS = 60_000;

/** The one that waits, which keeps nobody alive. */
let kept: { readonly child: ChildProcess; readonly until: NodeJS.Timeout } | null = null;
/** How many render. */
let working = 0;

const letGo = (): void => {
  clearTimeout(kept?.until);
  kept = null;
};

const started = (): ChildProcess => {
  // Threads that draw let go of what they read from a canvas at once.
  const execArgv = [...process.execArgv, '--expose-gc'];
  const child = fork(bundleOf('renderJob'), { serialization: 'advanced', execArgv });
  child.on('exit', () => {
    if (kept?.child === child) letGo();
  });
  // Whoever it works for listens as well.
  child.on('error', () => undefined);
  return child;
};

const takeProcess = (): ChildProcess => {
  if (!kept) return started();
  const { child } = kept;
  letGo();
  child.ref();
  child.channel?.ref();
  return child;
};

const keep = (child: ChildProcess): void => {
  // One that was told to end may not have heard of it yet.
  if (kept || child.killed || !child.connected) {
    child.kill('SIGKILL');
    return;
  }
  child.unref();
  child.channel?.unref();
  kept = { child, until: setTimeout(() => child.kill('SIGKILL'), KEPT_MS).unref() };
};

/** Has a process wait for what is about to be asked for. One that renders is followed by itself. */
export const prepareRender = (): void => {
  if (working > 0) return;
  const child = takeProcess();
  child.send({ kind: 'prepare' } satisfies JobRequest);
  keep(child);
};

/** Rejects with Cancelled within about a second of the signal, and with RenderFailure for anything that goes wrong. */
export const renderApart = async (
  job: RenderJob,
  { signal, onProgress, stalledAfterMs = STALLED_AFTER_MS }: ApartOptions = {},
): Promise<RenderResult> => {
  if (signal?.aborted) throw new Cancelled();
  const child = takeProcess();
  working++;
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
  let ended = (): void => undefined;
  const heard = (message: JobMessage) => {
    clearTimeout(watch);
    watch = later(stalled, stalledAfterMs);
    if (message.kind === 'failed') [reason, told] = [message.reason, true];
    else if (message.kind === 'progress') onProgress?.(message.progress);
    else {
      result = message.result;
      ended();
    }
  };
  const broken = (error: Error) => {
    reason = error.message;
    ended();
  };
  await new Promise<void>((resolve) => {
    ended = resolve;
    child.on('message', heard).on('error', broken).on('exit', ended);
    child.send({ kind: 'render', job } satisfies JobRequest, (error) => {
      if (error) reason = error.message;
    });
  });
  child.off('message', heard).off('error', broken).off('exit', ended);
  signal?.removeEventListener('abort', stop);
  for (const timer of timers) clearTimeout(timer);
  working--;
  if (result) {
    keep(child);
    return result;
  }
  // What a process that was killed had half-made.
  for (const part of ['part', 'try']) await rm(`${job.out}.${part}`, { force: true });
  if (signal?.aborted) throw new Cancelled();
  const failure = new RenderFailure(job.name, null, reason);
  // What the process said names the scene already.
  if (told) failure.message = reason;
  throw failure;
};
