/** Projects over HTTP. */
import { PROJECTS as CALLS } from '@kite/api/projects';
import { rm } from 'node:fs/promises';
import { asFileName, eachOnce } from '@kite/core/delivery/naming';
import { ARCHIVE_END } from '@kite/core/interchange/archive';
import { writeZip } from '@kite/render/encoders/zip';
import type { FastifyInstance } from 'fastify';
import { importArchive, writeArchiveApart } from '../archive/archives';
import { Refused } from '../errors';
import type { Posters } from '../posters/posters';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import { newId } from '../store/ids';
import type { Projects } from '../store/projectsApart';
import { sendZip } from './files';
import { Json, serve, serveUnread } from './serve';

export const projectRoutes = (
  app: FastifyInstance,
  { projects, assets, files, posters }: { projects: Projects; assets: AssetStore; files: FileStore; posters: Posters },
): void => {
  serve(app, CALLS.list, () => projects.list());

  serve(app, CALLS.create, async ({ body: { name, scene, size } }) => ({
    id: await projects.createEmpty(name, scene, size),
  }));

  serve(app, CALLS.import, ({ body }) => importArchive(body, { projects, assets }));

  serve(app, CALLS.open, async ({ params }) => new Json(await projects.open(params.id)));
  serve(app, CALLS.poster, async ({ params: { id, at }, reply }) => {
    const picture = await posters.project(await projects.toLookAt(id));
    const kept = at === undefined ? 'no-cache' : 'private, max-age=31536000, immutable';
    return reply.headers({ 'cache-control': kept }).type('image/webp').send(picture);
  });
  serveUnread(app, CALLS.save, ({ params, body }) => projects.save(params.id, body));

  serve(app, CALLS.arrived, async ({ params, body }) => ({ ids: await projects.arrived(params.id, body.ids) }));

  serve(app, CALLS.rename, async ({ params, body }) => ({ revision: await projects.rename(params.id, body.name) }));
  serve(app, CALLS.duplicate, ({ params }) => projects.duplicate(params.id));
  serve(app, CALLS.tag, ({ params, body }) => projects.tag(params.id, body.tags));
  serve(app, CALLS.removed, () => projects.removed());
  serve(app, CALLS.remove, ({ params }) => projects.setDeleted(params.id, true));
  serve(app, CALLS.restore, ({ params }) => projects.setDeleted(params.id, false));
  serve(app, CALLS.checkArchive, ({ params }) => projects.checkArchive(params.id));

  /** Where the archive of a project was written for this answer. */
  const packed = async (id: string): Promise<{ readonly name: string; readonly path: string }> => {
    const { name, document, files: used } = await projects.toPack(id);
    const path = files.workFile(`${newId()}${ARCHIVE_END}`);
    await writeArchiveApart(document, Object.fromEntries(used.map((sha) => [sha, files.pathOf(sha)])), path);
    return { name, path };
  };

  serve(app, CALLS.archive, async ({ params, reply }) => {
    const { name, path } = await packed(params.id);
    return sendZip(reply, path, name, ARCHIVE_END.slice(1));
  });

  serve(app, CALLS.archives, async ({ reply }) => {
    const all = await projects.list();
    if (all.length === 0) throw new Refused('not_found', 'There is no project to be exported.');
    const names = eachOnce(all.map(({ name }) => `${asFileName(name)}${ARCHIVE_END}`));
    const out = files.workFile(`${newId()}.zip`);
    await writeZip(out, async (zip) => {
      for (const [i, { id }] of all.entries()) {
        const { path } = await packed(id);
        await zip.addFile(names[i] as string, path);
        await rm(path, { force: true });
      }
    });
    return sendZip(reply, out, 'projects', 'zip');
  });
};
