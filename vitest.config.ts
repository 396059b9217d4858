import { defineConfig } from 'vitest/config';

/** SQL files are imported as texts, as the bundler does it. */
const sql = {
  name: 'sql',
  transform: (code: string, id: string) =>
    id.endsWith('.sql') ? `export default ${JSON.stringify(code)};` : undefined,
};

/** A limit ends what hangs; it is no measure of speed, so it is far from what a slow machine needs. */
const PATIENCE = { testTimeout: 300_000, hookTimeout: 300_000 };

const project = (name: string, ...include: string[]) => ({ test: { name, include, ...PATIENCE } });

export default defineConfig({
  test: {
    // One for each of two cores: by itself it would leave one free.
    maxWorkers: 2,
    projects: [
      project('core', 'packages/core/src/**/*.test.ts', 'demo/src/**/*.test.ts'),
      project('api', 'packages/api/src/**/*.test.ts'),
      project('player', 'packages/player/src/**/*.test.ts'),
      project('render', 'packages/render/src/**/*.test.ts'),
      { plugins: [sql], ...project('server', 'apps/server/src/**/*.test.ts') },
      project('cli', 'apps/cli/src/**/*.test.ts'),
      project('web', 'apps/web/*.test.ts', 'apps/web/src/**/*.test.ts'),
    ],
  },
});
