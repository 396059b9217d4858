/** The thread that PGlite runs in, so that its work does not stall the server's own. */
import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import type { Row } from './db';

export interface DbRequest {
  readonly id: number;
  readonly kind: 'query' | 'exec' | 'close';
  readonly sql: string;
  readonly params: readonly unknown[];
}
export interface DbWorkerData {
  readonly folder: string;
}
export type DbReply =
  | { readonly id: number; readonly rows: Row[] }
  | { readonly id: number; readonly error: string; readonly code: string };

const port = parentPort;
if (!port) throw new Error('dbWorker runs as a thread');
/** One connection and small documents need little: the defaults would take 200 MB more and never give them back. */
const SETTINGS = ['shared_buffers = 16MB', 'wal_buffers = 1MB', 'max_wal_size = 64MB', 'min_wal_size = 32MB'];
const opened = PGlite.create({ dataDir: (workerData as DbWorkerData).folder, postgresqlconf: SETTINGS });
// Whoever asks is told.
opened.catch(() => undefined);

const run = async ({ kind, sql, params }: DbRequest): Promise<Row[]> => {
  const db = await opened;
  switch (kind) {
    case 'query':
      return (await db.query<Row>(sql, [...params])).rows;
    case 'exec':
      return (await db.exec(sql)).flatMap((result) => result.rows as Row[]);
    case 'close':
      await db.close();
      return [];
  }
};

port.on('message', (request: DbRequest) => {
  run(request).then(
    (rows) => port.postMessage({ id: request.id, rows } satisfies DbReply),
    (error: unknown) => {
      const { message, code = '' } = error as { message: string; code?: string };
      port.postMessage({ id: request.id, error: message, code } satisfies DbReply);
    },
  );
});
