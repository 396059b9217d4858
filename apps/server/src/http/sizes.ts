/** Scene sizes kept under names of one's own, for every project. */
import { fits } from '@kite/core/check/project';
import { Invalid } from '@kite/core/check/problem';
import { nameRule, object } from '@kite/core/check/rules';
import { sizeRule } from '@kite/core/check/schema';
import type { SceneSize } from '@kite/core/document/make';
import type { FastifyInstance } from 'fastify';
import type { Db } from '../store/db';
import { newId } from '../store/projects';

export interface SavedSize {
  readonly id: string;
  readonly name: string;
  readonly size: SceneSize;
}

const MOST = 100;
const newRule = object({ name: nameRule, size: sizeRule });

export const sizeRoutes = (app: FastifyInstance, db: Db): void => {
  const all = () => db.query<SavedSize & object>('select id, name, size from sizes order by created_at, id');

  app.get('/api/sizes', all);

  app.post('/api/sizes', async (request, reply) => {
    fits(newRule, request.body);
    if ((await all()).length >= MOST)
      throw new Invalid(`${MOST} sizes are kept at the most: remove one first.`, 'name');
    const { name, size } = request.body as Omit<SavedSize, 'id'>;
    const saved: SavedSize = { id: newId(), name, size };
    await db.query('insert into sizes (id, name, size) values ($1, $2, $3::jsonb)', [
      saved.id,
      name,
      JSON.stringify(size),
    ]);
    return reply.code(201).send(saved);
  });

  app.delete<{ Params: { id: string } }>('/api/sizes/:id', async (request, reply) => {
    await db.query('delete from sizes where id = $1', [request.params.id]);
    return reply.code(204).send();
  });
};
