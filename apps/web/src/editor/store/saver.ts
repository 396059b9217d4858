/**
 * Sends edits to the server: those made while a request is under way go together in the next one, a few requests a
 * second at the most. What is not yet acknowledged is kept in this browser, so that neither a server that is away nor a
 * closed tab loses it. An edit that cannot be saved is taken back alone, and named.
 */
import { PROJECTS, type Head } from '@kite/api/projects';
import { HEALTH } from '@kite/api/renders';
import { checkProject } from '@kite/core/check/project';
import { cutText } from '@kite/core/document/text';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import type { Project } from '@kite/core/document/types';
import { reconcile } from '@kite/core/edits/reconcile';
import { ApiError, ask, Away } from '../../api/client';
import { newId } from '../../api/ids';
import { Outbox, type Unsent } from './outbox';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** The server does not answer; so many edits wait here. */
  | { readonly kind: 'away'; readonly waiting: number }
  /** The server answers and cannot save, or this browser cannot keep: why, and how many edits wait here. */
  | { readonly kind: 'stuck'; readonly waiting: number; readonly reason: string };

export interface SaverEvents {
  readonly onState: (state: SaveState) => void;
  /** The document was changed elsewhere, or an edit was taken back; here it is with what waits here on top. */
  readonly onRebased: (doc: Project) => void;
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

/** An edit on top of a document that others have changed; null where it no longer fits. */
const rebased = (doc: Project, edit: Unsent): { doc: Project; edit: Unsent } | null => {
  try {
    const change = applyEdit(applyPatches(doc, edit.patches), reconcile());
    return { doc: checkProject(change.doc), edit: { ...edit, patches: [...edit.patches, ...change.patches] } };
  } catch {
    return null;
  }
};

const placeOf = (patch: Patch): string => JSON.stringify(patch.path);

/** One edit in the place of two, where the later one only sets again what the earlier one set; else null. */
export const folded = (earlier: Unsent, later: Unsent): Unsent | null => {
  if (earlier.label !== later.label) return null;
  const places = new Map(earlier.patches.map((patch, i) => [placeOf(patch), i]));
  if (places.size !== earlier.patches.length) return null;
  const patches = [...earlier.patches];
  for (const patch of later.patches) {
    const i = places.get(placeOf(patch));
    const before = i === undefined ? undefined : patches[i];
    // A place in a list may be another after an insertion there.
    if (i === undefined || !before || patch.op !== 'replace' || before.op === 'remove') return null;
    if (before.op === 'add' && typeof before.path.at(-1) === 'number') return null;
    patches[i] = { ...before, value: patch.value };
  }
  return { ...earlier, patches };
};

export class Saver {
  private pending: Unsent[] = [];
  /** Of them, how many are under way: the first ones. */
  private underWay = 0;
  private lastSent = -BETWEEN_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private state: SaveState = { kind: 'saved' };
  /** Whether edits go one by one, to find the one that the server stumbles over. */
  private single = false;
  private stumbles = 0;
  private closed = false;
  private waiters: { resolve: () => void; reject: (error: Error) => void }[] = [];

  private constructor(
    private readonly project: string,
    private revision: number,
    private readonly outbox: Outbox,
    private readonly events: SaverEvents,
  ) {
    window.addEventListener('online', this.wake);
  }

  private readonly wake = () => this.schedule(0);

  /** Opens a project: the server's document with what tabs that are gone have left on top. */
  static async open(project: string, events: SaverEvents): Promise<{ saver: Saver; doc: Project }> {
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
      const head = await ask(PROJECTS.open, { id: project });
      const saver = new Saver(project, head.revision, outbox, events);
      if (rest.length > 0) events.onTakenOver(rest.map((edit) => edit.label));
      return { saver, doc: rest.length > 0 ? await saver.adopt(head, rest) : head.document };
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

  /** Puts edits on top of a head, as many as fit. */
  private async adopt(head: Head, edits: readonly Unsent[]): Promise<Project> {
    let doc = head.document;
    const fitting: Unsent[] = [];
    const lost: Unsent[] = [];
    for (const edit of edits) {
      const next = rebased(doc, edit);
      if (next) {
        doc = next.doc;
        fitting.push(next.edit);
      } else lost.push(edit);
    }
    this.revision = head.revision;
    this.pending = fitting;
    this.underWay = 0;
    await this.outbox.drop(lost.map((e) => e.id));
    for (const edit of fitting) this.keep(edit);
    if (lost.length > 0) this.events.onLost(lost.map((e) => e.label));
    this.schedule(0);
    return doc;
  }

  add(label: string, patches: readonly Patch[]): void {
    if (patches.length === 0) return;
    const edit: Unsent = { id: newId(), label: cutText(label, 200), patches };
    const last = this.pending.length > this.underWay ? this.pending.at(-1) : undefined;
    const both = last && folded(last, edit);
    if (both) this.pending[this.pending.length - 1] = both;
    else this.pending.push(edit);
    this.keep(both ?? edit);
    if (this.state.kind === 'saved') this.say({ kind: 'saving' });
    this.schedule(this.lastSent + BETWEEN_MS - performance.now());
  }

  get hasUnsent(): boolean {
    return this.pending.length > 0;
  }

  /** Resolves once the server has every edit; rejects as soon as something is in the way, and says what. */
  settled(): Promise<void> {
    if (this.pending.length === 0) return Promise.resolve();
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
        waiting: this.pending.length,
        reason: 'this browser has no room left to keep them. Export the project before closing the page.',
      }),
    );
  }

  private schedule(wait: number): void {
    if (this.underWay > 0 || this.timer !== undefined || this.closed || this.pending.length === 0) return;
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
    for (const edit of this.pending) {
      length += JSON.stringify(edit.patches).length;
      if (out.length > 0 && (this.single || length > MOST_LENGTH || out.length === MOST_SAVES)) break;
      out.push(edit);
    }
    return out;
  }

  private async send(): Promise<void> {
    if (this.underWay > 0 || this.pending.length === 0) return;
    const batch = this.batch();
    this.underWay = batch.length;
    this.lastSent = performance.now();
    if (this.state.kind !== 'saving') this.say({ kind: 'saving' });
    try {
      const { revision, refused } = await ask(
        PROJECTS.save,
        { id: this.project },
        { base: this.revision, saves: batch },
      );
      this.revision = revision;
      this.stumbles = 0;
      await this.arrived(batch);
      for (const { id, message } of refused) {
        this.events.onRefused(batch.find((edit) => edit.id === id)?.label ?? '', message);
      }
      if (refused.length > 0)
        this.events.onRebased(await this.adopt(await ask(PROJECTS.open, { id: this.project }), this.pending));
      if (this.pending.length === 0) {
        this.single = false;
        this.say({ kind: 'saved' });
      }
    } catch (error) {
      this.underWay = 0;
      await this.failed(error, batch);
    }
    this.schedule(this.lastSent + BETWEEN_MS - performance.now());
  }

  private async arrived(edits: readonly Unsent[]): Promise<void> {
    const ids = new Set(edits.map((edit) => edit.id));
    this.pending = this.pending.filter((edit) => !ids.has(edit.id));
    this.underWay = 0;
    await this.outbox.drop([...ids]);
  }

  private async failed(error: unknown, batch: readonly Unsent[]): Promise<void> {
    // What is left waits in the browser for the project to be opened again.
    if (this.closed) return;
    try {
      if (error instanceof ApiError && error.code === 'stale') {
        const { done } = error;
        await this.arrived(batch.filter((edit) => done.has(edit.id)));
        this.events.onRebased(await this.adopt(await ask(PROJECTS.open, { id: this.project }), this.pending));
        return;
      }
      if (error instanceof ApiError && (await this.isFaultOf(batch, error))) {
        if (batch.length > 1) {
          this.single = true;
          return;
        }
        await this.takeBack(batch[0] as Unsent, error.message);
        return;
      }
    } catch (again) {
      error = again;
    }
    const waiting = this.pending.length;
    if (error instanceof Away) this.say({ kind: 'away', waiting });
    else this.say({ kind: 'stuck', waiting, reason: error instanceof Error ? error.message : String(error) });
    this.schedule(RETRY_MS);
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

  private async takeBack(edit: Unsent, reason: string): Promise<void> {
    await this.arrived([edit]);
    this.events.onRefused(edit.label, reason);
    this.events.onRebased(await this.adopt(await ask(PROJECTS.open, { id: this.project }), this.pending));
    if (this.pending.length === 0) this.say({ kind: 'saved' });
  }

  /** Leaves the project. What is being sent goes on to its end. */
  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    window.removeEventListener('online', this.wake);
    this.outbox.close();
  }
}
