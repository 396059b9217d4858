/**
 * Projects: a snapshot of the document, and the log of the edits since. A save appends to the log; a snapshot is taken
 * now and then, so that neither a save of a large project nor the opening of a much edited one is slow.
 */
import type { Logged } from '@kite/api/history';
import type { Person, ProjectCard, Save, Saved } from '@kite/api/projects';
import { checkProject, vouchFor } from '@kite/core/check/project';
import { ARCHIVE_LIMITS } from '@kite/core/interchange/archive';
import { upgraded } from '@kite/core/check/versions';
import { applyPatches, type Change, changeOf, type Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { Invalid } from '@kite/core/check/problem';
import { Refused } from '../errors';
import type { Db, Queries } from './db';
import { newId } from './ids';
import { append, KEPT_DAYS, keepRemoved, logged } from './log';
import { type Written, writtenOf } from './written';

export interface ProjectHead {
  readonly document: Project;
  readonly revision: number;
  /** Of the document as JSON, in bytes, at the most. */
  readonly size: number;
}
/** A head as it is kept in memory, with what its log has grown to since its snapshot. */
interface Known extends ProjectHead {
  readonly edits: number;
  readonly bytes: number;
  /** Whether the snapshot is of an older format: what the log has must not be put on top of it. */
  readonly old: boolean;
}

/** What heads weigh that are kept in memory, together, in bytes of JSON. */
const MOST_KNOWN = 64 * 2 ** 20;
/** A snapshot is due after so many edits, or once the log weighs as much as a quarter of the document, or this much. */
const SNAPSHOT_EDITS = 500;
const SNAPSHOT_BYTES = 2 ** 18;
/** Edits that stay in the log behind a snapshot: those of the last 30 days, within these numbers. */
const LEAST_KEPT = 1_000;
const MOST_KEPT = 20_000;

const COLUMNS = `id, name, scenes, updated_at as "updatedAt", tags`;

export class ProjectStore {
  /** Head documents as they were checked, so that a save checks only what it changes. */
  private readonly known = new Map<string, Known>();
  private readonly tidying = new Map<string, Promise<void>>();

  constructor(
    private readonly db: Db,
    /** Is given what was saved, in order, as JSON. */
    private readonly tell: (id: string, edits: string) => void = () => undefined,
  ) {}

  private remember(id: string, head: Known): Known {
    this.known.delete(id);
    this.known.set(id, head);
    let weight = 0;
    // From the one that was asked for last.
    for (const [other, { size }] of [...this.known].reverse()) {
      weight += size;
      if (weight > MOST_KNOWN && other !== id) this.known.delete(other);
    }
    return head;
  }

  list(): Promise<ProjectCard[]> {
    return this.db.query<ProjectCard & object>(
      `select ${COLUMNS} from projects where deleted_at is null order by updated_at desc`,
    );
  }

  private async headIn(tx: Queries, id: string): Promise<Known> {
    const known = this.known.get(id);
    const [row] = await tx.query<{ revision: number }>(
      'select revision::int as revision from projects where id = $1 and deleted_at is null',
      [id],
    );
    if (!row) throw new Refused('not_found', 'This project is not here. It may have been deleted.');
    return known?.revision === row.revision ? known : this.remember(id, await this.read(tx, id));
  }

  /** The snapshot with the log since on top. */
  private async read(tx: Queries, id: string): Promise<Known> {
    // As text: rows of objects would be taken apart and put together by every thread on their way.
    const [row] = await tx.query<{ document: string; snapshot: number; revision: number }>(
      `select document::text as document, snapshot::int as snapshot, revision::int as revision
       from projects where id = $1`,
      [id],
    );
    const { snapshot, revision, document: base } = row as NonNullable<typeof row>;
    const log = await tx.query<{ patches: string }>(
      `select patches::text as patches from edits where project_id = $1 and revision > $2 order by revision`,
      [id, snapshot],
    );
    const document = log.reduce(
      (doc, { patches }) => applyPatches(doc, JSON.parse(patches) as Patch[]),
      JSON.parse(base) as Project,
    );
    const size = Buffer.byteLength(base);
    const bytes = log.reduce((sum, edit) => sum + Buffer.byteLength(edit.patches), 0);
    const today = upgraded(document) as Project;
    // What is stored was checked.
    if (today === document) vouchFor(document);
    return { document: today, revision, edits: log.length, bytes, size: size + bytes, old: today !== document };
  }

  head(id: string): Promise<ProjectHead> {
    return this.headIn(this.db, id);
  }

  /** Stores a checked project under an id of its own. */
  async create(project: Project): Promise<ProjectHead> {
    const document = checkProject({ ...project, id: newId() });
    const written = writtenOf(document);
    await this.take(written);
    return this.remember(document.id, { document, revision: 0, edits: 0, bytes: 0, size: written.size, old: false });
  }

  /** Stores a project that was checked and written by another thread; it is read when it is first asked for. */
  async take({ id, name, scenes, text }: Written): Promise<void> {
    await this.db.query('insert into projects (id, document, name, scenes) values ($1, $2::jsonb, $3, $4)', [
      id,
      text,
      name,
      scenes,
    ]);
  }

  /**
   * Applies, checks and logs saves in order, in one transaction; one that does not fit is left out and told. Saves that
   * came before are not done again. Throws `stale` where others have changed what they were made on: `done` names those
   * that are here already.
   */
  async save(id: string, base: number, saves: readonly Save[], by: Person | null = null): Promise<Saved> {
    let news: readonly Logged[] = [];
    const saved = await this.db.transaction(async (tx) => {
      const before = await tx.query<{ id: string }>(
        'select save_id as id from edits where project_id = $1 and save_id = any($2::text[])',
        [id, saves.map((s) => s.id)],
      );
      const done = new Set(before.map((row) => row.id));
      const fresh = saves.filter((save) => !done.has(save.id));
      const head = await this.headIn(tx, id);
      if (fresh.length === 0) return { revision: head.revision, refused: [] };
      if (head.revision !== base) {
        throw new Refused('stale', 'The project was changed elsewhere in the meantime.', {
          revision: head.revision,
          done: [...done],
        });
      }
      const made = await this.append(tx, id, head, fresh, by);
      news = made.edits;
      return made.saved;
    });
    if (news.length > 0) this.tell(id, JSON.stringify(news));
    if (this.snapshotDue(id)) this.tidySoon(id);
    return saved;
  }

  /** Which of these saves are here: an answer may have been lost. */
  async arrived(id: string, saves: readonly string[]): Promise<string[]> {
    const rows = await this.db.query<{ id: string }>(
      'select save_id as id from edits where project_id = $1 and save_id = any($2::text[])',
      [id, saves],
    );
    return rows.map((row) => row.id);
  }

  private async append(
    tx: Queries,
    id: string,
    head: Known,
    saves: readonly Save[],
    by: Person | null,
  ): Promise<{ saved: Saved; edits: readonly Logged[] }> {
    // An older snapshot is brought to today's format before anything of today's stands behind it.
    if (head.old) {
      await this.snapshot(tx, id, head);
      // What takes an edit of the older format back does not fit today's documents.
      await tx.query('update edits set inverse = null where project_id = $1', [id]);
    }
    let { document, revision, size } = head;
    let bytes = head.old ? 0 : head.bytes;
    const refused: Saved['refused'][number][] = [];
    const news: Logged[] = [];
    for (const save of saves) {
      const patches = JSON.stringify(save.patches);
      let change: Change;
      try {
        change = this.changed(document, save.patches);
        size = this.weighed(change.doc, size + Buffer.byteLength(patches));
      } catch (error) {
        if (!(error instanceof Invalid)) throw error;
        refused.push({ id: save.id, message: error.message, field: error.field });
        continue;
      }
      bytes += Buffer.byteLength(patches);
      const edit = logged(save, { revision: ++revision, inverse: change.inverse, by });
      await append(tx, id, edit, patches);
      news.push(edit);
      document = change.doc;
    }
    if (revision > head.revision) {
      await keepRemoved(tx, head.document, document);
      await tx.query('update projects set revision = $2, name = $3, scenes = $4, updated_at = now() where id = $1', [
        id,
        revision,
        document.name,
        document.order.length,
      ]);
    }
    const edits = (head.old ? 0 : head.edits) + revision - head.revision;
    this.remember(id, { document, revision, edits, bytes, size, old: false });
    return { saved: { revision, refused }, edits: news };
  }

  /** What a document weighs, at the most `guess`; Invalid for more than a project may weigh. */
  private weighed(document: Project, guess: number): number {
    if (guess <= ARCHIVE_LIMITS.document) return guess;
    return writtenOf(document).size;
  }

  private changed(document: Project, patches: readonly Patch[]): Change {
    let change: Change;
    try {
      change = changeOf(document, patches);
    } catch (error) {
      throw new Invalid((error as Error).message, 'patches');
    }
    if (change.doc.id !== document.id) throw new Invalid('id: a project keeps its id', 'id');
    checkProject(change.doc);
    return change;
  }

  private snapshotDue(id: string): boolean {
    const known = this.known.get(id);
    if (!known) return false;
    return known.edits >= SNAPSHOT_EDITS || known.bytes >= Math.max(SNAPSHOT_BYTES, (known.size - known.bytes) / 4);
  }

  private async snapshot(tx: Queries, id: string, head: Known): Promise<void> {
    const text = JSON.stringify(head.document);
    await tx.query('update projects set document = $2::jsonb, snapshot = $3 where id = $1', [id, text, head.revision]);
    await tx.query(
      `delete from edits where project_id = $1
       and (revision <= $2 or revision <= $3 and created_at <= now() - interval '${KEPT_DAYS} days')`,
      [id, head.revision - MOST_KEPT, head.revision - LEAST_KEPT],
    );
    const now = this.known.get(id);
    if (now?.revision === head.revision)
      this.remember(id, { ...head, edits: 0, bytes: 0, size: Buffer.byteLength(text), old: false });
  }

  /** Folds the log of a project into a snapshot and gives its room back, after the answer to the save that made it due. */
  private tidySoon(id: string): void {
    if (this.tidying.has(id)) return;
    const work = (async () => {
      await this.db.transaction(async (tx) => this.snapshot(tx, id, await this.headIn(tx, id)));
      await this.db.exec('vacuum projects');
      await this.db.exec('vacuum edits');
    })();
    // What could not be tidied now is due again with the next save.
    const ended = work.catch(() => undefined).finally(() => this.tidying.delete(id));
    this.tidying.set(id, ended);
  }

  /** Resolves once no snapshot is being taken. */
  async tidied(): Promise<void> {
    await Promise.all(this.tidying.values());
  }

  async tag(id: string, tags: readonly string[]): Promise<void> {
    const rows = await this.db.query(
      'update projects set tags = $2::jsonb where id = $1 and deleted_at is null returning id',
      [id, JSON.stringify(tags)],
    );
    if (rows.length === 0) throw new Refused('not_found', 'This project is not here.');
  }

  /** Those that were removed and are kept still; `updatedAt` is when they were. */
  removed(): Promise<ProjectCard[]> {
    return this.db.query<ProjectCard & object>(
      `select id, name, scenes, deleted_at as "updatedAt", tags from projects
       where deleted_at > now() - interval '${KEPT_DAYS} days' order by deleted_at desc`,
    );
  }

  /** Deleting keeps everything for a while: `HistoryStore.forget` ends it. */
  async setDeleted(id: string, deleted: boolean): Promise<void> {
    const rows = await this.db.query(
      `update projects set deleted_at = ${deleted ? 'now()' : 'null'} where id = $1 ${deleted ? 'and deleted_at is null' : ''} returning id`,
      [id],
    );
    if (rows.length === 0) throw new Refused('not_found', 'This project is not here.');
  }
}
