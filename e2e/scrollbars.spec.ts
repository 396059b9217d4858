/** Where bars that scroll take room of their own, as on most desktops. */
import { LAUNCH } from './support/browser';
import { discLayer, keyed, openMade } from './support/made';
import { named, sceneOf } from './support/scene';
import { expect, test } from './support/test';
import { bead, framesOf, openRow } from './support/timeline';

test.use({ launchOptions: { ...LAUNCH, ignoreDefaultArgs: ['--hide-scrollbars'] } });

test('the last frame is taken beside the bar that scrolls the rows', async ({ page, server }) => {
  const discs = Array.from({ length: 30 }, (_, i) => discLayer(`d${i}`, `Disc ${i}`, [20 + 10 * i, 120]));
  const ends = keyed('d0', 'opacity', [
    [0, 0],
    [99, 100],
  ]);
  await openMade(page, server, 'Many rows', discs, ends);
  const row = page.getByRole('group', { name: 'Layer Disc 0', exact: true });
  const rows = page.getByTestId('timeline-rows');
  const seen = await rows.evaluate((box: HTMLElement) => box.getBoundingClientRect().left + box.clientWidth);
  expect(seen).toBeLessThan(await rows.evaluate((box) => box.getBoundingClientRect().right));

  await openRow(page, 'Disc 0');
  for (const part of [row.getByTestId('bar-end'), bead(page, 'Opacity', 99)]) {
    const { x, width } = (await part.boundingBox()) ?? { x: Infinity, width: 0 };
    expect(x + width).toBeLessThanOrEqual(seen);
  }
  await bead(page, 'Opacity', 99).click();
  await page.keyboard.press('Delete');
  await expect.poll(() => framesOf(page, server, 'Disc 0', 'opacity')).toEqual([0]);

  const end = row.getByTestId('bar-end');
  await end.hover();
  await page.mouse.down();
  await page.mouse.move(700, 600, { steps: 3 });
  await page.mouse.up();
  await expect.poll(async () => named(await sceneOf(page, server), 'Disc 0').to).toBeLessThan(100);
});
