// npm run guide: the moving pictures of the guide, rendered from the demo project, into docs/guide/pictures.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root } from './steps.mjs';

install();
await build();
const { strFromU8, unzipSync } = await import('fflate');

/** Pixels of the longer side. */
const LONGER = 440;
const GUIDE = join(root, 'docs/guide');
const work = mkdtempSync(join(tmpdir(), 'kite-guide-'));
const demo = join(work, 'demo.kite');
const kite = (...args) => execFileSync(process.execPath, ['dist/kite.mjs', ...args], { stdio: 'inherit' });

kite('demo', '--out', demo);
const { scenes } = JSON.parse(strFromU8(unzipSync(readFileSync(demo))['project.json']));
/** What pages show, by the names of scenes: `lamp-fan` for “Lamp fan”. */
const shown = readdirSync(GUIDE)
  .filter((file) => file.endsWith('.md'))
  .flatMap((file) => [...readFileSync(join(GUIDE, file), 'utf8').matchAll(/\(pictures\/([\w-]+)\.webm\)/g)])
  .map(([, name]) => name);
rmSync(join(GUIDE, 'pictures'), { recursive: true, force: true });
mkdirSync(join(GUIDE, 'pictures'));
for (const name of new Set(shown)) {
  const scene = Object.values(scenes).find((own) => own.name.toLowerCase().replaceAll(' ', '-') === name);
  if (!scene) throw new Error(`the demo has no scene for pictures/${name}.webm`);
  const scale = String(Math.min(1, LONGER / Math.max(scene.width, scene.height)).toFixed(3));
  const out = join(GUIDE, 'pictures', `${name}.webm`);
  kite('render', demo, '--scene', scene.name, '--format', 'webm', '--scale', scale, '--quality', 'draft', '--out', out);
}
rmSync(work, { recursive: true, force: true });
