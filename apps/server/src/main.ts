/** Starts the server: the lock, the database, the queue, then the door. */
import { join } from 'node:path';
import { demoProject } from '@kite/demo/project';
import { appRoot } from '@kite/render/root';
import type { FastifyInstance } from 'fastify';
import { BadConfig, type Config, readConfig } from './config';
import { buildApp } from './http/app';
import { lockFolder } from './lock';
import { RenderQueue } from './queue/queue';
import { AssetStore } from './store/assets';
import { FileStore } from './store/files';
import { migrate } from './store/migrate';
import { openPglite } from './store/pglite';
import { ProjectStore } from './store/projects';
import { RenderStore } from './store/renders';

/** Listens where it was told; where nothing was asked for, on the next free port. */
const listen = async (app: FastifyInstance, { host, port, portAsked }: Config): Promise<string> => {
  for (let at = port; ; at++) {
    try {
      return await app.listen({ host, port: at });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
      if (portAsked || at >= port + 50) {
        throw new BadConfig(
          `Port ${at} on ${host} is taken. Choose another with --port, or leave it out to use a free one.`,
        );
      }
    }
  }
};

const start = async (): Promise<void> => {
  const config = readConfig(process.argv.slice(2), process.env, appRoot());
  const unlock = lockFolder(config.data);
  const db = openPglite(join(config.data, 'db'));
  const files = new FileStore(config.data);
  const projects = new ProjectStore(db);
  const assets = new AssetStore(db, files);
  const renders = new RenderStore(db);
  const queue = new RenderQueue(db, renders, files, (error) => console.error(error));
  const app = buildApp({ db, projects, assets, renders, queue, files }, config.host);

  let ending: Promise<void> | undefined;
  const end = (): Promise<void> =>
    (ending ??= (async () => {
      await app.close();
      await queue.stop().catch(() => undefined);
      await db.close();
      unlock();
    })());
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => void end().finally(() => process.exit(0)));
  }
  // Started by npm, the server ends when npm does.
  const parent = process.ppid;
  if (process.env.KITE_FOLLOW_PARENT) {
    setInterval(() => {
      if (process.ppid !== parent) void end().finally(() => process.exit(0));
    }, 500).unref();
  }

  try {
    await files.prepare();
    await migrate(db);
    await projects.once('demo', async () => void (await projects.create(demoProject())));
    await queue.start();
    console.log(`Agile Kite is at ${await listen(app, config)}`);
  } catch (error) {
    await end();
    throw error;
  }
};

start().catch((error: unknown) => {
  console.error(error instanceof BadConfig ? error.message : error);
  process.exit(1);
});
