/** The boxes of texts and shapes, dragged on the canvas. */
import { newDrawing, newItem } from '@kite/core/document/make';
import type { DrawingLayer, Item, KeyedProperty } from '@kite/core/document/types';
import type { Page } from '@playwright/test';
import { drag, newProject, onScene, saved } from './support/editor';
import { BLANK, openMade } from './support/made';
import { differing } from './support/media';
import { previewPixels } from './support/outputs';
import { named, sceneOf } from './support/scene';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const WORDS = newDrawing(
  BLANK,
  'w',
  'Words',
  [
    newItem('wt', 'text', {
      text: 'The town sleeps',
      size: 26,
      frame: 'box',
      width: 240,
      height: 80,
      align: 'left',
    }),
    newItem('wf', 'fill', { color: '#FFB23E' }),
  ],
  { position: [200, 120] },
);
const PLATE = newDrawing(
  BLANK,
  'p',
  'Plate',
  [newItem('pr', 'rectangle', { width: 100, height: 50, radius: 14 }), newItem('pf', 'fill', { color: '#2EC4B6' })],
  { position: [80, 140] },
);

const cardNow = async (page: Page, server: Server, layer: string, card: string): Promise<Item> => {
  await saved(page, server);
  return named<DrawingLayer>(await sceneOf(page, server), layer).items[card] as Item;
};
const valuesNow = async (page: Page, server: Server, layer: string, card: string, ...keys: string[]) => {
  const { params } = await cardNow(page, server, layer, card);
  return keys.map((key) => (params[key] as { value?: unknown } | undefined)?.value);
};

test('a side of a text’s box is dragged: lines break anew, and the other side stays', async ({ page, server }) => {
  await openMade(page, server, 'Boxes', [WORDS]);
  const at = await onScene(page, 400, 240);
  await page.getByTestId('layer-row').filter({ hasText: 'Words' }).click();
  await page.getByText('“The town sleeps”').click();
  await expect(page.getByTestId('size-1/0')).toBeVisible();
  await expect(page.getByTestId('handle-1/0')).toHaveCount(0);
  await drag(page, at(320, 120), at(230, 120));
  expect(await valuesNow(page, server, 'Words', 'wt', 'width', 'height', 'place')).toEqual([150, 80, [-45, 0]]);
  // About its middle.
  await page.keyboard.down('Alt');
  await drag(page, at(155, 160), at(155, 150));
  await page.keyboard.up('Alt');
  expect(await valuesNow(page, server, 'Words', 'wt', 'width', 'height', 'place')).toEqual([150, 60, [-45, 0]]);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect(await valuesNow(page, server, 'Words', 'wt', 'width', 'height', 'place')).toEqual([240, 80, undefined]);
});

test('the box of a text that was typed is at hand as soon as it is left', async ({ page, server }) => {
  await newProject(page, server, 'Typed', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('t');
  await drag(page, at(40, 60), at(260, 190));
  await page.keyboard.type('The last night-tram leaves at 02:40');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('220');
  await drag(page, at(260, 125), at(200, 125));
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('160');
});

test('a rectangle is made larger by its corner, with its own round corners, and keyed in what changes', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Boxes', [PLATE]);
  const at = await onScene(page, 400, 240);
  await page.getByTestId('layer-row').filter({ hasText: 'Plate' }).click();
  await page.getByText('100 × 50').click();
  await drag(page, at(130, 165), at(190, 175));
  expect(await valuesNow(page, server, 'Plate', 'pr', 'width', 'height', 'centre', 'radius')).toEqual([
    160,
    60,
    [30, 5],
    14,
  ]);
  await page.keyboard.down('Shift');
  await drag(page, at(190, 175), at(270, 178));
  await page.keyboard.up('Shift');
  expect(await valuesNow(page, server, 'Plate', 'pr', 'width', 'height')).toEqual([240, 90]);
  await page.keyboard.press('Control+z');
  // With auto-key what stays as it is gets no keyframe.
  await page.getByRole('button', { name: /^Width: Animate/ }).click();
  await page.getByRole('button', { name: /^Height: Animate/ }).click();
  await page.getByLabel('Frame', { exact: true }).fill('20');
  await page.getByLabel('Frame', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Auto-key' }).click();
  await drag(page, at(190, 145), at(210, 145));
  const { params } = await cardNow(page, server, 'Plate', 'pr');
  const keys = (key: string) => (params[key] as KeyedProperty).keys.map(({ frame, value }) => [frame, value]);
  expect([keys('width'), keys('height')]).toEqual([
    [
      [0, 160],
      [20, 180],
    ],
    [[0, 60]],
  ]);
});

test('a text stays where it is while it is put in a box, and taken out of it', async ({ page, server }) => {
  const typed = { ...WORDS.items.wt!, params: { ...WORDS.items.wt!.params, frame: { value: 'point' } } } as Item;
  await openMade(page, server, 'Boxes', [{ ...WORDS, items: { ...WORDS.items, wt: typed } }]);
  await page.getByTestId('layer-row').filter({ hasText: 'Words' }).click();
  await page.getByText('“The town sleeps”').click();
  await expect(page.getByTestId('picture')).toHaveAttribute('data-drawn', /./);
  const before = await previewPixels(page, BLANK.width);
  await page.getByRole('radio', { name: 'In a box' }).click();
  await expect(page.getByTestId('size-1/0')).toBeVisible();
  expect(differing(await previewPixels(page, BLANK.width), before)).toBe(0);
  await page.getByRole('radio', { name: 'As typed' }).click();
  await expect(page.getByTestId('size-1/0')).toHaveCount(0);
  expect(differing(await previewPixels(page, BLANK.width), before)).toBe(0);
});
