// npm test: install, find Chromium, lint, types, unit tests, build, end-to-end tests.
import { existsSync } from 'node:fs';
import { PARTS } from './types.mjs';
import { build, debianPackage, install, tool } from './steps.mjs';

const CHROMIUM = process.env.KITE_CHROMIUM ?? '/usr/bin/chromium';

install();
if (!existsSync(CHROMIUM)) debianPackage('chromium', 'Chromium', 'KITE_CHROMIUM');
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
