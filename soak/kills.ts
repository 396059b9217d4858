/** kill -9 under clients that save all the while: what was acknowledged has to be there. */
import { Chance } from '@kite/core/test/random';
import { fault, type Figures, Times } from './report';
import { TriedServer } from './server';

const CLIENTS = 6;

interface Client {
  readonly project: string;
  base: number;
  acknowledged: number;
  /** The name that the last acknowledged save gave. */
  name: string;
}

const head = async (server: TriedServer, id: string) =>
  (await server.ask('GET', `/projects/${id}`)).body as { revision: number; document: { name: string } };

/** Saves until the server is gone; each save a new name, now and then a large one. */
const saveAway = async (server: TriedServer, client: Client, round: number, chance: Chance): Promise<number> => {
  let saves = 0;
  for (let n = 0; ; n++) {
    const name = `Round ${round}, save ${n}${chance.happens(0.02) ? ` ${'x'.repeat(180)}` : ''}`;
    const patches = [{ op: 'replace', path: ['name'], value: name }];
    const save = { id: `${client.project}-${round}-${n}`, label: 'Rename', patches };
    const { status, body } = await server.ask('PATCH', `/projects/${client.project}`, {
      base: client.base,
      saves: [save],
    });
    if (status !== 200) return saves;
    client.base = client.acknowledged = body.revision as number;
    client.name = name;
    saves++;
  }
};

export const kills = async (count: number, seed: number): Promise<Figures> => {
  const server = new TriedServer();
  await server.start();
  const size = { width: 64, height: 64, rate: { num: 25, den: 1 }, length: 10, background: null };
  const clients: Client[] = [];
  for (let i = 0; i < CLIENTS; i++) {
    const made = await server.ask('POST', '/projects', { name: `Client ${i}`, scene: 'One', size });
    clients.push({ project: made.body.id as string, base: 0, acknowledged: 0, name: `Client ${i}` });
  }
  const starting = new Times();
  let [saves, lost] = [0, 0];
  for (let round = 0; round < count; round++) {
    const chance = new Chance(seed * 1e6 + round);
    const saving = clients.map((client) => saveAway(server, client, round, chance));
    await new Promise((done) => setTimeout(done, chance.between(5, 250)));
    await server.kill();
    saves += (await Promise.all(saving)).reduce((sum, n) => sum + n, 0);
    await starting.of(() => server.start());
    for (const client of clients) {
      const now = await head(server, client.project);
      // One more than was acknowledged may have come through: its answer was not heard.
      const whole =
        now.revision === client.acknowledged ? now.document.name === client.name : now.revision > client.acknowledged;
      if (!whole) {
        lost++;
        fault('an acknowledged save is gone', seed * 1e6 + round, `${client.acknowledged} became ${now.revision}`);
      }
      client.base = now.revision;
      client.acknowledged = now.revision;
      client.name = now.document.name;
    }
  }
  await server.stop();
  return {
    'kills -9': count,
    clients: CLIENTS,
    'saves acknowledged': saves,
    'acknowledged and lost': lost,
    'longest start after a kill, ms': starting.longest,
    faults: lost,
  };
};
