/** Renders: what was asked, how far it is, what came of it. */
import type { Render } from '@kite/api/renders';
import type { RenderResult } from '@kite/core/delivery/types';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import type { Assets } from '@kite/core/document/types';
import { Refused } from '../errors';
import type { Db } from './db';
import { newId } from './ids';

const COLUMNS = `id, project_id as "projectId", project_name as "projectName", scene->>'name' as "sceneName",
  settings, delivery, delivery_name as "deliveryName",
  version, version_name as "versionName", file_name as "fileName", batch, asked_by as "askedBy",
  picture is not null as pictured, status, done, total, attempts, error, result, file,
  created_at as "createdAt", started_at as "startedAt", finished_at as "finishedAt"`;

/** For how long one that was taken away can be brought back. */
const KEPT = '1 day';

/** A render as it is asked for. */
export interface NewRender {
  readonly projectId: string;
  readonly projectName: string;
  /** JSON. */
  readonly scene: string;
  readonly assets: Assets;
  readonly settings: RenderSettings;
  readonly total: number;
  readonly delivery: { readonly id: string; readonly name: string } | null;
  readonly version: { readonly id: string; readonly name: string } | null;
  readonly fileName: string;
  /** Of the scene, its files and the settings. */
  readonly madeOf: string;
  readonly batch: string | null;
  readonly askedBy: string;
}

/** A file of a delivery: of a version, or of the project as it is. */
interface DeliveredFile {
  readonly delivery: string | null;
  readonly version: string | null;
}
const fileKey = ({ delivery, version }: DeliveredFile): string => `${delivery} ${version ?? ''}`;

/** What was made of a file last. */
export type LastFiles = (file: DeliveredFile) => { readonly render: Render; readonly madeOf: string } | undefined;

export class RenderStore {
  constructor(private readonly db: Db) {}

  private async one(sql: string, params: readonly unknown[]): Promise<Render> {
    const [row] = await this.db.query<Render>(sql, params);
    if (!row) throw new Refused('not_found', 'This render is not here.');
    return row;
  }

  list(): Promise<Render[]> {
    return this.db.query<Render>(
      `select ${COLUMNS} from renders where removed_at is null order by created_at desc limit 200`,
    );
  }

  /** Those that were taken away and can be brought back, the last one first. */
  removed(): Promise<Render[]> {
    return this.db.query<Render>(
      `select ${COLUMNS} from renders where removed_at > now() - interval '${KEPT}' order by removed_at desc`,
    );
  }

  get(id: string): Promise<Render> {
    return this.one(`select ${COLUMNS} from renders where id = $1 and removed_at is null`, [id]);
  }

  /** The scene as JSON, and the assets that it uses. */
  async pictureOf(id: string): Promise<{ scene: string; assets: Assets }> {
    const [row] = await this.db.query<{ scene: string; assets: Assets }>(
      'select scene::text as scene, assets from renders where id = $1',
      [id],
    );
    if (!row) throw new Refused('not_found', 'This render is not here.');
    return row;
  }

  create(r: NewRender): Promise<Render> {
    return this.one(
      `insert into renders (id, project_id, project_name, scene, assets, settings, status, total, delivery, delivery_name,
         file_name, made_of, batch, asked_by, version, version_name)
       values ($1, $2, $3, $4::jsonb, $5::jsonb, $6::jsonb, 'queued', $7, $8, $9, $10, $11, $12, $13, $14, $15) returning ${COLUMNS}`,
      [
        ...[
          newId(),
          r.projectId,
          r.projectName,
          r.scene,
          JSON.stringify(r.assets),
          JSON.stringify(r.settings),
          r.total,
        ],
        ...[r.delivery?.id ?? null, r.delivery?.name ?? null, r.fileName, r.madeOf, r.batch, r.askedBy],
        ...[r.version?.id ?? null, r.version?.name ?? null],
      ],
    );
  }

  /** The last that came to each file of the deliveries of a project, and what it was made of. */
  async lastOf(projectId: string): Promise<LastFiles> {
    const rows = await this.db.query<Render & { madeOf?: string }>(
      `select distinct on (delivery, version) ${COLUMNS}, made_of as "madeOf" from renders
       where project_id = $1 and delivery is not null and status = 'done' and removed_at is null
       order by delivery, version, finished_at desc`,
      [projectId],
    );
    const made = new Map(rows.map(({ madeOf = '', ...render }) => [fileKey(render), { render, madeOf }] as const));
    return (file) => made.get(fileKey(file));
  }

  /** How often each delivery of a project was asked for: the most of any of its files. */
  async countsOf(projectId: string): Promise<{ readonly [delivery: string]: number }> {
    const rows = await this.db.query<{ delivery: string; count: number }>(
      `select delivery, max(count)::int as count from (
         select delivery, count(*) from renders where project_id = $1 and delivery is not null group by delivery, version
       ) as files group by delivery`,
      [projectId],
    );
    return Object.fromEntries(rows.map(({ delivery, count }) => [delivery, count]));
  }

  /** What was asked for at once, in order. */
  batch(batch: string): Promise<Render[]> {
    return this.db.query<Render>(
      `select ${COLUMNS} from renders where batch = $1 and removed_at is null order by created_at, id`,
      [batch],
    );
  }

  async pictureFile(id: string): Promise<string | null> {
    const [row] = await this.db.query<{ picture: string | null }>(
      'select picture from renders where id = $1 and removed_at is null',
      [id],
    );
    if (!row) throw new Refused('not_found', 'This render is not here.');
    return row.picture;
  }

  start(id: string): Promise<Render> {
    return this.one(
      `update renders set status = 'running', done = 0, attempts = attempts + 1, started_at = now(),
         finished_at = null, error = null where id = $1 and status = 'queued' returning ${COLUMNS}`,
      [id],
    );
  }

  progress(id: string, done: number): Promise<Render> {
    return this.one(`update renders set done = $2 where id = $1 and status = 'running' returning ${COLUMNS}`, [
      id,
      done,
    ]);
  }

  finish(id: string, result: RenderResult, file: string, picture: string): Promise<Render> {
    return this.one(
      `update renders set status = 'done', done = total, result = $2::jsonb, file = $3, picture = $4, finished_at = now()
       where id = $1 and status = 'running' returning ${COLUMNS}`,
      [id, JSON.stringify(result), file, picture],
    );
  }

  end(id: string, status: 'failed' | 'cancelled', error: string | null): Promise<Render> {
    return this.one(
      `update renders set status = $2, error = $3, finished_at = now()
       where id = $1 and status in ('queued', 'running') returning ${COLUMNS}`,
      [id, status, error],
    );
  }

  /** Back to the queue's end, as it was asked for. */
  requeue(id: string): Promise<Render> {
    return this.one(
      `update renders set status = 'queued', done = 0, error = null, started_at = null, finished_at = null
       where id = $1 and status in ('failed', 'cancelled', 'running') returning ${COLUMNS}`,
      [id],
    );
  }

  /** Those that a killed server left: to be taken up again. */
  unfinished(): Promise<{ id: string }[]> {
    return this.db.query<{ id: string }>(
      `select id from renders where status in ('queued', 'running') order by created_at`,
    );
  }

  /** Takes it away; it is kept for a while. */
  async remove(id: string): Promise<void> {
    await this.one(`update renders set removed_at = now() where id = $1 and removed_at is null returning ${COLUMNS}`, [
      id,
    ]);
  }

  /** Brings it back, if it is not here already. */
  restore(id: string): Promise<Render> {
    return this.one(`update renders set removed_at = null where id = $1 returning ${COLUMNS}`, [id]);
  }

  /** Lets go of what was taken away, all or longer ago than it is kept. Gives the files that nothing refers to any more. */
  async forget(which: 'all' | 'old'): Promise<string[]> {
    const gone = await this.db.query<{ file: string | null; picture: string | null }>(
      `delete from renders where removed_at <= now() - interval '${which === 'all' ? '0' : KEPT}' returning file, picture`,
    );
    const files = [...new Set(gone.flatMap(({ file, picture }) => [file, picture]))].filter((sha) => sha !== null);
    const used = await this.db.query<{ sha: string }>(
      'select file as sha from renders where file = any($1::text[]) union select picture from renders where picture = any($1::text[])',
      [files],
    );
    return files.filter((sha) => !used.some((row) => row.sha === sha));
  }
}
