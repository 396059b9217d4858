/** Looking at the motion: kept frames, onion skins, comparison, full screen, the delivered file, five hundred rows. */
import { newDrawing, newItem } from '@kite/core/document/make';
import { expect } from '@playwright/test';
import { goToFrame, middle, onScene } from './support/editor';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import { pixel } from './support/scene';
import { test } from './support/test';

const ball = discLayer('a', 'Ball', [40, 120]);
const across = keyed('a', 'position', [
  [0, [40, 120], { kind: 'linear' }],
  [80, [360, 120]],
]);
const GROUND = [16, 19, 46];

test('drawn frames are kept until something changes', async ({ page, server }) => {
  await openMade(page, server, 'Kept', [ball], across);
  const kept = page.getByTestId('cached');
  for (const frame of [3, 4, 5, 20]) await goToFrame(page, frame);
  // 0, 3 to 5, and 20.
  await expect(kept).toHaveCount(3);
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 0);
  const before = await pixel(page, at(40, 120));
  await page.getByRole('group', { name: 'Layer Ball', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByLabel('Opacity', { exact: true }).fill('50');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(kept).toHaveCount(1);
  await expect.poll(async () => (await pixel(page, at(36, 116)))[0]).toBeLessThan(before[0] as number);
});

test('onion skins show the frames around, and a line compares two', async ({ page, server }) => {
  await openMade(page, server, 'Skins', [ball], across);
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 40);
  // The ball is in the middle at frame 40; nothing of it is where it is 12 frames later or earlier.
  expect(await pixel(page, at(152, 120))).toEqual(GROUND);
  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('checkbox', { name: 'Onion skin' }).check();
  await page.getByLabel('Frames apart').fill('12');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await pixel(page, at(152, 120)))[0]).toBeGreaterThan(60);
  const after = await pixel(page, at(248, 120));
  expect(after[2]).toBeGreaterThan(GROUND[2] as number);
  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('checkbox', { name: 'Onion skin' }).uncheck();
  await page.keyboard.press('Escape');

  await goToFrame(page, 80);
  await page.getByRole('button', { name: 'Compare this frame with others' }).click();
  await goToFrame(page, 0);
  // To the left of the line the ball of frame 0, to the right that of frame 80.
  await expect.poll(async () => (await pixel(page, at(40, 120)))[0]).toBeGreaterThan(200);
  await expect.poll(async () => (await pixel(page, at(360, 120)))[0]).toBeGreaterThan(200);
  await expect(page.getByTestId('compare-line')).toContainText('frame 80');
  await page.getByRole('button', { name: 'Stop comparing' }).click();
  await expect.poll(() => pixel(page, at(360, 120))).toEqual(GROUND);
});

test('the picture fills the screen and comes back', async ({ page, server }) => {
  await openMade(page, server, 'Full', [ball], across);
  await page.keyboard.press('f');
  await expect(page.getByRole('button', { name: 'Back to the editor' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause the preview' })).toBeVisible();
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Back to the editor' })).toHaveCount(0);
});

test('the banner and the GIF themselves open in a tab of their own', async ({ page, server, context }) => {
  await openMade(page, server, 'Delivered', [ball], across);
  for (const [name, end] of [
    ['Open as delivered: HTML5 banner', /\/banner\/index\.html$/],
    ['Open as delivered: Animated GIF', /\/file$/],
  ] as const) {
    await page.getByRole('button', { name: 'Preview', exact: true }).click();
    const [tab] = await Promise.all([context.waitForEvent('page'), page.getByRole('menuitem', { name }).click()]);
    await tab.waitForURL(end, { timeout: 60_000 });
    expect(await tab.locator('canvas, img').count()).toBeGreaterThan(0);
    await tab.close();
  }
});

test('what would play late is drawn at half size, says so, and stands still at its own', async ({ page, server }) => {
  const soft = Array.from({ length: 16 }, (_, i) => {
    const layer = discLayer(`l${i}`, `Lamp ${i + 1}`, [200, 120], '#FFB23E', 200);
    const cards = [newItem(`g${i}`, 'warp', {}), newItem(`n${i}`, 'grain', {})];
    return {
      ...layer,
      items: { ...layer.items, ...Object.fromEntries(cards.map((card) => [card.id, card])) },
      recipe: [...layer.recipe, ...cards.map(({ id }) => id)],
    };
  });
  const moved = soft.map(({ id }) =>
    keyed(id, 'position', [
      [0, [180, 120]],
      [80, [220, 120]],
    ]),
  );
  await openMade(page, server, 'Soft', soft, ...moved);
  const picture = page.getByTestId('picture');
  const width = () => picture.evaluate((canvas: HTMLCanvasElement) => canvas.width);
  const shown = () => picture.evaluate((canvas: HTMLCanvasElement) => canvas.getBoundingClientRect().width);
  await expect(picture).toHaveAttribute('data-frame', '0', { timeout: 30_000 });
  const [whole, wide] = [await width(), await shown()];
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('drawn-rate')).toContainText('half size', { timeout: 30_000 });
  await expect.poll(width).toBe(Math.ceil(whole / 2));
  expect(Math.abs((await shown()) - wide)).toBeLessThanOrEqual(1);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await expect.poll(width).toBe(whole);
  await expect(page.getByTestId('drawn-rate')).toHaveText('');
});

test('five hundred layers: only the rows in sight are on the page, and the last is reached', async ({
  page,
  server,
}) => {
  const many = Array.from({ length: 500 }, (_, i) => discLayer(`l${i}`, `Lamp ${i + 1}`, [i % 400, 120]));
  await openMade(page, server, 'Many', many);
  await expect(page.getByRole('group', { name: 'Layer Lamp 1', exact: true })).toBeVisible();
  expect(await page.getByTestId('layer-row').count()).toBeLessThan(60);
  const box = await page.getByLabel('Timeline', { exact: true }).boundingBox();
  if (!box) throw new Error('no timeline');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.wheel(0, 20_000);
  await expect(page.getByRole('group', { name: 'Layer Lamp 500', exact: true })).toBeVisible();
});

test('the timeline zooms about the pointer, and fits again', async ({ page, server }) => {
  await openMade(page, server, 'Zoom', [ball], across);
  await page.getByRole('button', { name: 'Open Ball' }).click();
  const bead = page.getByRole('button', { name: 'Keyframe of Position at 80', exact: true });
  const before = await bead.boundingBox();
  if (!before) throw new Error('no bead');
  await page.mouse.move(before.x + before.width / 2, before.y);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -600);
  await page.keyboard.up('Control');
  await expect(page.getByRole('button', { name: 'Keyframe of Position at 0', exact: true })).toHaveCount(0);
  const after = await bead.boundingBox();
  expect(Math.abs((after?.x ?? 0) - before.x)).toBeLessThan(3);
  await page.keyboard.press('Shift+F');
  await expect(page.getByRole('button', { name: 'Keyframe of Position at 0', exact: true })).toBeVisible();
});

test('a scene of one row of pixels is drawn, in the strip too', async ({ page, server }) => {
  await openMade(page, server, 'Flat', [ball], across);
  const poster = page.getByRole('button', { name: 'Scene Test', exact: true }).locator('canvas');
  await expect(poster).toHaveAttribute('data-drawn', /^\d+$/);
  const size = () => poster.evaluate((canvas: HTMLCanvasElement) => [canvas.width, canvas.height]);
  const before = await size();
  await page.getByLabel('Scene width', { exact: true }).fill('8192');
  await page.keyboard.press('Enter');
  await page.getByLabel('Scene height', { exact: true }).fill('1');
  await page.keyboard.press('Enter');
  await expect.poll(size).toEqual([1024, 1]);
  expect(before[1]).toBeGreaterThan(1);
  await expect(page.getByTestId('picture')).toHaveAttribute('data-frame', /^\d+$/);
  await expect(page.getByText('The preview stumbled')).toHaveCount(0);
});

test('a double press on what lies over the canvas is not one on the words below it', async ({ page, server }) => {
  const panel = [
    newItem('r', 'rectangle', { width: 2_000, height: 2_000 }),
    newItem('t', 'text'),
    newItem('f', 'fill'),
  ];
  const layer = newDrawing(BLANK, 'a', 'Words', panel, { position: [200, 120] });
  await openMade(page, server, 'Over', [layer]);
  const over = await middle(page.getByRole('button', { name: 'Zoom in', exact: true }));
  const writing = page.getByTestId('canvas-text');
  await page.mouse.dblclick(over.x, over.y - 60);
  await expect(writing).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(writing).toBeHidden();
  const zoom = page.getByRole('button', { name: 'Zoom to 100 %' });
  const before = await zoom.textContent();
  await page.mouse.dblclick(over.x, over.y);
  await expect(zoom).not.toHaveText(before ?? '');
  await expect(writing).toBeHidden();

  await page.getByRole('button', { name: 'Compare this frame with others' }).click();
  const line = await middle(page.getByTestId('compare-line'));
  await page.mouse.dblclick(line.x, line.y);
  await expect(writing).toBeHidden();
});
