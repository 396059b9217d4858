import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeArchive } from '@kite/core/interchange/archive';
import { demoProject } from '@kite/demo/project';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openSite, type Site } from '../test/site';
import { importArchive } from './archives';
import { WatchedFolder } from './folder';

let site: Site;
beforeAll(async () => {
  site = await openSite('folder');
});
afterAll(() => site.close());

const archive = (name: string) => writeArchive({ ...demoProject(), name }, new Map());

const watched = async () => {
  const path = mkdtempSync(join(tmpdir(), 'kite-watched-'));
  const said: string[] = [];
  const folder = new WatchedFolder(
    path,
    (bytes) => importArchive(bytes, site),
    (text) => said.push(text),
  );
  await folder.prepare();
  return { path, said, folder };
};
const names = async () => (await site.projects.list()).map(({ name }) => name);

it('takes in what has come to rest, and puts it away', async () => {
  const { path, said, folder } = await watched();
  const whole = archive('Ferry');
  writeFileSync(join(path, 'ferry.kite'), whole.subarray(0, 100));
  await folder.look();
  // Still being written.
  writeFileSync(join(path, 'ferry.kite'), whole);
  writeFileSync(join(path, 'notes.txt'), 'Not an archive');
  await folder.look();
  expect(await names()).not.toContain('Ferry');
  await folder.look();
  expect(await names()).toContain('Ferry');
  expect(readdirSync(path).sort()).toEqual(['imported', 'notes.txt', 'refused']);
  expect(existsSync(join(path, 'imported/ferry.kite'))).toBe(true);
  expect(said).toEqual(['ferry.kite: imported as “Ferry”']);
});

it('takes in a zip of archives, as all projects are exported', async () => {
  const { path, folder } = await watched();
  writeFileSync(join(path, 'all.zip'), zipSync({ 'a.kite': archive('Quay'), 'b.kite': archive('Pier') }));
  await folder.look();
  await folder.look();
  expect(await names()).toEqual(expect.arrayContaining(['Quay', 'Pier']));
});

it('says why something was not taken in, beside it', async () => {
  const { path, said, folder } = await watched();
  writeFileSync(join(path, 'broken.kite'), 'PK but no zip');
  writeFileSync(join(path, 'other.zip'), zipSync({ 'song.mp3': strToU8('no project') }));
  await folder.look();
  await folder.look();
  expect(readdirSync(join(path, 'refused')).sort()).toEqual([
    'broken.kite',
    'broken.kite.txt',
    'other.zip',
    'other.zip.txt',
  ]);
  expect(readFileSync(join(path, 'refused/broken.kite.txt'), 'utf8')).toContain('is damaged or cut short');
  expect(said).toHaveLength(2);
});
