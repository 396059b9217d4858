/** Cards and effects that go to other layers, and to all that moves. */
import { expect, type Locator } from '@playwright/test';
import { addCard, onScene } from './support/editor';
import { discLayer, keyed, openMade } from './support/made';
import { itemOf, named, pixel, sceneOf } from './support/scene';
import { test } from './support/test';
import { choose } from './support/timeline';

const lit = ([red = 0]: readonly number[]) => red > 200;

test('a card is copied from one layer to another', async ({ page, server }) => {
  await openMade(page, server, 'Copied', [
    discLayer('a', 'Lamp', [100, 120], '#FFB23E', 60),
    discLayer('b', 'Bell', [300, 120], '#FFB23E', 60),
  ]);
  const at = await onScene(page, 400, 240);
  const [lamp, bell] = [at(110, 110), at(310, 110)];
  const choose = (name: string) =>
    page
      .getByRole('group', { name: `Layer ${name}`, exact: true })
      .getByText(name)
      .first()
      .click();
  await choose('Lamp');
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await page.getByRole('button', { name: 'Invert' }).click();
  await expect.poll(async () => lit(await pixel(page, lamp))).toBe(false);
  await page.getByRole('button', { name: 'Invert: more' }).click();
  await page.getByRole('menuitem', { name: 'Copy', exact: true }).click();
  await choose('Bell');
  await page.getByRole('button', { name: 'Add a card', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Paste what was copied' }).click();
  await expect.poll(async () => lit(await pixel(page, bell))).toBe(false);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => lit(await pixel(page, bell))).toBe(true);
});

test('effects are kept under a name and put on another layer; all that moves is blurred by its motion, and switched at once', async ({
  page,
  server,
}) => {
  await openMade(
    page,
    server,
    'Effects',
    [discLayer('a', 'Lamp', [100, 120], '#FFB23E', 60), discLayer('b', 'Bell', [300, 120], '#FFB23E', 60)],
    keyed('a', 'position', [
      [0, [100, 120], { kind: 'linear' }],
      [50, [100, 220]],
    ]),
  );
  const choose = (name: string) =>
    page.getByRole('group', { name: `Layer ${name}`, exact: true }).click({ position: { x: 90, y: 12 } });
  await choose('Lamp');
  await addCard(page, 'Invert');
  await addCard(page, 'Glow');
  const panel = page.getByRole('dialog', { name: 'Effects' });
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await panel.getByLabel('Name for these effects').fill('Negative');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('group', { name: 'Kept effects' })).toBeVisible();
  await page.keyboard.press('Escape');

  await choose('Bell');
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await panel.getByRole('button', { name: 'Negative', exact: true }).click();
  const at = await onScene(page, 400, 240);
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(310, 130))).toEqual([0, 255 - 0xb2, 255 - 0x3e]);
  await choose('Bell');
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await panel.getByRole('button', { name: 'Negative', exact: true }).click({ modifiers: ['Alt'] });
  await expect(panel.getByRole('group', { name: 'Kept effects' })).toBeHidden();
  await page.keyboard.press('Escape');

  // Blur by motion, from the scene's card: of the lamp alone.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'All that moves' }).click();
  const all = page.getByLabel('Blur by motion', { exact: true });
  await expect(all).toBeChecked();
  await expect(page.getByText('on 1 of 1 layer')).toBeVisible();
  await page.getByLabel('Shutter', { exact: true }).fill('360');
  await page.keyboard.press('Enter');
  await all.click();
  await expect(page.getByText('on 0 of 1 layer')).toBeVisible();
  const lamp = named(await sceneOf(page, server), 'Lamp');
  expect(itemOf(lamp, 'motion-blur')).toMatchObject({ on: false, params: { shutter: { value: 360 } } });
  expect(itemOf(named(await sceneOf(page, server), 'Bell'), 'motion-blur')).toBeUndefined();
});

test('what is of the colour that it stands on stands on its opposite in the pictures of cards and effects', async ({
  page,
  server,
}) => {
  const disc = (name: string, color: string) => discLayer(name, name, [200, 120], color, 120);
  await openMade(page, server, 'Seen', [disc('White', '#ffffff'), disc('Grey', '#bdbdba'), disc('Blue', '#2a66b0')]);
  const fill = page.getByTestId('recipe-card').filter({ hasText: 'Fill' });
  const blur = page.getByRole('button', { name: 'Blur', exact: true });
  /** How opaque the corner of a small picture is once the layer is chosen. */
  const corner = (of: Locator) =>
    of.locator('canvas').evaluate((one: HTMLCanvasElement) => one.getContext('2d')?.getImageData(0, 0, 1, 1).data[3]);
  for (const [name, color, onCard, onEffect] of [
    ['White', '#FFFFFF', 255, 0],
    ['Grey', '#BDBDBA', 0, 255],
    ['Blue', '#2A66B0', 0, 0],
  ] as const) {
    await choose(page, name);
    await expect(fill).toContainText(color);
    await expect.poll(() => corner(fill)).toBe(onCard);
    await page.getByRole('button', { name: 'Add an effect' }).click();
    await expect.poll(() => corner(blur)).toBe(onEffect);
    await page.keyboard.press('Escape');
  }
});
