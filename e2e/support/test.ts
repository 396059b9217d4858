import { test as base } from '@playwright/test';
import { Server } from './server';

/** Tests share one server; each makes the projects it needs. Any error on a page fails its test. */
export const test = base.extend<{ watched: undefined }, { server: Server }>({
  server: [
    // Playwright reads what a fixture needs from this pattern.
    async ({}, use) => {
      const server = new Server();
      await server.start();
      await use(server);
      await server.stop();
    },
    { scope: 'worker' },
  ],
  watched: [
    async ({ page }, use) => {
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      await use(undefined);
      if (errors.length > 0) throw new Error(`errors on the page: ${errors.join('; ')}`);
    },
    { auto: true },
  ],
});

/** Tests that kill their server, or look at all that it has, have one of their own. */
export const alone = base.extend<{ own: Server }>({
  own: async ({}, use) => {
    const server = new Server();
    await server.start();
    await use(server);
    await server.stop();
  },
});

export { expect } from '@playwright/test';
