// npm test: install, find Chromium, lint, types, unit tests, build, end-to-end tests.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { PARTS } from './types.mjs';
import { build, install, tool } from './steps.mjs';

const CHROMIUM = process.env.KITE_CHROMIUM ?? '/usr/bin/chromium';

const onDebian = () =>
  existsSync('/etc/os-release') && /^ID(_LIKE)?=.*debian/m.test(readFileSync('/etc/os-release', 'utf8'));

const findChromium = () => {
  if (existsSync(CHROMIUM)) return;
  if (process.getuid?.() !== 0 || !onDebian()) {
    console.error('The tests need Chromium: run "sudo apt-get install chromium", or set KITE_CHROMIUM to its path.');
    process.exit(1);
  }
  console.log('Installing Chromium ...');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env });
  execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], { stdio: 'inherit', env });
};

install();
findChromium();
await build();
const steps = [
  ['lint', () => tool('eslint', ['.']) && tool('prettier', ['--check', '--log-level', 'warn', '.'])],
  ['types', () => PARTS.every((part) => tool('tsc', ['-p', part]))],
  ['unit tests', () => tool('vitest', ['run'])],
  [
    'end-to-end tests',
    () => tool('playwright', ['test', '--config', 'e2e/playwright.config.ts'], { KITE_CHROMIUM: CHROMIUM }),
  ],
];
let failed = 0;
for (const [name, step] of steps) {
  console.log(`\n== ${name}`);
  if (!step()) {
    console.error(`${name} failed`);
    failed++;
  }
}
console.log(`\n${steps.length - failed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
