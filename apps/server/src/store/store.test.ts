import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { demoProject } from '@kite/demo/project';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../config';
import { lockFolder } from '../lock';
import type { OpenDb } from './db';
import { FileStore } from './files';
import { HistoryStore } from './history';
import { migrate } from './migrate';
import { openPglite } from './pglite';
import { ProjectStore } from './projects';

const folder = () => mkdtempSync(join(tmpdir(), 'kite-store-'));

describe('projects', () => {
  let db: OpenDb;
  let projects: ProjectStore;
  beforeAll(async () => {
    db = openPglite(join(folder(), 'db'));
    await migrate(db);
    projects = new ProjectStore(db);
  });
  afterAll(() => db.close());

  const rename = (name: string) => applyEdit(demoProject(), renameProject(name)).patches;
  const named = (id: string, name: string) => ({
    id,
    label: name.slice(0, 20),
    patches: [{ op: 'replace' as const, path: ['name'], value: name }],
  });

  it('come back as they were stored, also from disk', async () => {
    const { document } = await projects.create(demoProject());
    const fresh = await new ProjectStore(db).head(document.id);
    expect(fresh.document.scenes).toEqual(demoProject().scenes);
    expect(fresh.revision).toBe(0);
  });
  it('grow by a revision with each save, each logged with its label', async () => {
    const { document } = await projects.create(demoProject());
    expect(await projects.save(document.id, 0, [named('a', 'One')])).toEqual({ revision: 1, refused: [] });
    expect(await projects.save(document.id, 1, [named('b', 'Two')])).toEqual({ revision: 2, refused: [] });
    const log = await db.query('select label from edits where project_id = $1 order by revision', [document.id]);
    expect(log).toEqual([{ label: 'One' }, { label: 'Two' }]);
    expect((await projects.head(document.id)).document.name).toBe('Two');
  });
  it('take a save that comes twice once', async () => {
    const { document } = await projects.create(demoProject());
    const saves = [named('same', 'Once')];
    const answers = [await projects.save(document.id, 0, saves), await projects.save(document.id, 0, saves)];
    expect(answers.map((a) => a.revision)).toEqual([1, 1]);
  });
  it('say which saves are here already when others are stale', async () => {
    const { document } = await projects.create(demoProject());
    await projects.save(document.id, 0, [named('here', 'Here')]);
    const late = projects.save(document.id, 0, [named('here', 'Here'), named('not', 'Not yet')]);
    await expect(late).rejects.toMatchObject({ code: 'stale', details: { revision: 1, done: ['here'] } });
  });
  it('let only one of many saves on the same base through', async () => {
    const { document } = await projects.create(demoProject());
    const saves = Array.from({ length: 8 }, (_, i) =>
      projects.save(document.id, 0, [named(`s${i}`, `Name ${i}`)]).then(
        () => 'saved',
        (error: { code: string }) => error.code,
      ),
    );
    expect((await Promise.all(saves)).toSorted()).toEqual(['saved', ...Array<string>(7).fill('stale')].toSorted());
  });
  it('keep nothing of a save that is refused, and all of those beside it', async () => {
    const { document } = await projects.create(demoProject());
    const patches = [...rename('Half'), { op: 'replace' as const, path: ['version'], value: 0 }];
    const length = { op: 'replace' as const, path: ['scenes', document.order[0] as string, 'length'], value: 77 };
    const saves = [
      { id: 'x', label: 'Bad', patches },
      { id: 'y', label: 'Good', patches: [length] },
    ];
    const { revision, refused } = await projects.save(document.id, 0, saves);
    expect([revision, refused]).toEqual([
      1,
      [{ id: 'x', message: expect.stringContaining('version: got 0'), field: 'version' }],
    ]);
    const { document: now } = await new ProjectStore(db).head(document.id);
    expect([now.name, now.scenes[now.order[0] as string]?.length]).toEqual(['Quillhaven Night Tram', 77]);
    expect(await db.query('select label from edits where project_id = $1', [document.id])).toEqual([{ label: 'Good' }]);
  });
  it('are read from a snapshot and the log since, and the log is folded into snapshots', async () => {
    const { document } = await projects.create(demoProject());
    // A short text and a long one in turn, so that the log soon weighs more than the document.
    const long = (i: number) => `${'n'.repeat(190)}${i}`;
    const logged = () =>
      db.query<{ count: number }>('select count(*)::int as count from edits where project_id = $1', [document.id]);
    for (let i = 0; i < 40; i++) {
      if (i === 35) {
        // For a month all of them are kept.
        await projects.tidied();
        expect(await logged()).toEqual([{ count: 1_750 }]);
        await db.query(`update edits set created_at = now() - interval '31 days' where project_id = $1`, [document.id]);
      }
      const saves = Array.from({ length: 50 }, (_, n) => named(`${i}-${n}`, long(i * 50 + n)));
      await projects.save(document.id, i * 50, saves);
    }
    await projects.tidied();
    const [row] = await db.query<{ snapshot: number; log: number }>(
      `select snapshot::int as snapshot, (select count(*)::int from edits where project_id = id) as log
       from projects where id = $1`,
      [document.id],
    );
    expect(row?.snapshot).toBeGreaterThanOrEqual(1_500);
    // What a snapshot has the log keeps for a while, to know a save that comes twice.
    expect(row?.log).toBeLessThanOrEqual(1_500);
    const fresh = await new ProjectStore(db).head(document.id);
    expect([fresh.revision, fresh.document.name]).toEqual([2_000, long(1_999)]);
    const [card] = (await projects.list()).filter((p) => p.id === document.id);
    expect(card?.name).toBe(long(1_999));
  });
  it('of an older format are brought to today’s before the log goes on', async () => {
    const { document } = await projects.create(demoProject());
    const old = JSON.parse(JSON.stringify(document)) as { version: number; scenes: Record<string, { sets?: unknown }> };
    old.version = 3;
    for (const scene of Object.values(old.scenes)) delete scene.sets;
    await projects.save(document.id, 0, [named('before', 'Before')]);
    await db.query('update projects set document = $2::jsonb, snapshot = revision where id = $1', [
      document.id,
      JSON.stringify(old),
    ]);
    const first = new ProjectStore(db);
    const scene = document.order[0] as string;
    const set = { id: 'set', name: 'Bars', members: [] };
    const patches = [{ op: 'add' as const, path: ['scenes', scene, 'sets', 0], value: set }];
    await first.save(document.id, 1, [{ id: 'a', label: 'Make a set', patches }]);
    expect((await new ProjectStore(db).head(document.id)).document.scenes[scene]?.sets[0]).toEqual(set);
    // As far as it was of today's format it can be gone back to.
    const history = new HistoryStore(db, first);
    expect((await history.state(document.id, '1')).scenes[scene]?.sets).toEqual([]);
    await expect(history.state(document.id, '0')).rejects.toThrow('is no longer known');
  });
  it('that are deleted are gone until they are restored', async () => {
    const { document } = await projects.create(demoProject());
    await projects.setDeleted(document.id, true);
    await expect(projects.head(document.id)).rejects.toThrow('not here');
    await projects.setDeleted(document.id, false);
    expect((await projects.head(document.id)).document.id).toBe(document.id);
  });
});

describe('the lock', () => {
  it('is refused while its holder lives, naming it, and free after its release', () => {
    const data = folder();
    const release = lockFolder(data);
    expect(() => lockFolder(data)).toThrow(`process ${process.pid}`);
    release();
    lockFolder(data)();
    expect(existsSync(join(data, 'lock'))).toBe(false);
  });
  it('is taken over from a process that is dead, or whose number another process has', () => {
    const data = folder();
    const { pid } = spawnSync('true');
    writeFileSync(join(data, 'lock'), JSON.stringify({ pid, born: '1' }));
    lockFolder(data)();
    writeFileSync(join(data, 'lock'), JSON.stringify({ pid: process.pid, born: 'long ago' }));
    lockFolder(data)();
  });
});

describe('a data folder that cannot be used', () => {
  it.each([
    ['is a file', (data: string) => join(data, 'file'), 'is a file'],
    ['leads through a file', (data: string) => join(data, 'file', 'deeper'), 'leads through a file'],
  ])('is told in a sentence: %s', (_name, path, message) => {
    const data = folder();
    writeFileSync(join(data, 'file'), '');
    expect(() => lockFolder(path(data))).toThrow(message);
  });
  it('names the lock whose holder is not ours', () => {
    const data = folder();
    const release = lockFolder(data);
    expect(() => lockFolder(data)).toThrow(`delete ${join(data, 'lock')}`);
    release();
  });
});

describe('files', () => {
  it('are named by their SHA-256', async () => {
    const store = new FileStore(folder());
    await store.prepare();
    writeFileSync(store.workFile('x'), 'abc');
    // FIPS 180-4, the example of "abc".
    const sha = await store.take(store.workFile('x'));
    expect(sha).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    expect(existsSync(store.pathOf(sha))).toBe(true);
  });
});

describe('configuration', () => {
  it('comes from flags before the environment, and knows whether a port was asked for', () => {
    const env = { KITE_PORT: '5000', KITE_HOST: '0.0.0.0', KITE_DATA: '/tmp/k' };
    expect(readConfig(['--port', '6000'], env, '/root')).toEqual({
      port: 6000,
      portAsked: true,
      host: '0.0.0.0',
      data: '/tmp/k',
      names: [],
      newKey: false,
      stalledAfter: 600,
      watched: null,
    });
    expect(readConfig(['--allow-host', 'tram.example', '--allow-host', 'night.example'], {}, '/root').names).toEqual([
      'tram.example',
      'night.example',
    ]);
    expect(readConfig(['--watch', 'in'], {}, '/root').watched).toBe('/root/in');
    expect(readConfig([], {}, '/root')).toMatchObject({ portAsked: false, host: '127.0.0.1', data: '/root/data' });
  });
  it.each(['x', '-1', '70000'])('refuses the port %s', (port) => {
    expect(() => readConfig([`--port=${port}`], {}, '/')).toThrow('wanted a whole number from 0 to 65535');
  });
});
