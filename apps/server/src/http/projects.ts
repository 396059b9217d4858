/** Projects over HTTP. */
import { PROJECTS as CALLS, type Save, type Saved, saveRule } from '@kite/api/projects';
import { fits } from '@kite/core/check/project';
import { Invalid } from '@kite/core/check/problem';
import { newProject, newScene, uniqueName } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { fitsArchive } from '@kite/core/interchange/archive';
import type { FastifyInstance } from 'fastify';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { readArchiveApart, writeArchiveApart } from '../archive/archives';
import type { FileStore } from '../store/files';
import type { AssetStore } from '../store/assets';
import { newId } from '../store/ids';
import type { ProjectHead, ProjectStore } from '../store/projects';
import { serve } from './serve';

/** Those saves that can be read; one that cannot is refused alone. */
const readable = (saves: readonly unknown[]): { fit: Save[]; refused: Saved['refused'] } => {
  const fit: Save[] = [];
  const refused: Saved['refused'][number][] = [];
  for (const [i, save] of saves.entries()) {
    try {
      fits(saveRule, save);
      fit.push(save as Save);
    } catch (error) {
      const id = (save as { id?: unknown } | null)?.id;
      // Without an id there is no telling whose it was: the whole request is wrong.
      if (!(error instanceof Invalid) || typeof id !== 'string') throw error;
      refused.push({ id, message: error.message, field: `saves[${i}].${error.field}` });
    }
  }
  return { fit, refused };
};

export const fileName = (name: string, extension: string): string => {
  const plain = name.replace(/[^\w .-]+/g, '').trim() || 'project';
  return `attachment; filename="${plain}.${extension}"; filename*=UTF-8''${encodeURIComponent(`${name}.${extension}`)}`;
};

/** What a project and its files weigh in an archive. */
const weightOf = ({ document, size }: ProjectHead): [document: number, files: number[]] => {
  const files = new Map(Object.values(document.assets).map(({ sha, bytes }) => [sha, bytes]));
  return [size, [...files.values()]];
};

export const projectRoutes = (
  app: FastifyInstance,
  { projects, assets, files }: { projects: ProjectStore; assets: AssetStore; files: FileStore },
): void => {
  const names = async () => (await projects.list()).map((p) => p.name);

  serve(app, CALLS.list, () => projects.list());

  serve(app, CALLS.create, async ({ body: { name, scene, size } }) => {
    const { document } = await projects.create(newProject(newId(), name, [newScene(newId(), scene, size)]));
    return { id: document.id };
  });

  serve(app, CALLS.import, async ({ body }) => {
    const archive = await readArchiveApart(body, newId(), await names());
    await assets.addAll(archive.assets, archive.files);
    await projects.take(archive.project);
    return { id: archive.project.id, name: archive.project.name };
  });

  serve(app, CALLS.open, async ({ params }) => {
    const { document, revision } = await projects.head(params.id);
    return { document, revision };
  });

  serve(app, CALLS.save, async ({ params, body: { base, saves } }) => {
    const { fit, refused } = readable(saves);
    const saved = await projects.save(params.id, base, fit);
    return { ...saved, refused: [...refused, ...saved.refused] };
  });

  serve(app, CALLS.arrived, async ({ params, body }) => ({ ids: await projects.arrived(params.id, body.ids) }));

  serve(app, CALLS.rename, async ({ params, body }) => {
    const { document, revision } = await projects.head(params.id);
    const edit = renameProject(body.name);
    const { patches } = applyEdit(document, edit);
    if (patches.length === 0) return { revision };
    const saved = await projects.save(document.id, revision, [{ id: newId(), label: edit.label, patches }]);
    return { revision: saved.revision };
  });

  serve(app, CALLS.duplicate, async ({ params }) => {
    const { document } = await projects.head(params.id);
    const copy = await projects.create({ ...document, name: uniqueName(document.name, await names()) });
    return { id: copy.document.id, name: copy.document.name };
  });

  serve(app, CALLS.remove, ({ params }) => projects.setDeleted(params.id, true));
  serve(app, CALLS.restore, ({ params }) => projects.setDeleted(params.id, false));

  serve(app, CALLS.checkArchive, async ({ params }) => fitsArchive(...weightOf(await projects.head(params.id))));

  serve(app, CALLS.archive, async ({ params, reply }) => {
    const head = await projects.head(params.id);
    fitsArchive(...weightOf(head));
    const { document } = head;
    const out = files.workFile(`${newId()}.kite`);
    const paths = Object.values(document.assets).map(({ sha }) => [sha, files.pathOf(sha)] as const);
    await writeArchiveApart(document, Object.fromEntries(paths), out);
    const { size } = await stat(out);
    const stream = createReadStream(out);
    // Once it is open its name is not needed any more.
    stream.once('open', () => void rm(out, { force: true }));
    return reply
      .headers({
        'content-type': 'application/zip',
        'content-length': size,
        'content-disposition': fileName(document.name, 'kite'),
      })
      .send(stream);
  });
};
