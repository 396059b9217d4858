/** The render queue: pg-boss over our own database; one render at a time, since one uses every core. */
import { EventEmitter } from 'node:events';
import type { Render } from '@kite/api/renders';
import { stockOf } from '@kite/render/materials';
import { formatOf } from '@kite/core/delivery/formats/table';
import { renderApart } from '@kite/render/process/renderApart';
import { Cancelled, reasonOf } from '@kite/render/failure';
import PgBoss from 'pg-boss';
import { Refused } from '../errors';
import type { Db } from '../store/db';
import type { FileStore } from '../store/files';
import type { RenderStore } from '../store/renders';

const QUEUE = 'render';
/** A render that takes the server down with it is not tried for ever. */
const MOST_ATTEMPTS = 3;
const PROGRESS_EVERY_MS = 200;

export class RenderQueue extends EventEmitter<{ change: [Render]; removed: [string] }> {
  private readonly boss: PgBoss;
  private worker = '';
  /** Whether the server ends: renders under way are taken up again by the next one. */
  private stopping = false;
  private running: { readonly id: string; readonly stop: AbortController } | null = null;

  constructor(
    db: Db,
    private readonly renders: RenderStore,
    private readonly files: FileStore,
    private readonly log: (error: unknown) => void,
    /** A render of which nothing is heard for so long is ended. */
    private readonly stalledAfterMs: number,
  ) {
    super();
    this.boss = new PgBoss({
      db: {
        executeSql: async (sql: string, values: unknown[]) => ({
          rows: values?.length ? await db.query(sql, values) : await db.exec(sql),
        }),
      } as PgBoss.Db,
    });
    this.boss.on('error', log);
  }

  /** Takes up what a killed server left, then starts working. */
  async start(): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(QUEUE);
    // Jobs that were active or waiting when the last server ended are sent anew, once each.
    await this.boss.purgeQueue(QUEUE);
    for (const { id } of await this.renders.unfinished()) {
      const row = await this.renders.get(id);
      if (row.attempts >= MOST_ATTEMPTS) {
        await this.renders.end(id, 'failed', `The server was ended ${row.attempts} times during this render.`);
      } else {
        if (row.status === 'running') await this.renders.requeue(id);
        await this.boss.send(QUEUE, { id }, { retryLimit: 0, expireInHours: 23 });
      }
    }
    this.worker = await this.boss.work<{ id: string }>(
      QUEUE,
      { batchSize: 1, pollingIntervalSeconds: 2 },
      async ([job]) => {
        if (job) await this.run(job.data.id);
      },
    );
  }

  async stop(): Promise<void> {
    this.stopping = true;
    this.running?.stop.abort();
    await this.boss.stop({ graceful: false, wait: true, close: false });
  }

  async add(row: Render): Promise<void> {
    await this.boss.send(QUEUE, { id: row.id }, { retryLimit: 0, expireInHours: 23 });
    this.emit('change', row);
    this.boss.notifyWorker(this.worker);
  }

  async cancel(id: string): Promise<Render> {
    const row = await this.renders.get(id);
    if (row.status !== 'queued' && row.status !== 'running') {
      throw new Refused('not_ready', 'This render has already ended.');
    }
    const ended = await this.renders.end(id, 'cancelled', null);
    if (this.running?.id === id) this.running.stop.abort();
    this.emit('change', ended);
    return ended;
  }

  async retry(id: string): Promise<Render> {
    const row = await this.renders.get(id);
    if (row.status !== 'failed' && row.status !== 'cancelled') {
      throw new Refused('not_ready', 'Only a render that failed or was cancelled can be tried again.');
    }
    const queued = await this.renders.requeue(id);
    await this.add(queued);
    return queued;
  }

  async remove(id: string): Promise<void> {
    const row = await this.renders.get(id);
    if (row.status === 'running' || row.status === 'queued') await this.cancel(id);
    await this.renders.remove(id);
    this.emit('removed', id);
  }

  async restore(id: string): Promise<Render> {
    const row = await this.renders.restore(id);
    this.emit('change', row);
    return row;
  }

  /** Ends the keeping of what was taken away before. */
  async forget(which: 'all' | 'old'): Promise<void> {
    for (const file of await this.renders.forget(which)) await this.files.remove(file);
  }

  private async run(id: string): Promise<void> {
    const stop = new AbortController();
    this.running = { id, stop };
    try {
      const row = await this.renders.get(id);
      if (row.status !== 'queued') return;
      const { scene, assets } = await this.renders.pictureOf(id);
      const stock = stockOf(assets, (sha) => this.files.pathOf(sha));
      this.emit('change', await this.renders.start(id));
      const out = this.files.workFile(`${id}-${row.attempts}.${formatOf(row.settings.format).extension}`);
      const small = `${out}.webp`;
      const result = await renderApart(
        { name: row.sceneName, scene, stock, settings: row.settings, out, small },
        { signal: stop.signal, stalledAfterMs: this.stalledAfterMs, onProgress: this.progressOf(id) },
      );
      const [file, picture] = [await this.files.take(out), await this.files.take(small)];
      this.emit('change', await this.renders.finish(id, result, file, picture));
    } catch (error) {
      await this.failed(id, error);
    } finally {
      this.running = null;
    }
  }

  /** Stores and tells progress a few times a second. */
  private progressOf(id: string): (progress: { readonly done: number }) => void {
    let told = 0;
    return ({ done }) => {
      if (Date.now() - told < PROGRESS_EVERY_MS) return;
      told = Date.now();
      this.renders.progress(id, done).then(
        (row) => this.emit('change', row),
        () => undefined,
      );
    };
  }

  private async failed(id: string, error: unknown): Promise<void> {
    // Its row may be back in the queue by now: what the cancelled run came to is not the row's any more.
    if (error instanceof Cancelled || this.stopping) return;
    // Removed or cancelled in the meantime: nothing is left to report on.
    if (error instanceof Refused && error.code === 'not_found') return;
    try {
      this.emit('change', await this.renders.end(id, 'failed', reasonOf(error)));
    } catch (again) {
      this.log(again);
    }
  }
}
