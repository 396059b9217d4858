/** What is dragged by a finger, as by a pen on a screen: the browser does not take it for scrolling. */
import type { Page } from '@playwright/test';
import { discLayer, keyed, openMade } from './support/made';
import { named, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';
import { bead, choose, framesOf, openRow } from './support/timeline';

/** Puts a finger down and moves it, in steps, as a screen tells of it. */
const fingerFrom = async (page: Page, at: { x: number; y: number }, by: { x: number; y: number }) => {
  const screen = await page.context().newCDPSession(page);
  const tell = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number }[]) =>
    screen.send('Input.dispatchTouchEvent', { type, touchPoints });
  await tell('touchStart', [at]);
  for (let step = 1; step <= 8; step++) {
    await tell('touchMove', [{ x: at.x + (by.x * step) / 8, y: at.y + (by.y * step) / 8 }]);
  }
  await tell('touchEnd', []);
};

test('a finger drags numbers, bars, keyframes and names, and scrolls the rows up and down', async ({
  page,
  server,
}) => {
  const discs = Array.from({ length: 30 }, (_, i) => discLayer(`d${i}`, `Disc ${i}`, [20 + 10 * i, 120]));
  const fades = keyed('d0', 'opacity', [
    [0, 0],
    [20, 100],
  ]);
  await openMade(page, server, 'By hand', discs, fades);
  const scene = () => sceneOf(page, server);
  const row = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  const middleOf = async (box: ReturnType<typeof row>) => {
    const { x, y, width, height } = (await box.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
    return { x: x + width / 2, y: y + height / 2 };
  };

  await choose(page, 'Disc 0');
  await fingerFrom(page, await middleOf(page.getByLabel('Position x', { exact: true })), { x: 48, y: 0 });
  await expect.poll(async () => valueOf(named(await scene(), 'Disc 0'), 'position')).toEqual([68, 120]);

  await openRow(page, 'Disc 0');
  await fingerFrom(page, await middleOf(bead(page, 'Opacity', 20)), { x: 120, y: 0 });
  await expect.poll(async () => (await framesOf(page, server, 'Disc 0', 'opacity'))[1]).toBeGreaterThan(30);

  await fingerFrom(page, await middleOf(row('Disc 1').getByTestId('bar-start')), { x: 120, y: 0 });
  await expect.poll(async () => named(await scene(), 'Disc 1').from).toBeGreaterThan(10);

  const rows = page.getByTestId('timeline-rows');
  await fingerFrom(page, await middleOf(rows), { x: 0, y: -80 });
  await expect.poll(() => rows.evaluate(({ scrollTop }) => scrollTop)).toBeGreaterThan(30);

  const name = row('Disc 4').getByText('Disc 4').first();
  await fingerFrom(page, await middleOf(name), { x: 0, y: 60 });
  await expect.poll(async () => (await scene()).order.indexOf('d4')).not.toBe(4);
});
