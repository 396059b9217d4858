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
import type { Db } from './db';
import { FileStore } from './files';
import { migrate } from './migrate';
import { openPglite } from './pglite';
import { ProjectStore } from './projects';

const folder = () => mkdtempSync(join(tmpdir(), 'kite-store-'));

describe('projects', () => {
  let db: Db;
  let projects: ProjectStore;
  beforeAll(async () => {
    db = openPglite(join(folder(), 'db'));
    await migrate(db);
    projects = new ProjectStore(db);
  });
  afterAll(() => db.close());

  const rename = (name: string) => applyEdit(demoProject(), renameProject(name)).patches;

  it('come back as they were stored, also from disk', async () => {
    const { document } = await projects.create(demoProject());
    const fresh = await new ProjectStore(db).head(document.id);
    expect(fresh.document.scenes).toEqual(demoProject().scenes);
    expect(fresh.revision).toBe(0);
  });
  it('grow by a revision with each save, each logged with its label', async () => {
    const { document } = await projects.create(demoProject());
    expect(await projects.save(document.id, { id: 'a', base: 0, label: 'One', patches: rename('One') })).toBe(1);
    expect(await projects.save(document.id, { id: 'b', base: 1, label: 'Two', patches: rename('Two') })).toBe(2);
    const log = await db.query('select label from edits where project_id = $1 order by revision', [document.id]);
    expect(log).toEqual([{ label: 'One' }, { label: 'Two' }]);
    expect((await projects.head(document.id)).document.name).toBe('Two');
  });
  it('take a save that comes twice once', async () => {
    const { document } = await projects.create(demoProject());
    const save = { id: 'same', base: 0, label: 'Rename', patches: rename('Once') };
    expect([await projects.save(document.id, save), await projects.save(document.id, save)]).toEqual([1, 1]);
  });
  it('let only one of many saves on the same base through', async () => {
    const { document } = await projects.create(demoProject());
    const saves = Array.from({ length: 8 }, (_, i) =>
      projects.save(document.id, { id: `s${i}`, base: 0, label: 'Race', patches: rename(`Name ${i}`) }).then(
        () => 'saved',
        (error: { code: string }) => error.code,
      ),
    );
    expect((await Promise.all(saves)).toSorted()).toEqual(['saved', ...Array<string>(7).fill('stale')].toSorted());
  });
  it('keep nothing of a save that is refused', async () => {
    const { document } = await projects.create(demoProject());
    const patches = [...rename('Half'), { op: 'replace' as const, path: ['version'], value: 0 }];
    await expect(projects.save(document.id, { id: 'x', base: 0, label: 'Bad', patches })).rejects.toThrow(
      'version: got 0',
    );
    expect((await new ProjectStore(db).head(document.id)).document.name).toBe('Quillhaven Night Tram');
    expect(await db.query('select 1 as one from edits where project_id = $1', [document.id])).toEqual([]);
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
    });
    expect(readConfig([], {}, '/root')).toMatchObject({ portAsked: false, host: '127.0.0.1', data: '/root/data' });
  });
  it.each(['x', '-1', '70000'])('refuses the port %s', (port) => {
    expect(() => readConfig([`--port=${port}`], {}, '/')).toThrow('wanted a whole number from 0 to 65535');
  });
});
