import { Worker } from 'node:worker_threads';
import { bundleOf } from '@kite/render/root';
import type { Db, Queries, Row } from './db';
import type { DbReply, DbRequest } from './dbWorker';

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

/** A database in a folder. It has one connection: a transaction has it to itself until it ends. */
export const openPglite = (folder: string): Db => {
  const worker = new Worker(bundleOf('dbWorker'), { workerData: { folder } });
  const waiting = new Map<number, { resolve: (rows: Row[]) => void; reject: (error: Error) => void }>();
  let next = 0;
  const fail = (error: Error) => {
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  worker.on('message', (reply: DbReply) => {
    const waiter = waiting.get(reply.id);
    waiting.delete(reply.id);
    if ('error' in reply) waiter?.reject(new SqlError(reply.error, reply.code));
    else waiter?.resolve(reply.rows);
  });
  worker.on('error', fail);
  worker.on('exit', () => fail(new Error('the database thread ended')));

  const send = (kind: DbRequest['kind'], sql = '', params: readonly unknown[] = []): Promise<Row[]> =>
    new Promise((resolve, reject) => {
      const id = next++;
      waiting.set(id, { resolve, reject });
      worker.postMessage({ id, kind, sql, params } satisfies DbRequest);
    });

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
        await worker.terminate();
      }),
  };
};
