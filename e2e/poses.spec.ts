/** Poses: kept, put one after another, held, changed in one of them or all, and delivered picture by picture. */
import type { Page } from '@playwright/test';
import type { Edit } from '@kite/core/document/patches';
import type { DrawingLayer, KeyedProperty } from '@kite/core/document/types';
import { setScene } from '@kite/core/edits/scenes';
import { addCard, drag, goToFrame, middle, newProject, onScene, setNumber } from './support/editor';
import { discLayer, openMade } from './support/made';
import { colorAt, readGif } from './support/media';
import { finished, render } from './support/outputs';
import { inOrder, pixel, sceneOf } from './support/scene';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const GROUND = [0x10, 0x13, 0x2e];

const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** A disc in a scene of 400 by 240, selected, and the drawer of poses beside it. */
const discAndPoses = async (page: Page, server: Server, width: number, ...edits: readonly Edit[]): Promise<string> => {
  const id = await openMade(page, server, 'Poses', [discLayer('d', 'Disc', [150, 120], '#FFB23E', width)], ...edits);
  await page.getByRole('group', { name: 'Layer Disc', exact: true }).click({ position: { x: 90, y: 12 } });
  await press(page, 'Poses');
  return id;
};

test('a product wobbles between two poses: held, led over, changed by hand and in the poses', async ({
  page,
  server,
}) => {
  await discAndPoses(page, server, 60);
  const disc = async () => inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const keys = async (key: string) =>
    ((await disc()).params[key] as KeyedProperty | undefined)?.keys?.map(({ frame, value }) => [frame, value]);
  await press(page, 'Keep this as a pose');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  await setNumber(page, 'Turn', '20');
  await press(page, 'Keep this as a pose');
  await expect(page.getByTestId('pose')).toHaveCount(2);
  // Nothing is keyed by keeping; a press shows the first one again.
  expect(await keys('position')).toBeUndefined();
  await press(page, 'Go to Pose 1');
  await expect.poll(async () => (await disc()).params.position).toEqual({ value: [150, 120] });

  await press(page, 'Put them one after another');
  await setNumber(page, 'Frames that it stays', '6');
  await expect
    .poll(() => keys('position'))
    .toEqual([
      [0, [150, 120]],
      [6, [190, 120]],
    ]);
  await setNumber(page, 'Pictures in between', '1');
  await page.getByLabel('From the last back to the first').check();
  await expect.poll(async () => (await sceneOf(page, server)).length).toBe(14);
  const at = await onScene(page, 400, 240);
  const left = () => pixel(page, at(130, 120));
  const right = () => pixel(page, at(212, 120));
  await goToFrame(page, 0);
  await expect.poll(left).not.toEqual(GROUND);
  await goToFrame(page, 8);
  await expect.poll(left).toEqual(GROUND);
  await expect.poll(right).not.toEqual(GROUND);
  await goToFrame(page, 6);
  expect(await left()).toEqual(GROUND);
  expect(await right()).toEqual(GROUND);

  // By its edge the second stays for longer, in one step; dragged it comes first.
  const second = page.getByTestId('held').nth(1);
  const edge = await middle(second.getByTestId('held-edge'));
  const frame = ((await second.boundingBox())!.width + 1) / 6;
  await drag(page, edge, { x: edge.x + 4 * frame, y: edge.y });
  await expect
    .poll(async () => (await sceneOf(page, server)).poses?.strip.held.map(({ hold }) => hold))
    .toEqual([6, 10]);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await sceneOf(page, server)).poses?.strip.held.map(({ hold }) => hold))
    .toEqual([6, 6]);
  const from = await middle(second);
  await drag(page, from, { x: from.x - 8 * frame, y: from.y });
  await goToFrame(page, 0);
  await expect.poll(left).toEqual(GROUND);
  await page.keyboard.press('Control+z');

  // What is changed where a pose shows goes into it, or into all of them.
  await press(page, 'Go to Pose 2');
  await setNumber(page, 'Opacity', '50');
  await page.getByRole('status').getByRole('button', { name: 'Into this pose' }).click();
  await expect
    .poll(() => keys('opacity'))
    .toEqual(
      expect.arrayContaining([
        [0, 1],
        [7, 0.5],
      ]),
    );
  await press(page, 'Go to Pose 1');
  await setNumber(page, 'Scale x', '120');
  await page.getByRole('status').getByRole('button', { name: 'Into all' }).click();
  await expect.poll(async () => (await disc()).params.scale).toEqual({ value: [1.2, 1.2] });
  await expect(page.getByRole('status').filter({ hasText: 'shown otherwise' })).toHaveCount(0);

  // Edited by hand it stays so, whatever the strip does, until it is to follow again.
  await press(page, 'Go to Pose 2');
  await page.keyboard.press('a');
  await setNumber(page, 'Position y', '60');
  await page.keyboard.press('a');
  await expect(page.getByRole('status').filter({ hasText: '1 value edited by hand' })).toBeVisible();
  await setNumber(page, 'Frames that it stays', '8');
  expect((await keys('position'))?.find(([frame]) => frame === 7)?.[1]).toEqual([190, 60]);
  await press(page, 'Back to the poses');
  const places = async () => (await keys('position'))?.map(([, place]) => place);
  await expect.poll(places).toContainEqual([190, 120]);
  expect(await places()).not.toContainEqual([190, 60]);
  await page.reload();
  await expect(page.getByTestId('held')).toHaveCount(2);
});

test('energy in a word: three poses of clouds, one picture in between, as a looping GIF; then another word', async ({
  page,
  server,
}) => {
  const id = await newProject(page, server, 'Energy', 'Medium rectangle');
  await page.keyboard.press('t');
  const at = await onScene(page, 300, 250);
  await page.mouse.click(at(60, 150).x, at(60, 150).y);
  await page.keyboard.type('HOME');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('group', { name: 'Layer HOME', exact: true }).click({ position: { x: 90, y: 12 } });
  await addCard(page, 'Clouds');
  await setNumber(page, 'Contrast', '900');
  await press(page, 'Poses');
  for (const seed of ['1', '2', '3']) {
    await setNumber(page, 'Seed', seed);
    await press(page, 'Keep this as a pose');
  }
  await press(page, 'Put them one after another');
  await setNumber(page, 'Frames that it stays', '6');
  await setNumber(page, 'Pictures in between', '1');
  await setNumber(page, 'Frames of each in between', '3');
  await page.getByLabel('From the last back to the first').check();
  await expect.poll(async () => (await sceneOf(page, server)).length).toBe(27);
  const layer = async () => inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const cloudKeys = async () => {
    const card = Object.values((await layer()).items).find(({ kind }) => kind === 'clouds');
    return (card?.params.seed as KeyedProperty | undefined)?.keys?.map(({ frame, value }) => [frame, value]);
  };
  await expect.poll(cloudKeys).toEqual([
    [0, 1],
    [6, 2],
    [15, 3],
    [24, 2],
  ]);
  await render(page, 'Animated GIF');
  const one = await finished(server, id, 1);
  const gif = readGif(await server.bytes(`/renders/${one.get('gif')?.id}/file`));
  expect(gif.delays.reduce((a, b) => a + b)).toBe(90);
  expect(gif.loop).toBe(0);

  // Another word, in all of them.
  await page.getByRole('button', { name: 'Open Text' }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('TRAM');
  await page.getByRole('textbox', { name: 'Text', exact: true }).blur();
  await expect.poll(async () => JSON.stringify((await layer()).items)).toContain('TRAM');
  expect(await cloudKeys()).toHaveLength(4);
  await expect(page.getByRole('status').filter({ hasText: 'edited by hand' })).toHaveCount(0);
});

test('eleven pictures, each for its own time, are as many in a GIF', async ({ page, server }) => {
  const id = await discAndPoses(page, server, 20, setScene('s', { rate: { num: 50, den: 1 } }));
  const stays = [7, 11, 23, 50, 3, 40, 2, 31, 64, 9, 12];
  // By a key or by the button of the drawer.
  await page.keyboard.press('Alt+k');
  for (let i = 1; i < stays.length; i++) {
    await page.keyboard.press('Shift+ArrowRight');
    if (i % 2 === 0) await page.keyboard.press('Alt+k');
    else await press(page, 'Keep it as the next picture');
    await expect(page.getByTestId('held')).toHaveCount(i + 1);
  }
  // One by one, and then three of them at once.
  for (const [i, hold] of stays.entries()) {
    await page.getByTestId('held').nth(i).click();
    await expect(page.getByTestId('which-pictures')).toHaveText('1 of 11 pictures chosen');
    await setNumber(page, 'Frames that it stays', String(hold));
  }
  const holds = async () => (await sceneOf(page, server)).poses?.strip.held.map(({ hold }) => hold);
  await expect.poll(holds).toEqual(stays);
  await render(page, 'Animated GIF');
  const one = await finished(server, id, 1);
  const gif = readGif(await server.bytes(`/renders/${one.get('gif')?.id}/file`));
  expect(gif.delays).toEqual(stays.map((frames) => 2 * frames));
  // Each is ten pixels farther to the right.
  const starts = stays.map((_, i) => stays.slice(0, i).reduce((a, b) => a + b, 0) * 2);
  starts.forEach((start, i) => {
    expect(colorAt(gif.at(start), 136 + 10 * i, 120).slice(0, 3)).toEqual(GROUND);
    expect(colorAt(gif.at(start), 144 + 10 * i, 120).slice(0, 3)).not.toEqual(GROUND);
  });

  await page.getByTestId('held').nth(3).click();
  await page
    .getByTestId('held')
    .nth(5)
    .click({ modifiers: ['Shift'] });
  await page
    .getByTestId('held')
    .nth(8)
    .click({ modifiers: ['Shift'] });
  // Those that differ go on differing when they are stepped.
  await page.getByLabel('Frames that it stays', { exact: true }).press('Shift+ArrowUp');
  await expect.poll(holds).toEqual([7, 11, 23, 60, 3, 50, 2, 31, 74, 9, 12]);
  await page.getByLabel('Seconds that it stays', { exact: true }).press('Shift+ArrowDown');
  await expect.poll(holds).toEqual([7, 11, 23, 55, 3, 45, 2, 31, 69, 9, 12]);
  await setNumber(page, 'Seconds that it stays', '0.5');
  await expect.poll(holds).toEqual([7, 11, 23, 25, 3, 25, 2, 31, 25, 9, 12]);
  await setNumber(page, 'Seconds that it stays', '0.33');
  await expect(page.getByRole('status').filter({ hasText: '0.33 s are 16.5 frames here' })).toBeVisible();
});
