import { existsSync } from 'node:fs';
import { join } from 'node:path';
import fastifyStatic from '@fastify/static';
import { CODES, type Code } from '@kite/api/errors';
import { HEALTH } from '@kite/api/renders';
import { Invalid } from '@kite/core/check/problem';
import { cutText } from '@kite/core/document/text';
import { ARCHIVE_LIMITS } from '@kite/core/interchange/archive';
import { appRoot } from '@kite/render/root';
import Fastify, { type FastifyError, type FastifyInstance, type FastifyReply } from 'fastify';
import { Refused } from '../errors';
import { assetRoutes, sizeRoutes } from './library';
import { projectRoutes } from './projects';
import { historyRoutes } from './history';
import { liveRoutes } from './live';
import { starterRoutes } from './starters';
import { renderRoutes, type RenderServices } from './renders';
import { DbFailure } from '../store/db';
import { type Doors, guard } from './security';
import { serve } from './serve';

/** Of JSON requests. */
const MOST_BODY = 16 * 2 ** 20;

/** Whether a file or the database found no room. */
export const isDiskFull = (error: Error): boolean =>
  (error instanceof DbFailure && error.kind === 'full') || (error as NodeJS.ErrnoException).code === 'ENOSPC';

interface Refusal {
  readonly code: Code;
  readonly message: string;
  readonly field?: string;
}

const refusalOf = (error: FastifyError): Refusal => {
  if (error instanceof Refused) return { code: error.code, message: cutText(error.message, 500), ...error.details };
  if (error instanceof Invalid) return { code: 'invalid', message: error.message, field: error.field };
  if (isDiskFull(error)) {
    return { code: 'no_room', message: 'The disk of the server is full. Nothing was changed: make room on it.' };
  }
  if (error instanceof DbFailure) {
    return { code: 'broken', message: 'The database of the server cannot be reached. It has to be started again.' };
  }
  if (error.statusCode === 413) return { code: 'too_large', message: 'That is larger than this server takes.' };
  if (error.statusCode === 416) return { code: 'out_of_range', message: 'The file ends before that.' };
  if (error.statusCode !== undefined && error.statusCode < 500) {
    return { code: 'invalid', message: 'The request could not be read.' };
  }
  return { code: 'internal', message: 'Something went wrong on the server. Nothing was changed.' };
};

/** What answers. What is stored is answered for once it is `ready`; pages and their scripts at once. */
export const buildApp = (
  services: RenderServices,
  doors: Doors,
  ready: Promise<unknown> = Promise.resolve(),
): FastifyInstance => {
  // Whoever asks is told.
  ready.catch(() => undefined);
  const answer = (error: FastifyError, reply: FastifyReply): void => {
    const refusal = refusalOf(error);
    const { status } = CODES[refusal.code];
    if (status >= 500) console.error(error);
    const { headers } = error as { headers?: Record<string, string> };
    if (headers) reply.headers(headers);
    void reply.code(status).send({ error: refusal });
  };
  const app = Fastify({
    bodyLimit: MOST_BODY,
    forceCloseConnections: true,
    // Addresses that cannot be read.
    frameworkErrors: (error, _request, reply) => answer(error, reply),
  });
  guard(app, doors);
  app.addHook('onRequest', async ({ url }) => {
    if (url.startsWith('/api/')) await ready;
  });
  app.addContentTypeParser(
    ['application/zip', 'application/octet-stream'],
    { parseAs: 'buffer', bodyLimit: ARCHIVE_LIMITS.packed },
    (_request, body, done) => done(null, body),
  );
  app.setErrorHandler((error: FastifyError, _request, reply) => answer(error, reply));

  serve(app, HEALTH, () => ({ ok: true }));
  projectRoutes(app, services);
  historyRoutes(app, services.projects);
  liveRoutes(app, services);
  starterRoutes(app, services.starters);
  sizeRoutes(app, services.sizes);
  assetRoutes(app, services.assets, services.files);
  renderRoutes(app, services);

  // Gives replies `sendFile`, which what is in the store goes by too.
  void app.register(fastifyStatic, { root: services.files.root, serve: false, etag: false, lastModified: false });
  const web = join(appRoot(), 'apps/web/dist');
  if (existsSync(web)) {
    void app.register(fastifyStatic, {
      root: web,
      decorateReply: false,
      // The build lays packed copies beside the files.
      preCompressed: true,
      setHeaders: (reply, path) => {
        const hashed = path.includes(`${join('dist', 'assets')}`);
        reply.header('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    // Pages are the browser's own: every address that is not the API's gets the application.
    if (request.method === 'GET' && !request.url.startsWith('/api/') && existsSync(web))
      return reply.header('cache-control', 'no-cache').sendFile('index.html', web, { cacheControl: false });
    return reply.code(404).send({ error: { code: 'not_found', message: 'There is nothing at this address.' } });
  });
  return app;
};
