import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['packages/core/src/**/*.test.ts', 'demo/src/**/*.test.ts'] } },
      { test: { name: 'render', include: ['packages/render/src/**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'server', include: ['apps/server/src/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 } },
      { test: { name: 'cli', include: ['apps/cli/src/**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'web', include: ['apps/web/src/**/*.test.ts'] } },
    ],
  },
});
