/** The heaviest of ordinary work, one after the other: how much the data grows, and how long nobody else is answered. */
import { randomUUID as newId } from 'node:crypto';
import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { demoProject } from '@kite/demo/project';
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Project, Scene, Vertex } from '@kite/core/document/types';
import { Chance } from '@kite/core/test/random';
import { strToU8, zipSync } from 'fflate';
import { fault, type Figures, Times } from './report';
import { type Answer, TriedServer } from './server';

const SIZE = { width: 640, height: 360, rate: { num: 25, den: 1 }, length: 50, background: null } as const;

const STILL = { format: 'png', scale: 1, frame: 0 };

/** Every vertex writes about 110 bytes that do not repeat, so that nothing is saved by packing them. */
const projectOf = (layers: number, vertices: number): Project => {
  const chance = new Chance(1);
  const scene = newScene('s', 'Large', SIZE);
  const vertex = () => Array.from({ length: 6 }, () => chance.between(-300, 300)) as unknown as Vertex;
  const made = Array.from({ length: layers }, (_, i) => {
    const path = { closed: true, vertices: Array.from({ length: vertices }, vertex) };
    return newDrawing(scene, `l${i}`, `Layer ${i}`, [newItem(`p${i}`, 'path', { path }), newItem(`f${i}`, 'fill')]);
  });
  const layersById = Object.fromEntries(made.map((layer) => [layer.id, layer]));
  return newProject('p', 'Large', [{ ...scene, layers: layersById, order: Object.keys(layersById) }]);
};

const packed = (project: unknown): Uint8Array => zipSync({ 'project.json': strToU8(JSON.stringify(project)) });

/** Asks after the server's health all the while, from a thread: what this one does is not to be taken for the server's. */
const ASKER = `
const { parentPort, workerData } = require('node:worker_threads');
let over = false;
parentPort.once('message', () => { over = true; });
(async () => {
  let longest = 0;
  while (!over) {
    const from = performance.now();
    await (await fetch(workerData + '/api/health')).arrayBuffer();
    longest = Math.max(longest, performance.now() - from);
    await new Promise((next) => setTimeout(next, 5));
  }
  parentPort.postMessage(Math.round(longest));
})();`;

class Meanwhile {
  private readonly asker: Worker;

  constructor(server: TriedServer) {
    this.asker = new Worker(ASKER, { eval: true, workerData: server.url });
  }

  /** The longest that an answer took, in ms. */
  async end(): Promise<number> {
    this.asker.postMessage('end');
    const [longest] = (await once(this.asker, 'message')) as [number];
    return longest;
  }
}

export const burdens = async (): Promise<Figures> => {
  const server = new TriedServer();
  await server.start();
  const figures: { [what: string]: number } = {};
  let faults = 0;

  const answered = async (what: string, expected: number, work: () => Promise<Answer>): Promise<void> => {
    const meanwhile = new Meanwhile(server);
    const took = new Times();
    const { status, body } = await took.of(work);
    figures[`${what}, ms`] = took.longest;
    figures[`  others waited at most (${what}), ms`] = await meanwhile.end();
    if (status === expected) return;
    faults++;
    fault(what, 0, `status ${status} instead of ${expected}: ${JSON.stringify(body)} ${server.output.slice(-300)}`);
  };
  const imported = (bytes: Uint8Array) => server.ask('POST', '/projects/import', bytes);

  // Packed beforehand: what this process does is not to be taken for what the server does.
  const archives = [
    ['the demo', 201, packed(demoProject())],
    ['2,000 layers', 201, packed(projectOf(2_000, 4))],
    ['30 MB', 201, packed(projectOf(58, 4_500))],
    ['32 MB of zeros', 400, zipSync({ 'project.json': new Uint8Array(32e6) })],
    ['200,000 brackets', 400, zipSync({ 'project.json': strToU8('['.repeat(200_000)) })],
  ] as const;
  const ids = new Map<string, string>();
  for (const [what, expected, bytes] of archives) {
    await answered(`import of ${what}`, expected, async () => {
      const answer = await imported(bytes);
      ids.set(what, answer.body.id as string);
      return answer;
    });
  }
  for (const what of ['2,000 layers', '30 MB']) {
    const at = `/projects/${ids.get(what)}`;
    await answered(`first opening of ${what}`, 200, () => server.ask('GET', at));
    await answered(`opening of ${what}`, 200, () => server.ask('GET', at));
    await answered(`duplicate of ${what}`, 201, () => server.ask('POST', `${at}/duplicate`));
    await answered(`asking for a still of ${what}`, 201, () =>
      server.ask('POST', '/renders', { project: ids.get(what), scene: 's', settings: STILL }),
    );
  }

  const empty = await server.ask('POST', '/projects', { name: 'Empty', scene: 'Large', size: SIZE });
  await answered('one save of 15 MB', 200, async () => {
    const { body } = await server.ask('GET', `/projects/${empty.body.id as string}`);
    const { order } = body.document as Project;
    const { layers, order: layerOrder } = projectOf(29, 4_500).scenes.s as Scene;
    const at = ['scenes', order[0]];
    const patches = [
      { op: 'replace', path: [...at, 'layers'], value: layers },
      { op: 'replace', path: [...at, 'order'], value: layerOrder },
    ];
    const save = { id: newId(), label: 'Bring in', patches };
    const saved = await server.ask('PATCH', `/projects/${empty.body.id as string}`, { base: 0, saves: [save] });
    const refused = saved.body.refused as readonly unknown[];
    return refused.length > 0 ? { status: 400, body: { refused } } : saved;
  });

  const large = await imported(packed(projectOf(200, 120)));
  const id = large.body.id as string;
  let base = (await server.ask('GET', `/projects/${id}`)).body.revision as number;
  const before = server.size();
  const saved = async () => {
    let answer: Answer = { status: 200, body: {} };
    for (let n = 0; n < 100 && answer.status === 200; n++) {
      const path = ['scenes', 's', 'layers', `l${n}`, 'name'];
      const save = { id: newId(), label: 'Rename', patches: [{ op: 'replace', path, value: `Word ${n}` }] };
      answer = await server.ask('PATCH', `/projects/${id}`, { base, saves: [save] });
      base = answer.body.revision as number;
    }
    return answer;
  };
  await answered('100 one-word saves of 2.8 MB', 200, saved);
  figures['they grow the data by, kB'] = Math.round((server.size() - before) / 1e3);
  await answered('100 more', 200, saved);
  figures['all 200 grow the data by, kB'] = Math.round((server.size() - before) / 1e3);
  await answered('export of 2.8 MB', 200, () =>
    server.bytes(`/projects/${id}/archive`).then(() => ({ status: 200, body: {} })),
  );
  await server.stop();
  return { ...figures, faults };
};
