/** Pictures of what projects and starters begin with. Browsers keep them: a page of projects fetches no documents to be drawn. */
import { Worker } from 'node:worker_threads';
import { madeOnce } from '@kite/core/document/remembered';
import { stockOf } from '@kite/render/materials';
import { bundleOf } from '@kite/render/root';
import type { FileStore } from '../store/files';
import { type Asked, Line } from '../threads/line';
import type { PosterMethods } from './posterThread';
import type { ToLookAt } from './toLookAt';

/** A thread that nothing was asked of for so long is ended: it holds fonts and what draws. */
const IDLE_MS = 10_000;

interface PosterThread {
  readonly worker: Worker;
  readonly ask: Asked<PosterMethods>;
}

export class Posters {
  private thread: PosterThread | null = null;
  private readonly drawing = new Set<Promise<Uint8Array>>();
  private idle: NodeJS.Timeout | undefined;

  constructor(private readonly files: FileStore) {}

  private open(): PosterThread {
    const worker = new Worker(bundleOf('posterThread'));
    const opened = { worker, ask: new Line<PosterMethods>(worker).ask };
    worker.on('exit', () => {
      if (this.thread === opened) this.thread = null;
    });
    return opened;
  }

  /** A WebP of a project's poster. */
  project({ scene, assets }: ToLookAt): Promise<Uint8Array> {
    const stock = stockOf(assets, (sha) => this.files.pathOf(sha));
    return this.inThread((ask) => ask.project(scene, stock));
  }

  /** The same of a starter, drawn once. */
  readonly starter = madeOnce((id: string) => this.inThread((ask) => ask.starter(id)));

  private async inThread(work: (ask: PosterThread['ask']) => Promise<Uint8Array>): Promise<Uint8Array> {
    clearTimeout(this.idle);
    this.thread ??= this.open();
    const drawing = work(this.thread.ask);
    this.drawing.add(drawing);
    try {
      return await drawing;
    } finally {
      this.drawing.delete(drawing);
      if (this.drawing.size === 0) this.idle = setTimeout(() => void this.close(), IDLE_MS).unref();
    }
  }

  /** Ends the thread, once it has drawn what was asked for. */
  async close(): Promise<void> {
    await Promise.allSettled(this.drawing);
    clearTimeout(this.idle);
    const { thread } = this;
    // Whoever asks meanwhile gets a thread of its own.
    this.thread = null;
    await thread?.worker.terminate();
  }
}
