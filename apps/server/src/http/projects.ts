/** Projects over HTTP. */
import { fits } from '@kite/core/check/project';
import { nameRule, object, rule, whole } from '@kite/core/check/rules';
import { sizeRule } from '@kite/core/check/schema';
import { newProject, newScene, type SceneSize, uniqueName } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { readArchive, writeArchive } from '@kite/core/interchange/archive';
import type { FastifyInstance } from 'fastify';
import type { AssetStore } from '../store/assets';
import { newId, type ProjectStore, type Save } from '../store/projects';

const newRule = object({ name: nameRule, scene: nameRule, size: sizeRule });
const renameRule = object({ name: nameRule });

const MOST_PATCHES = 20_000;
const isText = (most: number) => (v: unknown) => typeof v === 'string' && v.length > 0 && v.length <= most;
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
  id: rule('a text of 1 to 64 characters', isText(64)),
  base: whole(0, Number.MAX_SAFE_INTEGER),
  label: rule('a text of 1 to 200 characters', isText(200)),
  patches: rule(
    `1 to ${MOST_PATCHES} patches, each with an op of add, replace or remove and a path of keys`,
    (v) => Array.isArray(v) && v.length >= 1 && v.length <= MOST_PATCHES && v.every(patchFits),
  ),
});

interface ById {
  Params: { id: string };
}

export const fileName = (name: string, extension: string): string => {
  const plain = name.replace(/[^\w .-]+/g, '').trim() || 'project';
  return `attachment; filename="${plain}.${extension}"; filename*=UTF-8''${encodeURIComponent(`${name}.${extension}`)}`;
};

export const projectRoutes = (app: FastifyInstance, projects: ProjectStore, assets: AssetStore): void => {
  app.get('/api/projects', () => projects.list());

  app.post('/api/projects', async (request, reply) => {
    fits(newRule, request.body);
    const { name, scene, size } = request.body as { name: string; scene: string; size: SceneSize };
    const head = await projects.create(newProject(newId(), name, [newScene(newId(), scene, size)]));
    return reply.code(201).send({ id: head.document.id });
  });

  app.post('/api/projects/import', async (request, reply) => {
    const { project, files } = readArchive(request.body instanceof Uint8Array ? request.body : new Uint8Array());
    const taken = (await projects.list()).map((p) => p.name);
    await assets.addAll(Object.values(project.assets), files);
    const head = await projects.create({ ...project, name: uniqueName(project.name, taken) });
    return reply.code(201).send({ id: head.document.id, name: head.document.name });
  });

  app.get<ById>('/api/projects/:id', (request) => projects.head(request.params.id));

  app.patch<ById>('/api/projects/:id', async (request) => {
    fits(saveRule, request.body);
    return { revision: await projects.save(request.params.id, request.body as Save) };
  });

  app.post<ById>('/api/projects/:id/rename', async (request) => {
    fits(renameRule, request.body);
    const { document, revision } = await projects.head(request.params.id);
    const edit = renameProject((request.body as { name: string }).name);
    const { patches } = applyEdit(document, edit);
    if (patches.length === 0) return { revision };
    return { revision: await projects.save(document.id, { id: newId(), base: revision, label: edit.label, patches }) };
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

  app.get<ById>('/api/projects/:id/archive', async (request, reply) => {
    const { document } = await projects.head(request.params.id);
    return reply
      .headers({ 'content-type': 'application/zip', 'content-disposition': fileName(document.name, 'kite') })
      .send(Buffer.from(writeArchive(document, await assets.filesOf(Object.values(document.assets)))));
  });
};
