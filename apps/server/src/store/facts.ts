/** What is known of a data folder, by name. */
import type { Db } from './db';

/** Runs `work` the first time it is asked for under this name. */
export const once = async (db: Db, name: string, work: () => Promise<void>): Promise<void> => {
  const [row] = await db.query('select 1 as one from facts where name = $1', [name]);
  if (row) return;
  await work();
  await db.query('insert into facts (name, value) values ($1, $2)', [name, new Date().toISOString()]);
};
