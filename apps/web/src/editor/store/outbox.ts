/**
 * Edits that the server has not acknowledged, kept in this browser. Each tab has a queue of its own, so that tabs of one
 * project never write over each other's; what a tab that is gone has left, the next one of the project takes over.
 */
import type { Save } from '@kite/api/projects';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { newId } from '../../api/ids';

export type Unsent = Save;
interface Kept extends Unsent {
  readonly project: string;
  readonly tab: string;
  /** Their order within a tab. */
  readonly place: number;
}
interface Schema extends DBSchema {
  unsent: { key: [string, string, number]; value: Kept };
}

const NAME = 'kite';
/** Where versions before kept the queue of all tabs of a project. */
const OLD = 'kite-outbox-';

const lockOf = (tab: string) => `kite-tab-${tab}`;

/** The tabs that are open. Where a browser does not say, none: what is taken over too early is still saved only once. */
const openTabs = async (): Promise<ReadonlySet<string>> => {
  const held = (await navigator.locks?.query())?.held ?? [];
  return new Set(held.flatMap(({ name }) => name ?? []));
};

const ofProject = (project: string) => IDBKeyRange.bound([project], [project, []]);

export class Outbox {
  private readonly tab = newId();
  private place = 0;
  private readonly places = new Map<string, number>();
  private release: () => void = () => undefined;

  private constructor(
    private readonly db: IDBPDatabase<Schema>,
    private readonly project: string,
  ) {}

  static async open(project: string): Promise<Outbox> {
    const db = await openDB<Schema>(NAME, 1, {
      upgrade: (made) => void made.createObjectStore('unsent', { keyPath: ['project', 'tab', 'place'] }),
    });
    const outbox = new Outbox(db, project);
    const gone = new Promise<void>((resolve) => (outbox.release = resolve));
    // Held as long as the tab lives; a browser that has no locks takes queues over at once.
    if (navigator.locks) {
      await new Promise<void>((held) => void navigator.locks.request(lockOf(outbox.tab), () => (held(), gone)));
    }
    return outbox;
  }

  /** Keeps an edit, or keeps it anew. Rejects where the browser has no room. */
  async put(edit: Unsent): Promise<void> {
    const place = this.places.get(edit.id) ?? this.place++;
    this.places.set(edit.id, place);
    await this.db.put('unsent', { ...edit, project: this.project, tab: this.tab, place });
  }

  /** Lets go of edits that are saved, or cannot be. */
  async drop(ids: readonly string[]): Promise<void> {
    const tx = this.db.transaction('unsent', 'readwrite');
    for (const id of ids) {
      const place = this.places.get(id);
      this.places.delete(id);
      if (place !== undefined) void tx.store.delete([this.project, this.tab, place]);
    }
    await tx.done;
  }

  /** Makes the queues of tabs that are gone this tab's own, each in its order. */
  async takeOver(): Promise<readonly Unsent[]> {
    const open = await openTabs();
    const tx = this.db.transaction('unsent', 'readwrite');
    const left: Kept[] = this.oldQueue();
    for (const kept of await tx.store.getAll(ofProject(this.project))) {
      if (kept.tab === this.tab || open.has(lockOf(kept.tab))) continue;
      left.push(kept);
      await tx.store.delete([kept.project, kept.tab, kept.place]);
    }
    for (const kept of left) {
      const place = this.place++;
      this.places.set(kept.id, place);
      await tx.store.put({ ...kept, tab: this.tab, place });
    }
    await tx.done;
    localStorage.removeItem(OLD + this.project);
    return left.map(({ project: _project, tab: _tab, place: _place, ...edit }) => edit);
  }

  private oldQueue(): Kept[] {
    try {
      const old = JSON.parse(localStorage.getItem(OLD + this.project) ?? 'null') as {
        pending: Unsent[];
      } | null;
      const { project, tab } = this;
      return (old?.pending ?? []).map((edit, place) => ({ ...edit, project, tab, place }));
    } catch {
      return [];
    }
  }

  close(): void {
    this.release();
    this.db.close();
  }
}
