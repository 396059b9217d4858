import { existsSync, readdirSync, renameSync, rmSync, statfsSync } from 'node:fs';
import { cp } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { appRoot, bundleOf } from '@kite/render/root';
import { Line } from '../threads/line';
import { DbFailure, type OpenDb, type Queries, SqlError } from './db';
import type { DbMethods, DbWorkerData } from './dbWorker';

const threadOn = (folder: string): Worker =>
  new Worker(bundleOf('dbWorker'), { workerData: { folder } satisfies DbWorkerData });

/** Lays a new database out, beside its place until it is whole: a copy of the empty one that the build made. */
const layOut = async (folder: string): Promise<void> => {
  if (existsSync(join(folder, 'PG_VERSION'))) return;
  if (existsSync(folder) && readdirSync(folder).length > 0) {
    throw new DbFailure('damaged', `The database in ${folder} cannot be read: its PG_VERSION is missing`);
  }
  const making = `${folder}.new`;
  rmSync(making, { recursive: true, force: true });
  try {
    await cp(join(appRoot(), 'dist/emptyDb'), making, { recursive: true });
  } catch (error) {
    throw failureOf(error as Error, making);
  }
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

const isFull = (error: Error): boolean =>
  (error instanceof SqlError && error.code === '53100') || /no space left|ENOSPC|errno: 51\b/i.test(error.message);

/** What a failed statement means, where it is not the statement's own fault. */
const failureOf = (error: Error, folder: string): Error => {
  if (error instanceof DbFailure) return error;
  if (isFull(error) || !hasRoom(folder)) return new DbFailure('full', `The disk of ${folder} is full.`);
  if (error instanceof SqlError) return error;
  // It was not the database that answered.
  return new DbFailure('damaged', `The database in ${folder} cannot be read: ${error.message}`);
};

interface DbThread {
  readonly worker: Worker;
  readonly line: Line<DbMethods>;
}

/** A database in a folder. It has one connection: a transaction has it to itself until it ends. */
export const openPglite = (folder: string): OpenDb => {
  /** The thread at work; null before the first statement, and after one that the database did not survive. */
  let thread: Promise<DbThread> | null = null;

  /** Ends the thread, as kill -9 would: the next statement opens the database anew, from its log. */
  const giveUp = ({ worker, line }: DbThread, error: Error): void => {
    void worker.terminate();
    thread = null;
    line.end(error);
  };
  const open = async (): Promise<DbThread> => {
    await layOut(folder);
    const worker = threadOn(folder);
    const opened = { worker, line: new Line<DbMethods>(worker) };
    worker.on('error', (error) => giveUp(opened, failureOf(error, folder)));
    return opened;
  };

  const send = async <T>(work: (line: Line<DbMethods>['ask']) => Promise<T>): Promise<T> => {
    thread ??= open();
    const opening = thread;
    const opened = await opening.catch((error: unknown) => {
      if (thread === opening) thread = null;
      throw error;
    });
    try {
      return await work(opened.line.ask);
    } catch (thrown) {
      const error = failureOf(thrown as Error, folder);
      if (error instanceof DbFailure && thread === opening) giveUp(opened, error);
      throw error;
    }
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
      (await send((line) => line.query(sql, params ?? []))) as T[],
  };

  return {
    query: (sql, params) => inTurn(() => direct.query(sql, params)),
    exec: (sql) =>
      inTurn(async () => {
        try {
          return await send((line) => line.exec(sql));
        } catch (error) {
          // A failed run of statements may have left its own transaction open.
          await send((line) => line.exec('rollback')).catch(() => undefined);
          throw error;
        }
      }),
    transaction: (work) =>
      inTurn(async () => {
        await send((line) => line.exec('begin'));
        try {
          const result = await work(direct);
          await send((line) => line.exec('commit'));
          return result;
        } catch (error) {
          await send((line) => line.exec('rollback')).catch(() => undefined);
          throw error;
        }
      }),
    close: () =>
      inTurn(async () => {
        await send((line) => line.close());
        await (await thread)?.worker.terminate();
      }),
  };
};
