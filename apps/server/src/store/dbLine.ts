/** The database as another thread has it: its statements go over a line to the thread that has the database. */
import type { Asked } from '../threads/line';
import type { Db, Queries, Row } from './db';

interface Transaction {
  readonly queries: Queries;
  readonly end: (how: 'commit' | 'rollback') => void;
  readonly ended: Promise<void>;
}

/** What the thread with the database lets the other ask. `over` is called once the other is gone. */
export const lentDb = (db: Db) => {
  const transactions = new Map<number, Transaction>();
  let next = 0;
  const begin = (): Promise<number> =>
    new Promise((begun, failed) => {
      const ended = db.transaction(
        (queries) =>
          new Promise<void>((commit, rollback) => {
            const id = next++;
            const end: Transaction['end'] = (how) => (how === 'commit' ? commit() : rollback(new RolledBack()));
            transactions.set(id, { queries, end, ended });
            begun(id);
          }),
      );
      ended.catch(failed);
    });
  const taken = (id: number): Transaction => {
    const found = transactions.get(id);
    if (!found) throw new Error('there is no such transaction');
    return found;
  };
  const end = async (id: number, how: 'commit' | 'rollback'): Promise<void> => {
    const transaction = taken(id);
    transactions.delete(id);
    transaction.end(how);
    await transaction.ended.catch((error: unknown) => {
      if (!(error instanceof RolledBack)) throw error;
    });
  };
  const methods = {
    query: (sql: string, params: readonly unknown[], within: number | null): Promise<Row[]> =>
      (within === null ? db : taken(within).queries).query(sql, params),
    exec: (sql: string): Promise<Row[]> => db.exec(sql),
    begin,
    end,
  };
  const over = (): void => {
    for (const { end } of transactions.values()) end('rollback');
    transactions.clear();
  };
  return { methods, over };
};
export type LentDb = ReturnType<typeof lentDb>['methods'];

/** Ends a transaction that the other side takes back. */
class RolledBack extends Error {}

export const borrowedDb = (line: Asked<LentDb>): Db => {
  const within = (id: number | null): Queries => ({
    query: async <T extends object>(sql: string, params: readonly unknown[] = []) =>
      (await line.query(sql, params, id)) as T[],
  });
  return {
    ...within(null),
    exec: (sql) => line.exec(sql),
    transaction: async (work) => {
      const id = await line.begin();
      try {
        const result = await work(within(id));
        await line.end(id, 'commit');
        return result;
      } catch (error) {
        await line.end(id, 'rollback').catch(() => undefined);
        throw error;
      }
    },
  };
};
