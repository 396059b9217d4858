/** What a project was: the log of its edits, states that are kept under names, and scenes that were deleted. */
import type { Checkpoint, Logged, RemovedScene, Taken } from '@kite/api/history';
import { checkProject } from '@kite/core/check/project';
import { upgraded } from '@kite/core/check/versions';
import { applyPatches } from '@kite/core/document/patches';
import type { Assets, Id, Project, Scene } from '@kite/core/document/types';
import { nestedIn } from '@kite/core/scene/whole';
import { Refused } from '../errors';
import type { Db } from './db';
import { newId } from './ids';
import { KEPT_DAYS } from './log';
import type { ProjectStore } from './projects';

/** Edits in one answer, and what they may weigh together, in characters of JSON; there is always one. */
const MOST_BEFORE = 200;
const MOST_AFTER = 500;
const MOST_WEIGHT = 4_000_000;

const RECENT = `> now() - interval '${KEPT_DAYS} days'`;
const COLUMNS = `revision::int as revision, save_id as id, label, patches::text as patches, inverse::text as inverse,
  undoes, redoes, by_id as "byId", by_name as "byName", created_at as at`;

interface Row {
  readonly [column: string]: unknown;
  readonly revision: number;
  readonly id: string;
  readonly label: string;
  readonly patches: string;
  readonly inverse: string | null;
  readonly undoes: string | null;
  readonly redoes: string | null;
  readonly byId: string | null;
  readonly byName: string | null;
  readonly at: string;
}

const loggedOf = ({ patches, inverse, undoes, redoes, byId, byName, at, ...row }: Row): Logged => ({
  ...row,
  at: new Date(at).toISOString(),
  patches: JSON.parse(patches) as Logged['patches'],
  inverse: inverse === null ? null : (JSON.parse(inverse) as Logged['patches']),
  by: byId === null ? null : { id: byId, name: byName ?? '' },
  ...(undoes !== null && { undoes }),
  ...(redoes !== null && { redoes }),
});

export class HistoryStore {
  constructor(
    private readonly db: Db,
    private readonly projects: ProjectStore,
  ) {}

  private async rows(where: string, order: 'asc' | 'desc', values: readonly unknown[]): Promise<Logged[]> {
    // As many as weigh no more than one answer may, counted from the first.
    const rows = await this.db.query<Row>(
      `select * from (
         select ${COLUMNS},
           sum(octet_length(patches::text) + coalesce(octet_length(inverse::text), 0)) over (order by revision ${order}) as weight,
           row_number() over (order by revision ${order}) as place
         from (select * from edits where ${where}) log
       ) weighed where weight <= ${MOST_WEIGHT} or place = 1 order by revision`,
      values,
    );
    return rows.map(({ weight: _weight, place: _place, ...row }) => loggedOf(row as Row));
  }

  /** The last saves before a revision, or the newest for null; in order. */
  async before(id: Id, revision: number | null): Promise<Logged[]> {
    const { revision: head } = await this.projects.head(id);
    const where = `project_id = $1 and revision < $2 order by revision desc limit ${MOST_BEFORE}`;
    return this.rows(where, 'desc', [id, revision ?? head + 1]);
  }

  /** The next saves after a revision, in order. */
  async after(id: Id, revision: number): Promise<Logged[]> {
    await this.projects.head(id);
    const where = `project_id = $1 and revision > $2 order by revision limit ${MOST_AFTER}`;
    return this.rows(where, 'asc', [id, revision]);
  }

  private async atRevision(id: Id, revision: number): Promise<Project> {
    const head = await this.projects.head(id);
    const gone = () =>
      new Refused(
        'not_found',
        `How this project was at step ${revision} is no longer known. Steps are kept for 30 days.`,
      );
    if (revision > head.revision) throw gone();
    let document = head.document;
    for (let at = head.revision; at > revision;) {
      const steps = await this.before(id, at + 1);
      if (steps.at(-1)?.revision !== at) throw gone();
      for (const step of steps.toReversed()) {
        if (step.revision <= revision) break;
        if (!step.inverse) throw gone();
        document = applyPatches(document, step.inverse);
        at = step.revision - 1;
      }
    }
    return document;
  }

  private async atCheckpoint(id: Id, checkpoint: string): Promise<Project> {
    const [row] = await this.db.query<{ document: string }>(
      'select document::text as document from checkpoints where project_id = $1 and id = $2 and removed_at is null',
      [id, checkpoint],
    );
    if (!row) throw new Refused('not_found', 'This checkpoint is not here. It may have been let go.');
    return checkProject(upgraded(JSON.parse(row.document)));
  }

  /** The document at a revision, as far as the log reaches, or at a checkpoint. */
  state(id: Id, state: string): Promise<Project> {
    return /^\d+$/.test(state) ? this.atRevision(id, Number(state)) : this.atCheckpoint(id, state);
  }

  async checkpoints(id: Id): Promise<Checkpoint[]> {
    await this.projects.head(id);
    return this.db.query<Checkpoint & Row>(
      `select id, name, revision::int as revision, made_at as at, by_name as by
       from checkpoints where project_id = $1 and removed_at is null order by made_at desc`,
      [id],
    );
  }

  /** Keeps the state at a revision, or the one there is. */
  async keep(id: Id, name: string, revision: number | null, by: string | null): Promise<Checkpoint> {
    const at = revision ?? (await this.projects.head(id)).revision;
    const document = await this.atRevision(id, at);
    // Begun with a letter: a state that is all digits is a revision.
    const checkpoint: Checkpoint = { id: `c${newId()}`, name, revision: at, at: new Date().toISOString(), by };
    await this.db.query(
      `insert into checkpoints (id, project_id, name, document, revision, made_at, by_name)
       values ($1, $2, $3, $4::jsonb, $5, $6, $7)`,
      [checkpoint.id, id, name, JSON.stringify(document), at, checkpoint.at, by],
    );
    return checkpoint;
  }

  private async found(rows: Promise<readonly unknown[]>): Promise<void> {
    if ((await rows).length === 0) throw new Refused('not_found', 'This checkpoint is not here.');
  }
  rename(id: Id, checkpoint: string, name: string): Promise<void> {
    return this.found(
      this.db.query(
        'update checkpoints set name = $3 where project_id = $1 and id = $2 and removed_at is null returning id',
        [id, checkpoint, name],
      ),
    );
  }
  /** Letting go keeps it for a while: `forget` ends it. */
  setLetGo(id: Id, checkpoint: string, letGo: boolean): Promise<void> {
    return this.found(
      this.db.query(
        `update checkpoints set removed_at = ${letGo ? 'now()' : 'null'}
         where project_id = $1 and id = $2 ${letGo ? 'and removed_at is null' : ''} returning id`,
        [id, checkpoint],
      ),
    );
  }

  async removedScenes(id: Id): Promise<RemovedScene[]> {
    const { document } = await this.projects.head(id);
    const rows = await this.db.query<RemovedScene & Row>(
      `select scene_id as id, name, removed_at as at from removed_scenes
       where project_id = $1 and removed_at ${RECENT} order by removed_at desc`,
      [id],
    );
    return rows.filter((row) => !document.scenes[row.id]);
  }

  async removedScene(id: Id, scene: Id): Promise<Taken> {
    const { document } = await this.projects.head(id);
    const rows = await this.db.query<{ id: string; scene: string; assets: string }>(
      `select scene_id as id, scene::text as scene, assets::text as assets from removed_scenes
       where project_id = $1 and removed_at ${RECENT}`,
      [id],
    );
    const gone = new Map(rows.map((row) => [row.id, row]));
    const scenes = Object.fromEntries(rows.map((row) => [row.id, JSON.parse(row.scene) as Scene]));
    const asked = scenes[scene];
    if (!asked) throw new Refused('not_found', 'This scene is no longer kept.');
    const all = [scene, ...nestedIn(asked, { ...scenes, ...document.scenes })].filter((own) => !document.scenes[own]);
    const assets = all.map((own) => JSON.parse(gone.get(own)?.assets ?? '{}') as Assets);
    return { scenes: all.flatMap((own) => scenes[own] ?? []), assets: Object.assign({}, ...assets) as Assets };
  }

  /** Lets go of what was deleted, and done, longer ago than it is kept. */
  async forget(): Promise<void> {
    const old = `<= now() - interval '${KEPT_DAYS} days'`;
    await this.db.transaction(async (tx) => {
      for (const table of ['checkpoints', 'removed_scenes']) {
        await tx.query(`delete from ${table} where removed_at ${old}`, []);
      }
      const gone = `select id from projects where deleted_at ${old}`;
      for (const table of ['edits', 'checkpoints', 'removed_scenes']) {
        await tx.query(`delete from ${table} where project_id in (${gone})`, []);
      }
      await tx.query(`delete from projects where deleted_at ${old}`, []);
    });
  }
}
