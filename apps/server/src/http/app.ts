import { existsSync } from 'node:fs';
import { join } from 'node:path';
import fastifyStatic from '@fastify/static';
import { Invalid } from '@kite/core/check/problem';
import { cutText } from '@kite/core/document/text';
import { ARCHIVE_LIMITS } from '@kite/core/interchange/archive';
import { appRoot } from '@kite/render/root';
import Fastify, { type FastifyError, type FastifyInstance, type FastifyReply } from 'fastify';
import { CODES, Refused } from '../errors';
import { assetRoutes } from './assets';
import { projectRoutes } from './projects';
import { renderRoutes, type RenderServices } from './renders';
import { DbFailure } from '../store/db';
import { type Doors, guard } from './security';
import { sizeRoutes } from './sizes';

/** Of JSON requests. */
const MOST_BODY = 16 * 2 ** 20;

/** Whether a file or the database found no room. */
export const isDiskFull = (error: Error): boolean =>
  (error instanceof DbFailure && error.kind === 'full') || (error as NodeJS.ErrnoException).code === 'ENOSPC';

const send = (error: FastifyError): { status: number; body: { code: string; message: string; field?: string } } => {
  if (error instanceof Refused) {
    return {
      status: CODES[error.code],
      body: { code: error.code, message: cutText(error.message, 500), ...error.details },
    };
  }
  if (error instanceof Invalid) {
    return { status: 400, body: { code: 'invalid', message: error.message, field: error.field } };
  }
  if (isDiskFull(error)) {
    return {
      status: CODES.no_room,
      body: { code: 'no_room', message: 'The disk of the server is full. Nothing was changed: make room on it.' },
    };
  }
  if (error instanceof DbFailure) {
    return {
      status: CODES.broken,
      body: { code: 'broken', message: 'The database of the server cannot be reached. It has to be started again.' },
    };
  }
  if (error.statusCode === 413) {
    return { status: 413, body: { code: 'too_large', message: 'That is larger than this server takes.' } };
  }
  if (error.statusCode !== undefined && error.statusCode < 500) {
    return { status: error.statusCode, body: { code: 'invalid', message: 'The request could not be read.' } };
  }
  return {
    status: 500,
    body: { code: 'internal', message: 'Something went wrong on the server. Nothing was changed.' },
  };
};

export const buildApp = (services: RenderServices, doors: Doors): FastifyInstance => {
  const answer = (error: FastifyError, reply: FastifyReply): void => {
    const { status, body } = send(error);
    if (status >= 500) console.error(error);
    void reply.code(status).send({ error: body });
  };
  const app = Fastify({
    bodyLimit: MOST_BODY,
    forceCloseConnections: true,
    // Addresses that cannot be read.
    frameworkErrors: (error, _request, reply) => answer(error, reply),
  });
  guard(app, doors);
  app.addContentTypeParser(
    ['application/zip', 'application/octet-stream'],
    { parseAs: 'buffer', bodyLimit: ARCHIVE_LIMITS.packed },
    (_request, body, done) => done(null, body),
  );
  app.setErrorHandler((error: FastifyError, _request, reply) => answer(error, reply));

  app.get('/api/health', () => ({ ok: true }));
  projectRoutes(app, services);
  sizeRoutes(app, services.db);
  assetRoutes(app, services.assets, services.files);
  renderRoutes(app, services);

  const web = join(appRoot(), 'apps/web/dist');
  if (existsSync(web)) {
    void app.register(fastifyStatic, {
      root: web,
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
      return reply.sendFile('index.html');
    return reply.code(404).send({ error: { code: 'not_found', message: 'There is nothing at this address.' } });
  });
  return app;
};
