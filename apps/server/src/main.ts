/** Starts the server: the lock, the database, the queue, then the door. */
import { join } from 'node:path';
import { demoProject } from '@kite/demo/project';
import { appRoot } from '@kite/render/root';
import type { FastifyInstance } from 'fastify';
import { AccessKey, isEverywhere, isLoopback, ownAddresses } from './access';
import { importArchive } from './archive/archives';
import { WatchedFolder } from './archive/folder';
import { BadConfig, type Config, readConfig } from './config';
import { buildApp } from './http/app';
import { entryLink } from './http/security';
import { lockFolder, whyNot } from './lock';
import { Rooms } from './live/rooms';
import { Posters } from './posters/posters';
import { RenderQueue } from './queue/queue';
import { AssetStore } from './store/assets';
import { DbFailure } from './store/db';
import { once } from './store/facts';
import { FileStore } from './store/files';
import { migrate } from './store/migrate';
import { openPglite } from './store/pglite';
import { openProjects } from './store/projectsApart';
import { RenderStore } from './store/renders';
import { StarterStore } from './store/starters';
import { SizeStore } from './store/sizes';

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

/** The key that lets others in, where others reach the server at all; a new one is told once. */
const keyFor = ({ host, data, newKey }: Config): { key: AccessKey | null; secret: string | null } => {
  if (newKey) return AccessKey.make(data);
  const key = isLoopback(host) ? null : AccessKey.of(data);
  if (key || isLoopback(host)) return { key, secret: null };
  throw new BadConfig(
    `On ${host} everybody who reaches this machine could read and change all projects. Start once with --new-key: it makes an access key and prints a link with it.`,
  );
};

/** Where the server is found, by the names that it answers to. */
const addressesOf = ({ host, names }: Config, listening: string): string[] => {
  if (isLoopback(host)) return [listening];
  const { port } = new URL(listening);
  const hosts = [...names, ...(isEverywhere(host) ? ownAddresses() : [host.includes(':') ? `[${host}]` : host])];
  return hosts.map((name) => `http://${name}:${port}`);
};

const A_DAY = 24 * 3600 * 1000;
/** From one look at a watched folder to the next. */
const LOOK_MS = 2_000;

const start = async (): Promise<void> => {
  const config = readConfig(process.argv.slice(2), process.env, appRoot());
  const unlock = lockFolder(config.data);
  const doors = ((): ReturnType<typeof keyFor> => {
    try {
      return keyFor(config);
    } catch (error) {
      unlock();
      throw error;
    }
  })();
  const db = openPglite(join(config.data, 'db'));
  const files = new FileStore(config.data);
  const rooms = new Rooms();
  const { projects, close: closeProjects } = openProjects(db, (id, edits) => rooms.tellSaved(id, edits));
  const assets = new AssetStore(db, files);
  const sizes = new SizeStore(db);
  const renders = new RenderStore(db);
  const queue = new RenderQueue(db, renders, files, (error) => console.error(error), config.stalledAfter * 1_000);
  const posters = new Posters(files);
  const starters = new StarterStore(projects, assets, posters);
  const foldersReady = files.prepare();
  /** Opens what is stored. Pages are given meanwhile. */
  const prepare = async (): Promise<void> => {
    await foldersReady;
    await migrate(db);
    const forget = async () => {
      await projects.forget();
      await queue.forget('old');
    };
    await forget();
    setInterval(() => void forget().catch((error: unknown) => console.error(error)), A_DAY).unref();
    await once(db, 'demo', async () => void (await projects.create(demoProject())));
    await queue.start();
    if (config.watched !== null) {
      const folder = new WatchedFolder(
        config.watched,
        (bytes) => importArchive(bytes, { projects, assets }),
        console.log,
      );
      await folder.prepare();
      setInterval(() => void folder.look().catch((error: unknown) => console.error(error)), LOOK_MS).unref();
    }
  };

  const prepared = prepare();
  const app = buildApp(
    { projects, starters, posters, assets, sizes, renders, queue, files, rooms },
    { ...config, key: doors.key },
    prepared,
  );

  let ending: Promise<void> | undefined;
  const end = (): Promise<void> =>
    (ending ??= (async () => {
      await app.close();
      await queue.stop().catch(() => undefined);
      await posters.close();
      await closeProjects();
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
    await foldersReady;
    const [address = '', ...others] = addressesOf(config, await listen(app, config));
    console.log(`Agile Kite is at ${address}`);
    for (const other of others) console.log(`and at ${other}`);
    if (doors.secret) {
      console.log(`Let others in with this link; it is not shown again: ${entryLink(address, doors.secret)}`);
    }
    await prepared;
  } catch (error) {
    await end();
    throw error;
  }
};

/** What kept the server from starting: one sentence where it is known, else all there is. */
const reasonOf = (error: unknown): unknown => {
  if (error instanceof BadConfig) return error.message;
  if (error instanceof DbFailure) {
    return error.kind === 'full'
      ? `${error.message} Make room on it, or choose another with --data.`
      : `${error.message}. Put a copy of the folder in its place, or choose another with --data.`;
  }
  const { code, path } = error as NodeJS.ErrnoException;
  return code && path ? `${path} ${whyNot(error)}` : error;
};

start().catch((error: unknown) => {
  console.error(reasonOf(error));
  process.exit(1);
});
