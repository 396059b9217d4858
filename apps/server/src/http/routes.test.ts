/** Every call of the API, asked as the browser asks it: each answer fits the rule that its docs are made from. */
import { type AnswerOf, type AnyCall, type BodyOf, type ParamsOf, typesOf, urlOf } from '@kite/api/call';
import { CALLS } from '@kite/api/calls';
import type { Code } from '@kite/api/errors';
import { ASSETS, SIZES } from '@kite/api/library';
import { type Here, LIVE, type Told } from '@kite/api/live';
import { type Person, PROJECTS, type Save } from '@kite/api/projects';
import { HEALTH, type Render, RENDERS } from '@kite/api/renders';
import { STARTERS } from '@kite/api/starters';
import type { Rule } from '@kite/core/check/rules';
import { defaultSettings } from '@kite/core/delivery/settings';
import { filmOf } from '@kite/core/delivery/film';
import type { Delivery, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { bringBackScenes, removeScene } from '@kite/core/edits/scenes';
import { archivesIn, readArchive, writeArchive } from '@kite/core/interchange/archive';
import { demoProject } from '@kite/demo/project';
import { createCanvas } from '@napi-rs/canvas';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openSite, type Site } from '../test/site';

let site: Site;
beforeAll(async () => {
  site = await openSite('routes');
  await site.queue.start();
});
afterAll(async () => {
  await site.queue.stop();
  await site.close();
});

const asked = new Set<AnyCall>();
const send = (call: AnyCall, params: unknown, body?: unknown, headers: Record<string, string> = {}) => {
  asked.add(call);
  const bytes = body instanceof Uint8Array;
  return site.app.inject({
    method: call.method,
    url: urlOf(call, params as ParamsOf<AnyCall>),
    headers: { host: site.host, ...(bytes && { 'content-type': typesOf(call.body as Rule)?.[0] }), ...headers },
    ...(body !== undefined && { payload: (bytes ? Buffer.from(body) : body) as Buffer | object }),
  });
};
/** The answer, which must fit the call's rule. */
const ask = async <C extends AnyCall>(call: C, params: ParamsOf<C>, body?: BodyOf<C>): Promise<AnswerOf<C>> => {
  const answer = await send(call, params, body);
  const wanted = call.makes ? 201 : call.answer ? 200 : 204;
  expect([answer.statusCode, answer.statusCode < 300 ? '' : answer.body]).toEqual([wanted, '']);
  if (!call.answer) return undefined as unknown as AnswerOf<C>;
  const value: unknown = answer.json();
  (call.answer as Rule).validateSync(value, { strict: true });
  return value as AnswerOf<C>;
};
const refusal = async (call: AnyCall, params: unknown, body?: unknown): Promise<Code> => {
  const answer = await send(call, params, body);
  return answer.json<{ error: { code: Code } }>().error.code;
};
const demo = (): Promise<string> => site.projects.create(demoProject());
const renamed = (id: string, value: string): Save => ({
  id,
  label: 'Rename',
  patches: [{ op: 'replace', path: ['name'], value }],
});
const DELIVERY: Omit<Delivery, 'scenes' | 'settings'> = {
  id: 'd',
  name: 'Delivery',
  fade: 0,
  file: '{project}-{size}-v{version}',
};
const SIZE = { width: 320, height: 240, rate: { num: 25, den: 1 }, length: 50, background: '#123456' };

describe('projects', () => {
  it('are made, listed, opened, renamed, removed and brought back', async () => {
    const { id } = await ask(PROJECTS.create, {}, { name: 'Night tram', scene: 'Depot', size: SIZE });
    expect((await ask(PROJECTS.list, {}))[0]).toMatchObject({ id, name: 'Night tram', scenes: 1 });
    const { document, revision } = await ask(PROJECTS.open, { id });
    expect([revision, Object.values(document.scenes)[0]]).toMatchObject([0, { name: 'Depot', width: 320, length: 50 }]);
    expect(await ask(PROJECTS.rename, { id }, { name: 'Day tram' })).toEqual({ revision: 1 });
    expect(await ask(PROJECTS.rename, { id }, { name: 'Day tram' })).toEqual({ revision: 1 });
    await ask(PROJECTS.remove, { id });
    expect(await refusal(PROJECTS.open, { id })).toBe('not_found');
    expect(await refusal(PROJECTS.remove, { id })).toBe('not_found');
    await ask(PROJECTS.restore, { id });
    expect((await ask(PROJECTS.open, { id })).document.name).toBe('Day tram');
    expect(await refusal(PROJECTS.restore, { id })).toBe('not_found');
  });

  it('are saved once however often a save comes, on the revision it was made on', async () => {
    const id = await demo();
    const saves = [renamed('one', 'First'), renamed('two', 'Second')];
    expect(await ask(PROJECTS.save, { id }, { base: 0, saves })).toEqual({ revision: 2, refused: [] });
    expect(await ask(PROJECTS.save, { id }, { base: 0, saves })).toEqual({ revision: 2, refused: [] });
    expect(await ask(PROJECTS.arrived, { id }, { ids: ['one', 'three'] })).toEqual({ ids: ['one'] });
    const stale = await send(PROJECTS.save, { id }, { base: 1, saves: [saves[1], renamed('three', 'Third')] });
    expect(stale.json()).toMatchObject({ error: { code: 'stale', revision: 2, done: ['two'] } });
    expect((await ask(PROJECTS.open, { id })).document.name).toBe('Second');
  });

  it('two clients in turn lose nothing of each other', async () => {
    const id = await demo();
    const scene = demoProject().order[0] as string;
    const length: Save = {
      id: 'b',
      label: 'Length',
      patches: [{ op: 'replace', path: ['scenes', scene, 'name'], value: 'Two' }],
    };
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('a', 'One')] });
    expect(await refusal(PROJECTS.save, { id }, { base: 0, saves: [length] })).toBe('stale');
    const { revision } = await ask(PROJECTS.open, { id });
    await ask(PROJECTS.save, { id }, { base: revision, saves: [length] });
    const { document } = await ask(PROJECTS.open, { id });
    expect([document.name, document.scenes[scene]?.name]).toEqual(['One', 'Two']);
  });

  it('are packed and taken in again under a free name, with all that is in them', async () => {
    const id = await demo();
    await ask(PROJECTS.checkArchive, { id });
    const packed = await send(PROJECTS.archive, { id });
    expect([packed.headers['content-type'], packed.headers['content-length']]).toEqual([
      'application/zip',
      String(packed.rawPayload.length),
    ]);
    const before = readArchive(packed.rawPayload).project;
    const copy = await ask(PROJECTS.import, {}, packed.rawPayload);
    expect(copy.name).not.toBe(before.name);
    const { document } = await ask(PROJECTS.open, { id: copy.id });
    expect(document).toEqual({ ...before, id: copy.id, name: copy.name });
    expect((await ask(PROJECTS.duplicate, { id })).name).not.toBe(copy.name);
    expect(await refusal(PROJECTS.import, {}, Buffer.from('PK no archive'))).toBe('invalid');
    expect(await refusal(PROJECTS.import, {})).toBe('invalid');
  });
});

const IDA = { id: 'ida', name: 'Ida' };
const OTTO = { id: 'otto', name: 'Otto' };

describe('many projects', () => {
  it('are found by words, and leave all at once', async () => {
    const id = await demo();
    await ask(PROJECTS.tag, { id }, { tags: ['tram', 'spring'] });
    expect((await ask(PROJECTS.list, {})).find((card) => card.id === id)?.tags).toEqual(['tram', 'spring']);
    for (const tags of [[''], ['a', 'a'], [' a'], Array.from({ length: 13 }, (_, i) => `t${i}`)]) {
      expect(await refusal(PROJECTS.tag, { id }, { tags })).toBe('invalid');
    }
    expect(await refusal(PROJECTS.tag, { id: 'gone' }, { tags: [] })).toBe('not_found');
    const zip = await send(PROJECTS.archives, {});
    const names = archivesIn(zip.rawPayload)?.map((archive) => readArchive(archive()).project.name);
    expect(names?.toSorted()).toEqual((await ask(PROJECTS.list, {})).map(({ name }) => name).toSorted());
    expect(archivesIn(writeArchive(demoProject(), new Map()))).toBeNull();
  });
});

describe('what projects were', () => {
  it('is logged with who did it, what takes it back, and what it takes back', async () => {
    const id = await demo();
    const { name } = demoProject();
    const undone: Save = { ...renamed('two', name), label: 'Undo: Rename', undoes: 'one' };
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('one', 'First')], by: IDA });
    await ask(PROJECTS.save, { id }, { base: 1, saves: [undone], by: OTTO });
    const log = await ask(PROJECTS.edits, { id });
    expect(log).toMatchObject([
      { revision: 1, id: 'one', by: IDA, inverse: [{ op: 'replace', path: ['name'], value: name }] },
      { revision: 2, id: 'two', by: OTTO, undoes: 'one' },
    ]);
    expect(await ask(PROJECTS.edits, { id, before: '2' })).toEqual([log[0]]);
    expect(await ask(PROJECTS.edits, { id, after: '1' })).toEqual([log[1]]);
    expect(await refusal(PROJECTS.edits, { id, after: 'x' })).toBe('invalid');
    expect(await refusal(PROJECTS.edits, { id: 'gone' })).toBe('not_found');
  });

  it('can be asked for at every step, and copied', async () => {
    const id = await demo();
    const saves = ['First', 'Second', 'Third'].map((name) => renamed(name, name));
    await ask(PROJECTS.save, { id }, { base: 0, saves });
    const names = [];
    for (const state of ['0', '1', '2', '3']) names.push((await ask(PROJECTS.state, { id, state })).document.name);
    expect(names).toEqual([demoProject().name, 'First', 'Second', 'Third']);
    expect(await refusal(PROJECTS.state, { id, state: '4' })).toBe('not_found');
    const copy = await ask(PROJECTS.copyState, { id, state: '1' });
    expect(copy.name).toBe('First');
    expect((await ask(PROJECTS.open, { id: copy.id })).document.scenes).toEqual(demoProject().scenes);
  });

  it('is kept under names', async () => {
    const id = await demo();
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('a', 'First'), renamed('b', 'Second')] });
    const now = await ask(PROJECTS.checkpoint, { id }, { name: 'For the client', revision: null, by: 'Ida' });
    const then = await ask(PROJECTS.checkpoint, { id }, { name: 'Before', revision: 1, by: null });
    expect(await ask(PROJECTS.checkpoints, { id })).toEqual([then, now]);
    await ask(PROJECTS.save, { id }, { base: 2, saves: [renamed('c', 'Third')] });
    expect((await ask(PROJECTS.state, { id, state: now.id })).document.name).toBe('Second');
    expect((await ask(PROJECTS.state, { id, state: then.id })).document.name).toBe('First');
    await ask(PROJECTS.renameCheckpoint, { id, checkpoint: then.id }, { name: 'At first' });
    await ask(PROJECTS.removeCheckpoint, { id, checkpoint: now.id });
    expect((await ask(PROJECTS.checkpoints, { id })).map(({ name }) => name)).toEqual(['At first']);
    expect(await refusal(PROJECTS.removeCheckpoint, { id, checkpoint: now.id })).toBe('not_found');
    expect(await refusal(PROJECTS.state, { id, state: now.id })).toBe('not_found');
    // Of another project they are not there.
    expect(await refusal(PROJECTS.state, { id: await demo(), state: then.id })).toBe('not_found');
  });

  it('is brought back: a scene with what it draws on, a project for thirty days', async () => {
    const id = await demo();
    const { document } = await ask(PROJECTS.open, { id });
    const gone = document.order.find((own) => {
      try {
        applyEdit(document, removeScene(own));
        return true;
      } catch {
        return false;
      }
    }) as string;
    const { patches } = applyEdit(document, removeScene(gone));
    await ask(PROJECTS.save, { id }, { base: 0, saves: [{ id: 'gone', label: 'Delete a scene', patches }] });
    expect((await ask(PROJECTS.removedScenes, { id })).map((scene) => scene.id)).toEqual([gone]);
    const taken = await ask(PROJECTS.removedScene, { id, scene: gone });
    expect(taken.scenes).toEqual([document.scenes[gone]]);
    expect(await refusal(PROJECTS.removedScene, { id, scene: document.order.find((o) => o !== gone) })).toBe(
      'not_found',
    );
    // Back again, it is no longer among what is gone.
    const back = applyEdit((await ask(PROJECTS.open, { id })).document, bringBackScenes(taken.scenes, taken.assets));
    await ask(PROJECTS.save, { id }, { base: 1, saves: [{ id: 'back', label: 'Back', patches: back.patches }] });
    expect(await ask(PROJECTS.removedScenes, { id })).toEqual([]);

    await ask(PROJECTS.remove, { id });
    expect((await ask(PROJECTS.removed, {})).map((card) => card.id)).toContain(id);
    await site.projects.forget();
    await ask(PROJECTS.restore, { id });
    await ask(PROJECTS.remove, { id });
    await site.db.query(`update projects set deleted_at = now() - interval '31 days' where id = $1`, [id]);
    expect((await ask(PROJECTS.removed, {})).map((card) => card.id)).not.toContain(id);
    await site.projects.forget();
    expect(await refusal(PROJECTS.restore, { id })).toBe('not_found');
  });
});

describe('a project that is open', () => {
  const lineTo = async (id: string, headers: Record<string, string> = {}) => {
    const told: Told[] = [];
    let look: () => void = () => undefined;
    await site.app.ready();
    const socket = await site.app.injectWS(
      urlOf(LIVE.line, { id }),
      { headers: { host: site.host, ...headers } },
      {
        onInit: (ws) =>
          ws.on('message', (text: Buffer) => {
            told.push(JSON.parse(text.toString()) as Told);
            look();
          }),
      },
    );
    asked.add(LIVE.line);
    const until = (found: (message: Told) => boolean): Promise<Told> =>
      new Promise((resolve) => {
        look = () => {
          const message = told.find(found);
          if (message) resolve(message);
        };
        look();
      });
    return { socket, told, until };
  };
  const here = (tab: string, person: Person): Here => ({ tab, person, scene: 'a', layers: ['b', 'c'] });

  it('tells each page what is saved, in order, and where the others are', async () => {
    const id = await demo();
    const [ida, otto] = [await lineTo(id), await lineTo(id)];
    expect(await ida.until((m) => m.revision !== undefined)).toEqual({ revision: 0 });
    await otto.until((m) => m.revision !== undefined);
    ida.socket.send(JSON.stringify(here('1', IDA)));
    otto.socket.send(JSON.stringify(here('2', OTTO)));
    const both = (m: Told) => m.people?.length === 2;
    expect((await ida.until(both)).people).toEqual([here('1', IDA), here('2', OTTO)]);
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('x', 'X'), renamed('y', 'Y')], by: OTTO });
    for (const page of [ida, otto]) {
      const { edits } = await page.until((m) => m.edits !== undefined);
      expect(edits).toEqual(await ask(PROJECTS.edits, { id }));
    }
    ida.told.length = 0;
    otto.socket.close();
    expect((await ida.until((m) => m.people?.length === 1)).people).toEqual([here('1', IDA)]);
    // Who is in another project hears nothing of it.
    const other = await lineTo(await demo());
    await ask(PROJECTS.save, { id }, { base: 2, saves: [renamed('z', 'Z')] });
    await ida.until((m) => m.edits?.[0]?.id === 'z');
    expect(other.told.flatMap((m) => m.edits ?? [])).toEqual([]);
    ida.socket.close();
    other.socket.close();
  });

  it('is not there for other sites, for what there is not, and for what cannot be read', async () => {
    const id = await demo();
    await expect(lineTo(id, { origin: 'https://elsewhere.example' })).rejects.toThrow('403');
    await expect(lineTo('gone')).rejects.toThrow('404');
    const page = await lineTo(id);
    const closed = new Promise<number>((done) => page.socket.on('close', done));
    page.socket.send('{"tab": 7}');
    expect(await closed).toBe(1008);
  });
});

describe('what is there for every project', () => {
  it('sizes are kept and taken away', async () => {
    const size = await ask(SIZES.keep, {}, { name: 'Tram side', size: SIZE });
    expect(await ask(SIZES.list, {})).toEqual([size]);
    expect(await refusal(SIZES.keep, {}, { name: '', size: SIZE })).toBe('invalid');
    await ask(SIZES.remove, { id: size.id });
    expect(await ask(SIZES.list, {})).toEqual([]);
  });

  it('a picture is known by what is in it, and sent whole or in part', async () => {
    const canvas = createCanvas(40, 30);
    canvas.getContext('2d').fillRect(3, 3, 20, 20);
    const png = canvas.toBuffer('image/png');
    const asset = await ask(ASSETS.add, { name: 'Lamp' }, png);
    expect(asset).toMatchObject({ kind: 'picture', name: 'Lamp', width: 40, height: 30, bytes: png.length });
    const file = await send(ASSETS.file, { sha: asset.sha });
    expect([file.statusCode, file.headers['content-type'], file.headers['cache-control']]).toEqual([
      200,
      'image/png',
      'public, max-age=31536000, immutable',
    ]);
    expect(file.rawPayload.equals(png)).toBe(true);
    expect(await refusal(ASSETS.file, { sha: '0'.repeat(64) })).toBe('not_found');
  });

  it('fonts of the application', async () => {
    const params = { family: 'inter', weight: '400', style: 'normal', part: '0' };
    const font = await send(ASSETS.font, params);
    expect([font.statusCode, font.headers['content-type'], font.rawPayload.length > 10_000]).toEqual([
      200,
      'font/otf',
      true,
    ]);
    expect(await refusal(ASSETS.font, { ...params, part: '999' })).toBe('not_found');
  });

  it('its health', async () => {
    expect(await ask(HEALTH, {})).toEqual({ ok: true });
  });
});

describe('renders', () => {
  const sceneOf = async (project: string): Promise<Scene> => {
    const { document } = await ask(PROJECTS.open, { id: project });
    return document.scenes[document.order[0] as string] as Scene;
  };
  /** Once a render has come to one of these. */
  const until = async (id: string, ...states: Render['status'][]): Promise<Render> => {
    const now = await site.renders.get(id);
    if (states.includes(now.status)) return now;
    return new Promise((resolve) => {
      const look = (row: Render) => {
        if (row.id !== id || !states.includes(row.status)) return;
        site.queue.off('change', look);
        resolve(row);
      };
      site.queue.on('change', look);
    });
  };

  it('are made, sent whole, in ranges, and taken away with their file', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = { ...defaultSettings('png', scene), scale: 0.25 };
    const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
    const done = await until(id, 'done', 'failed');
    expect([done.status, done.error]).toEqual(['done', null]);
    expect((await ask(RENDERS.list, {}))[0]).toMatchObject({ id, status: 'done', sceneName: scene.name });

    const whole = await send(RENDERS.file, { id });
    expect([whole.statusCode, whole.headers['content-type'], whole.headers['accept-ranges']]).toEqual([
      200,
      'image/png',
      'bytes',
    ]);
    const size = whole.rawPayload.length;
    const part = async (range: string) => {
      const { statusCode, headers, rawPayload } = await send(RENDERS.file, { id }, undefined, { range });
      return [statusCode, headers['content-range'], rawPayload.length];
    };
    // RFC 9110, 14.1.2: from, to inclusive; the last so many; beyond the end.
    expect(await part('bytes=0-9')).toEqual([206, `bytes 0-9/${size}`, 10]);
    expect(await part(`bytes=${size - 5}-`)).toEqual([206, `bytes ${size - 5}-${size - 1}/${size}`, 5]);
    expect(await part('bytes=-7')).toEqual([206, `bytes ${size - 7}-${size - 1}/${size}`, 7]);
    expect((await part(`bytes=${size}-`)).slice(0, 2)).toEqual([416, `bytes */${size}`]);
    const kept = await send(RENDERS.file, { id, download: '' });
    expect(kept.headers['content-disposition']).toContain('.png');

    expect(await refusal(RENDERS.cancel, { id })).toBe('not_ready');
    expect(await refusal(RENDERS.retry, { id })).toBe('not_ready');
    expect(await refusal(RENDERS.banner, { id, name: 'index.html' })).toBe('not_found');
    await ask(RENDERS.remove, { id });
    expect(await refusal(RENDERS.file, { id })).toBe('not_found');
  });

  it('of one file twice are both there until both are removed', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = { ...defaultSettings('png', scene), scale: 0.25 };
    const both = [];
    for (let i = 0; i < 2; i++) {
      const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
      both.push(await until(id, 'done', 'failed'));
    }
    const [first, second] = both as [Render, Render];
    expect(second.file).toBe(first.file);
    await ask(RENDERS.remove, { id: first.id });
    expect((await send(RENDERS.file, { id: second.id })).statusCode).toBe(200);
  });

  it('wait in a row, are cancelled while they wait or run, and tried again', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = defaultSettings('mp4', scene);
    const wanted = { project, scene: scene.id, settings };
    const running = await ask(RENDERS.ask, {}, wanted);
    const waiting = await ask(RENDERS.ask, {}, wanted);
    await until(running.id, 'running');
    expect(await refusal(RENDERS.file, { id: running.id })).toBe('not_ready');
    expect((await ask(RENDERS.cancel, { id: waiting.id })).status).toBe('cancelled');
    expect((await ask(RENDERS.cancel, { id: running.id })).status).toBe('cancelled');
    expect((await ask(RENDERS.retry, { id: waiting.id })).status).toBe('queued');
    await ask(RENDERS.cancel, { id: waiting.id });
    expect(site.faults).toEqual([]);
  });

  it('of deliveries come under their names, as one zip, and are known for what they were made of', async () => {
    const [first, second] = Object.values(demoProject().scenes) as [Scene, Scene];
    const small = { scale: 0.1 };
    const deliveries: Delivery[] = [
      { ...DELIVERY, id: 'still', name: 'Still', scenes: [first.id], settings: { format: 'png', ...small } },
      { ...DELIVERY, id: 'page', name: 'Page', scenes: [first.id], settings: { format: 'jpeg', ...small } },
      {
        ...DELIVERY,
        id: 'film',
        name: 'Film',
        scenes: [first.id, second.id],
        fade: 6,
        settings: { format: 'gif', ...small, rate: { num: 5, den: 1 } },
      },
      { ...DELIVERY, id: 'lost', name: 'Lost', scenes: ['gone'], settings: { format: 'png' } },
    ];
    const id = await site.projects.create({ ...demoProject(), name: 'Night line', deliveries });
    const standing = async () => {
      const all = await ask(RENDERS.delivered, { id });
      return Object.fromEntries(all.map(({ delivery, current, problem }) => [delivery, problem ?? current]));
    };
    expect(await standing()).toEqual({
      still: false,
      page: false,
      film: false,
      lost: '“Lost” shows a scene that was deleted',
    });
    expect(await refusal(RENDERS.deliver, { id }, { deliveries: ['lost'] })).toBe('invalid');
    expect(await refusal(RENDERS.deliver, { id }, { deliveries: ['unknown'] })).toBe('not_found');

    const rows = await ask(RENDERS.deliver, { id }, { deliveries: ['still', 'page', 'film'] });
    const [batch] = [...new Set(rows.map((row) => row.batch))] as [string];
    expect(await refusal(RENDERS.batch, { batch })).toBe('not_ready');
    expect(await refusal(RENDERS.batch, { batch: 'unknown' })).toBe('not_found');
    const done = await Promise.all(rows.map((row) => until(row.id, 'done', 'failed')));
    expect(done.map(({ error, deliveryName, askedBy }) => [error, deliveryName, askedBy])).toEqual([
      [null, 'Still', 'this machine'],
      [null, 'Page', 'this machine'],
      [null, 'Film', 'this machine'],
    ]);
    const film = filmOf('f', 'Film', [first, second], { fade: 6 });
    expect(done[2]?.result?.seconds).toBeCloseTo(film.length / (film.rate.num / film.rate.den), 0);

    const zip = unzipSync((await send(RENDERS.batch, { batch })).rawPayload);
    const size = `${done[0]?.result?.width}x${done[0]?.result?.height}`;
    expect(Object.keys(zip)).toEqual([
      `Night-line-${size}-v1.png`,
      `Night-line-${size}-v1.jpg`,
      `Night-line-${size}-v1.gif`,
    ]);
    const file = await send(RENDERS.file, { id: rows[0]?.id, download: '' });
    expect(Buffer.from(zip[`Night-line-${size}-v1.png`] as Uint8Array).equals(file.rawPayload)).toBe(true);
    expect(file.headers['content-disposition']).toContain(`Night-line-${size}-v1.png`);
    const picture = await send(RENDERS.picture, { id: rows[0]?.id });
    expect([picture.statusCode, picture.rawPayload.subarray(8, 12).toString()]).toEqual([200, 'WEBP']);

    expect(await standing()).toMatchObject({ still: true, page: true, film: true });
    // The second scene changes: the film alone is out of date.
    const { revision } = await ask(PROJECTS.open, { id });
    const patches = [{ op: 'replace' as const, path: ['scenes', second.id, 'background'], value: '#102030' }];
    await ask(PROJECTS.save, { id }, { base: revision, saves: [{ id: 'dark', label: 'Dark', patches }] });
    expect(await standing()).toMatchObject({ still: true, page: true, film: false });
    const [again] = await ask(RENDERS.deliver, { id }, { deliveries: ['still'] });
    expect(again?.fileName).toBe(`Night-line-${size}-v2`);
    await until(again?.id as string, 'done', 'failed');
  });

  it('as banners are played from their own files', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = { ...defaultSettings('html5', scene), scale: 0.25 };
    const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
    const done = await until(id, 'done', 'failed');
    expect([done.status, done.error]).toEqual(['done', null]);
    const page = await send(RENDERS.banner, { id, name: 'index.html' });
    expect([page.statusCode, page.headers['content-type']]).toEqual([200, 'text/html; charset=utf-8']);
    expect(String(page.headers['content-security-policy'])).toContain('sandbox allow-scripts');
    expect(await refusal(RENDERS.banner, { id, name: '../secret' })).toBe('not_found');
    // What it weighs is told before, part by part: a zip adds a little to each file.
    const weighed = await ask(RENDERS.weigh, {}, { project, scene: scene.id, settings });
    expect(weighed.parts?.map(({ name }) => name)).toEqual(['Player', 'Scene', 'Fallback picture']);
    const sum = weighed.parts?.reduce((all, { bytes }) => all + bytes, 0) ?? 0;
    // What is stored has its keys in another order, which packs a little differently.
    expect(Math.abs(weighed.bytes - (done.result?.bytes ?? 0))).toBeLessThan(weighed.bytes / 500);
    expect(weighed.bytes - sum).toBeGreaterThan(0);
    expect(weighed.bytes - sum).toBeLessThan(1_000);
    expect(weighed.estimated).toBe(false);
  });

  it('of many frames are weighed nearly, from some of them', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    expect(await refusal(RENDERS.weigh, {}, { project, scene: scene.id, settings: { format: 'tape' } })).toBe(
      'invalid',
    );
    for (const format of ['mp4', 'gif'] as const) {
      const settings = { ...defaultSettings(format, scene), scale: 0.25 };
      const about = await ask(RENDERS.weigh, {}, { project, scene: scene.id, settings });
      expect(about.estimated).toBe(true);
      const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
      const whole = (await until(id, 'done', 'failed')).result?.bytes ?? 0;
      expect(about.bytes / whole).toBeGreaterThan(0.6);
      expect(about.bytes / whole).toBeLessThan(1.7);
    }
  });

  it('tell what becomes of them', async () => {
    const address = await site.app.listen({ port: 0, host: '127.0.0.1' });
    const stop = new AbortController();
    asked.add(RENDERS.events);
    const stream = await fetch(address + urlOf(RENDERS.events, {}), { signal: stop.signal });
    expect(stream.headers.get('content-type')).toBe('text/event-stream');
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    const decoder = new TextDecoder();
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = { ...defaultSettings('png', scene), scale: 0.25 };
    const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
    await until(id, 'done', 'failed');
    await ask(RENDERS.remove, { id });
    let told = '';
    while (!told.includes('event: removed')) told += decoder.decode((await reader.read()).value, { stream: true });
    stop.abort();
    const rows = [...told.matchAll(/^data: (.*)$/gm)].map((m) => JSON.parse(m[1] as string) as Partial<Render>);
    expect(rows.map((r) => r.status).filter((s, i, all) => s !== all[i - 1])).toEqual([
      'queued',
      'running',
      'done',
      undefined,
    ]);
    expect(rows.every((row) => row.id === id)).toBe(true);
  });
});

describe('starters', () => {
  it('are listed, looked at, and begun as copies under names of their own', async () => {
    const all = await ask(STARTERS.list, {});
    expect(all.length).toBeGreaterThanOrEqual(9);
    for (const { id, name } of all) expect((await ask(STARTERS.open, { id })).document.name).toBe(name);
    const [first, second] = [await ask(STARTERS.begin, { id: 'grid' }), await ask(STARTERS.begin, { id: 'grid' })];
    expect([first.name, second.name]).toEqual(['Picture grid', 'Picture grid 2']);
    // Its picture is a file as any other.
    const { document } = await ask(PROJECTS.open, { id: second.id });
    const [picture] = Object.values(document.assets);
    expect((await send(ASSETS.file, { sha: picture!.sha })).headers['content-type']).toBe('image/png');
    await ask(PROJECTS.checkArchive, { id: second.id });
  });

  it('bring the demo back, and refuse what there is not', async () => {
    const { id } = await ask(STARTERS.demo, {});
    expect((await ask(PROJECTS.open, { id })).document.scenes).toEqual(demoProject().scenes);
    for (const call of [STARTERS.open, STARTERS.begin]) {
      expect(await refusal(call, { id: 'nothing' })).toBe('not_found');
    }
  });
});

it('every call was asked', () => {
  const all = Object.values(CALLS).flatMap((calls) => Object.values(calls) as AnyCall[]);
  expect(all.filter((call) => !asked.has(call)).map((call) => `${call.method} ${call.path as string}`)).toEqual([]);
});
