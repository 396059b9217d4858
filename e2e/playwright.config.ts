import { defineConfig } from '@playwright/test';
import { LAUNCH, VIEWPORT } from './support/browser';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // Two cores, and much waiting: each worker has a server and a browser of its own.
  workers: 2,
  fullyParallel: true,
  // Limits that a machine with other things to do keeps to as well.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  // One that passes only then is listed as flaky at the end: a fault to be looked for, with the trace of its second try beside it.
  retries: 1,
  // Traces take a fifth of the time: KITE_TRACE=1 where a failure is looked into.
  use: {
    viewport: VIEWPORT,
    launchOptions: LAUNCH,
    trace: process.env.KITE_TRACE ? 'retain-on-failure' : 'on-first-retry',
  },
});
