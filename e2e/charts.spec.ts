/** Charts: numbers from a table, which grow one after another, with labels. */
import type { DrawingLayer, Item, KeyedProperty } from '@kite/core/document/types';
import type { Page } from '@playwright/test';
import { addCard, drag, goToFrame, newProject, onScene, saved, setNumber } from './support/editor';
import { differing, readPng } from './support/media';
import { finished, previewPixels, render } from './support/outputs';
import { itemOf, named, sceneOf } from './support/scene';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const TABLE = 'Hour\tRiders\n22 to 24\t1,240\n00 to 02\t980\n02 to dawn\t300';
const pasteInto = (page: Page, label: string, words: string) =>
  page.getByLabel(label, { exact: true }).evaluate((field, said) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', said);
    field.focus();
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, words);

const layerNow = async (page: Page, server: Server): Promise<DrawingLayer> => {
  await saved(page, server);
  return named(await sceneOf(page, server), 'Chart');
};
const chartNow = async (page: Page, server: Server): Promise<Item> => itemOf(await layerNow(page, server), 'chart');
const valueOf = (item: Item, key: string) => (item.params[key] as { value?: unknown } | undefined)?.value;

test('a chart is added, filled from a table, keyed to grow, and comes out as it is seen', async ({ page, server }) => {
  const id = await newProject(page, server, 'Riders', 'Medium rectangle');
  await page.getByRole('button', { name: 'Add a chart' }).click();
  await pasteInto(page, 'Numbers', TABLE);
  await expect(page.getByLabel('Names', { exact: true })).toHaveValue('22 to 24\n00 to 02\n02 to dawn');
  const filled = await chartNow(page, server);
  expect([valueOf(filled, 'numbers'), valueOf(filled, 'names')]).toEqual([
    [1_240, 980, 300],
    '22 to 24\n00 to 02\n02 to dawn',
  ]);
  // Both came in one step.
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Numbers', { exact: true })).not.toBeFocused();
  await page.keyboard.press('Control+z');
  const before = await chartNow(page, server);
  expect([valueOf(before, 'numbers'), valueOf(before, 'names')]).toEqual([undefined, undefined]);
  await page.keyboard.press('Control+Shift+z');

  await page.getByLabel('Numbers', { exact: true }).fill('1240, 980, 600/2 tram');
  await expect(page.getByText('“tram” is no number or sum')).toBeVisible();
  await page.getByLabel('Numbers', { exact: true }).fill('1240, 980, 600/2');
  await page.getByLabel('Numbers', { exact: true }).press('Enter');

  await page.getByRole('button', { name: /^Grown: Animate/ }).click();
  await setNumber(page, 'Grown', '0');
  await goToFrame(page, 10);
  await page.getByRole('button', { name: 'Auto-key' }).click();
  await setNumber(page, 'Grown', '100');
  await setNumber(page, 'Apart', '3');
  const keyed = await chartNow(page, server);
  expect((keyed.params.grown as KeyedProperty).keys.map(({ frame, value }) => [frame, value])).toEqual([
    [0, 0],
    [10, 1],
  ]);
  expect([valueOf(keyed, 'stagger'), valueOf(keyed, 'numbers')]).toEqual([3, [1_240, 980, 300]]);

  await goToFrame(page, 9);
  const preview = await previewPixels(page);
  await render(page, 'PNG');
  const rows = await finished(server, id, 1);
  const png = await readPng(await server.bytes(`/renders/${rows.get('png')?.id}/file`));
  expect(differing(preview, png, 1)).toBe(0);
});

test('labels that are added come with a paint of their own, and the box of a chart is dragged', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Riders', 'Medium rectangle');
  await page.getByRole('button', { name: 'Add a chart' }).click();
  const at = await onScene(page, 300, 250);
  // From its right side: 180 × 125 in the middle of the scene.
  await drag(page, at(240, 125), at(270, 125));
  expect(valueOf(await chartNow(page, server), 'width')).toBe(210);
  await addCard(page, 'Labels');
  await page.getByLabel('Says', { exact: true }).selectOption('name');
  const { recipe, items } = await layerNow(page, server);
  expect(recipe.map((card) => items[card]?.kind)).toEqual(['chart', 'fill', 'labels', 'fill', 'labels', 'fill']);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect((await layerNow(page, server)).recipe).toHaveLength(4);
});
