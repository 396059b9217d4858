/** Renders over HTTP: asking for them, following them, and what came of them. */
import { readFile } from 'node:fs/promises';
import { type Render, RENDERS as CALLS } from '@kite/api/renders';
import { checkSettings } from '@kite/core/check/settings';
import { formatOf } from '@kite/core/delivery/formats/table';
import type { FastifyInstance } from 'fastify';
import { unzipSync } from 'fflate';
import { Refused } from '../errors';
import type { RenderQueue } from '../queue/queue';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import type { Projects } from '../store/projectsApart';
import type { RenderStore } from '../store/renders';
import type { SizeStore } from '../store/sizes';
import { sendFile } from './files';
import { fileName } from './projects';
import { serve } from './serve';

/** A banner's own files may run their scripts, apart from everything else of ours. */
const BANNER_POLICY =
  "sandbox allow-scripts allow-popups; default-src 'none'; script-src 'self' 'unsafe-inline'; style-src 'unsafe-inline'; img-src 'self'; frame-ancestors 'self'";
const BANNER_TYPES: Readonly<Record<string, string>> = {
  html: 'text/html; charset=utf-8',
  js: 'text/javascript; charset=utf-8',
  png: 'image/png',
};

export interface RenderServices {
  readonly projects: Projects;
  readonly assets: AssetStore;
  readonly sizes: SizeStore;
  readonly renders: RenderStore;
  readonly queue: RenderQueue;
  readonly files: FileStore;
}

const finished = (row: Render): string => {
  if (!row.file) throw new Refused('not_ready', 'This render has no file yet.');
  return row.file;
};

export const renderRoutes = (app: FastifyInstance, { projects, renders, queue, files }: RenderServices): void => {
  serve(app, CALLS.list, () => renders.list());

  serve(app, CALLS.ask, async ({ body }) => {
    const settings = checkSettings(body.settings);
    const asked = await projects.toRender(body.project, body.scene, settings);
    const row = await renders.create({ ...asked, projectId: body.project, settings });
    await queue.add(row);
    return row;
  });

  serve(app, CALLS.cancel, ({ params }) => queue.cancel(params.id));
  serve(app, CALLS.retry, ({ params }) => queue.retry(params.id));
  serve(app, CALLS.remove, ({ params }) => queue.remove(params.id));

  serve(app, CALLS.file, async ({ params, reply }) => {
    const row = await renders.get(params.id);
    const { extension, mime } = formatOf(row.settings.format);
    reply.header('content-type', mime);
    if (params.download !== undefined) reply.header('content-disposition', fileName(row.sceneName, extension));
    return sendFile(reply, files.pathOf(finished(row)));
  });

  serve(app, CALLS.banner, async ({ params: { id, name }, reply }) => {
    const row = await renders.get(id);
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

  serve(app, CALLS.events, ({ request, reply }) => {
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    raw.write(': open\n\n');
    const onChange = (row: Render) => raw.write(`data: ${JSON.stringify(row)}\n\n`);
    const onRemoved = (id: string) => raw.write(`event: removed\ndata: ${JSON.stringify({ id })}\n\n`);
    queue.on('change', onChange);
    queue.on('removed', onRemoved);
    request.raw.on('close', () => {
      queue.off('change', onChange);
      queue.off('removed', onRemoved);
    });
    return reply;
  });
};
