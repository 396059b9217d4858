/** Renders over HTTP: asking for them, following them, and what came of them. */
import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { checkSettings } from '@kite/core/check/settings';
import { fits } from '@kite/core/check/project';
import { Invalid } from '@kite/core/check/problem';
import { object, rule } from '@kite/core/check/rules';
import { formatOf } from '@kite/core/delivery/formats/table';
import { planRender } from '@kite/core/delivery/settings';
import type { RenderPlan } from '@kite/core/delivery/types';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { stockFor } from '@kite/render/materials';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { unzipSync } from 'fflate';
import { Refused } from '../errors';
import type { RenderQueue } from '../queue/queue';
import type { Db } from '../store/db';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import type { ProjectStore } from '../store/projects';
import type { RenderRow, RenderStore } from '../store/renders';
import { fileName } from './projects';

const isId = (v: unknown) => typeof v === 'string' && v.length > 0 && v.length <= 64;
const askRule = object({
  project: rule('an id', isId),
  scene: rule('an id', isId),
  settings: rule('an object', (v) => typeof v === 'object'),
});

const planOf = (scene: Scene, settings: ReturnType<typeof checkSettings>): RenderPlan => {
  try {
    return planRender(scene, settings);
  } catch (error) {
    throw new Invalid((error as Error).message, 'settings');
  }
};

interface ById {
  Params: { id: string };
}

/** A banner's own files may run their scripts, apart from everything else of ours. */
const BANNER_POLICY =
  "sandbox allow-scripts allow-popups; default-src 'none'; script-src 'self' 'unsafe-inline'; style-src 'unsafe-inline'; img-src 'self'; frame-ancestors 'self'";
const BANNER_TYPES: Readonly<Record<string, string>> = {
  html: 'text/html; charset=utf-8',
  js: 'text/javascript; charset=utf-8',
  png: 'image/png',
};

export interface RenderServices {
  readonly db: Db;
  readonly projects: ProjectStore;
  readonly assets: AssetStore;
  readonly renders: RenderStore;
  readonly queue: RenderQueue;
  readonly files: FileStore;
}

const finished = (row: RenderRow): string => {
  if (!row.file) throw new Refused('not_ready', 'This render has no file yet.');
  return row.file;
};

/** Sends a file, or the part of it that was asked for: players seek by ranges (RFC 9110, section 14). */
const sendFile = (reply: FastifyReply, path: string, size: number, range: string | undefined): FastifyReply => {
  const match = /^bytes=(\d*)-(\d*)$/.exec(range ?? '');
  reply.header('accept-ranges', 'bytes');
  if (!match || (match[1] === '' && match[2] === '')) {
    return reply.header('content-length', size).send(createReadStream(path));
  }
  const start = match[1] === '' ? Math.max(0, size - Number(match[2])) : Number(match[1]);
  const end = match[1] === '' || match[2] === '' ? size - 1 : Math.min(Number(match[2]), size - 1);
  if (start > end) return reply.code(416).header('content-range', `bytes */${size}`).send();
  return reply
    .code(206)
    .headers({ 'content-range': `bytes ${start}-${end}/${size}`, 'content-length': end - start + 1 })
    .send(createReadStream(path, { start, end }));
};

export const renderRoutes = (app: FastifyInstance, { projects, renders, queue, files }: RenderServices): void => {
  app.get('/api/renders', () => renders.list());

  app.post('/api/renders', async (request, reply) => {
    fits(askRule, request.body);
    const asked = request.body as { project: string; scene: string; settings: unknown };
    const settings = checkSettings(asked.settings);
    const { document } = await projects.head(asked.project);
    const own = Object.hasOwn(document.scenes, asked.scene) ? document.scenes[asked.scene] : undefined;
    if (!own) throw new Refused('not_found', 'This scene is not in the project.');
    // A render goes on with what there was when it was asked for, nested scenes too.
    const scene = wholeScene(own, document);
    const { assets } = stockFor(scene, document.assets, (sha) => files.pathOf(sha));
    const total = planOf(scene, settings).frames.length;
    const row = await renders.create({
      projectId: document.id,
      projectName: document.name,
      scene,
      assets,
      settings,
      total,
    });
    await queue.add(row);
    return reply.code(201).send(row);
  });

  app.post<ById>('/api/renders/:id/cancel', (request) => queue.cancel(request.params.id));
  app.post<ById>('/api/renders/:id/retry', (request) => queue.retry(request.params.id));
  app.delete<ById>('/api/renders/:id', async (request, reply) => {
    await queue.remove(request.params.id);
    return reply.code(204).send();
  });

  app.get<ById & { Querystring: { download?: string } }>('/api/renders/:id/file', async (request, reply) => {
    const row = await renders.get(request.params.id);
    const { extension, mime } = formatOf(row.settings.format);
    reply.header('content-type', mime);
    if (request.query.download !== undefined) reply.header('content-disposition', fileName(row.sceneName, extension));
    return sendFile(reply, files.pathOf(finished(row)), row.result?.bytes ?? 0, request.headers.range);
  });

  app.get<{ Params: { id: string; name: string } }>('/api/renders/:id/banner/:name', async (request, reply) => {
    const row = await renders.get(request.params.id);
    const { name } = request.params;
    if (formatOf(row.settings.format).shownAs !== 'page')
      throw new Refused('not_found', 'This render is not a banner.');
    const entries = unzipSync(await readFile(files.pathOf(finished(row))), { filter: (entry) => entry.name === name });
    const bytes = entries[name];
    if (!bytes) throw new Refused('not_found', 'The banner has no such file.');
    return reply
      .headers({
        'content-type': BANNER_TYPES[name.split('.').at(-1) ?? ''] ?? 'application/octet-stream',
        'content-security-policy': BANNER_POLICY,
        // In its sandbox the banner's origin is not ours, yet its files are its own.
        'cross-origin-resource-policy': 'cross-origin',
      })
      .send(Buffer.from(bytes));
  });

  /** Server-sent events (HTML Living Standard, 9.2): each render as it changes. */
  app.get('/api/renders/events', (request, reply) => {
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    raw.write(': open\n\n');
    const onChange = (row: RenderRow) => raw.write(`data: ${JSON.stringify(row)}\n\n`);
    const onRemoved = (id: string) => raw.write(`event: removed\ndata: ${JSON.stringify({ id })}\n\n`);
    queue.on('change', onChange);
    queue.on('removed', onRemoved);
    request.raw.on('close', () => {
      queue.off('change', onChange);
      queue.off('removed', onRemoved);
    });
  });
};
