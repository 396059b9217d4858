/** What projects start from, over HTTP. */
import { STARTERS } from '@kite/api/starters';
import { uniqueName } from '@kite/core/document/make';
import type { Project } from '@kite/core/document/types';
import { demoProject } from '@kite/demo/project';
import type { FastifyInstance } from 'fastify';
import type { Projects } from '../store/projectsApart';
import type { StarterStore } from '../store/starters';
import { serve } from './serve';

export const starterRoutes = (
  app: FastifyInstance,
  { starters, projects }: { starters: StarterStore; projects: Projects },
): void => {
  const begin = async (document: Project): Promise<{ id: string; name: string }> => {
    const names = (await projects.list()).map((p) => p.name);
    const name = uniqueName(document.name, names);
    return { id: await projects.create({ ...document, name }), name };
  };
  serve(app, STARTERS.list, () => starters.list());
  serve(app, STARTERS.open, async ({ params }) => ({ document: await starters.open(params.id) }));
  serve(app, STARTERS.begin, async ({ params }) => begin(await starters.open(params.id)));
  serve(app, STARTERS.demo, () => begin(demoProject()));
};
