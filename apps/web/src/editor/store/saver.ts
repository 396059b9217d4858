/**
 * Sends edits to the server: those made while a request is under way go together in the next one, a few requests a
 * second at the most. What is not yet acknowledged is kept in this browser, so that neither a server that is away nor a
 * closed tab loses it. What others do is put under what waits here. An edit that cannot be saved is taken back alone, and
 * named.
 */
import { HISTORY, type Logged } from '@kite/api/history';
import { type Head, PROJECTS, type Save, type Saved } from '@kite/api/projects';
import { HEALTH } from '@kite/api/renders';
import { cutText } from '@kite/core/document/text';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { ApiError, ask, Away } from '../../api/client';
import { newId } from '../../api/ids';
import { myself } from '../../app/person';
import { Outbox, type Unsent } from './outbox';
import { Queue, type Rebased, type Waiting } from './queue';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** The server does not answer; so many edits wait here. */
  | { readonly kind: 'away'; readonly waiting: number }
  /** The server answers and cannot save, or this browser cannot keep: why, and how many edits wait here. */
  | { readonly kind: 'stuck'; readonly waiting: number; readonly reason: string };

export interface SaverEvents {
  readonly onState: (state: SaveState) => void;
  /** The server has these, by their revisions. */
  readonly onSaved: (revisions: ReadonlyMap<string, number>) => void;
  readonly onRebased: (rebased: Rebased) => void;
  /** Edits that no longer fit what the project has become. */
  readonly onLost: (labels: readonly string[]) => void;
  /** Edits that the server refused, and that were taken back. */
  readonly onRefused: (label: string, reason: string) => void;
  /** Edits of another tab that is gone, which could not send them. */
  readonly onTakenOver: (labels: readonly string[]) => void;
}

const RETRY_MS = 1_500;
/** From the start of one request to that of the next. */
const BETWEEN_MS = 250;
const MOST_SAVES = 500;
/** Characters of patches in one request; a longer edit goes by itself. */
const MOST_LENGTH = 4_000_000;
/** How often an edit that the server stumbles over is tried again. */
const MOST_STUMBLES = 3;

const NONE: ReadonlySet<string> = new Set();

export class Saver {
  private readonly queue: Queue;
  /** Of what waits, how many are under way: the first ones. */
  private underWay = 0;
  private lastSent = -BETWEEN_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private state: SaveState = { kind: 'saved' };
  /** Whether edits go one by one, to find the one that the server stumbles over. */
  private single = false;
  private stumbles = 0;
  private closed = false;
  private waiters: { resolve: () => void; reject: (error: Error) => void }[] = [];
  /** What the line told and has not come to its turn, by revision. */
  private readonly heard = new Map<number, Logged>();
  private held = false;
  /** Whether a gesture has changed something that is no edit yet. */
  private touched = false;
  /** Whether the server has more than is here, and what waits cannot be sent before that is read. */
  private behind = false;
  private catching = false;

  private constructor(
    private readonly project: string,
    head: Head,
    private readonly outbox: Outbox,
    private readonly events: SaverEvents,
  ) {
    this.queue = new Queue(head);
    window.addEventListener('online', this.wake);
  }

  private readonly wake = () => this.schedule(0);

  /** Opens a project: the server's document with what tabs that are gone have left on top. */
  static async open(
    project: string,
    events: SaverEvents,
  ): Promise<{ saver: Saver; doc: Project; waiting: readonly Waiting[] }> {
    const outbox = await Outbox.open(project);
    try {
      const left = await outbox.takeOver();
      // Some may have arrived although the answer did not.
      const { ids } =
        left.length > 0
          ? await ask(PROJECTS.arrived, { id: project }, { ids: left.map((edit) => edit.id) })
          : { ids: [] };
      await outbox.drop(ids);
      const rest = left.filter((edit) => !ids.includes(edit.id));
      const saver = new Saver(project, await ask(PROJECTS.open, { id: project }), outbox, events);
      if (rest.length > 0) events.onTakenOver(rest.map((edit) => edit.label));
      return { saver, ...saver.take(saver.queue.head, NONE, rest) };
    } catch (error) {
      outbox.close();
      throw error;
    }
  }

  private say(state: SaveState): void {
    this.state = state;
    this.events.onState(state);
    if (state.kind === 'saving') return;
    const waiters = this.waiters;
    this.waiters = [];
    for (const { resolve, reject } of waiters) {
      if (state.kind === 'saved') resolve();
      else reject(new Error(this.inTheWay(state)));
    }
  }

  private inTheWay(state: SaveState): string {
    const waiting = 'waiting' in state ? state.waiting : 0;
    const edits = `${waiting} edit${waiting === 1 ? ' waits' : 's wait'} in this browser`;
    if (state.kind === 'stuck') return `${edits}: ${state.reason}`;
    return `${edits}: the server does not answer. Try again when it is back.`;
  }

  /** Keeps an edit until the server has it; gives its id. */
  add(label: string, patches: readonly Patch[], of: Pick<Save, 'undoes' | 'redoes'> = {}): string {
    const edit: Unsent = { id: newId(), label: cutText(label, 200), patches, ...of };
    this.queue.add(edit);
    this.keep(edit);
    if (this.state.kind === 'saved') this.say({ kind: 'saving' });
    this.schedule(this.lastSent + BETWEEN_MS - performance.now());
    return edit.id;
  }

  /** The one that the server is known to be at. */
  get revision(): number {
    return this.queue.head.revision;
  }
  get hasUnsent(): boolean {
    return this.queue.edits.length > 0 || this.touched;
  }

  /** Resolves once the server has every edit; rejects as soon as something is in the way, and says what. */
  settled(): Promise<void> {
    if (this.queue.edits.length === 0) return Promise.resolve();
    if (this.state.kind !== 'saving') return Promise.reject(new Error(this.inTheWay(this.state)));
    clearTimeout(this.timer);
    this.timer = undefined;
    this.schedule(0);
    return new Promise((resolve, reject) => this.waiters.push({ resolve, reject }));
  }

  private keep(edit: Unsent): void {
    this.outbox.put(edit).catch(() =>
      this.say({
        kind: 'stuck',
        waiting: this.queue.edits.length,
        reason: 'this browser has no room left to keep them. Export the project before closing the page.',
      }),
    );
  }

  // ---- what others do

  /** What was saved, by others or from here, as the line tells it. */
  hear(edits: readonly Logged[]): void {
    for (const edit of edits) if (edit.revision > this.queue.head.revision) this.heard.set(edit.revision, edit);
    this.takeIn();
  }

  /** The revision that the server is at. */
  at(revision: number): void {
    if (revision <= this.queue.head.revision || this.underWay > 0) return;
    this.behind = true;
    this.catchUp();
  }

  /** A gesture has changed something: it is not saved before it ends. */
  touch(): void {
    this.touched = true;
    if (this.state.kind === 'saved') this.say({ kind: 'saving' });
  }

  /** While something is being dragged, what others do waits. */
  hold(held: boolean): void {
    this.held = held;
    if (held) return;
    this.touched = false;
    this.takeIn();
    this.rest();
    if (this.behind) this.catchUp();
  }

  /** Takes in what was heard and follows on what is here. An answer that is awaited comes first. */
  private takeIn(): void {
    if (this.underWay > 0 || this.held || this.catching || this.closed) return;
    const edits: Logged[] = [];
    for (const [revision, edit] of [...this.heard].sort(([a], [b]) => a - b)) {
      if (revision > this.queue.head.revision + edits.length + 1) break;
      this.heard.delete(revision);
      if (revision > this.queue.head.revision) edits.push(edit);
    }
    if (edits.length > 0) this.follow(edits);
    // Something was not heard.
    if (this.heard.size > 0) this.at(Math.max(...this.heard.keys()));
  }

  /** Edits of the log that follow on what is here, one's own among them. */
  private follow(edits: readonly Logged[]): void {
    const { head, patches, own, theirs } = this.queue.following(edits);
    this.events.onSaved(own);
    const waited = this.hasUnsent;
    const { doc, waiting } = this.take(head, new Set(own.keys()));
    // Where all of it was one's own, it is here already.
    if (theirs.length > 0) this.events.onRebased({ doc, patches: waited ? null : patches, theirs, waiting });
    this.rest();
  }

  /** Reads what was saved since, or the whole document where the log no longer reaches back. */
  private catchUp(): void {
    if (this.catching || this.held || this.closed) return;
    this.catching = true;
    this.readOn()
      .then(
        () => {
          this.behind = false;
          this.rest();
        },
        (error: unknown) => {
          this.tellOf(error);
          setTimeout(() => this.catchUp(), RETRY_MS);
        },
      )
      .finally(() => {
        this.catching = false;
        this.takeIn();
        this.schedule(0);
      })
      .catch(() => undefined);
  }

  private async readOn(): Promise<void> {
    for (;;) {
      const { revision } = this.queue.head;
      const edits = await ask(HISTORY.edits, { id: this.project, after: String(revision) });
      if (this.closed || edits.length === 0) return;
      if (edits[0]?.revision === revision + 1) this.follow(edits);
      else {
        const head = await ask(PROJECTS.open, { id: this.project });
        const { ids } = await ask(
          PROJECTS.arrived,
          { id: this.project },
          { ids: this.queue.edits.map((edit) => edit.id) },
        );
        this.events.onRebased({ ...this.take(head, new Set(ids)), patches: null, theirs: null });
      }
    }
  }

  /** What waits goes on top of another document of the server; what is gone arrived there, or is taken back. */
  private take(head: Head, gone: ReadonlySet<string>, edits = this.queue.edits): Omit<Rebased, 'patches' | 'theirs'> {
    const { doc, waiting, lost } = this.queue.rebase(head, gone, edits);
    this.underWay = 0;
    for (const edit of this.queue.edits) this.keep(edit);
    void this.outbox.drop([...gone, ...lost.map((edit) => edit.id)]).catch(() => undefined);
    if (lost.length > 0) this.events.onLost(lost.map((edit) => edit.label));
    this.schedule(0);
    return { doc, waiting };
  }

  /** Takes edits back that the server refused; it may have taken others meanwhile. */
  private takeBack(head: Head, gone: ReadonlySet<string>): void {
    this.events.onRebased({ ...this.take(head, gone), patches: null, theirs: [] });
    this.rest();
  }

  /** Says so once nothing is left to be sent or read. */
  private rest(): void {
    if (!this.hasUnsent && !this.behind && this.state.kind !== 'saved') this.say({ kind: 'saved' });
  }

  // ---- sending

  private schedule(wait: number): void {
    if (this.underWay > 0 || this.timer !== undefined || this.closed || this.queue.edits.length === 0) return;
    this.timer = setTimeout(
      () => {
        this.timer = undefined;
        void this.send();
      },
      Math.max(0, wait),
    );
  }

  /** As many of the first edits as one request takes. */
  private batch(): Unsent[] {
    const out: Unsent[] = [];
    let length = 0;
    for (const edit of this.queue.edits) {
      length += JSON.stringify(edit.patches).length;
      if (out.length > 0 && (this.single || length > MOST_LENGTH || out.length === MOST_SAVES)) break;
      out.push(edit);
    }
    return out;
  }

  private async send(): Promise<void> {
    if (this.underWay > 0 || this.queue.edits.length === 0 || this.behind) return;
    const batch = this.batch();
    this.underWay = batch.length;
    this.lastSent = performance.now();
    if (this.state.kind !== 'saving') this.say({ kind: 'saving' });
    try {
      const { revision, refused } = await ask(
        PROJECTS.save,
        { id: this.project },
        { base: this.queue.head.revision, saves: batch, by: myself() },
      );
      this.stumbles = 0;
      this.acknowledged(batch, revision, refused);
      if (!this.hasUnsent) this.single = false;
      this.rest();
    } catch (error) {
      this.underWay = 0;
      await this.failed(error, batch);
    }
    this.takeIn();
    this.schedule(this.lastSent + BETWEEN_MS - performance.now());
  }

  /** The server has a batch, but for what it refused. */
  private acknowledged(batch: readonly Unsent[], revision: number, refused: Saved['refused']): void {
    const bad = new Set(refused.map(({ id }) => id));
    for (const { id, message } of refused) {
      this.events.onRefused(batch.find((edit) => edit.id === id)?.label ?? '', message);
    }
    const kept = batch.filter(({ id }) => !bad.has(id));
    const { head } = this.queue;
    this.underWay = 0;
    if (revision !== head.revision + kept.length) {
      // It had some of them before, and others have come since: the log says in which order.
      if (bad.size > 0) this.takeBack(head, bad);
      this.at(revision);
      return;
    }
    this.events.onSaved(new Map(kept.map(({ id }, i) => [id, head.revision + 1 + i])));
    if (bad.size > 0) {
      const document = kept.reduce((doc, edit) => applyPatches(doc, edit.patches), head.document);
      this.takeBack({ document, revision }, new Set(batch.map(({ id }) => id)));
      return;
    }
    this.queue.arrived(batch, revision);
    void this.outbox.drop(batch.map(({ id }) => id)).catch(() => undefined);
  }

  private async failed(error: unknown, batch: readonly Unsent[]): Promise<void> {
    // What is left waits in the browser for the project to be opened again.
    if (this.closed) return;
    try {
      if (error instanceof ApiError && error.code === 'stale') {
        this.behind = true;
        this.catchUp();
        return;
      }
      if (error instanceof ApiError && (await this.isFaultOf(batch, error))) {
        if (batch.length > 1) {
          this.single = true;
          return;
        }
        const [edit] = batch as [Unsent];
        this.events.onRefused(edit.label, error.message);
        this.takeBack(this.queue.head, new Set([edit.id]));
        return;
      }
    } catch (again) {
      error = again;
    }
    this.tellOf(error);
    this.schedule(RETRY_MS);
  }

  /** What keeps edits from being saved. */
  private tellOf(error: unknown): void {
    const waiting = this.queue.edits.length;
    if (error instanceof Away) this.say({ kind: 'away', waiting });
    else this.say({ kind: 'stuck', waiting, reason: error instanceof Error ? error.message : String(error) });
  }

  /** Whether the edits themselves are what the server could not take, and not its own state. */
  private async isFaultOf(batch: readonly Unsent[], { status }: ApiError): Promise<boolean> {
    if (status === 400 || status === 413) return true;
    if (status !== 500) return false;
    // It stumbled: tried alone, and again, before the edit is given up; and only by a server that is well otherwise.
    if (batch.length > 1) return true;
    if (++this.stumbles < MOST_STUMBLES) return false;
    await ask(HEALTH);
    this.stumbles = 0;
    return true;
  }

  /** Leaves the project. What is being sent goes on to its end. */
  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    window.removeEventListener('online', this.wake);
    this.outbox.close();
  }
}
