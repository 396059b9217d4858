/** The log of what was done to projects, as it is written. */
import type { Logged } from '@kite/api/history';
import type { Save } from '@kite/api/projects';
import type { Id, Project } from '@kite/core/document/types';
import { assetsWithin } from '@kite/core/scene/whole';
import type { Queries } from './db';

/** How long what was deleted, and what was done, is kept. */
export const KEPT_DAYS = 30;

/** A save that fits, with what the log says of it. */
export const logged = (
  { id, label, patches, undoes, redoes }: Save,
  more: Pick<Logged, 'revision' | 'inverse' | 'by'>,
): Logged => ({
  id,
  label,
  patches,
  ...(undoes !== undefined && { undoes }),
  ...(redoes !== undefined && { redoes }),
  ...more,
  at: new Date().toISOString(),
});

/** Appends an edit to the log. `patches` is its own as JSON. */
export const append = (tx: Queries, project: Id, edit: Logged, patches: string): Promise<unknown> =>
  tx.query(
    `insert into edits (project_id, revision, save_id, label, patches, inverse, undoes, redoes, by_id, by_name, created_at)
     values ($1, $2, $3, $4, $5::jsonb, $6::jsonb, $7, $8, $9, $10, $11)`,
    [
      project,
      edit.revision,
      edit.id,
      edit.label,
      patches,
      JSON.stringify(edit.inverse),
      edit.undoes ?? null,
      edit.redoes ?? null,
      edit.by?.id ?? null,
      edit.by?.name ?? null,
      edit.at,
    ],
  );

/** Keeps the scenes that are in a document and no longer in the next. */
export const keepRemoved = async (tx: Queries, before: Project, after: Project): Promise<void> => {
  for (const scene of Object.values(before.scenes)) {
    if (after.scenes[scene.id]) continue;
    const assets = assetsWithin(scene, before.assets);
    await tx.query(
      `insert into removed_scenes (project_id, scene_id, name, scene, assets) values ($1, $2, $3, $4::jsonb, $5::jsonb)
       on conflict (project_id, scene_id) do update
       set name = excluded.name, scene = excluded.scene, assets = excluded.assets, removed_at = now()`,
      [before.id, scene.id, scene.name, JSON.stringify(scene), JSON.stringify(assets)],
    );
  }
};
