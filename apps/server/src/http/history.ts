/** What projects were, over HTTP. */
import { HISTORY } from '@kite/api/history';
import { Invalid } from '@kite/core/check/problem';
import type { FastifyInstance } from 'fastify';
import type { Projects } from '../store/projectsApart';
import { Json, serve } from './serve';

/** Undefined where none is asked for. */
const revisionOf = (asked: string | undefined): number | undefined => {
  if (asked === undefined) return undefined;
  if (/^\d{1,15}$/.test(asked)) return Number(asked);
  throw new Invalid(`revision: got "${asked}", wanted a whole number`, 'revision');
};

export const historyRoutes = (app: FastifyInstance, projects: Projects): void => {
  serve(app, HISTORY.edits, ({ params }) =>
    projects.edits(params.id, { before: revisionOf(params.before), after: revisionOf(params.after) }),
  );
  serve(app, HISTORY.state, async ({ params }) => new Json(await projects.state(params.id, params.state)));
  serve(app, HISTORY.copyState, ({ params }) => projects.copyState(params.id, params.state));
  serve(app, HISTORY.checkpoints, ({ params }) => projects.checkpoints(params.id));
  serve(app, HISTORY.checkpoint, ({ params, body }) =>
    projects.keepCheckpoint(params.id, body.name, body.revision, body.by),
  );
  serve(app, HISTORY.renameCheckpoint, ({ params, body }) =>
    projects.renameCheckpoint(params.id, params.checkpoint, body.name),
  );
  serve(app, HISTORY.removeCheckpoint, ({ params }) => projects.removeCheckpoint(params.id, params.checkpoint));
  serve(app, HISTORY.restoreCheckpoint, ({ params }) => projects.restoreCheckpoint(params.id, params.checkpoint));
  serve(app, HISTORY.removedScenes, ({ params }) => projects.removedScenes(params.id));
  serve(app, HISTORY.removedScene, ({ params }) => projects.removedScene(params.id, params.scene));
};
