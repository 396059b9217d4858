/**
 * npm run soak: what is promised in docs/reliability.md, tried at length. Everything follows from a seed, so that what is
 * found can be found again. Prints a table of figures, and writes it with --json FILE.
 */
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { archives } from './archives';
import { burdens } from './burdens';
import { documents } from './documents';
import { files } from './files';
import { kills } from './kills';
import { playback } from './playback';
import { tabs } from './tabs';
import type { Figures } from './report';

const { values } = parseArgs({
  options: {
    kills: { type: 'string', default: '1000' },
    documents: { type: 'string', default: '20000' },
    archives: { type: 'string', default: '1000' },
    files: { type: 'string', default: '900' },
    tabs: { type: 'string', default: '100' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string' },
    json: { type: 'string' },
  },
});

const PARTS: { readonly [name: string]: (seed: number) => Promise<Figures> } = {
  kills: (seed) => kills(Number(values.kills), seed),
  burdens: () => burdens(),
  documents: (seed) => documents(Number(values.documents), seed),
  archives: (seed) => archives(Number(values.archives), seed),
  tabs: (seed) => tabs(Number(values.tabs), seed),
  playback: () => playback(),
  files: (seed) => files(Number(values.files), seed),
};

const results: { [part: string]: Figures } = {};
let faults = 0;
for (const [name, run] of Object.entries(PARTS)) {
  if (values.only !== undefined && values.only !== name) continue;
  console.log(`\n== ${name}`);
  const figures = await run(Number(values.seed));
  results[name] = figures;
  for (const [what, figure] of Object.entries(figures)) console.log(`${what.padEnd(64)} ${figure}`);
  faults += Number(figures.faults ?? 0);
}
if (values.json) writeFileSync(values.json, `${JSON.stringify(results, null, 2)}\n`);
process.exit(faults > 0 ? 1 : 0);
