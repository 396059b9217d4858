/** A server without a port, on a data folder of its own. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FastifyInstance, InjectOptions } from 'fastify';
import { buildApp } from '../http/app';
import type { Doors } from '../http/security';
import { Rooms } from '../live/rooms';
import { Posters } from '../posters/posters';
import { RenderQueue } from '../queue/queue';
import { AssetStore } from '../store/assets';
import { FileStore } from '../store/files';
import { migrate } from '../store/migrate';
import { openPglite } from '../store/pglite';
import { openProjects } from '../store/projectsApart';
import { RenderStore } from '../store/renders';
import { StarterStore } from '../store/starters';
import { SizeStore } from '../store/sizes';

const ALONE: Doors = { host: '127.0.0.1', names: [], key: null };
const HOST = 'localhost:4820';

export interface Answer {
  status: number;
  body: { error?: { code: string; message: string; field?: string }; [key: string]: unknown };
}

/** What is asked by its address. */
export const askOn = async (app: FastifyInstance, options: InjectOptions): Promise<Answer> => {
  const answer = await app.inject({ ...options, headers: { host: HOST, ...options.headers } });
  const json = String(answer.headers['content-type']).startsWith('application/json');
  return { status: answer.statusCode, body: json ? answer.json() : { text: answer.body } };
};

export const openSite = async (name: string) => {
  const data = mkdtempSync(join(tmpdir(), `kite-${name}-`));
  const db = openPglite(join(data, 'db'));
  await migrate(db);
  const files = new FileStore(data);
  await files.prepare();
  const rooms = new Rooms();
  const { projects, close: closeProjects } = openProjects(db, (id, edits) => rooms.tellSaved(id, edits));
  const renders = new RenderStore(db);
  const faults: unknown[] = [];
  const queue = new RenderQueue(db, renders, files, (error) => void faults.push(error), 60_000);
  const assets = new AssetStore(db, files);
  const posters = new Posters(files);
  const starters = new StarterStore(projects, assets, posters);
  const services = { projects, starters, posters, assets, sizes: new SizeStore(db), renders, queue, files, rooms };
  const appWith = (doors: Doors, ready?: Promise<unknown>): FastifyInstance => buildApp(services, doors, ready);
  const app = appWith(ALONE);
  const close = async () => {
    await app.close();
    await posters.close();
    await closeProjects();
    await db.close();
  };
  return { ...services, data, db, app, appWith, faults, close, host: HOST };
};
export type Site = Awaited<ReturnType<typeof openSite>>;
