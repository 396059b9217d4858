import { PGlite } from '@electric-sql/pglite';

/** One connection and small documents need little: the defaults would take 200 MB more and never give them back. */
const SETTINGS = ['shared_buffers = 16MB', 'wal_buffers = 1MB', 'max_wal_size = 64MB', 'min_wal_size = 32MB'];

/** Opens the database in a folder, which is laid out first where there is none. */
export const openPostgres = (folder: string): Promise<PGlite> =>
  PGlite.create({ dataDir: folder, postgresqlconf: SETTINGS });
