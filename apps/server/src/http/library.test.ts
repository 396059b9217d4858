/** What is there for every project: starters, files, fonts, sizes. */
import { CALLS } from '@kite/api/calls';
import { ASSETS, SIZES } from '@kite/api/library';
import { PROJECTS } from '@kite/api/projects';
import { HEALTH } from '@kite/api/renders';
import { STARTERS } from '@kite/api/starters';
import { demoProject } from '@kite/demo/project';
import { createCanvas } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';
import { asking, SIZE, TRIED } from '../test/asking';

const { ask, send, refusal, everyCallWasAsked } = asking('library');

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

describe('starters', () => {
  it('are listed, looked at, and begun as copies under names of their own', async () => {
    const all = await ask(STARTERS.list, {});
    expect(all.length).toBeGreaterThanOrEqual(9);
    for (const { id, name } of all) expect((await ask(STARTERS.open, { id })).document.name).toBe(name);
    const [first, second] = [await ask(STARTERS.begin, { id: 'grid' }), await ask(STARTERS.begin, { id: 'grid' })];
    expect([first.name, second.name]).toEqual(['Picture grid', 'Picture grid 2']);
    const posters = await Promise.all(all.map(({ id }) => send(STARTERS.poster, { id })));
    expect(posters.map(({ headers }) => headers['content-type'])).toEqual(all.map(() => 'image/webp'));
    expect(new Set(posters.map(({ body }) => body)).size).toBe(all.length);
    // Its picture is a file as any other.
    const { document } = await ask(PROJECTS.open, { id: second.id });
    const [picture] = Object.values(document.assets);
    expect((await send(ASSETS.file, { sha: picture!.sha })).headers['content-type']).toBe('image/png');
    await ask(PROJECTS.checkArchive, { id: second.id });
  });

  it('bring the demo back, and refuse what there is not', async () => {
    const { id } = await ask(STARTERS.demo, {});
    expect((await ask(PROJECTS.open, { id })).document.scenes).toEqual(demoProject().scenes);
    for (const call of [STARTERS.open, STARTERS.poster, STARTERS.begin]) {
      expect(await refusal(call, { id: 'nothing' })).toBe('not_found');
    }
  });
});

everyCallWasAsked();

it('every group of calls has its file', () => {
  expect(Object.values(TRIED).flat().toSorted()).toEqual(Object.keys(CALLS).toSorted());
});
