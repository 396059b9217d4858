/** How soon a server answers after its start, and what it holds. */
import { Server } from '../e2e/support/server';
import { median } from './median';
import { residentMiB } from './resident';

interface Started {
  /** From the start of the process to its first page, and to the list of projects. */
  readonly pageMs: number;
  readonly projectsMs: number;
  readonly residentMiB: number;
}

const startOf = async (server: Server): Promise<Started> => {
  const start = performance.now();
  await server.appear();
  const answered = async (path: string) => {
    await (await fetch(server.url + path)).arrayBuffer();
    return Math.round(performance.now() - start);
  };
  const pageMs = await answered('/');
  const projectsMs = await answered('/api/projects');
  const resident = residentMiB(server.pid);
  await server.end('SIGTERM');
  return { pageMs, projectsMs, residentMiB: resident };
};

/** The first start makes a data folder and the demo; then the median of five. */
export const measureServer = async () => {
  const server = new Server();
  const first = await startOf(server);
  const later: Started[] = [];
  for (let i = 0; i < 5; i++) later.push(await startOf(server));
  await server.stop();
  const middle = (of: keyof Started) => median(later.map((started) => started[of]));
  return {
    firstStart: first,
    laterStart: { pageMs: middle('pageMs'), projectsMs: middle('projectsMs'), residentMiB: middle('residentMiB') },
  };
};
