/** Renders over HTTP: asking for them, following them, and what came of them. */
import { readFile, rm } from 'node:fs/promises';
import { type Render, RENDERS as CALLS, type Weight } from '@kite/api/renders';
import { checkSettings } from '@kite/core/check/settings';
import { estimateOf } from '@kite/core/delivery/estimate';
import { formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import { eachOnce } from '@kite/core/delivery/naming';
import type { RenderResult } from '@kite/core/delivery/types';
import { writeZip } from '@kite/render/encoders/zip';
import { stockOf } from '@kite/render/materials';
import { prepareRender, renderApart } from '@kite/render/process/renderApart';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import { unzipSync } from 'fflate';
import { isLoopback } from '../access';
import { Refused } from '../errors';
import type { Posters } from '../posters/posters';
import type { RenderQueue } from '../queue/queue';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import type { Rooms } from '../live/rooms';
import type { ToRender } from '../store/projectsThread';
import type { Projects } from '../store/projectsApart';
import { newId } from '../store/ids';
import type { LastFiles, NewRender, RenderStore } from '../store/renders';
import type { StarterStore } from '../store/starters';
import type { SizeStore } from '../store/sizes';
import { fileName, sendFile, sendZip } from './files';
import { serve } from './serve';

/** A banner's own files may run their scripts, apart from everything else of ours. */
const BANNER_POLICY =
  "sandbox allow-scripts allow-popups; default-src 'none'; script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'; style-src 'unsafe-inline'; img-src 'self'; frame-ancestors 'self'";
const BANNER_TYPES: Readonly<Record<string, string>> = {
  html: 'text/html; charset=utf-8',
  js: 'text/javascript; charset=utf-8',
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
};

export interface RenderServices {
  readonly projects: Projects;
  readonly starters: StarterStore;
  readonly posters: Posters;
  readonly assets: AssetStore;
  readonly sizes: SizeStore;
  readonly renders: RenderStore;
  readonly rooms: Rooms;
  readonly queue: RenderQueue;
  readonly files: FileStore;
}

/** From where a request came: this machine, or an address. */
const whereFrom = ({ ip }: FastifyRequest): string => (isLoopback(ip.replace(/^::ffff:/, '')) ? 'this machine' : ip);

const fileNameWithEnd = ({ fileName: name, settings }: Render): string =>
  `${name}.${formatOf(settings.format).extension}`;

const finished = (row: Render): string => {
  if (!row.file) throw new Refused('not_ready', 'This render has no file yet.');
  return row.file;
};

/** Those that would come out otherwise than their last files, or have none. */
const staleAmong = (all: readonly ToRender[], last: LastFiles): readonly ToRender[] =>
  all.filter(
    ({ delivery, version, madeOf }) =>
      last({ delivery: delivery?.id ?? null, version: version?.id ?? null })?.madeOf !== madeOf,
  );

export const renderRoutes = (app: FastifyInstance, { projects, renders, queue, files }: RenderServices): void => {
  serve(app, CALLS.list, () => renders.list());
  serve(app, CALLS.removed, () => renders.removed());

  const add = async (asked: Omit<NewRender, 'askedBy'>, request: FastifyRequest): Promise<Render> => {
    const row = await renders.create({ ...asked, askedBy: whereFrom(request) });
    await queue.add(row);
    return row;
  };

  serve(app, CALLS.ask, async ({ body, request }) => {
    const settings = checkSettings(body.settings);
    const asked = await projects.toRender(body.project, body.scene, settings);
    return add({ ...asked, projectId: body.project, batch: null }, request);
  });

  serve(app, CALLS.prepare, prepareRender);

  /** One is weighed at a time, beside the render that is under way: each waits for the one before. */
  let weighing: Promise<unknown> = Promise.resolve();

  serve(app, CALLS.weigh, async ({ body, reply }) => {
    const asked = await projects.toRender(body.project, body.scene, checkSettings(body.settings));
    const { scene, assets, sceneName: name, settings, total } = asked;
    const gone = new AbortController();
    reply.raw.on('close', () => gone.abort());
    const stock = stockOf(assets, (sha) => files.pathOf(sha));
    const rendered = async (of: RenderSettings): Promise<RenderResult> => {
      const out = files.workFile(newId());
      try {
        return await renderApart({ name, scene, stock, settings: of, out }, { signal: gone.signal });
      } finally {
        await rm(out, { force: true });
      }
    };
    const weigh = async (): Promise<Weight> => {
      const estimate = estimateOf(settings, total);
      if (!estimate) {
        const { bytes, parts } = await rendered(settings);
        return { bytes, ...(parts && { parts }), estimated: false };
      }
      const bytes: number[] = [];
      for (const sample of estimate.samples) bytes.push((await rendered(sample)).bytes);
      return { bytes: estimate.total(bytes), estimated: true };
    };
    const weighed = weighing.then(weigh);
    weighing = weighed.catch(() => undefined);
    return weighed;
  });

  serve(app, CALLS.deliver, async ({ params: { id }, body, request }) => {
    const all = await projects.toDeliver(id, body.deliveries, await renders.countsOf(id));
    const asked = body.stale ? staleAmong(all, await renders.lastOf(id)) : all;
    const batch = newId();
    const rows: Render[] = [];
    for (const one of asked) rows.push(await add({ ...one, projectId: id, batch }, request));
    return rows;
  });

  serve(app, CALLS.delivered, async ({ params: { id } }) => {
    const [standing, last] = [await projects.standing(id), await renders.lastOf(id)];
    return standing.map(({ madeOf, ...file }) => {
      const made = last(file);
      return { ...file, last: made?.render ?? null, current: made?.madeOf === madeOf };
    });
  });

  serve(app, CALLS.batch, async ({ params, reply }) => {
    const rows = await renders.batch(params.batch);
    if (rows.length === 0)
      throw new Refused('not_found', 'There is nothing that was asked for at once under this name.');
    const done = rows.filter((row) => row.file);
    if (done.length === 0) throw new Refused('not_ready', 'None of these renders has a file yet.');
    const names = eachOnce(done.map(fileNameWithEnd));
    const out = files.workFile(`${newId()}.zip`);
    await writeZip(out, async (zip) => {
      for (const [i, row] of done.entries()) await zip.addFile(names[i] as string, files.pathOf(finished(row)));
    });
    return sendZip(reply, out, rows[0]?.projectName ?? 'deliveries', 'zip');
  });

  serve(app, CALLS.picture, async ({ params, reply }) => {
    const sha = await renders.pictureFile(params.id);
    if (!sha) throw new Refused('not_ready', 'There is no picture of this render yet.');
    reply.headers({ 'content-type': 'image/webp', 'cache-control': 'private, max-age=31536000, immutable' });
    return sendFile(reply, files.pathOf(sha));
  });

  serve(app, CALLS.cancel, ({ params }) => queue.cancel(params.id));
  serve(app, CALLS.retry, ({ params }) => queue.retry(params.id));
  serve(app, CALLS.remove, ({ params }) => queue.remove(params.id));
  serve(app, CALLS.forget, () => queue.forget('all'));
  serve(app, CALLS.restore, ({ params }) => queue.restore(params.id));

  serve(app, CALLS.file, async ({ params, reply }) => {
    const row = await renders.get(params.id);
    const { extension, mime } = formatOf(row.settings.format);
    reply.header('content-type', mime);
    if (params.download !== undefined) reply.header('content-disposition', fileName(row.fileName, extension));
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
