/**
 * Sends edits to the server as they are made. What is not yet acknowledged is kept in this browser, so
 * that neither a server that is away nor a closed tab loses it.
 */
import { checkProject } from '@kite/core/check/project';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import type { Project } from '@kite/core/document/types';
import { reconcile } from '@kite/core/edits/reconcile';
import { api, ApiError, Away, type Head } from '../../api/client';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** The server does not answer; so many edits wait here. */
  | { readonly kind: 'away'; readonly waiting: number }
  /** The server refuses the edits, and says why. */
  | { readonly kind: 'refused'; readonly reason: string };

interface Pending {
  readonly id: string;
  readonly label: string;
  readonly patches: readonly Patch[];
}
interface Outbox {
  /** The revision that the first of them was made on. */
  readonly base: number;
  readonly pending: readonly Pending[];
}

const KEY = 'kite-outbox-';
const RETRY_MS = 1_500;

const readOutbox = (project: string): Outbox | null => {
  try {
    return JSON.parse(localStorage.getItem(KEY + project) ?? 'null') as Outbox | null;
  } catch {
    return null;
  }
};

/** An edit on top of a document that others have changed; null where it no longer fits. */
const rebased = (doc: Project, edit: Pending): { doc: Project; edit: Pending } | null => {
  try {
    const change = applyEdit(applyPatches(doc, edit.patches), reconcile());
    return { doc: checkProject(change.doc), edit: { ...edit, patches: [...edit.patches, ...change.patches] } };
  } catch {
    return null;
  }
};

export interface SaverEvents {
  readonly onState: (state: SaveState) => void;
  /** The document was changed elsewhere; here it is with the edits of this page on top. */
  readonly onRebased: (doc: Project) => void;
  /** Edits that no longer fit what the project has become. */
  readonly onLost: (count: number) => void;
}

export class Saver {
  private pending: Pending[] = [];
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private closed = false;

  private constructor(
    private readonly project: string,
    private revision: number,
    private readonly events: SaverEvents,
  ) {
    window.addEventListener('online', this.wake);
  }

  private readonly wake = () => void this.send();

  /** Opens a project: the server's document with this browser's unsent edits on top. */
  static async open(project: string, events: SaverEvents): Promise<{ saver: Saver; doc: Project }> {
    const outbox = readOutbox(project);
    let head = await api.project(project);
    const saver = new Saver(project, head.revision, events);
    if (!outbox || outbox.pending.length === 0) return { saver, doc: head.document };
    // Some may have arrived although the answer did not: the server knows their ids.
    const unsent: Pending[] = [];
    let base = outbox.base;
    for (const p of outbox.pending) {
      if (unsent.length > 0) {
        unsent.push(p);
        continue;
      }
      try {
        base = (await api.save(project, { ...p, base })).revision;
      } catch {
        unsent.push(p);
      }
    }
    head = await api.project(project);
    saver.revision = head.revision;
    const doc = saver.adopt(head, unsent);
    return { saver, doc };
  }

  /** Puts edits on top of a head, as many as fit. */
  private adopt(head: Head, pending: readonly Pending[]): Project {
    let doc = head.document;
    const fitting: Pending[] = [];
    for (const p of pending) {
      const next = rebased(doc, p);
      if (!next) continue;
      doc = next.doc;
      fitting.push(next.edit);
    }
    this.revision = head.revision;
    this.pending = fitting;
    this.keep();
    if (fitting.length < pending.length) this.events.onLost(pending.length - fitting.length);
    if (fitting.length > 0) void this.send();
    return doc;
  }

  add(label: string, patches: readonly Patch[]): void {
    if (patches.length === 0) return;
    this.pending.push({ id: crypto.randomUUID(), label: label.slice(0, 200), patches });
    this.keep();
    void this.send();
  }

  get hasUnsent(): boolean {
    return this.pending.length > 0;
  }

  private keep(): void {
    const outbox: Outbox = { base: this.revision, pending: this.pending };
    try {
      if (this.pending.length === 0) localStorage.removeItem(KEY + this.project);
      else localStorage.setItem(KEY + this.project, JSON.stringify(outbox));
    } catch {
      this.events.onState({
        kind: 'refused',
        reason: 'This browser has no room left to keep unsent edits. Export the project before closing the page.',
      });
    }
  }

  private async send(): Promise<void> {
    if (this.sending || this.pending.length === 0) return;
    clearTimeout(this.timer);
    this.sending = true;
    try {
      while (this.pending.length > 0) {
        this.events.onState({ kind: 'saving' });
        const { revision } = await api.save(this.project, { ...(this.pending[0] as Pending), base: this.revision });
        this.revision = revision;
        this.pending.shift();
        this.keep();
      }
      this.events.onState({ kind: 'saved' });
    } catch (error) {
      await this.failed(error);
    } finally {
      this.sending = false;
    }
  }

  private async failed(error: unknown): Promise<void> {
    // What is left waits in the browser's storage for the project to be opened again.
    if (this.closed) return;
    if (error instanceof ApiError && error.code === 'stale') {
      try {
        this.events.onRebased(this.adopt(await api.project(this.project), this.pending));
        this.timer = setTimeout(this.wake, 0);
        return;
      } catch (again) {
        error = again;
      }
    }
    if (error instanceof Away || (error instanceof ApiError && error.status >= 500)) {
      this.events.onState({ kind: 'away', waiting: this.pending.length });
      this.timer = setTimeout(this.wake, RETRY_MS);
      return;
    }
    this.events.onState({ kind: 'refused', reason: error instanceof Error ? error.message : String(error) });
  }

  /** Leaves the project. What is being sent goes on to its end. */
  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    window.removeEventListener('online', this.wake);
  }
}
