/** The thread that PGlite runs in, so that its work does not stall the server's own. */
import { parentPort, workerData } from 'node:worker_threads';
import { Line } from '../threads/line';
import type { Row } from './db';
import { openPostgres } from './postgres';

export interface DbWorkerData {
  readonly folder: string;
}

const port = parentPort;
if (!port) throw new Error('dbWorker runs as a thread');
const opened = openPostgres((workerData as DbWorkerData).folder);
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
