/** The thread that PGlite runs in, so that its work does not stall the server's own. */
import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { Line } from '../threads/line';
import type { Row } from './db';

export interface DbWorkerData {
  readonly folder: string;
}

const port = parentPort;
if (!port) throw new Error('dbWorker runs as a thread');
/** One connection and small documents need little: the defaults would take 200 MB more and never give them back. */
const SETTINGS = ['shared_buffers = 16MB', 'wal_buffers = 1MB', 'max_wal_size = 64MB', 'min_wal_size = 32MB'];
const opened = PGlite.create({ dataDir: (workerData as DbWorkerData).folder, postgresqlconf: SETTINGS });
// Whoever asks is told.
opened.catch(() => undefined);

const methods = {
  query: async (sql: string, params: readonly unknown[]): Promise<Row[]> =>
    (await (await opened).query<Row>(sql, [...params])).rows,
  exec: async (sql: string): Promise<Row[]> =>
    (await (await opened).exec(sql)).flatMap((result) => result.rows as Row[]),
  close: async (): Promise<void> => (await opened).close(),
};
export type DbMethods = typeof methods;

new Line(port, methods);
