/** Projects over HTTP. */
import { PROJECTS as CALLS } from '@kite/api/projects';
import type { FastifyInstance } from 'fastify';
import { readArchiveApart, takeIn, writeArchiveApart } from '../archive/archives';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import { newId } from '../store/ids';
import type { Projects } from '../store/projectsApart';
import { sendZip } from './files';
import { Json, serve, serveUnread } from './serve';

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
