/** What becomes of renders when the server ends in the middle of them. */
import type { Render } from '@kite/api/renders';
import { defaultSettings } from '@kite/core/delivery/settings';
import type { Scene } from '@kite/core/document/types';
import { demoProject } from '@kite/demo/project';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openSite, type Site } from '../test/site';
import { RenderQueue } from './queue';

let site: Site;
const faults: unknown[] = [];
const nextServer = () => new RenderQueue(site.db, site.renders, site.files, (error) => void faults.push(error), 60_000);
beforeAll(async () => {
  site = await openSite('queue');
});
afterAll(() => site.close());

const project = demoProject();
const scene = project.scenes[project.order[0] as string] as Scene;
const ask = (format: 'mp4' | 'png', scale = 1): Promise<Render> =>
  site.renders.create({
    projectId: project.id,
    projectName: project.name,
    scene: JSON.stringify(scene),
    assets: {},
    settings: { ...defaultSettings(format, scene), scale },
    total: 1,
    delivery: null,
    version: null,
    fileName: scene.name,
    madeOf: '',
    batch: null,
    askedBy: '',
  });
const reached = (queue: RenderQueue, id: string, state: Render['status']): Promise<Render> =>
  new Promise((resolve) => {
    queue.on('change', (row) => {
      if (row.id === id && row.status === state) resolve(row);
    });
  });

it('those under way and those that wait are taken up again by the next server, in their order', async () => {
  const first = nextServer();
  await first.start();
  const long = await ask('mp4');
  const short = await ask('png', 0.25);
  const began = reached(first, long.id, 'running');
  await first.add(long);
  await first.add(short);
  await began;
  await first.stop();
  const left = await Promise.all([long, short].map(({ id }) => site.renders.get(id)));
  expect(left.map((row) => row.status)).toEqual(['running', 'queued']);

  const second = nextServer();
  const again = reached(second, long.id, 'running');
  const done = reached(second, short.id, 'done');
  await second.start();
  expect((await again).attempts).toBe(2);
  await second.cancel(long.id);
  expect((await done).result).toMatchObject({ frames: 1 });
  await second.stop();
  expect(faults).toEqual([]);
});

it('one that has taken three servers with it is not tried again', async () => {
  const row = await ask('png', 0.25);
  await site.db.query(`update renders set status = 'running', attempts = 3 where id = $1`, [row.id]);
  const queue = nextServer();
  await queue.start();
  const ended = await site.renders.get(row.id);
  expect([ended.status, ended.error]).toEqual(['failed', 'The server was ended 3 times during this render.']);
  await queue.stop();
});

it('one that cannot be drawn fails with its reason, and the next goes on', async () => {
  const queue = nextServer();
  const bad = await ask('png', 0.25);
  await site.db.query(`update renders set scene = scene - 'layers' where id = $1`, [bad.id]);
  const good = await ask('png', 0.25);
  const failed = reached(queue, bad.id, 'failed');
  const done = reached(queue, good.id, 'done');
  await queue.start();
  expect((await failed).error).toBeTruthy();
  expect((await done).error).toBeNull();
  await queue.stop();
});
