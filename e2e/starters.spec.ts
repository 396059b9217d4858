/** From nothing to something of one's own: starters, what is replaced in them, and the search for commands. */
import { createCanvas } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { holdBack, saved } from './support/editor';
import { readVideo } from './support/media';
import { discLayer, openMade } from './support/made';
import { finished } from './support/outputs';
import { inOrder, sceneOf } from './support/scene';
import { expect, test } from './support/test';

const words = (page: Page, layer: string) => page.getByLabel(`Words of ${layer}`, { exact: true });

test('a film of one’s own words is rendered within twelve presses', async ({ page, server }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { presses: number };
    counted.presses = 0;
    window.addEventListener('pointerdown', () => counted.presses++, true);
  });
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Start from Banner' }).click();
  const drawer = page.getByRole('region', { name: 'Replace' });
  await expect(drawer).toBeVisible();
  await words(page, 'Last tram').click();
  await words(page, 'Last tram').fill('Ride home easy');
  await words(page, 'Every').click();
  await words(page, 'Every').fill('The town sleeps.');
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'MP4 video', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  expect(await page.evaluate(() => (window as unknown as { presses: number }).presses)).toBeLessThan(12);
  const doc = await saved(page, server);
  const row = (await finished(server, doc.id, 1)).get('mp4');
  const video = readVideo(await server.bytes(`/renders/${row!.id}/file`), 300, 250);
  expect(video.frames).toBe(240);
  const texts = Object.values(doc.scenes).flatMap((scene) =>
    Object.values(scene.layers).flatMap((layer) => (layer.kind === 'drawing' ? Object.values(layer.items) : [])),
  );
  const said = texts.flatMap(({ kind, params }) =>
    kind === 'text' && params.text && 'value' in params.text ? [params.text.value] : [],
  );
  expect(said.toSorted()).toEqual(['Night pass 3.80', 'Plan my ride', 'Ride home easy', 'The town sleeps.']);
  // One step for what was typed in one field.
  await page.getByRole('button', { name: 'Undo: Replace words' }).click();
  await expect(words(page, 'Every')).toHaveValue('Every 12 minutes till dawn');
});

test('words, a colour and the picture of a starter are replaced in one place', async ({ page, server }) => {
  const canvas = createCanvas(192, 108);
  const context = canvas.getContext('2d');
  context.fillStyle = '#FF5D5D';
  context.fillRect(0, 0, 192, 108);
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Start from Picture grid' }).click();
  await words(page, 'Name').fill('Saltings');
  await page.getByRole('button', { name: 'Colour of Fog' }).click();
  await page.getByLabel('Colour of Fog, as hex').fill('#FFB23E');
  await page.keyboard.press('Escape');
  await page
    .getByTestId('asset')
    .getByTestId('swap-file')
    .setInputFiles({
      name: 'Red evening.png',
      mimeType: 'image/png',
      buffer: canvas.toBuffer('image/png'),
    });
  await expect(page.getByTestId('asset')).toContainText('192 × 108');
  const doc = await saved(page, server);
  expect(doc.swatches.map(({ name, color }) => [name, color])).toEqual([['Fog', '#FFB23E']]);
  expect(Object.values(doc.assets).map((asset) => asset.kind === 'picture' && asset.width)).toEqual([192]);
  // All six panes show it, as large as the one before.
  const panes = inOrder(await sceneOf(page, server)).filter(({ name }) => name.startsWith('Picture'));
  expect(panes).toHaveLength(6);
  for (const pane of panes) {
    const picture = pane.kind === 'drawing' && Object.values(pane.items).find(({ kind }) => kind === 'picture');
    expect(picture && picture.params.size).toEqual({ value: 10 });
  }
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('button', { name: 'Show renders' }).click();
  await expect(page.getByTestId('render-row').first()).toHaveAttribute('data-status', 'done', { timeout: 60_000 });
  // The demo comes back beside it.
  await page.goto(server.url);
  await expect(page.getByTestId('project-card').first()).toBeVisible();
  const before = await page.getByTestId('project-card').count();
  await page.getByRole('button', { name: 'Bring the demo back' }).click();
  await expect(page.getByTestId('project-card')).toHaveCount(before + 1);
});

test('keys that are pressed while the search is on its way are for the search', async ({ page, server }) => {
  const letGo = await holdBack(page, '**/SearchField-*.js');
  await openMade(page, server, 'Slow', [discLayer('d', 'Disc', [200, 120])]);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('drop');
  await expect(page.getByRole('textbox', { name: 'Search' })).toHaveValue('drop');
  letGo();
  await expect(page.getByRole('option', { name: 'Shadow' })).toBeVisible();
  await page.keyboard.type(' sh');
  await expect(page.getByRole('combobox', { name: 'Search' })).toHaveValue('drop sh');
});

test('what is said before that which shows it has come is shown when it comes, or where it cannot', async ({
  page,
  server,
}) => {
  const letGo = await holdBack(page, '**/Toaster-*.js');
  await openMade(page, server, 'Slow', [discLayer('d', 'Disc', [200, 120])]);
  await page.keyboard.press('/');
  await page.keyboard.press('Control+Shift+g');
  letGo();
  await expect(page.getByText('Nothing to split')).toBeVisible();
  await expect(page.getByText('There is nothing to ungroup')).toBeVisible();

  await page.route('**/Toaster-*.js', (route) => route.abort());
  const told: string[] = [];
  page.on('dialog', (dialog) => {
    told.push(dialog.message());
    void dialog.dismiss();
  });
  const failed = page.waitForEvent('requestfailed', (request) => request.url().includes('Toaster-'));
  await page.reload();
  await failed;
  await expect(page.getByLabel('Layer Disc')).toBeVisible();
  await page.keyboard.press('/');
  // Nothing is told of what nobody asked for.
  await expect.poll(() => told).toEqual([expect.stringContaining('Nothing to split')]);
});

test('commands, cards, moves and places are searched for by any name', async ({ page, server }) => {
  await openMade(page, server, 'Search', [discLayer('d', 'Disc', [200, 120])]);
  const search = async (text: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Search' }).fill(text);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: 'Search' })).toBeHidden();
  };
  // A card for nothing says what is missing.
  await search('drop shadow');
  await expect(page.getByText('Select the one layer that the card is for.')).toBeVisible();
  await page.getByTestId('layer-row').first().click();
  await search('drop shadow');
  const kinds = async () => {
    const [layer] = inOrder(await sceneOf(page, server));
    return layer?.kind === 'drawing' ? layer.recipe.map((id) => layer.items[id]!.kind) : [];
  };
  await expect.poll(async () => (await kinds()).at(-1)).toBe('shadow');
  await search('fade out');
  await expect.poll(async () => inOrder(await sceneOf(page, server))[0]!.params.opacity).toBeDefined();
  await search('clone');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  await search('brand');
  await expect(page.getByRole('region', { name: 'Colours' })).toBeVisible();
  await search('mp4');
  await expect(page.getByRole('dialog', { name: 'Render' })).toBeVisible();
  await page.keyboard.press('Escape');
  // What is not there says so, and is left by Escape.
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill('xyzzy');
  await expect(page.getByText('Nothing is called that.')).toBeVisible();
  await page.keyboard.press('Escape');
  await search('expressions');
  await expect(page).toHaveURL(/help\/formulas/);
});

test('timeline and inspector fold away by keys, the transport stays, and sizes are kept', async ({ page, server }) => {
  await openMade(page, server, 'Room', [discLayer('d', 'Disc', [200, 120])]);
  const canvas = page.getByTestId('canvas');
  const size = async () => (await canvas.boundingBox())!;
  const first = await size();
  await page.keyboard.press('Shift+T');
  await expect(page.getByTestId('layer-row')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect.poll(async () => (await size()).height).toBeGreaterThan(first.height + 200);
  await page.keyboard.press('Shift+I');
  await expect(page.getByRole('complementary', { name: 'Inspector' })).toBeHidden();
  await expect.poll(async () => (await size()).width).toBeGreaterThan(first.width + 250);
  // The keyboard goes round what is there.
  for (let n = 0; n < 3; n++) await page.keyboard.press('F6');
  await expect(page.locator('[data-area=timeline] :focus')).toHaveCount(1);
  await page.getByRole('button', { name: 'Inspector away, or back' }).click();
  await page.getByRole('button', { name: 'Timeline away, or back' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect.poll(async () => (await size()).height).toBeCloseTo(first.height, -1);

  const line = (await page.getByRole('separator').first().boundingBox())!;
  await page.mouse.move(line.x + 300, line.y);
  await page.mouse.down();
  await page.mouse.move(line.x + 300, line.y + 90, { steps: 6 });
  await page.mouse.up();
  const taller = (await size()).height;
  expect(taller).toBeGreaterThan(first.height + 60);
  await page.reload();
  await expect.poll(async () => (await size()).height).toBeCloseTo(taller, -1);
});
