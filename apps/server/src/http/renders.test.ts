/** Renders: asked for, followed, weighed, delivered and sent. */
import { urlOf } from '@kite/api/call';
import { PROJECTS } from '@kite/api/projects';
import { type Render, RENDERS } from '@kite/api/renders';
import { defaultSettings } from '@kite/core/delivery/settings';
import { filmOf } from '@kite/core/delivery/film';
import type { Delivery, Scene, Version } from '@kite/core/document/types';
import { demoProject } from '@kite/demo/project';
import { unzipSync } from 'fflate';
import { existsSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { asking } from '../test/asking';

const { ask, asked, send, refusal, demo, everyCallWasAsked, site } = asking('renders');

const DELIVERY: Omit<Delivery, 'scenes' | 'settings'> = {
  id: 'd',
  name: 'Delivery',
  fade: 0,
  file: '{project}-{size}-v{take}',
  everyVersion: false,
};

describe('renders', () => {
  const sceneOf = async (project: string): Promise<Scene> => {
    const { document } = await ask(PROJECTS.open, { id: project });
    return document.scenes[document.order[0] as string] as Scene;
  };
  /** Once a render has come to one of these. */
  const until = async (id: string, ...states: Render['status'][]): Promise<Render> => {
    const now = await site().renders.get(id);
    if (states.includes(now.status)) return now;
    return new Promise((resolve) => {
      const look = (row: Render) => {
        if (row.id !== id || !states.includes(row.status)) return;
        site().queue.off('change', look);
        resolve(row);
      };
      site().queue.on('change', look);
    });
  };

  it('may be prepared for, again and again', async () => {
    for (let n = 0; n < 2; n++) expect((await send(RENDERS.prepare, {})).statusCode).toBe(204);
  });
  it('are made, sent whole, in ranges, taken away and brought back', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const settings = { ...defaultSettings('png', scene), scale: 0.25 };
    const { id } = await ask(RENDERS.ask, {}, { project, scene: scene.id, settings });
    const done = await until(id, 'done', 'failed');
    expect([done.status, done.error]).toEqual(['done', null]);
    const [listed] = await ask(RENDERS.list, {});
    expect(listed).toMatchObject({ id, status: 'done', sceneName: scene.name });

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
    for (const call of [RENDERS.file, RENDERS.picture, RENDERS.remove, RENDERS.retry, RENDERS.cancel]) {
      expect(await refusal(call, { id })).toBe('not_found');
    }
    expect((await ask(RENDERS.list, {})).map((row) => row.id)).not.toContain(id);
    expect((await ask(RENDERS.removed, {})).map((row) => row.id)).toEqual([id]);
    await site().queue.forget('old');
    expect(await ask(RENDERS.restore, { id })).toEqual(listed);
    expect((await send(RENDERS.file, { id })).rawPayload.equals(whole.rawPayload)).toBe(true);
    // It may be brought back where its list is shown and by Undo.
    expect(await ask(RENDERS.restore, { id })).toEqual(listed);
    expect(await ask(RENDERS.removed, {})).toEqual([]);
  });

  it('are kept for a day after they were taken away, or until all those are let go, and their file while another has the same', async () => {
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
    const gone = async (id: string) => {
      await ask(RENDERS.remove, { id });
      await site().db.query(`update renders set removed_at = now() - interval '25 hours' where id = $1`, [id]);
      expect(await ask(RENDERS.removed, {})).toEqual([]);
      await site().queue.forget('old');
      expect(await refusal(RENDERS.restore, { id })).toBe('not_found');
    };
    const file = site().files.pathOf(first.file as string);
    await gone(first.id);
    expect((await send(RENDERS.file, { id: second.id })).statusCode).toBe(200);
    await site().db.query('delete from renders where file = $1 and id <> $2', [first.file, second.id]);
    expect(existsSync(file)).toBe(true);
    await ask(RENDERS.remove, { id: second.id });
    await ask(RENDERS.forget, {});
    expect(await refusal(RENDERS.restore, { id: second.id })).toBe('not_found');
    expect(existsSync(file)).toBe(false);
  });

  it('that wait or run are cancelled when they are taken away, and tried again when they are back', async () => {
    const project = await demo();
    const scene = await sceneOf(project);
    const wanted = { project, scene: scene.id, settings: defaultSettings('mp4', scene) };
    const [running, waiting] = [await ask(RENDERS.ask, {}, wanted), await ask(RENDERS.ask, {}, wanted)];
    await until(running.id, 'running');
    for (const { id } of [waiting, running]) {
      await ask(RENDERS.remove, { id });
      expect((await ask(RENDERS.restore, { id })).status).toBe('cancelled');
    }
    expect((await ask(RENDERS.retry, { id: waiting.id })).status).toBe('queued');
    await ask(RENDERS.cancel, { id: waiting.id });
    expect(site().faults).toEqual([]);
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
    expect(site().faults).toEqual([]);
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
    const id = await site().projects.create({ ...demoProject(), name: 'Night line', deliveries });
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

  it('of each version are files of their own, and only those that differ are made again', async () => {
    const plain = demoProject();
    const banner = Object.values(plain.scenes).find(({ name }) => name === 'Late ticket') as Scene;
    const delivery: Delivery = { ...DELIVERY, name: 'Still', scenes: [banner.id], settings: { format: 'png' } };
    const each = { ...delivery, everyVersion: true, file: '{version}', settings: { format: 'png', scale: 0.2 } };
    const id = await site().projects.create({ ...plain, name: 'Stops', deliveries: [each] });
    const [square, observatory] = plain.versions.rows.slice(1) as [Version, Version];
    const standing = async () =>
      (await ask(RENDERS.delivered, { id })).map(({ version, current }) => [
        plain.versions.rows.find((row) => row.id === version)?.name,
        current,
      ]);
    const all = (current: boolean) => plain.versions.rows.map(({ name }) => [name, current]);
    expect(await standing()).toEqual(all(false));

    const rows = await ask(RENDERS.deliver, { id }, { deliveries: ['d'] });
    const done = await Promise.all(rows.map((row) => until(row.id, 'done', 'failed')));
    expect(done.map(({ error, versionName, fileName }) => [error, versionName, fileName])).toEqual([
      [null, 'Harbour Steps', 'Harbour-Steps'],
      [null, 'Quill Square', 'Quill-Square'],
      [null, 'Observatory', 'Observatory'],
    ]);
    expect(new Set(done.map(({ file }) => file)).size).toBe(3);
    expect(await standing()).toEqual(all(true));
    expect(await ask(RENDERS.deliver, { id }, { deliveries: ['d'], stale: true })).toEqual([]);

    // Other words in one of them: the others are what they were.
    const column = plain.versions.columns[0]?.id as string;
    const { revision } = await ask(PROJECTS.open, { id });
    const path = ['versions', 'rows', 2, 'values', column];
    const saves = [{ id: 'w', label: 'Words', patches: [{ op: 'replace' as const, path, value: 'Last tram 03:00' }] }];
    await ask(PROJECTS.save, { id }, { base: revision, saves });
    expect(await standing()).toEqual([
      ['Harbour Steps', true],
      [square.name, true],
      [observatory.name, false],
    ]);
    const again = await ask(RENDERS.deliver, { id }, { deliveries: ['d'], stale: true });
    expect(again.map(({ version }) => version)).toEqual([observatory.id]);
    await until(again[0]?.id as string, 'done', 'failed');
    expect(await standing()).toEqual(all(true));
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
    const address = await site().app.listen({ port: 0, host: '127.0.0.1' });
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

everyCallWasAsked();
