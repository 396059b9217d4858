/** What projects were, and what is told of those that are open. */
import { urlOf } from '@kite/api/call';
import { HISTORY } from '@kite/api/history';
import { type Here, LIVE, type Told } from '@kite/api/live';
import { type Person, PROJECTS, type Save } from '@kite/api/projects';
import { applyEdit } from '@kite/core/edits/apply';
import { bringBackScenes, removeScene } from '@kite/core/edits/scenes';
import { demoProject } from '@kite/demo/project';
import { describe, expect, it } from 'vitest';
import { asking, renamed } from '../test/asking';

const { ask, asked, refusal, demo, everyCallWasAsked, site } = asking('history');

const IDA = { id: 'ida', name: 'Ida' };
const OTTO = { id: 'otto', name: 'Otto' };

describe('what projects were', () => {
  it('is logged with who did it, what takes it back, and what it takes back', async () => {
    const id = await demo();
    const { name } = demoProject();
    const undone: Save = { ...renamed('two', name), label: 'Undo: Rename', undoes: 'one' };
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('one', 'First')], by: IDA });
    await ask(PROJECTS.save, { id }, { base: 1, saves: [undone], by: OTTO });
    const log = await ask(HISTORY.edits, { id });
    expect(log).toMatchObject([
      { revision: 1, id: 'one', by: IDA, inverse: [{ op: 'replace', path: ['name'], value: name }] },
      { revision: 2, id: 'two', by: OTTO, undoes: 'one' },
    ]);
    expect(await ask(HISTORY.edits, { id, before: '2' })).toEqual([log[0]]);
    expect(await ask(HISTORY.edits, { id, after: '1' })).toEqual([log[1]]);
    expect(await refusal(HISTORY.edits, { id, after: 'x' })).toBe('invalid');
    expect(await refusal(HISTORY.edits, { id: 'gone' })).toBe('not_found');
  });

  it('can be asked for at every step, and copied', async () => {
    const id = await demo();
    const saves = ['First', 'Second', 'Third'].map((name) => renamed(name, name));
    await ask(PROJECTS.save, { id }, { base: 0, saves });
    const names = [];
    for (const state of ['0', '1', '2', '3']) names.push((await ask(HISTORY.state, { id, state })).document.name);
    expect(names).toEqual([demoProject().name, 'First', 'Second', 'Third']);
    expect(await refusal(HISTORY.state, { id, state: '4' })).toBe('not_found');
    const copy = await ask(HISTORY.copyState, { id, state: '1' });
    expect(copy.name).toBe('First');
    expect((await ask(PROJECTS.open, { id: copy.id })).document.scenes).toEqual(demoProject().scenes);
  });

  it('is kept under names', async () => {
    const id = await demo();
    await ask(PROJECTS.save, { id }, { base: 0, saves: [renamed('a', 'First'), renamed('b', 'Second')] });
    const now = await ask(HISTORY.checkpoint, { id }, { name: 'For the client', revision: null, by: 'Ida' });
    const then = await ask(HISTORY.checkpoint, { id }, { name: 'Before', revision: 1, by: null });
    expect(await ask(HISTORY.checkpoints, { id })).toEqual([then, now]);
    await ask(PROJECTS.save, { id }, { base: 2, saves: [renamed('c', 'Third')] });
    expect((await ask(HISTORY.state, { id, state: now.id })).document.name).toBe('Second');
    expect((await ask(HISTORY.state, { id, state: then.id })).document.name).toBe('First');
    await ask(HISTORY.renameCheckpoint, { id, checkpoint: then.id }, { name: 'At first' });
    await ask(HISTORY.removeCheckpoint, { id, checkpoint: now.id });
    expect((await ask(HISTORY.checkpoints, { id })).map(({ name }) => name)).toEqual(['At first']);
    expect(await refusal(HISTORY.removeCheckpoint, { id, checkpoint: now.id })).toBe('not_found');
    expect(await refusal(HISTORY.state, { id, state: now.id })).toBe('not_found');
    expect(await refusal(HISTORY.renameCheckpoint, { id, checkpoint: now.id }, { name: 'Gone' })).toBe('not_found');
    await site().projects.forget();
    for (let n = 0; n < 2; n++) await ask(HISTORY.restoreCheckpoint, { id, checkpoint: now.id });
    expect((await ask(HISTORY.state, { id, state: now.id })).document.name).toBe('Second');
    await ask(HISTORY.removeCheckpoint, { id, checkpoint: now.id });
    await site().db.query(`update checkpoints set removed_at = now() - interval '31 days' where id = $1`, [now.id]);
    await site().projects.forget();
    expect(await refusal(HISTORY.restoreCheckpoint, { id, checkpoint: now.id })).toBe('not_found');
    // Of another project they are not there.
    expect(await refusal(HISTORY.state, { id: await demo(), state: then.id })).toBe('not_found');
  });

  it('is brought back: a scene with what it draws on', async () => {
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
    expect((await ask(HISTORY.removedScenes, { id })).map((scene) => scene.id)).toEqual([gone]);
    const taken = await ask(HISTORY.removedScene, { id, scene: gone });
    expect(taken.scenes).toEqual([document.scenes[gone]]);
    expect(await refusal(HISTORY.removedScene, { id, scene: document.order.find((o) => o !== gone) })).toBe(
      'not_found',
    );
    // Back again, it is no longer among what is gone.
    const back = applyEdit((await ask(PROJECTS.open, { id })).document, bringBackScenes(taken.scenes, taken.assets));
    await ask(PROJECTS.save, { id }, { base: 1, saves: [{ id: 'back', label: 'Back', patches: back.patches }] });
    expect(await ask(HISTORY.removedScenes, { id })).toEqual([]);
  });
});

describe('a project that is open', () => {
  const lineTo = async (id: string, headers: Record<string, string> = {}) => {
    const told: Told[] = [];
    let look: () => void = () => undefined;
    await site().app.ready();
    const socket = await site().app.injectWS(
      urlOf(LIVE.line, { id }),
      { headers: { host: site().host, ...headers } },
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
      expect(edits).toEqual(await ask(HISTORY.edits, { id }));
    }
    ida.told.length = 0;
    // As a page that is gone; one that says so waits half a minute for the other end, where there is no network in between.
    otto.socket.terminate();
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

everyCallWasAsked();
