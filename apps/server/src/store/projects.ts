/** Projects: the head document with its revision, and the log of the edits that led there. */
import { randomUUID } from 'node:crypto';
import { checkProject } from '@kite/core/check/project';
import { upgraded } from '@kite/core/check/versions';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { Invalid } from '@kite/core/check/problem';
import { Refused } from '../errors';
import type { Db, Queries } from './db';

export interface ProjectHead {
  readonly document: Project;
  readonly revision: number;
}
export interface ProjectCard {
  readonly id: string;
  readonly name: string;
  readonly scenes: number;
  readonly updatedAt: string;
}
export interface Save {
  /** The client's own id of the save: one that comes twice is done once. */
  readonly id: string;
  readonly base: number;
  readonly label: string;
  readonly patches: readonly Patch[];
}

export const newId = (): string => randomUUID().replaceAll('-', '').slice(0, 20);

interface HeadRow {
  document: Project;
  revision: number;
}

const MOST_KNOWN = 20;

export class ProjectStore {
  /** Head documents as they were checked, so that a save checks only what it changes. */
  private readonly known = new Map<string, ProjectHead>();

  constructor(private readonly db: Db) {}

  private remember(id: string, head: ProjectHead): ProjectHead {
    this.known.delete(id);
    this.known.set(id, head);
    if (this.known.size > MOST_KNOWN) this.known.delete(this.known.keys().next().value as string);
    return head;
  }

  list(): Promise<ProjectCard[]> {
    return this.db.query<ProjectCard & object>(
      `select id, document->>'name' as name, jsonb_array_length(document->'order')::int as scenes, updated_at as "updatedAt"
       from projects where deleted_at is null order by updated_at desc`,
    );
  }

  private async headIn(tx: Queries, id: string): Promise<ProjectHead> {
    const known = this.known.get(id);
    const [row] = await tx.query<HeadRow>(
      `select ${known ? 'null' : 'document'} as document, revision::int as revision
       from projects where id = $1 and deleted_at is null`,
      [id],
    );
    if (!row) throw new Refused('not_found', 'This project is not here. It may have been deleted.');
    if (known?.revision === row.revision) return known;
    if (!known) return this.remember(id, { document: upgraded(row.document) as Project, revision: row.revision });
    this.known.delete(id);
    return this.headIn(tx, id);
  }

  head(id: string): Promise<ProjectHead> {
    return this.headIn(this.db, id);
  }

  /** Stores a checked project under an id of its own. */
  async create(project: Project): Promise<ProjectHead> {
    const document = checkProject({ ...project, id: newId() });
    await this.db.query('insert into projects (id, document) values ($1, $2::jsonb)', [
      document.id,
      JSON.stringify(document),
    ]);
    return this.remember(document.id, { document, revision: 0 });
  }

  /** Applies, checks, stores and logs in one transaction. Gives the new revision. */
  save(id: string, save: Save): Promise<number> {
    return this.db.transaction(async (tx) => {
      const [before] = await tx.query<{ revision: number }>(
        'select revision::int as revision from edits where project_id = $1 and save_id = $2',
        [id, save.id],
      );
      if (before) return before.revision;
      const head = await this.headIn(tx, id);
      if (head.revision !== save.base) {
        throw new Refused('stale', 'The project was changed elsewhere in the meantime.', { revision: head.revision });
      }
      const document = this.changed(head.document, save.patches);
      const revision = head.revision + 1;
      await tx.query('update projects set document = $2::jsonb, revision = $3, updated_at = now() where id = $1', [
        id,
        JSON.stringify(document),
        revision,
      ]);
      await tx.query(
        'insert into edits (project_id, revision, save_id, label, patches) values ($1, $2, $3, $4, $5::jsonb)',
        [id, revision, save.id, save.label, JSON.stringify(save.patches)],
      );
      return this.remember(id, { document, revision }).revision;
    });
  }

  private changed(document: Project, patches: readonly Patch[]): Project {
    let next: Project;
    try {
      next = applyPatches(document, patches);
    } catch (error) {
      throw new Invalid((error as Error).message, 'patches');
    }
    if (next.id !== document.id) throw new Invalid('id: a project keeps its id', 'id');
    return checkProject(next);
  }

  /** Deleting keeps everything until it is undone. */
  async setDeleted(id: string, deleted: boolean): Promise<void> {
    const rows = await this.db.query(
      `update projects set deleted_at = ${deleted ? 'now()' : 'null'} where id = $1 and deleted_at is ${deleted ? '' : 'not '}null returning id`,
      [id],
    );
    if (rows.length === 0) throw new Refused('not_found', 'This project is not here.');
  }

  /** Runs `work` the first time it is asked for under this name. */
  async once(name: string, work: () => Promise<void>): Promise<void> {
    const [row] = await this.db.query('select 1 as one from facts where name = $1', [name]);
    if (row) return;
    await work();
    await this.db.query('insert into facts (name, value) values ($1, $2)', [name, new Date().toISOString()]);
  }
}
