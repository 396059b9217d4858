/** What projects start from, over HTTP. */
import { STARTERS } from '@kite/api/starters';
import type { FastifyInstance } from 'fastify';
import type { StarterStore } from '../store/starters';
import { Json, serve } from './serve';

export const starterRoutes = (app: FastifyInstance, starters: StarterStore): void => {
  serve(app, STARTERS.list, () => starters.list());
  serve(app, STARTERS.open, async ({ params }) => new Json(await starters.open(params.id)));
  serve(app, STARTERS.poster, async ({ params, reply }) =>
    reply
      .headers({ 'cache-control': 'no-cache' })
      .type('image/webp')
      .send(await starters.poster(params.id)),
  );
  serve(app, STARTERS.begin, ({ params }) => starters.begin(params.id));
  serve(app, STARTERS.demo, () => starters.begin(null));
};
