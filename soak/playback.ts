/** Looping playback for as many rounds as four hours have: page and worker must not grow. */
import { readFileSync } from 'node:fs';
import { demoProject } from '@kite/demo/project';
import type { Project } from '@kite/core/document/types';
import type { Browser, Page } from '@playwright/test';
import { withEditor } from '../e2e/support/browser';
import { fault, type Figures } from './report';

/** Rounds of a loop of four seconds in four hours. */
const ROUNDS = 3_600;
const LENGTH = 3;
/** Over what the renderers take once half of the rounds are played: fonts, frames and compiled code are there by then. */
const MOST_GROWTH_MB = 20;

/** The demo's first scene, so short that its rounds go by quickly. */
const short = (): Project => {
  const demo = demoProject();
  const scene = demo.scenes[demo.order[0] as string] as Project['scenes'][string];
  return { ...demo, order: [scene.id], scenes: { [scene.id]: { ...scene, length: LENGTH } } };
};

/** What a process holds in memory, in MB (proc(5), VmRSS). */
const residentOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** The heap of the page after a collection, and the memory of Chromium's renderers, in MB. */
const memory = async (page: Page, browser: Browser): Promise<{ heap: number; renderers: number }> => {
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  const root = await browser.newBrowserCDPSession();
  const { processInfo } = await root.send('SystemInfo.getProcessInfo');
  const renderers = processInfo.filter((p) => p.type === 'renderer').reduce((sum, { id }) => sum + residentOf(id), 0);
  return { heap: usedSize / 1e6, renderers };
};

/** Waits until the playhead has come round so many times more. */
const rounds = (page: Page, count: number): Promise<void> =>
  page.evaluate(
    (wanted) =>
      new Promise<void>((done) => {
        const picture = document.querySelector('[data-testid=picture]') as HTMLElement;
        let [seen, last] = [0, -1];
        const look = () => {
          const frame = Number(picture.dataset.frame);
          if (frame < last) seen++;
          last = frame;
          if (seen >= wanted) done();
          else requestAnimationFrame(look);
        };
        look();
      }),
    count,
  );

export const playback = (): Promise<Figures> =>
  withEditor(short(), async (page, _server, browser) => {
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await rounds(page, ROUNDS / 2);
    const before = await memory(page, browser);
    await rounds(page, ROUNDS / 2);
    const after = await memory(page, browser);
    const growth = after.renderers - before.renderers;
    if (growth > MOST_GROWTH_MB) fault('playback', 0, `grew by ${growth} MB`);
    return {
      'rounds played': ROUNDS,
      'heap of the page half-way, MB': Math.round(before.heap),
      'heap of the page at the end, MB': Math.round(after.heap),
      'renderers half-way, MB': Math.round(before.renderers),
      'renderers at the end, MB': Math.round(after.renderers),
      faults: growth > MOST_GROWTH_MB ? 1 : 0,
    };
  });
