/** The second view of what is in depth. */
import type { Point } from '@kite/core/document/types';
import { drag, middle } from './support/editor';
import { discLayer, openMade } from './support/made';
import { named, pixel, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';

test('a second view shows depth from above, moves what is in it, and is turned without a key', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Aside', [
    discLayer('a', 'Disc', [200, 120], '#FFB23E', 60),
    discLayer('b', 'Far', [300, 120], '#2EC4B6', 60),
  ]);
  await page.keyboard.press('Shift+D');
  const view = page.getByRole('region', { name: 'Second view' });
  await expect(view).toContainText('Nothing in this scene is in depth yet');
  await page.getByRole('group', { name: 'Layer Disc', exact: true }).click();
  await view.getByRole('button', { name: 'Give depth to what is selected' }).click();
  await view.getByRole('radio', { name: 'Top', exact: true }).click();
  // From above a plane is a line; upwards is away.
  const plane = await middle(page.getByTestId('aside-Disc'));
  await page.mouse.move(plane.x, plane.y);
  await page.mouse.down();
  await page.mouse.move(plane.x + 5, plane.y - 25, { steps: 4 });
  await page.mouse.move(plane.x + 10, plane.y - 50, { steps: 4 });
  await expect(page.getByTestId('aside-told')).toContainText('z ');
  await page.mouse.up();
  const disc = async () => named(await sceneOf(page, server), 'Disc');
  await expect.poll(async () => Number(valueOf(await disc(), 'z'))).toBeGreaterThan(20);
  const [x, y] = valueOf(await disc(), 'position') as Point;
  const z = Number(valueOf(await disc(), 'z'));
  // One pixel of this screen is as much across as away.
  expect((x - 200) / z).toBeCloseTo(0.2, 1);
  expect(y).toBe(120);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await disc()).params.z).toBeUndefined();
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => valueOf(await disc(), 'z')).toBe(z);

  // From the left, what is farther away is farther left; what has no depth is not there.
  await view.getByRole('radio', { name: 'Left', exact: true }).click();
  const sight = await middle(page.getByTestId('sight').locator('path').first());
  expect((await middle(page.getByTestId('aside-Disc'))).x).toBeLessThan(sight.x);
  await expect(page.getByTestId('aside-Far')).toHaveCount(0);

  // Turned freely it shows the picture from there, and nothing is written.
  await view.getByRole('radio', { name: 'Free', exact: true }).click();
  const before = await sceneOf(page, server);
  const area = (await page.getByTestId('aside').boundingBox())!;
  const shape = async () => (await page.getByTestId('aside-Disc').locator('path').first().getAttribute('d')) ?? '';
  const was = await shape();
  await drag(page, { x: area.x + 20, y: area.y + 20 }, { x: area.x + 120, y: area.y + 60 });
  await expect.poll(shape).not.toBe(was);
  const spot = await middle(page.getByTestId('aside-Disc'));
  await expect.poll(() => pixel(page, spot)).toEqual([0xff, 0xb2, 0x3e]);
  expect(await sceneOf(page, server)).toEqual(before);
  // What a camera looks at is dragged by itself; where it stands stays.
  await page.getByRole('button', { name: 'Add a camera' }).click();
  await page.getByLabel('Looks at a point', { exact: true }).check();
  await view.getByRole('radio', { name: 'Top', exact: true }).click();
  const camera = async () => named(await sceneOf(page, server), 'Camera');
  const stood = (await camera()).params;
  const target = await middle(page.getByTestId('aside-Camera: what it looks at'));
  await drag(page, target, { x: target.x + 20, y: target.y - 10 });
  await expect.poll(async () => Number(valueOf(await camera(), 'targetZ'))).toBeGreaterThan(5);
  expect((valueOf(await camera(), 'target') as Point)[0]).toBeGreaterThan(210);
  expect((await camera()).params.position).toEqual(stood.position);
  expect((await camera()).params.z).toEqual(stood.z);
  await view.getByRole('button', { name: 'Close the second view' }).click();
  await expect(view).toHaveCount(0);
});
