import { newProject } from '@kite/core/document/make';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Preview } from './client';
import type { DrawWish, PreviewRequest } from './messages';

/** A worker that keeps what it is sent and answers when it is told to. */
class HeldWorker {
  static readonly all: HeldWorker[] = [];
  readonly got: PreviewRequest[] = [];
  ended = false;
  onmessage: (event: { data: unknown }) => void = () => undefined;
  onerror: (event: { message: string; preventDefault: () => void }) => void = () => undefined;
  constructor() {
    HeldWorker.all.push(this);
  }
  postMessage(request: PreviewRequest): void {
    this.got.push(request);
  }
  terminate(): void {
    this.ended = true;
  }
  get draws(): number[] {
    return this.got.flatMap((r) => (r.kind === 'draw' ? [r.frame] : []));
  }
}
const wish = (frame: number): DrawWish => ({
  scene: 's',
  frame,
  width: 10,
  height: 10,
  view: [1, 0, 0, 1, 0, 0],
  shrink: 1,
  at: [0, 0],
  solo: [],
  onion: null,
  compare: null,
  lookedAt: null,
  around: null,
});
const reply = (frame: number) => ({ data: { id: 0, frame, at: [0, 0], bitmap: null, problems: [], ms: 0 } });
const doc = newProject('p', 'Project', []);
const worker = (i: number) => HeldWorker.all[i] as HeldWorker;

describe('the preview', () => {
  beforeEach(() => {
    HeldWorker.all.length = 0;
    vi.stubGlobal('Worker', HeldWorker);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('has one drawing under way, and only the latest wish after it', () => {
    const preview = new Preview();
    for (const frame of [1, 2, 3]) preview.draw(wish(frame));
    expect(worker(0).draws).toEqual([1]);
    worker(0).onmessage(reply(1));
    expect(worker(0).draws).toEqual([1, 3]);
  });
  it('starts a worker anew that failed, with the document, and draws what was wished for', () => {
    const preview = new Preview();
    const told: string[] = [];
    preview.onFailure = (message) => (told.push(message), doc);
    preview.open(doc);
    preview.draw(wish(4));
    worker(0).onmessage({ data: { failed: 'out of memory' } });
    expect([told, worker(0).ended]).toEqual([['out of memory'], true]);
    expect(worker(1).got).toMatchObject([{ kind: 'open', doc: JSON.stringify(doc) }, { kind: 'draw' }]);
    worker(1).onmessage(reply(4));
    preview.draw(wish(5));
    expect(worker(1).draws).toEqual([4, 5]);
  });
  it('does not try by itself again where it failed twice, but goes on with the next wish', () => {
    const preview = new Preview();
    preview.onFailure = () => doc;
    preview.draw(wish(4));
    const gone = { message: 'it ended', preventDefault: () => undefined };
    worker(0).onerror(gone);
    worker(1).onerror(gone);
    expect([HeldWorker.all.length, worker(2).draws]).toEqual([3, []]);
    preview.draw(wish(5));
    expect(worker(2).draws).toEqual([5]);
  });
  it('answers who waits for a colour when the worker is gone', async () => {
    const preview = new Preview();
    const sampled = preview.sample('s', 0, [1, 1]);
    worker(0).onmessage({ data: { failed: 'it ended' } });
    expect(await sampled).toBeNull();
  });
});
