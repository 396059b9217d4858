// npm test: install, find Chromium, lint, types, unit tests, build, end-to-end tests.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { PARTS } from './types.mjs';
import { build, debianPackage, install, tool } from './steps.mjs';

const CHROMIUM = process.env.KITE_CHROMIUM ?? '/usr/bin/chromium';
const UNITS = 'dist/unitTests.json';

/** What unit tests failed, each with the first line of why. */
const failedUnits = () =>
  JSON.parse(readFileSync(UNITS, 'utf8')).testResults.flatMap(({ name, message, assertionResults }) => [
    ...(message ? [`${name}: ${message}`] : []),
    ...assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName, failureMessages }) => `${name}: ${fullName}: ${failureMessages[0]?.split('\n')[0]}`),
  ]);

install();
if (!existsSync(CHROMIUM)) debianPackage('chromium', 'Chromium', 'KITE_CHROMIUM');
await build();
const steps = [
  ['lint', () => tool('eslint', ['.']) && tool('prettier', ['--check', '--log-level', 'warn', '.'])],
  ['types', () => PARTS.every((part) => tool('tsc', ['-p', part]))],
  ['unit tests', () => tool('vitest', ['run', '--reporter', 'default', '--reporter', 'json', '--outputFile', UNITS])],
  [
    'end-to-end tests',
    () => tool('playwright', ['test', '--config', 'e2e/playwright.config.ts'], { KITE_CHROMIUM: CHROMIUM }),
  ],
];
const failed = [];
rmSync(UNITS, { force: true });
for (const [name, step] of steps) {
  console.log(`\n== ${name}`);
  if (!step()) {
    console.error(`${name} failed`);
    failed.push(name);
  }
}
console.log(`\n${steps.length - failed.length} passed, ${failed.length} failed`);
// Once more at the end, since what stands at the end of a long log is what is read.
if (failed.includes('unit tests') && existsSync(UNITS)) for (const line of failedUnits()) console.log(line);
if (failed.length) console.log(`failed: ${failed.join(', ')}`);
process.exit(failed.length ? 1 : 0);
