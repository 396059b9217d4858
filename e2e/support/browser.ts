/** Debian's Chromium, without a monitor and without a network. */
import type { Project } from '@kite/core/document/types';
import { writeArchive } from '@kite/core/interchange/archive';
import { type Browser, chromium, type Page } from '@playwright/test';
import { Server } from './server';

export const VIEWPORT = { width: 1280, height: 800 };

export const LAUNCH = {
  executablePath: process.env.KITE_CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** Opens a project in the editor of a server of its own, for what is measured rather than tested. */
export const withEditor = async <T>(
  project: Project,
  work: (page: Page, server: Server, browser: Browser) => Promise<T>,
): Promise<T> => {
  const server = new Server();
  await server.start();
  const browser = await chromium.launch(LAUNCH);
  try {
    const { id } = (await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map())))
      .body;
    const context = await browser.newContext({ viewport: VIEWPORT });
    const page = await context.newPage();
    await page.goto(`${server.url}/projects/${id}`);
    await page.getByTestId('picture').waitFor();
    await page.waitForFunction(() => document.querySelector('[data-testid=picture]')?.hasAttribute('data-frame'));
    return await work(page, server, browser);
  } finally {
    await browser.close();
    await server.stop();
  }
};
