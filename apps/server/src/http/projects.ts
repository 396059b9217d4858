/** Projects over HTTP. */
import { fits } from '@kite/core/check/project';
import { Invalid } from '@kite/core/check/problem';
import { areSound, isText, nameRule, object, type Rule, rule, whole } from '@kite/core/check/rules';
import { sizeRule } from '@kite/core/check/schema';
import { newProject, newScene, type SceneSize, uniqueName } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { fitsArchive } from '@kite/core/interchange/archive';
import type { FastifyInstance } from 'fastify';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { readArchiveApart, writeArchiveApart } from '../archive/archives';
import type { FileStore } from '../store/files';
import type { AssetStore } from '../store/assets';
import { newId, type ProjectHead, type ProjectStore, type Save, type Saved } from '../store/projects';
import * as yup from 'yup';

const newRule = object({ name: nameRule, scene: nameRule, size: sizeRule });
const renameRule = object({ name: nameRule });

const MOST_PATCHES = 20_000;
const MOST_SAVES = 1_000;
const MOST_ASKED = 20_000;
const textRule = (most: number) =>
  rule(`a text of 1 to ${most} whole characters`, (v) => isText(v) && v.length > 0 && v.length <= most);
const patchFits = (p: unknown): boolean => {
  const { op, path } = (p ?? {}) as { op?: unknown; path?: unknown };
  return (
    ['add', 'replace', 'remove'].includes(op as string) &&
    Array.isArray(path) &&
    path.length <= 16 &&
    path.every((key) => typeof key === 'string' || Number.isInteger(key))
  );
};
const saveRule = object({
  id: textRule(64),
  label: textRule(200),
  patches: rule(
    `1 to ${MOST_PATCHES} patches, each with an op of add, replace or remove and a path of keys`,
    (v) => Array.isArray(v) && v.length >= 1 && v.length <= MOST_PATCHES && v.every(patchFits),
  ).test('sound', ({ path }) => `${path}: has a text with NUL or half a character in it`, areSound),
});
const savesRule = object({
  base: whole(0, Number.MAX_SAFE_INTEGER),
  saves: yup.array().strict().required().min(1).max(MOST_SAVES) as unknown as Rule,
});

const arrivedRule = object({
  ids: rule(
    `at most ${MOST_ASKED} ids`,
    (v) => Array.isArray(v) && v.length <= MOST_ASKED && v.every((id) => isText(id) && id.length <= 64),
  ),
});

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

interface ById {
  Params: { id: string };
}

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
  app.get('/api/projects', () => projects.list());

  app.post('/api/projects', async (request, reply) => {
    fits(newRule, request.body);
    const { name, scene, size } = request.body as { name: string; scene: string; size: SceneSize };
    const head = await projects.create(newProject(newId(), name, [newScene(newId(), scene, size)]));
    return reply.code(201).send({ id: head.document.id });
  });

  app.post('/api/projects/import', async (request, reply) => {
    const taken = (await projects.list()).map((p) => p.name);
    const bytes = request.body instanceof Uint8Array ? request.body : new Uint8Array();
    const archive = await readArchiveApart(bytes, newId(), taken);
    await assets.addAll(archive.assets, archive.files);
    await projects.take(archive.project);
    return reply.code(201).send({ id: archive.project.id, name: archive.project.name });
  });

  app.get<ById>('/api/projects/:id', async (request) => {
    const { document, revision } = await projects.head(request.params.id);
    return { document, revision };
  });

  app.patch<ById>('/api/projects/:id', async (request) => {
    fits(savesRule, request.body);
    const { base, saves } = request.body as { base: number; saves: unknown[] };
    const { fit, refused } = readable(saves);
    const saved = await projects.save(request.params.id, base, fit);
    return { ...saved, refused: [...refused, ...saved.refused] };
  });

  app.post<ById>('/api/projects/:id/arrived', async (request) => {
    fits(arrivedRule, request.body);
    return { ids: await projects.arrived(request.params.id, (request.body as { ids: string[] }).ids) };
  });

  app.post<ById>('/api/projects/:id/rename', async (request) => {
    fits(renameRule, request.body);
    const { document, revision } = await projects.head(request.params.id);
    const edit = renameProject((request.body as { name: string }).name);
    const { patches } = applyEdit(document, edit);
    if (patches.length === 0) return { revision };
    const saved = await projects.save(document.id, revision, [{ id: newId(), label: edit.label, patches }]);
    return { revision: saved.revision };
  });

  app.post<ById>('/api/projects/:id/duplicate', async (request, reply) => {
    const { document } = await projects.head(request.params.id);
    const taken = (await projects.list()).map((p) => p.name);
    const head = await projects.create({ ...document, name: uniqueName(document.name, taken) });
    return reply.code(201).send({ id: head.document.id, name: head.document.name });
  });

  app.delete<ById>('/api/projects/:id', async (request, reply) => {
    await projects.setDeleted(request.params.id, true);
    return reply.code(204).send();
  });

  app.post<ById>('/api/projects/:id/restore', async (request, reply) => {
    await projects.setDeleted(request.params.id, false);
    return reply.code(204).send();
  });

  /** Whether the archive of a project can be made: what is too large is told before anything is downloaded. */
  app.get<ById>('/api/projects/:id/archive/check', async (request, reply) => {
    const head = await projects.head(request.params.id);
    fitsArchive(...weightOf(head));
    return reply.code(204).send();
  });

  app.get<ById>('/api/projects/:id/archive', async (request, reply) => {
    const head = await projects.head(request.params.id);
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
