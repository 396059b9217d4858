import 'fake-indexeddb/auto';
import type { Logged } from '@kite/api/history';
import type { Save } from '@kite/api/projects';
import type { Project } from '@kite/core/document/types';
import { changeOf, type Patch } from '@kite/core/document/patches';
import { checkProject } from '@kite/core/check/project';
import { applyEdit } from '@kite/core/edits/apply';
import { Chance } from '@kite/core/test/random';
import { randomEdit } from '@kite/core/test/randomEdit';
import { demoProject } from '@kite/demo/project';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Rebased } from './queue';
import { Saver, type SaverEvents, type SaveState } from './saver';

/** A server that keeps one project, as the real one does; it can be away, stumble, and lose its answers. */
class FakeServer {
  document: Project = demoProject();
  revision = 0;
  away = false;
  /** Takes requests and gives no answer. */
  mute = false;
  full = false;
  /** Refuses saves under this label, or stumbles over them. */
  refuses = '';
  stumblesOver = '';
  readonly requests: (readonly Save[])[] = [];
  readonly labels: string[] = [];
  /** What of the log is left, and whether anybody asked for more than that. */
  log: Logged[] = [];
  wholes = 0;
  private readonly done = new Set<string>();

  readonly fetch = async (url: string, init: { method: string; body?: string }): Promise<Response> => {
    if (this.away) throw new TypeError('network');
    if (url.endsWith('/health')) return this.answer(200, { ok: true });
    const after = /edits\?after=(\d+)$/.exec(url)?.[1];
    if (after !== undefined) {
      return this.answer(
        200,
        this.log.filter(({ revision }) => revision > Number(after)),
      );
    }
    if (init.method === 'GET') {
      this.wholes++;
      return this.answer(200, { document: this.document, revision: this.revision });
    }
    if (url.endsWith('/arrived')) {
      const { ids } = JSON.parse(init.body ?? '') as { ids: string[] };
      return this.answer(200, { ids: ids.filter((id) => this.done.has(id)) });
    }
    const { base, saves } = JSON.parse(init.body ?? '') as { base: number; saves: Save[] };
    this.requests.push(saves);
    if (this.full) return this.fault(507, 'no_room', 'The disk of the server is full.');
    const fresh = saves.filter((save) => !this.done.has(save.id));
    if (fresh.length > 0 && base !== this.revision) {
      const done = saves.filter((save) => this.done.has(save.id)).map((save) => save.id);
      return this.fault(409, 'stale', 'changed elsewhere', { done });
    }
    if (fresh.some((save) => save.label === this.stumblesOver))
      return this.fault(500, 'internal', 'Something went wrong.');
    const refused = [];
    for (const save of fresh) {
      if (save.label === this.refuses) refused.push({ id: save.id, message: 'name: got nothing' });
      else {
        this.change(save.patches, save.id);
        this.done.add(save.id);
        this.labels.push(save.label);
      }
    }
    if (this.mute) throw new TypeError('network');
    return this.answer(200, { revision: this.revision, refused });
  };

  change(patches: readonly Patch[], id = `theirs ${this.revision}`): Logged {
    const { doc, inverse } = changeOf(this.document, patches);
    this.document = doc;
    const edit = { id, label: 'Edit', patches, inverse, revision: ++this.revision, at: '2026-11-28', by: null };
    this.log.push(edit);
    return edit;
  }

  private fault(status: number, code: string, message: string, more: object = {}): Response {
    return this.answer(status, { error: { code, message, ...more } });
  }

  private answer(status: number, body: unknown): Response {
    return new Response(JSON.stringify(body), { status });
  }
}

/** Locks as browsers have them (Web Locks API), as far as they are used here. */
class FakeLocks {
  readonly names = new Set<string>();
  readonly query = async () => ({ held: [...this.names].map((name) => ({ name })) });
  readonly request = async (name: string, work: () => Promise<void>) => {
    this.names.add(name);
    await work();
    this.names.delete(name);
  };
}

const rename = (name: string): Patch[] => [{ op: 'replace', path: ['name'], value: name }];
const first = demoProject().order[0] as string;
const resize = (length: number): Patch[] => [{ op: 'replace', path: ['scenes', first, 'length'], value: length }];

/** Another turn of the event loop, on a clock of its own. */
const turn = () =>
  new Promise<void>((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      done();
    };
    port2.postMessage(null);
  });

describe('the saver', () => {
  let server: FakeServer;
  let locks: FakeLocks;
  let states: SaveState[];
  let rebased: Rebased[];
  let saved: Map<string, number>;
  let told: string[];
  const opened: Saver[] = [];

  beforeEach(() => {
    server = new FakeServer();
    locks = new FakeLocks();
    states = [];
    rebased = [];
    saved = new Map();
    told = [];
    vi.stubGlobal('indexedDB', new IDBFactory());
    // The database's own turns go on by themselves.
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] });
    vi.stubGlobal('fetch', server.fetch);
    vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined });
    vi.stubGlobal('navigator', { locks });
    vi.stubGlobal('localStorage', { getItem: () => null, removeItem: () => undefined });
  });
  afterEach(() => {
    for (const saver of opened.splice(0)) saver.close();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  const open = async () => {
    const mine = states;
    const events: { -readonly [K in keyof SaverEvents]: SaverEvents[K] } = {
      onState: (state) => mine.push(state),
      onSaved: (revisions) => revisions.forEach((revision, id) => saved.set(id, revision)),
      onRebased: (now) => rebased.push(now),
      onLost: (labels) => told.push(`lost ${labels.join()}`),
      onRefused: (label, reason) => told.push(`refused ${label}: ${reason}`),
      onTakenOver: (labels) => told.push(`taken over ${labels.join()}`),
    };
    const made = await Saver.open('p', events);
    opened.push(made.saver);
    return { ...made, events };
  };
  /** Lets time pass, and the database have its turns between. */
  const pass = async (ms: number) => {
    for (let gone = 0; gone < ms; gone += 50) {
      await vi.advanceTimersByTimeAsync(50);
      for (let turns = 0; turns < 12; turns++) await turn();
    }
  };

  it('gathers what is made while a request is under way, and says when all is saved', async () => {
    const { saver } = await open();
    for (let i = 0; i < 200; i++) saver.add(i % 2 ? 'Resize' : 'Rename', i % 2 ? resize(20 + i) : rename(`Name ${i}`));
    expect(saver.hasUnsent).toBe(true);
    for (let i = 0; i < 200 && states.at(-1)?.kind !== 'saved'; i++) await pass(50);
    expect([server.document.name, server.document.scenes[first]?.length]).toEqual(['Name 198', 219]);
    expect(server.requests.length).toBeLessThanOrEqual(2);
    expect([server.labels.length, saver.hasUnsent, states.at(-1)]).toEqual([200, false, { kind: 'saved' }]);
  });

  it('does not say that what a gesture has changed is saved before the gesture has ended', async () => {
    const { saver } = await open();
    saver.add('Rename', rename('Before'));
    saver.hold(true);
    saver.touch();
    for (let i = 0; i < 20; i++) await pass(50);
    expect([server.document.name, saver.hasUnsent, states.map(({ kind }) => kind)]).toEqual([
      'Before',
      true,
      ['saving'],
    ]);
    saver.add('Rename', rename('After'));
    saver.hold(false);
    expect(states.at(-1)?.kind).toBe('saving');
    for (let i = 0; i < 200 && states.at(-1)?.kind !== 'saved'; i++) await pass(50);
    expect([server.document.name, saver.hasUnsent]).toEqual(['After', false]);

    // One that has come to nothing leaves nothing to be saved.
    saver.hold(true);
    saver.touch();
    saver.hold(false);
    expect([saver.hasUnsent, states.slice(-2).map(({ kind }) => kind)]).toEqual([false, ['saving', 'saved']]);
  });

  it('sends a few requests a second, and says which revision each edit got', async () => {
    const { saver } = await open();
    const ids = Array.from({ length: 90 }, (_, i) => saver.add('Nudge', resize(20 + i)));
    await pass(300);
    for (let i = 0; i < 90; i++) {
      ids.push(saver.add('Nudge', resize(200 + i)));
      if (i % 30 === 0) await pass(50);
    }
    await pass(800);
    expect([server.document.scenes[first]?.length, server.labels.length]).toEqual([289, 180]);
    expect(server.requests.length).toBeLessThanOrEqual(8);
    expect(ids.map((id) => saved.get(id))).toEqual(ids.map((_, i) => i + 1));
  });

  it('keeps edits while the server is away, counts them, and sends them when it is back', async () => {
    const { saver } = await open();
    server.away = true;
    saver.add('Rename', rename('Away'));
    await pass(300);
    expect(states.at(-1)).toEqual({ kind: 'away', waiting: 1 });
    await expect(saver.settled()).rejects.toThrow('1 edit waits in this browser: the server does not answer');
    server.away = false;
    await pass(2_000);
    expect([server.document.name, states.at(-1)?.kind]).toEqual(['Away', 'saved']);
    await saver.settled();
  });

  it('tells a disk that is full as that', async () => {
    const { saver } = await open();
    server.full = true;
    saver.add('Rename', rename('Full'));
    await pass(300);
    expect(states.at(-1)).toEqual({ kind: 'stuck', waiting: 1, reason: 'The disk of the server is full.' });
    server.full = false;
    await pass(2_000);
    expect(server.document.name).toBe('Full');
  });

  it('finds edits again that a closed page had left, and tells of them', async () => {
    const before = await open();
    server.away = true;
    before.saver.add('Rename', rename('Left behind'));
    await pass(300);
    before.saver.close();
    await pass(50);
    server.away = false;
    const { doc } = await open();
    await pass(300);
    expect([doc.name, server.document.name]).toEqual(['Left behind', 'Left behind']);
    expect(told).toEqual(['taken over Rename']);
  });

  it('keeps the queues of two tabs apart, and takes both over once both are gone', async () => {
    const [one, two] = [await open(), await open()];
    server.away = true;
    for (let i = 0; i < 3; i++)
      one.saver.add(`One ${i}`, [{ op: 'add', path: ['scenes', first, 'guides', 'x', i], value: i }]);
    for (let i = 0; i < 2; i++)
      two.saver.add(`Two ${i}`, [{ op: 'add', path: ['scenes', first, 'guides', 'y', i], value: i }]);
    await pass(300);
    server.away = false;
    one.saver.close();
    two.saver.close();
    await pass(50);
    const { doc } = await open();
    expect([doc.scenes[first]?.guides.x.length, doc.scenes[first]?.guides.y.length]).toEqual([3, 2]);
  });

  it('leaves alone what a living tab has', async () => {
    const one = await open();
    server.away = true;
    one.saver.add('Rename', rename('Mine'));
    await pass(300);
    server.away = false;
    const { doc } = await open();
    expect([doc.name, told]).toEqual(['Quillhaven Night Tram', []]);
  });

  it('does not send twice what had arrived although the answer had not', async () => {
    const { saver } = await open();
    server.mute = true;
    saver.add('Guide', [{ op: 'add', path: ['scenes', first, 'guides', 'x', 0], value: 5 }]);
    await pass(300);
    saver.close();
    await pass(50);
    server.mute = false;
    const { doc } = await open();
    await pass(300);
    expect([doc.scenes[first]?.guides.x, server.labels.length]).toEqual([[5], 1]);
  });

  it('nor when others have changed the project meanwhile', async () => {
    const { saver } = await open();
    server.mute = true;
    saver.add('Guide', [{ op: 'add', path: ['scenes', first, 'guides', 'x', 0], value: 5 }]);
    await pass(300);
    saver.add('Rename', rename('Ours'));
    server.mute = false;
    server.change(resize(99));
    await pass(3_000);
    expect([server.document.name, server.document.scenes[first]?.guides.x]).toEqual(['Ours', [5]]);
    expect(server.document.scenes[first]?.length).toBe(99);
  });

  it('puts edits on top of what others changed in the meantime', async () => {
    const { saver } = await open();
    server.change([{ op: 'replace', path: ['scenes', first, 'name'], value: 'Theirs' }]);
    saver.add('Rename', rename('Ours'));
    await pass(600);
    expect([server.document.name, server.document.scenes[first]?.name]).toEqual(['Ours', 'Theirs']);
    expect(rebased.at(-1)).toMatchObject({ doc: server.document, theirs: [{ revision: 1 }] });
    // Read once, when it was opened.
    expect(server.wholes).toBe(1);
  });

  it('takes in what others do as it is told, whatever order it comes in', async () => {
    const { saver } = await open();
    const [one, two] = [server.change(rename('One')), server.change(resize(77))];
    saver.hear([two]);
    saver.hear([one]);
    await pass(300);
    expect(rebased.flatMap(({ theirs }) => (theirs ?? []).map(({ revision }) => revision))).toEqual([1, 2]);
    expect([rebased.at(-1)?.doc.name, rebased.at(-1)?.doc.scenes[first]?.length]).toEqual(['One', 77]);
    saver.add('Rename', rename('Ours'));
    await pass(300);
    expect([server.document.name, server.requests.length]).toEqual(['Ours', 1]);
  });

  it('hears its own edits without doing them again, also where the answer never came', async () => {
    const { saver } = await open();
    server.mute = true;
    saver.add('Guide', [{ op: 'add', path: ['scenes', first, 'guides', 'x', 0], value: 5 }]);
    await pass(300);
    saver.hear(server.log);
    server.mute = false;
    await pass(3_000);
    expect([server.labels.length, saver.hasUnsent, rebased, states.at(-1)?.kind]).toEqual([1, false, [], 'saved']);
  });

  it('lets others wait while something is dragged', async () => {
    const { saver } = await open();
    saver.hold(true);
    saver.hear([server.change(rename('Theirs'))]);
    await pass(300);
    expect(rebased).toEqual([]);
    saver.hold(false);
    expect(rebased.at(-1)?.doc.name).toBe('Theirs');
  });

  it('reads what it missed once the line is open again', async () => {
    const { saver } = await open();
    server.change(rename('Theirs'));
    saver.at(1);
    await pass(100);
    expect([rebased.at(-1)?.doc.name, server.wholes]).toEqual(['Theirs', 1]);
  });

  it('reads the whole document where the log no longer reaches back', async () => {
    const { saver } = await open();
    server.change(rename('Old'));
    server.change(resize(88));
    server.log = server.log.slice(1);
    saver.add('Guide', [{ op: 'add', path: ['scenes', first, 'guides', 'x', 0], value: 5 }]);
    await pass(2_000);
    expect([server.wholes, server.document.name, server.document.scenes[first]?.length]).toEqual([2, 'Old', 88]);
    expect(rebased.map(({ theirs }) => theirs)).toEqual([null]);
    expect(server.document.scenes[first]?.guides.x).toEqual([5]);
  });

  it('ends with one document for two pages that edit at once, the same as the server has', async () => {
    const chance = new Chance(11);
    const pages = await Promise.all(
      [0, 1].map(async () => {
        const page = { ...(await open()), log: 0 };
        const { events } = page;
        events.onRebased = ({ doc }) => (page.doc = doc);
        return page;
      }),
    );
    for (let round = 0; round < 150; round++) {
      const page = chance.one(pages);
      try {
        const { doc, patches } = applyEdit(page.doc, randomEdit(chance, page.doc, `r${round}x`));
        checkProject(doc);
        page.doc = doc;
        page.saver.add(`Edit ${round}`, patches);
      } catch (error) {
        // What cannot be done is refused in words.
        if (!(error instanceof RangeError)) throw error;
      }
      if (chance.happens(0.5)) await pass(50);
      for (const listener of pages) {
        if (chance.happens(0.4)) continue;
        listener.saver.hear(server.log.slice(listener.log));
        listener.log = server.log.length;
      }
    }
    for (let i = 0; i < 40; i++) {
      await pass(200);
      for (const { saver } of pages) saver.at(server.revision);
    }
    expect(server.labels.length).toBeGreaterThan(60);
    for (const { doc, saver } of pages) {
      expect(saver.hasUnsent).toBe(false);
      expect(JSON.parse(JSON.stringify(doc))).toEqual(JSON.parse(JSON.stringify(server.document)));
    }
    // Hundreds of checked documents, on a machine that may be busy otherwise.
  });

  it('takes a refused edit back alone, by its name, and saves the rest', async () => {
    const { saver } = await open();
    server.refuses = 'Bad';
    saver.add('Rename', rename('Kept'));
    saver.add('Bad', rename('Never'));
    saver.add('Resize', resize(50));
    await pass(600);
    expect([server.document.name, server.document.scenes[first]?.length]).toEqual(['Kept', 50]);
    expect(told).toEqual(['refused Bad: name: got nothing']);
    expect([rebased.at(-1)?.doc.name, saver.hasUnsent, states.at(-1)?.kind]).toEqual(['Kept', false, 'saved']);
  });

  it('gives an edit up that the server stumbles over again and again, and saves the rest', async () => {
    const { saver } = await open();
    server.stumblesOver = 'Bad';
    saver.add('Rename', rename('Kept'));
    saver.add('Bad', rename('Never'));
    saver.add('Resize', resize(50));
    await pass(400);
    expect(states.some((s) => s.kind === 'away')).toBe(false);
    await pass(8_000);
    expect([server.document.name, server.document.scenes[first]?.length]).toEqual(['Kept', 50]);
    expect(told).toEqual(['refused Bad: Something went wrong.']);
    expect(states.at(-1)?.kind).toBe('saved');
  });
});
