/** Pictures cut into panes, in rows and columns or by shapes. */
import { expect } from '@playwright/test';
import { newItem } from '@kite/core/document/make';
import { drag, middle, newProject, onScene } from './support/editor';
import { discLayer, openMade } from './support/made';
import { disc, inOrder, pixel, sceneOf } from './support/scene';
import { test } from './support/test';

const lit = ([red = 0]: readonly number[]) => red > 200;

test('a picture is cut into six panes, each free to move, and swapped late in all of them', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Panes', 'Medium rectangle');
  const ticket = (color: string) => ({
    name: 'Ticket.png',
    mimeType: 'image/png',
    buffer: disc(color, color, 120, 80),
  });
  await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  await page.getByTestId('import-files').setInputFiles(ticket('#28B5A5'));
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  const row = await middle(page.getByRole('group', { name: 'Layer Ticket', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Cut into panes …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Cut “Ticket” into panes' });
  // Too wide a gap leaves nothing of the panes: it is told, and the dialog stays.
  await dialog.getByLabel('Gap').fill('900');
  await dialog.getByRole('button', { name: 'Cut', exact: true }).click();
  await expect(page.getByText(/too small for so many panes/)).toBeVisible();
  await dialog.getByLabel('Gap').fill('6');
  await dialog.getByRole('button', { name: 'Cut', exact: true }).click();
  await expect(dialog).toBeHidden();
  const names = async () => inOrder(await sceneOf(page, server)).map((layer) => layer.name);
  await expect.poll(names).toEqual([1, 2].flatMap((r) => [1, 2, 3].map((c) => `Ticket ${r}.${c}`)));
  const at = await onScene(page, 300, 250);
  const [pane, gap] = [at(100, 100), at(129, 100)];
  await expect.poll(async () => (await pixel(page, pane))[1]).toBe(181);
  expect(await pixel(page, gap)).toEqual([255, 255, 255]);

  // One moves by itself; all show the other picture.
  await page.keyboard.press('Escape');
  await drag(page, at(110, 110), at(110, 190));
  await expect.poll(async () => (await pixel(page, pane))[1]).toBe(255);
  await page.getByTestId('asset').first().getByTestId('swap-file').setInputFiles(ticket('#E4572E'));
  for (const spot of [at(110, 190), at(150, 110), at(190, 150)]) {
    await expect.poll(async () => (await pixel(page, spot))[0]).toBe(228);
  }
});

test('a layer is cut by the copies of a repeater', async ({ page, server }) => {
  const bars = discLayer('b', 'Bars', [160, 120], '#2DC4B6', 30);
  await openMade(page, server, 'Cut by shapes', [
    {
      ...bars,
      items: { ...bars.items, rep: newItem('rep', 'repeater', { copies: 3, position: [40, 0] }) },
      recipe: [...bars.recipe, 'rep'],
    },
    discLayer('a', 'Sun', [200, 120], '#FFB23E', 160),
  ]);
  const search = async () => {
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder('A command, card, move, setting or page, by any name').fill('slice');
    await page.getByRole('option', { name: 'Cut into panes …' }).click();
  };
  await page.keyboard.press('Escape');
  await search();
  await expect(page.getByText('Select the one layer that is to be cut.')).toBeVisible();
  await page.getByRole('group', { name: 'Layer Sun', exact: true }).click();
  await search();
  const dialog = page.getByRole('dialog', { name: 'Cut “Sun” into panes' });
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  // The menu is that of one layer, though both are selected.
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Sun', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Cut into panes …' }).click();
  await dialog.getByRole('radio', { name: 'Shapes of a layer' }).click();
  await dialog.getByLabel('Layer whose shapes cut').selectOption({ label: 'Bars' });
  await dialog.getByRole('button', { name: 'Cut', exact: true }).click();
  await expect(dialog).toBeHidden();
  const names = async () => inOrder(await sceneOf(page, server)).map((layer) => layer.name);
  await expect.poll(names).toEqual(['Bars', 'Sun 1', 'Sun 2', 'Sun 3']);
  await page.keyboard.press('Escape');
  const at = await onScene(page, 400, 240);
  const shown = async () => Promise.all([at(165, 125), at(180, 125), at(205, 125)].map((spot) => pixel(page, spot)));
  await expect.poll(async () => (await shown()).map(lit).join()).toBe('true,false,true');
});
