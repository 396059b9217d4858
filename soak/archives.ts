/** Archives and requests from chance, sent to a server that serves other people meanwhile. */
import { demoProject } from '@kite/demo/project';
import { Chance } from '@kite/core/test/random';
import { randomProject } from '@kite/core/test/randomProject';
import { strToU8, zipSync } from 'fflate';
import { broken } from './broken';
import { fault, type Figures, Times } from './report';
import { TriedServer } from './server';

const LONGEST_MS = 10_000;

const damaged = (chance: Chance, bytes: Uint8Array): Uint8Array => {
  const copy = Uint8Array.from(bytes);
  for (let n = chance.whole(1, 6); n > 0; n--) copy[chance.whole(0, copy.length - 1)] = chance.whole(0, 255);
  return chance.happens(0.3) ? copy.slice(0, chance.whole(0, copy.length)) : copy;
};

const demo = JSON.stringify(demoProject());

const archiveOf = (chance: Chance): Uint8Array => {
  switch (chance.whole(0, 6)) {
    case 0:
      return zipSync({ 'project.json': new Uint8Array(chance.whole(1, 40) * 2 ** 20) });
    case 1:
      return zipSync({ 'project.json': strToU8('['.repeat(chance.whole(1, 200_000))) });
    case 2:
      return zipSync({ [chance.one(['../x', '/etc/passwd', 'assets/x', 'project.json/'])]: strToU8(demo) });
    case 3:
      return damaged(chance, zipSync({ 'project.json': strToU8(demo) }));
    case 4:
      return Uint8Array.from({ length: chance.whole(0, 2_000) }, () => chance.whole(0, 255));
    default:
      return zipSync({ 'project.json': strToU8(JSON.stringify(broken(chance, randomProject(chance)))) });
  }
};

export const archives = async (count: number, seed: number): Promise<Figures> => {
  const server = new TriedServer();
  await server.start();
  const [importing, others] = [new Times(), new Times()];
  let [taken, refused, faults, done] = [0, 0, 0, false as boolean];
  const meanwhile = (async () => {
    while (!done) {
      await others.of(() => server.ask('GET', '/health'));
      await new Promise((next) => setTimeout(next, 20));
    }
  })();
  for (let n = 0; n < count; n++) {
    const chance = new Chance(seed * 1e6 + n);
    const { status } = await importing.of(() => server.ask('POST', '/projects/import', archiveOf(chance)));
    if (status === 201) taken++;
    else if (status >= 400 && status < 500) refused++;
    if (status === 0 || status >= 500 || importing.last > LONGEST_MS) {
      faults++;
      fault(
        'an archive',
        seed * 1e6 + n,
        `status ${status} after ${Math.round(importing.last)} ms ${server.output.slice(-300)}`,
      );
      if (status === 0) await server.start();
    }
  }
  done = true;
  await meanwhile;
  await server.stop();
  return {
    'archives sent': count,
    'taken in': taken,
    'refused in words': refused,
    'longest import, ms': importing.longest,
    'longest that others waited, ms': others.longest,
    faults,
  };
};
