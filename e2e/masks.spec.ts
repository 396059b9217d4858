/** Masks drawn over a layer, made of layers and made layers again, by what is seen of them. */
import { expect } from '@playwright/test';
import { newDrawing, newItem } from '@kite/core/document/make';
import { addCard, drag, middle, onScene, saved } from './support/editor';
import { BLANK, discLayer, openMade } from './support/made';
import { inOrder, itemOf, named, pixel, sceneOf } from './support/scene';
import { test } from './support/test';
import { choose } from './support/timeline';

const lit = ([red = 0]: readonly number[]) => red > 200;

test('masks are drawn over a layer, add up, fade, show faintly what they cut, and become layers', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Masks', [discLayer('a', 'Lamp', [200, 120], '#FFB23E', 60)]);
  const at = await onScene(page, 400, 240);
  const [left, right] = [at(190, 120), at(212, 127)];
  await page.mouse.click(at(200, 120).x, at(200, 120).y);
  await expect.poll(async () => [lit(await pixel(page, left)), lit(await pixel(page, right))]).toEqual([true, true]);

  // Over its left half: the right one goes.
  await page.keyboard.press('r');
  await page.keyboard.press('Shift+M');
  await expect(page.getByLabel(/As a mask of “Lamp”/)).toBeChecked();
  await drag(page, at(150, 60), at(200, 180));
  await expect(page.getByTestId('held-outline')).toHaveCount(1);
  await expect.poll(async () => lit(await pixel(page, right))).toBe(false);
  expect(lit(await pixel(page, left))).toBe(true);
  let layers = (await saved(page, server)).scenes.s?.layers ?? {};
  expect(Object.keys(layers)).toEqual(['a']);

  // What is drawn next is a layer again, unless it is wanted otherwise.
  await page.keyboard.press('r');
  await expect(page.getByLabel(/As a mask of “Lamp”/)).not.toBeChecked();
  await page.getByLabel(/As a mask of “Lamp”/).check();
  await drag(page, at(206, 110), at(240, 130));
  await expect(page.getByTestId('held-outline')).toHaveCount(2);
  await expect.poll(async () => lit(await pixel(page, right))).toBe(true);

  // The second one's edge fades; taken away, it is a hole in what was never there.
  const card = page.getByLabel('Card Mask', { exact: true }).last();
  await card.getByRole('button', { name: 'Open Mask' }).click();
  await card.getByLabel('Mask', { exact: true }).selectOption('Takes away');
  await expect.poll(async () => lit(await pixel(page, right))).toBe(false);

  await page.getByRole('button', { name: 'Masks', exact: true }).click();
  const before = await pixel(page, right);
  await page.getByRole('radio', { name: 'Faint' }).click();
  await expect.poll(async () => (await pixel(page, right))[0]).not.toBe(before[0]);
  await page.getByRole('radio', { name: 'There' }).click();
  await expect.poll(async () => lit(await pixel(page, right))).toBe(true);
  await page.getByRole('radio', { name: 'Gone' }).click();
  await expect.poll(async () => lit(await pixel(page, right))).toBe(false);
  await page.keyboard.press('Escape');

  await card.getByRole('button', { name: 'Mask: more' }).click();
  await page.getByRole('menuitem', { name: 'Make a layer of it' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  layers = (await saved(page, server)).scenes.s?.layers ?? {};
  expect(Object.values(layers).map(({ name, parent }) => [name, parent])).toContainEqual(['Mask', 'a']);

  for (let n = 0; n < 4; n++) await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect.poll(async () => lit(await pixel(page, right))).toBe(true);
});

test('a press on what a mask cuts away goes to what is seen there; what shows of it while it is selected is seized', async ({
  page,
  server,
}) => {
  const front = discLayer('a', 'Lamp', [200, 120], '#FFB23E', 120);
  const half = { ...newItem('m', 'mask'), children: ['mg'] };
  const left = { ...newItem('mg', 'group', { position: [-60, 0] }), children: ['mr'] };
  const rectangle = newItem('mr', 'rectangle', { width: 120, height: 240 });
  const items = { ...front.items, m: half, mg: left, mr: rectangle };
  const masked = { ...front, recipe: [...front.recipe, 'm'], items };
  await openMade(page, server, 'Behind', [masked, discLayer('b', 'Back', [200, 120], '#FFFFFF', 120)]);
  const at = await onScene(page, 400, 240);
  const press = (x: number) => page.mouse.click(at(x, 130).x, at(x, 130).y);
  const chosen = async (name: 'Lamp' | 'Back') => {
    await expect(page.getByLabel('Card Fill', { exact: true })).toBeVisible();
    await expect(page.getByLabel('Card Mask', { exact: true })).toHaveCount(name === 'Lamp' ? 1 : 0);
  };
  await press(230);
  await chosen('Back');
  await press(170);
  await chosen('Lamp');
  await page.getByRole('button', { name: 'Masks', exact: true }).click();
  await page.getByRole('radio', { name: 'Faint' }).click();
  await page.keyboard.press('Escape');
  await press(230);
  await chosen('Lamp');
});

test('a path is drawn into the group or the mask that is open, and a shape where that is wanted', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Into', [discLayer('a', 'Lamp', [200, 120], '#FFFFFF', 200)]);
  const at = await onScene(page, 400, 240);
  await choose(page, 'Lamp');
  await addCard(page, 'Mask');
  const box = (x: number, y: number) => drag(page, at(x, y), at(x + 40, y + 40));
  // With the mask open a shape is a layer of its own, unless it is to go in there.
  await page.keyboard.press('r');
  const into = page.getByLabel('Into the open “Mask”');
  await expect(into).not.toBeChecked();
  await into.check();
  await box(150, 60);
  await expect.poll(() => pixel(page, at(160, 92)).then(lit)).toBe(true);
  await expect.poll(() => pixel(page, at(240, 140)).then(lit)).toBe(false);
  expect(inOrder(await sceneOf(page, server))).toHaveLength(1);

  // A path goes in by itself.
  await page.getByRole('button', { name: 'Open Mask' }).click();
  await page.keyboard.press('d');
  await expect(into).toBeChecked();
  for (const [x, y] of [
    [220, 120],
    [280, 120],
    [280, 170],
    [220, 170],
    [220, 120],
  ] as const) {
    await page.mouse.click(at(x, y).x, at(x, y).y);
  }
  await expect.poll(() => pixel(page, at(240, 140)).then(lit)).toBe(true);
  const layer = named(await sceneOf(page, server), 'Lamp');
  const mask = itemOf(layer, 'mask');
  expect(mask.children?.map((id) => layer.items[id]?.kind)).toEqual(['group', 'path']);
});

test('with nothing selected what is drawn as a mask is a layer, which does not become its own', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'None', [discLayer('a', 'Lamp', [200, 120], '#FFFFFF', 200)]);
  const at = await onScene(page, 400, 240);
  await page.keyboard.press('Shift+M');
  await page.keyboard.press('r');
  await page.mouse.move(at(20, 20).x, at(20, 20).y);
  await page.mouse.down();
  for (const [x, y] of [
    [50, 40],
    [80, 60],
  ] as const) {
    await page.mouse.move(at(x, y).x, at(x, y).y);
    await expect(page.getByTestId('canvas').getByText(`${x - 20} × ${y - 20}`)).toBeVisible();
  }
  await page.mouse.up();
  await expect
    .poll(async () => inOrder(await sceneOf(page, server)).map(({ name }) => name))
    .toEqual(['Rectangle', 'Lamp']);
  const drawn = named(await sceneOf(page, server), 'Rectangle');
  expect(itemOf(drawn, 'rectangle').params).toMatchObject({ width: { value: 60 }, height: { value: 40 } });
});

test('the front one of the selected layers becomes a mask of the others, in place', async ({ page, server }) => {
  await openMade(page, server, 'Masked', [
    discLayer('m', 'Window', [230, 120], '#2DC4B6', 60),
    discLayer('a', 'Lamp', [200, 120], '#FFB23E', 60),
  ]);
  const at = await onScene(page, 400, 240);
  const [only, both] = [at(182, 120), at(215, 120)];
  await expect.poll(async () => lit(await pixel(page, only))).toBe(true);
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Lamp', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Use the front one as a mask' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect.poll(async () => lit(await pixel(page, only))).toBe(false);
  expect(lit(await pixel(page, both))).toBe(true);
  const { layers } = (await saved(page, server)).scenes.s ?? {};
  expect(Object.keys(layers ?? {})).toEqual(['a']);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
});

test('what a mask cuts away shows faintly while the words are typed, too', async ({ page, server }) => {
  const font = { family: 'Inter', weight: 800, italic: false };
  const masked = newDrawing(
    BLANK,
    'w',
    'Words',
    [
      newItem('t', 'text', { text: 'HHHHH', size: 60, font }),
      newItem('f', 'fill', { color: '#FFFFFF' }),
      { ...newItem('m', 'mask'), children: ['r'] },
      newItem('r', 'rectangle', { width: 400, height: 400, centre: [180, 0] }),
    ],
    { position: [200, 140] },
  );
  await openMade(page, server, 'Masked words', [masked]);
  const at = await onScene(page, 400, 240);
  // The bar of the letter left of the middle, which the mask leaves out.
  const gone = async () => (await pixel(page, at(156, 118)))[0]!;
  await choose(page, 'Words');
  await expect.poll(gone).toBe(16);
  await page.getByRole('button', { name: 'Masks', exact: true }).click();
  await page.getByRole('radio', { name: 'Faint' }).click();
  await page.keyboard.press('Escape');
  await expect.poll(gone).toBeGreaterThan(50);
  const faint = await gone();
  await page.mouse.dblclick(at(244, 118).x, at(244, 118).y);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('HHHHH');
  await expect.poll(gone).toBe(faint);
});
