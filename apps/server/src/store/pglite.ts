import { once } from 'node:events';
import { existsSync, readdirSync, renameSync, rmSync, statfsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { bundleOf } from '@kite/render/root';
import { type Db, DbFailure, type Queries, type Row } from './db';
import type { DbReply, DbRequest, DbWorkerData } from './dbWorker';

export class SqlError extends Error {
  constructor(
    message: string,
    /** SQLSTATE. */
    readonly code: string,
  ) {
    super(message);
    this.name = 'SqlError';
  }
}

const threadOn = (folder: string): Worker =>
  new Worker(bundleOf('dbWorker'), { workerData: { folder } satisfies DbWorkerData });

/**
 * Lays a new database out, beside its place until it is whole. It takes half a gigabyte that its thread would never give
 * back: one of its own does it, and ends.
 */
const layOut = async (folder: string): Promise<void> => {
  if (existsSync(join(folder, 'PG_VERSION'))) return;
  if (existsSync(folder) && readdirSync(folder).length > 0) {
    throw new DbFailure('damaged', `The database in ${folder} cannot be read: its PG_VERSION is missing`);
  }
  const making = `${folder}.new`;
  rmSync(making, { recursive: true, force: true });
  const worker = threadOn(making);
  worker.postMessage({ id: 0, kind: 'close', sql: '', params: [] } satisfies DbRequest);
  const [reply] = (await once(worker, 'message')) as [DbReply];
  await worker.terminate();
  if ('error' in reply) throw failureOf(new SqlError(reply.error, reply.code), making);
  renameSync(making, folder);
};

/** Below this a database has no room to work. */
const LEAST_ROOM = 4 * 2 ** 20;

const hasRoom = (folder: string): boolean => {
  try {
    const { bavail, bsize } = statfsSync(dirname(folder));
    return bavail * bsize > LEAST_ROOM;
  } catch {
    return true;
  }
};

const isFull = ({ code, message }: SqlError): boolean =>
  code === '53100' || /no space left|ENOSPC|errno: 51\b/i.test(message);

/** What a failed statement means, where it is not the statement's own fault. */
const failureOf = (error: SqlError, folder: string): Error => {
  if (isFull(error) || !hasRoom(folder)) return new DbFailure('full', `The disk of ${folder} is full.`);
  // Without an SQLSTATE it was not the database that answered.
  if (error.code === '') {
    return new DbFailure('damaged', `The database in ${folder} cannot be read: ${error.message}`);
  }
  return error;
};

/** A database in a folder. It has one connection: a transaction has it to itself until it ends. */
export const openPglite = (folder: string): Db => {
  /** The thread at work; null before the first statement, and after one that the database did not survive. */
  let thread: Promise<Worker> | null = null;
  const waiting = new Map<number, { resolve: (rows: Row[]) => void; reject: (error: Error) => void }>();
  let next = 0;

  /** Ends the thread, as kill -9 would: the next statement opens the database anew, from its log. */
  const giveUp = (worker: Worker, error: Error): void => {
    void worker.terminate();
    thread = null;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  const open = async (): Promise<Worker> => {
    await layOut(folder);
    const worker = threadOn(folder);
    worker.on('message', (reply: DbReply) => {
      const waiter = waiting.get(reply.id);
      waiting.delete(reply.id);
      if (!('error' in reply)) {
        waiter?.resolve(reply.rows);
        return;
      }
      const error = failureOf(new SqlError(reply.error, reply.code), folder);
      waiter?.reject(error);
      if (error instanceof DbFailure) giveUp(worker, error);
    });
    worker.on('error', (error) => giveUp(worker, failureOf(new SqlError(error.message, ''), folder)));
    return worker;
  };

  const send = async (kind: DbRequest['kind'], sql = '', params: readonly unknown[] = []): Promise<Row[]> => {
    thread ??= open();
    const opening = thread;
    const worker = await opening.catch((error: unknown) => {
      if (thread === opening) thread = null;
      throw error;
    });
    return new Promise((resolve, reject) => {
      const id = next++;
      waiting.set(id, { resolve, reject });
      worker.postMessage({ id, kind, sql, params } satisfies DbRequest);
    });
  };

  // Everything waits for what came before it.
  let tail: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const result = tail.then(work);
    tail = result.catch(() => undefined);
    return result;
  };
  const direct: Queries = {
    query: async <T extends object>(sql: string, params?: readonly unknown[]) =>
      (await send('query', sql, params)) as T[],
  };

  return {
    query: (sql, params) => inTurn(() => direct.query(sql, params)),
    exec: (sql) =>
      inTurn(async () => {
        try {
          return await send('exec', sql);
        } catch (error) {
          // A failed run of statements may have left its own transaction open.
          await send('exec', 'rollback').catch(() => undefined);
          throw error;
        }
      }),
    transaction: (work) =>
      inTurn(async () => {
        await send('exec', 'begin');
        try {
          const result = await work(direct);
          await send('exec', 'commit');
          return result;
        } catch (error) {
          await send('exec', 'rollback').catch(() => undefined);
          throw error;
        }
      }),
    close: () =>
      inTurn(async () => {
        await send('close');
        await (await thread)?.terminate();
      }),
  };
};
