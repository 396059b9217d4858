import type { Project } from '@kite/core/document/types';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { demoProject } from '@kite/demo/project';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Saver, type SaveState } from './saver';

/** A server that keeps one project, as the real one does, and can be away. */
class FakeServer {
  document: Project = demoProject();
  revision = 0;
  away = false;
  readonly saves: string[] = [];
  private readonly done = new Map<string, number>();

  readonly fetch = async (_url: string, init: { method: string; body?: string }): Promise<Response> => {
    if (this.away) throw new TypeError('network');
    if (init.method === 'GET') return this.answer(200, { document: this.document, revision: this.revision });
    const save = JSON.parse(init.body ?? '') as { id: string; base: number; patches: Patch[] };
    const before = this.done.get(save.id);
    if (before !== undefined) return this.answer(200, { revision: before });
    if (save.base !== this.revision)
      return this.answer(409, { error: { code: 'stale', message: 'changed elsewhere' } });
    this.change(save.patches);
    this.saves.push(save.id);
    this.done.set(save.id, this.revision);
    return this.answer(200, { revision: this.revision });
  };

  change(patches: readonly Patch[]): void {
    this.document = applyPatches(this.document, patches);
    this.revision++;
  }

  private answer(status: number, body: unknown): Response {
    return new Response(JSON.stringify(body), { status });
  }
}

const rename = (name: string) => applyEdit(demoProject(), renameProject(name)).patches;

describe('the saver', () => {
  let server: FakeServer;
  let states: SaveState[];
  let rebased: Project[];
  const kept = new Map<string, string>();

  beforeEach(() => {
    server = new FakeServer();
    states = [];
    rebased = [];
    kept.clear();
    vi.useFakeTimers();
    vi.stubGlobal('fetch', server.fetch);
    vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined });
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  const open = () =>
    Saver.open('p', {
      onState: (state) => states.push(state),
      onRebased: (doc) => rebased.push(doc),
      onLost: () => undefined,
    });
  const settle = () => vi.advanceTimersByTimeAsync(20);

  it('sends edits one after another and says when all are saved', async () => {
    const { saver } = await open();
    saver.add('Rename', rename('One'));
    saver.add('Rename', rename('Two'));
    expect(saver.hasUnsent).toBe(true);
    await settle();
    expect([server.document.name, server.revision, saver.hasUnsent]).toEqual(['Two', 2, false]);
    expect(states.at(-1)).toEqual({ kind: 'saved' });
    expect(kept.size).toBe(0);
  });

  it('keeps edits while the server is away, counts them, and sends them when it is back', async () => {
    const { saver } = await open();
    server.away = true;
    saver.add('Rename', rename('Away'));
    await settle();
    expect(states.at(-1)).toEqual({ kind: 'away', waiting: 1 });
    expect([...kept.values()].join()).toContain('Away');
    server.away = false;
    await vi.advanceTimersByTimeAsync(2_000);
    expect([server.document.name, states.at(-1)?.kind]).toEqual(['Away', 'saved']);
  });

  it('finds edits again that a closed page had left', async () => {
    const first = await open();
    server.away = true;
    first.saver.add('Rename', rename('Left behind'));
    await settle();
    first.saver.close();
    server.away = false;
    const { doc } = await open();
    expect([doc.name, server.document.name]).toEqual(['Left behind', 'Left behind']);
  });

  it('does not send twice what had arrived although the answer had not', async () => {
    const first = await open();
    first.saver.add('Rename', rename('Arrived'));
    const outbox = [...kept.entries()];
    await settle();
    first.saver.close();
    // The page died before it heard of it.
    for (const [key, value] of outbox) kept.set(key, value);
    await open();
    await settle();
    expect([server.saves.length, server.revision]).toEqual([1, 1]);
  });

  it('puts edits on top of what others changed in the meantime', async () => {
    const { saver } = await open();
    const scene = server.document.order[0] as string;
    server.change([{ op: 'replace', path: ['scenes', scene, 'name'], value: 'Theirs' }]);
    saver.add('Rename', rename('Ours'));
    await settle();
    expect([server.document.name, server.document.scenes[scene]?.name]).toEqual(['Ours', 'Theirs']);
    expect(rebased.at(-1)?.scenes[scene]?.name).toBe('Theirs');
  });

  it('says why an edit is refused, and goes on keeping it', async () => {
    const { saver } = await open();
    vi.stubGlobal(
      'fetch',
      async () => new Response(JSON.stringify({ error: { message: 'name: got nothing' } }), { status: 400 }),
    );
    saver.add('Rename', rename('x'));
    await settle();
    expect(states.at(-1)).toEqual({ kind: 'refused', reason: 'name: got nothing' });
    expect(saver.hasUnsent).toBe(true);
  });
});
