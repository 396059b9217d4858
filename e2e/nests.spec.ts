/** Scenes played inside scenes. */
import { expect } from '@playwright/test';
import { addCard, goToFrame, middle, onScene, saved } from './support/editor';
import { discLayer, keyed, openMade } from './support/made';
import { readPng } from './support/media';
import { pixel } from './support/scene';
import { test } from './support/test';

const GROUND = [16, 19, 46];

test('layers are nested, played twice as fast, opened, and rendered as they are shown', async ({ page, server }) => {
  const project = await openMade(
    page,
    server,
    'Nest',
    [discLayer('a', 'Ball', [40, 120]), discLayer('b', 'Bell', [40, 200])],
    keyed('a', 'position', [
      [0, [40, 120], { kind: 'linear' }],
      [80, [360, 120]],
    ]),
  );
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 30);
  const ball = await pixel(page, at(160, 120));
  expect(ball[0]).toBeGreaterThan(200);
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Ball', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Nest in a scene of their own' }).click();
  const doc = await saved(page, server);
  expect(doc.order.length).toBe(2);
  expect(doc.scenes.s?.order.length).toBe(1);
  await goToFrame(page, 41);
  await goToFrame(page, 30);
  expect(await pixel(page, at(160, 120))).toEqual(ball);

  // Twice as fast: at frame 15 it is where it was at frame 30.
  const card = page.getByLabel('Card Nest', { exact: true });
  await card.getByLabel('Speed', { exact: true }).fill('200');
  await page.keyboard.press('Enter');
  await goToFrame(page, 15);
  await expect.poll(() => pixel(page, at(160, 120))).toEqual(ball);
  await saved(page, server);
  const settings = { format: 'png', scale: 1, frame: 15 };
  const { body } = await server.api<{ id: string }>('POST', '/renders', { project, scene: 's', settings });
  const state = async () =>
    (await server.api<{ id: string; status: string }[]>('GET', '/renders')).body.find((r) => r.id === body.id)?.status;
  await expect.poll(state).toBe('done');
  const { data, width } = await readPng(await server.bytes(`/renders/${body.id}/file`));
  const colour = (x: number, y: number) => [...data.slice((y * width + x) * 4, (y * width + x) * 4 + 3)];
  expect([colour(160, 120), colour(120, 120)]).toEqual([ball, GROUND]);

  // Backwards, then one frame for good.
  await card.getByLabel('Plays', { exact: true }).selectOption('freeze');
  await card.getByLabel('Frame', { exact: true }).fill('80');
  await page.keyboard.press('Enter');
  await expect.poll(() => pixel(page, at(360, 120))).toEqual(ball);
  await page.getByRole('button', { name: 'Open this scene' }).click();
  await expect(page.getByRole('group', { name: 'Layer Bell', exact: true })).toBeVisible();

  // It stands beside the others.
  const strip = page.getByRole('button', { name: 'Scene Test part', exact: true });
  await expect(strip).toBeVisible();
});

test('a nest is repeated with a delay, a card says why it does nothing, and another scene or file is chosen', async ({
  page,
  server,
}) => {
  await openMade(
    page,
    server,
    'Repeated',
    [discLayer('a', 'Ball', [40, 60])],
    keyed('a', 'position', [
      [0, [40, 60], { kind: 'linear' }],
      [80, [360, 60]],
    ]),
  );
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 40);
  const ball = await pixel(page, at(200, 60));
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Ball', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Nest in a scene of their own' }).click();
  await expect(page.getByLabel('Card Nest', { exact: true })).toBeVisible();

  await addCard(page, 'Repeater');
  const repeater = page.getByLabel('Card Repeater', { exact: true });
  for (const [label, value] of [
    ['Copies', '2'],
    ['Copy delay', '20'],
    ['Move x', '0'],
    ['Move y', '100'],
  ] as const) {
    await repeater.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press('Enter');
  }
  // Four pixels a frame: the copy below is 80 behind.
  await expect.poll(() => pixel(page, at(120, 160))).toEqual(ball);
  expect([await pixel(page, at(200, 60)), await pixel(page, at(200, 160))]).toEqual([ball, GROUND]);

  await addCard(page, 'Trim');
  await expect(page.getByText('It works on outlines. Above it there are pictures alone')).toBeVisible();
  await addCard(page, 'Picture');
  const picture = page.getByLabel('Card Picture', { exact: true });
  await expect(picture.getByLabel('File', { exact: true }).locator('option')).toHaveText(['Nothing imported yet']);

  // A scene that would play itself is not offered.
  await page.getByRole('button', { name: 'Open Nest', exact: true }).click();
  const nest = page.getByLabel('Card Nest', { exact: true });
  await expect(nest.getByLabel('Scene', { exact: true }).locator('option')).toHaveText(['Ball']);
  await nest.getByRole('button', { name: 'Open this scene' }).click();
  await expect(page.getByRole('group', { name: 'Layer Ball', exact: true })).toBeVisible();
});
