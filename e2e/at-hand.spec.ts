/** What is at hand for somebody who begins: first steps, help, empty states, and what is kept from going wrong. */
import type { DrawingLayer, Gradient } from '@kite/core/document/types';
import { beginText, newProject, saved, setNumber } from './support/editor';
import { inOrder, itemOf, named, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';

const SEARCH = 'A command, card, move, setting or page, by any name';

test('an empty scene begins by a press, and first steps go as they are taken', async ({ page, server }) => {
  await newProject(page, server, 'Begin', 'Square');
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps.getByRole('listitem')).toHaveCount(6);
  await page.getByRole('button', { name: 'Pick a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  await page.keyboard.press('Escape');
  await expect(steps.getByRole('button', { name: /^Draw a shape/ })).toHaveCSS('text-decoration-line', 'line-through');
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(SEARCH).fill('camera tutorial');
  await expect(page.getByRole('option').first()).toContainText('Help: Depth, and the camera');
  await page.keyboard.press('Escape');
  await expect(steps.getByRole('button', { name: /^Find anything/ })).toHaveCSS('text-decoration-line', 'line-through');
  await steps.getByRole('button', { name: 'Put the first steps away' }).click();
  await expect(steps).toHaveCount(0);
  await page.reload();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect(steps).toHaveCount(0);
});

test('the help leads from page to page, with pictures that move, and to what there is', async ({ page, server }) => {
  await page.goto(`${server.url}/help`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('To begin with');
  const video = page.locator('video');
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Hold the picture' }).click();
  expect(await video.evaluate((v: HTMLVideoElement) => v.paused)).toBe(true);
  await page.getByText('Next:').getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Shapes and paths');
  const help = page.getByRole('navigation', { name: 'Help' });
  for (const link of await help.getByRole('link').all()) {
    const title = await link.innerText();
    await link.click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(title);
  }
  await help.getByRole('link', { name: 'Keyboard' }).click();
  await expect(page.getByText('Search for anything')).toBeVisible();
  await help.getByRole('link', { name: 'Cards' }).click();
  await expect(page.getByText('Copies what is above, in a line, a circle or a grid')).toBeVisible();
});

test('with less motion wanted, pictures of the help wait', async ({ page, server }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(`${server.url}/help/repeaters`);
  await expect(page.getByRole('button', { name: 'Play the picture' })).toBeVisible();
  expect(await page.locator('video').evaluate((v: HTMLVideoElement) => v.paused)).toBe(true);
});

test('new words stay inside the scene, and the whole text is one step', async ({ page, server }) => {
  await newProject(page, server, 'Words', 'Square');
  await page.keyboard.press('t');
  const canvas = (await page.getByTestId('canvas').boundingBox())!;
  // Near the right edge of the picture.
  await page.mouse.click(canvas.x + canvas.width / 2 + canvas.height * 0.4, canvas.y + canvas.height / 2);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  const name = 'The last tram of the night leaves at ten to three';
  await page.keyboard.insertText(name);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('group', { name: `Layer ${name}` })).toBeVisible();
  const layer = named<DrawingLayer>(await sceneOf(page, server), name);
  const [x] = valueOf(layer, 'position') as [number, number];
  const size = (itemOf(layer, 'text').params.size as { value: number }).value;
  // A square of 1080: what was 120 high is smaller, and stands about in the middle.
  expect(size).toBeLessThan(60);
  expect(Math.abs(x - 540)).toBeLessThan(60);
});

test('a gradient begins as large as the shape, in its colour', async ({ page, server }) => {
  await newProject(page, server, 'Ink', 'Square');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Rectangle' }).dblclick();
  const before = inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const color = (itemOf(before, 'fill').params.color as { value: string }).value;
  await page.getByRole('button', { name: 'Open Fill' }).click();
  await page.getByLabel('Ink', { exact: true }).selectOption('linear');
  const fill = itemOf(inOrder(await sceneOf(page, server))[0] as DrawingLayer, 'fill').params;
  // A new rectangle is 120 high.
  expect([fill.from, fill.to]).toEqual([{ value: [0, -60] }, { value: [0, 60] }]);
  expect((fill.gradient as { value: Gradient }).value.stops[0]?.color).toBe(color);
});

test('what is in a scene is fitted into another size by a press, and taken back by another', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Adapt', 'Square');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  await page.keyboard.press('Escape');
  await setNumber(page, 'Scene height', '540');
  const adapt = page.getByRole('group', { name: 'Adapt the content' });
  await expect(adapt).toContainText('made for 1080 × 1080');
  await adapt.getByRole('button', { name: 'Fit', exact: true }).click();
  await expect(adapt).toHaveCount(0);
  const scene = await sceneOf(page, server);
  const all = named(scene, 'All of the scene');
  expect([valueOf(all, 'scale'), valueOf(all, 'position')]).toEqual([
    [0.5, 0.5],
    [540, 270],
  ]);
  expect(named(scene, 'Star').parent).toBe(all.id);
  await page.keyboard.press('Control+z');
  expect(Object.keys((await sceneOf(page, server)).layers)).toHaveLength(1);
});

test('what a file will weigh is told before it is rendered', async ({ page, server }) => {
  await newProject(page, server, 'Weight', 'Square');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  await saved(page, server);
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('button', { name: 'Weigh it' }).click();
  await expect(page.getByText(/^About \d+ KB, from some of its frames$/)).toBeVisible({ timeout: 60_000 });
});

test('all of the longest menu is on the page: that of words, in the last row', async ({ page, server }) => {
  await newProject(page, server, 'Menu', 'Medium rectangle');
  await beginText(page);
  await page.keyboard.type('Ride home easy');
  await page.keyboard.press('Escape');
  await page.getByTestId('layer-row').click({ button: 'right', position: { x: 90, y: 12 } });
  const menu = page.getByRole('menu');
  await expect(menu.getByRole('menuitem', { name: 'Split into lines' })).toBeInViewport({ ratio: 1 });
  for (const entry of await menu.getByRole('menuitem').all()) await expect(entry).toBeInViewport({ ratio: 1 });
  await menu.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(0);
});

test('everything there is comes up in the search by its name, and by another', async ({ page, server }) => {
  await newProject(page, server, 'Search', 'Square');
  await page.keyboard.press('Control+k');
  const field = page.getByPlaceholder(SEARCH);
  const options = page.getByRole('option');
  await expect(field).toBeFocused();
  await expect.poll(() => options.count()).toBeGreaterThan(150);
  const all = await options.evaluateAll((found) =>
    found.map((option) => ({
      id: option.getAttribute('data-value') ?? '',
      label: option.querySelector('span')?.textContent ?? '',
      other: (option as HTMLElement).dataset.also?.split(' ').slice(0, 2).join(' ') ?? '',
    })),
  );
  for (const { id, label, other } of all) {
    for (const name of [label, other]) {
      await field.fill(name);
      await expect(page.locator(`[role=option][data-value="${id}"]`)).toHaveCount(1);
    }
  }
  // A setting is switched from there.
  await field.fill('rulers');
  await options.first().click();
  await page.getByRole('button', { name: 'Rulers, guides and grid' }).click();
  await expect(page.getByLabel('Rulers', { exact: true })).toBeChecked();
});
