/** Imported files and fonts over HTTP. */
import { createReadStream } from 'node:fs';
import { applicationFont } from '@kite/render/fonts';
import type { FastifyInstance } from 'fastify';
import { Refused } from '../errors';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';

const FOR_EVER = 'public, max-age=31536000, immutable';

export const assetRoutes = (app: FastifyInstance, assets: AssetStore, files: FileStore): void => {
  app.post<{ Querystring: { name?: string } }>('/api/assets', async (request, reply) => {
    const bytes = request.body instanceof Uint8Array ? request.body : new Uint8Array();
    return reply.code(201).send(await assets.add(bytes, request.query.name ?? 'file'));
  });

  app.get<{ Params: { sha: string } }>('/api/assets/:sha', async (request, reply) => {
    const { sha } = request.params;
    const type = await assets.typeOf(sha);
    return reply.headers({ 'content-type': type, 'cache-control': FOR_EVER }).send(createReadStream(files.pathOf(sha)));
  });

  /** One subset of one of the application's own fonts. */
  app.get<{ Params: { family: string; weight: string; style: string; part: string } }>(
    '/api/fonts/:family/:weight/:style/:part',
    async (request, reply) => {
      const { family, weight, style, part } = request.params;
      const parts = await applicationFont({
        from: 'application',
        family,
        weight: Number(weight),
        italic: style === 'italic',
      });
      const bytes = parts?.[Number(part)];
      if (!bytes) throw new Refused('not_found', 'There is no such font.');
      return reply.headers({ 'content-type': 'font/otf', 'cache-control': FOR_EVER }).send(Buffer.from(bytes));
    },
  );
};
