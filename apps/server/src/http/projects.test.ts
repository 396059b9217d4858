/** Projects: made, saved, packed, found and removed. */
import { PROJECTS, type Save } from '@kite/api/projects';
import { archivesIn, readArchive, writeArchive } from '@kite/core/interchange/archive';
import { demoProject } from '@kite/demo/project';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { imageSize } from 'image-size';
import { describe, expect, it } from 'vitest';
import { asking, renamed, SIZE } from '../test/asking';

const { ask, send, refusal, demo, everyCallWasAsked, site } = asking('projects');

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
    // It may be brought back where its list is shown and by Undo.
    for (let n = 0; n < 2; n++) await ask(PROJECTS.restore, { id });
    expect((await ask(PROJECTS.open, { id })).document.name).toBe('Day tram');
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

describe('the poster of a project', () => {
  const colorAt = async (bytes: Buffer, x: number, y: number) => {
    const { width, height } = imageSize(bytes);
    const canvas = createCanvas(width, height);
    canvas.getContext('2d').drawImage(await loadImage(bytes), 0, 0);
    return [width, height, ...canvas.getContext('2d').getImageData(x, y, 1, 1).data];
  };

  it('is its first scene in the box of a card, and is kept for the moment that it was asked for', async () => {
    const size = { ...SIZE, width: 400, height: 100, background: '#FF0000' } as const;
    const { id } = await ask(PROJECTS.create, {}, { name: 'Strip', scene: 'Strip', size });
    const { rawPayload, headers } = await send(PROJECTS.poster, { id, at: '2026-11-28T12:00:00.000Z' });
    expect([headers['content-type'], headers['cache-control']]).toEqual([
      'image/webp',
      'private, max-age=31536000, immutable',
    ]);
    const [width, height, red, green, blue, alpha] = await colorAt(rawPayload, 280, 70);
    expect([width, height, alpha]).toEqual([560, 140, 255]);
    expect([red! > 250, green! < 5, blue! < 5]).toEqual([true, true, true]);
    expect((await send(PROJECTS.poster, { id })).headers['cache-control']).toBe('no-cache');
    expect(await refusal(PROJECTS.poster, { id: 'nobody' })).toBe('not_found');
  });
  it('is drawn by a thread that is started anew if it ended', async () => {
    const id = await demo();
    const first = (await send(PROJECTS.poster, { id })).rawPayload;
    await site().posters.close();
    expect((await send(PROJECTS.poster, { id })).rawPayload.equals(first)).toBe(true);
  });
});

describe('many projects', () => {
  it('are kept for thirty days after they were removed', async () => {
    const id = await demo();
    await ask(PROJECTS.remove, { id });
    expect((await ask(PROJECTS.removed, {})).map((card) => card.id)).toContain(id);
    await site().projects.forget();
    await ask(PROJECTS.restore, { id });
    await ask(PROJECTS.remove, { id });
    await site().db.query(`update projects set deleted_at = now() - interval '31 days' where id = $1`, [id]);
    expect((await ask(PROJECTS.removed, {})).map((card) => card.id)).not.toContain(id);
    await site().projects.forget();
    expect(await refusal(PROJECTS.restore, { id })).toBe('not_found');
  });

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

everyCallWasAsked();
