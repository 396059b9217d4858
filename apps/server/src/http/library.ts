/** What is there for every project, over HTTP: imported files, the application's fonts, sizes kept under a name. */
import { ASSETS, SIZES } from '@kite/api/library';
import { applicationFontPaths, readFontFile } from '@kite/render/fonts';
import type { FastifyInstance } from 'fastify';
import { Refused } from '../errors';
import type { AssetStore } from '../store/assets';
import type { FileStore } from '../store/files';
import type { SizeStore } from '../store/sizes';
import { serve } from './serve';
import { sendFile } from './files';

const FOR_EVER = 'public, max-age=31536000, immutable';

export const assetRoutes = (app: FastifyInstance, assets: AssetStore, files: FileStore): void => {
  serve(app, ASSETS.add, ({ body, params }) => assets.add(body, params.name ?? 'file'));

  serve(app, ASSETS.file, async ({ params: { sha }, reply }) => {
    reply.headers({ 'content-type': await assets.typeOf(sha), 'cache-control': FOR_EVER });
    return sendFile(reply, files.pathOf(sha));
  });

  serve(app, ASSETS.font, async ({ params: { family, weight, style, part }, reply }) => {
    const paths = applicationFontPaths({
      from: 'application',
      family,
      weight: Number(weight),
      italic: style === 'italic',
    });
    const path = paths?.[Number(part)];
    if (path === undefined) throw new Refused('not_found', 'There is no such font.');
    return reply
      .headers({ 'content-type': 'font/otf', 'cache-control': FOR_EVER })
      .send(Buffer.from(await readFontFile(path)));
  });
};

export const sizeRoutes = (app: FastifyInstance, sizes: SizeStore): void => {
  serve(app, SIZES.list, () => sizes.list());
  serve(app, SIZES.keep, ({ body }) => sizes.keep(body));
  serve(app, SIZES.remove, ({ params }) => sizes.remove(params.id));
};
