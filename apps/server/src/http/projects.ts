/** Projects over HTTP. */
import { PROJECTS as CALLS } from '@kite/api/projects';
import { Invalid } from '@kite/core/check/problem';
import type { FastifyInstance } from 'fastify';
import { readArchiveApart, takeIn, writeArchiveApart } from '../archive/archives';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import { newId } from '../store/ids';
import type { Projects } from '../store/projectsApart';
import { sendZip } from './files';
import { Json, serve, serveUnread } from './serve';

/** Undefined where none is asked for. */
const revisionOf = (asked: string | undefined): number | undefined => {
  if (asked === undefined) return undefined;
  if (/^\d{1,15}$/.test(asked)) return Number(asked);
  throw new Invalid(`revision: got "${asked}", wanted a whole number`, 'revision');
};

export const projectRoutes = (
  app: FastifyInstance,
  { projects, assets, files }: { projects: Projects; assets: AssetStore; files: FileStore },
): void => {
  serve(app, CALLS.list, () => projects.list());

  serve(app, CALLS.create, async ({ body: { name, scene, size } }) => ({
    id: await projects.createEmpty(name, scene, size),
  }));

  serve(app, CALLS.import, async ({ body }) => {
    const names = (await projects.list()).map((p) => p.name);
    return takeIn(await readArchiveApart(body, newId(), names), { projects, assets });
  });

  serve(app, CALLS.open, async ({ params }) => new Json(await projects.open(params.id)));
  serveUnread(app, CALLS.save, ({ params, body }) => projects.save(params.id, body));

  serve(app, CALLS.arrived, async ({ params, body }) => ({ ids: await projects.arrived(params.id, body.ids) }));

  serve(app, CALLS.edits, ({ params }) =>
    projects.edits(params.id, { before: revisionOf(params.before), after: revisionOf(params.after) }),
  );
  serve(app, CALLS.state, async ({ params }) => new Json(await projects.state(params.id, params.state)));
  serve(app, CALLS.copyState, ({ params }) => projects.copyState(params.id, params.state));
  serve(app, CALLS.checkpoints, ({ params }) => projects.checkpoints(params.id));
  serve(app, CALLS.checkpoint, ({ params, body }) =>
    projects.keepCheckpoint(params.id, body.name, body.revision, body.by),
  );
  serve(app, CALLS.renameCheckpoint, ({ params, body }) =>
    projects.renameCheckpoint(params.id, params.checkpoint, body.name),
  );
  serve(app, CALLS.removeCheckpoint, ({ params }) => projects.removeCheckpoint(params.id, params.checkpoint));
  serve(app, CALLS.removedScenes, ({ params }) => projects.removedScenes(params.id));
  serve(app, CALLS.removedScene, ({ params }) => projects.removedScene(params.id, params.scene));
  serve(app, CALLS.removed, () => projects.removed());

  serve(app, CALLS.rename, async ({ params, body }) => ({ revision: await projects.rename(params.id, body.name) }));
  serve(app, CALLS.duplicate, ({ params }) => projects.duplicate(params.id));
  serve(app, CALLS.remove, ({ params }) => projects.setDeleted(params.id, true));
  serve(app, CALLS.restore, ({ params }) => projects.setDeleted(params.id, false));
  serve(app, CALLS.checkArchive, ({ params }) => projects.checkArchive(params.id));

  serve(app, CALLS.archive, async ({ params, reply }) => {
    const { name, document, files: used } = await projects.toPack(params.id);
    const out = files.workFile(`${newId()}.kite`);
    await writeArchiveApart(document, Object.fromEntries(used.map((sha) => [sha, files.pathOf(sha)])), out);
    return sendZip(reply, out, name, 'kite');
  });
};
