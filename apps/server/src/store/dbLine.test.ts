/** The database lent to another thread, and errors that come back over the line. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Invalid } from '@kite/core/check/problem';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Refused } from '../errors';
import { Line } from '../threads/line';
import { type Db, DbFailure, type OpenDb, SqlError } from './db';
import { borrowedDb, lentDb, type LentDb } from './dbLine';
import { openPglite } from './pglite';

let db: OpenDb;
let lent: ReturnType<typeof lentDb>;
let borrowed: Db;
const { port1, port2 } = new MessageChannel();
beforeAll(async () => {
  db = openPglite(join(mkdtempSync(join(tmpdir(), 'kite-lent-')), 'db'));
  lent = lentDb(db);
  new Line(port1, lent.methods);
  borrowed = borrowedDb(new Line<LentDb>(port2).ask);
  await borrowed.exec('create table stops (name text primary key)');
});
afterAll(async () => {
  port1.close();
  await db.close();
});

const names = async (): Promise<unknown> => (await db.query('select name from stops order by name')).map((r) => r.name);
const insert = 'insert into stops values ($1)';

describe('a lent database', () => {
  it('keeps what a transaction ends with, and nothing of one that fails', async () => {
    await borrowed.transaction(async (tx) => void (await tx.query(insert, ['Depot'])));
    const failing = borrowed.transaction(async (tx) => {
      await tx.query(insert, ['Harbour']);
      throw new Invalid('no such stop', 'name');
    });
    await expect(failing).rejects.toMatchObject({ message: 'no such stop', field: 'name' });
    const twice = borrowed.transaction(async (tx) => {
      await tx.query(insert, ['Square']);
      await tx.query(insert, ['Depot']);
    });
    // 23505 is unique_violation in PostgreSQL's appendix A.
    await expect(twice).rejects.toMatchObject({ name: 'SqlError', code: '23505' });
    expect(await names()).toEqual(['Depot']);
  });
  it('lets nothing in between the statements of a transaction', async () => {
    let other: Promise<unknown> = Promise.resolve();
    const begun = borrowed.transaction(async (tx) => {
      await tx.query(insert, ['Bridge']);
      other = db.query(insert, ['Tower']);
      return tx.query('select count(*)::int as count from stops');
    });
    expect(await begun).toEqual([{ count: 2 }]);
    await other;
    expect(await names()).toEqual(['Bridge', 'Depot', 'Tower']);
  });
  it('takes back what a thread that is gone had begun, and goes on', async () => {
    const before = await names();
    let begun = (): void => undefined;
    const under = new Promise<void>((resolve) => (begun = resolve));
    const never = borrowed.transaction(async (tx) => {
      await tx.query(insert, ['Quarry']);
      begun();
      return new Promise(() => undefined);
    });
    await under;
    lent.over();
    expect(await names()).toEqual(before);
    void never;
  });
});

describe('a line', () => {
  it.each([
    new Invalid('got 7', 'scenes.a'),
    new Refused('stale', 'changed elsewhere', { revision: 3 }),
    new DbFailure('full', 'no room'),
    new SqlError('twice', '23505'),
    new TypeError('a fault of ours'),
  ])('brings errors over with all that they say: %s', async (error) => {
    const channel = new MessageChannel();
    new Line(channel.port1, {
      work: () => {
        throw error;
      },
    });
    const got = await new Line<{ work: () => Error }>(channel.port2).ask.work().catch((e: Error) => e);
    channel.port1.close();
    expect(got).toMatchObject({ ...error, message: error.message });
    // Of what nobody knows only the words come over.
    expect(got.name).toBe(error.name === 'TypeError' ? 'Error' : error.name);
  });
  it('that ends fails what was under way', async () => {
    const channel = new MessageChannel();
    const line = new Line<{ work: () => void }>(channel.port2);
    const asked = line.ask.work();
    line.end(new Error('the thread ended'));
    await expect(asked).rejects.toThrow('the thread ended');
    channel.port1.close();
  });
});
