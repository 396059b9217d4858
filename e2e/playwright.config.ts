import { defineConfig } from '@playwright/test';
import { LAUNCH, VIEWPORT } from './support/browser';

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // Two cores: one for the server and the browser each.
  workers: 1,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  reporter: [['list']],
  use: { viewport: VIEWPORT, launchOptions: LAUNCH, trace: 'retain-on-failure' },
});
