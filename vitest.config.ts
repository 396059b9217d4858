import { defineConfig } from 'vitest/config';

/** SQL files are imported as texts, as the bundler does it. */
const sql = {
  name: 'sql',
  transform: (code: string, id: string) =>
    id.endsWith('.sql') ? `export default ${JSON.stringify(code)};` : undefined,
};

export default defineConfig({
  test: {
    // One for each of two cores: by itself it would leave one free.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'core',
          include: ['packages/core/src/**/*.test.ts', 'demo/src/**/*.test.ts'],
          testTimeout: 30_000,
        },
      },
      { test: { name: 'api', include: ['packages/api/src/**/*.test.ts'] } },
      { test: { name: 'player', include: ['packages/player/src/**/*.test.ts'] } },
      { test: { name: 'render', include: ['packages/render/src/**/*.test.ts'], testTimeout: 60_000 } },
      {
        plugins: [sql],
        test: { name: 'server', include: ['apps/server/src/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 },
      },
      { test: { name: 'cli', include: ['apps/cli/src/**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'web', include: ['apps/web/*.test.ts', 'apps/web/src/**/*.test.ts'] } },
    ],
  },
});
