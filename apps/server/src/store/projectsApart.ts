/** Projects as the server's own thread has them: whatever is done to a document is done in a thread of its own. */
import { Worker } from 'node:worker_threads';
import { bundleOf } from '@kite/render/root';
import { type Asked, Line } from '../threads/line';
import type { Db } from './db';
import { type LentDb, lentDb } from './dbLine';
import type { ProjectMethods } from './projectsThread';

export type Projects = Asked<ProjectMethods>;

/** What the thread may ask of the server's own: its database, and to tell others what was saved, in order, as JSON. */
export type Lent = LentDb & { readonly told: (id: string, edits: string) => void };

export interface OpenProjects {
  readonly projects: Projects;
  readonly close: () => Promise<void>;
}

/** The thread starts at once; one that ended, as for want of memory, is started anew by the next call. */
export const openProjects = (db: Db, told: Lent['told']): OpenProjects => {
  const open = () => {
    const worker = new Worker(bundleOf('projectsThread'));
    const { methods, over } = lentDb(db);
    const opened = { worker, ask: new Line<ProjectMethods>(worker, { ...methods, told }).ask };
    worker.on('exit', () => {
      over();
      if (thread === opened) thread = null;
    });
    return opened;
  };
  let thread: { readonly worker: Worker; readonly ask: Projects } | null = open();
  return {
    projects: new Proxy({} as Projects, { get: (_target, method: keyof Projects) => (thread ??= open()).ask[method] }),
    close: async () => void (await thread?.worker.terminate()),
  };
};
