/** Many layers as one thing: groups, columns of the list, and what stays as it was left. */
import type { ControllerLayer, Layer } from '@kite/core/document/types';
import { readFile } from 'node:fs/promises';
import { expect, type Locator, type Page } from '@playwright/test';
import { addStar, drag, goToFrame, middle, onScene, setNumber, threeSquares } from './support/editor';
import { discLayer, keyed, openMade } from './support/made';
import { disc as discPng, inOrder, itemOf, named, pixel, redsOf, sceneOf } from './support/scene';
import { test } from './support/test';
import { choose, framesOf, openRow } from './support/timeline';

const rowOf = (page: Page, name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });

test('a group hides, fades, moves in time, is trimmed, coloured, put away, copied and deleted as one thing', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Group', [
    discLayer('a', 'Front', [100, 120], '#FFFFFF', 100),
    discLayer('b', 'Between', [330, 60], '#FFFFFF', 40),
    discLayer('c', 'Back', [150, 120], '#FFFFFF', 100),
  ]);
  const at = await onScene(page, 400, 240);
  // Where both overlap, where one is, and the one that is no member.
  const reds = () => redsOf(page, [at(125, 80), at(70, 120), at(330, 60)]);
  await expect.poll(reds).toEqual([255, 255, 255]);
  await choose(page, 'Front', 'Back');
  await page.keyboard.press('Control+g');
  expect(inOrder(await sceneOf(page, server)).map((l) => l.name)).toEqual(['Group', 'Front', 'Back', 'Between']);

  // It fades as one picture: nothing of the back one shows through the front one.
  await setNumber(page, 'Opacity', '50');
  const half = 16 + (255 - 16) / 2;
  await expect
    .poll(async () => (await reds()).map((red) => Math.abs((red ?? 0) - half) <= 1))
    .toEqual([true, true, false]);
  await page.keyboard.press('Control+z');
  await expect.poll(reds).toEqual([255, 255, 255]);

  // Its cards are those of all its members.
  const cards = page.getByRole('region', { name: 'In all of the group' });
  await expect(cards.getByText('2 layers')).toBeVisible();
  await cards.getByRole('button', { name: /Open Fill/ }).click();
  await cards.getByRole('button', { name: 'Colour', exact: true }).click();
  await page.getByLabel('Colour, as hex').fill('#C00000');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect.poll(reds).toEqual([0xc0, 0xc0, 255]);

  await page.getByRole('button', { name: 'Hide Group', exact: true }).click();
  await expect.poll(reds).toEqual([16, 16, 255]);
  await page.getByRole('button', { name: 'Show Group', exact: true }).click();
  await page.getByRole('button', { name: 'Lock Group', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Unlock Back', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Unlock Group', exact: true }).click();
  await page.getByRole('button', { name: 'Show alone Group', exact: true }).click();
  await expect.poll(reds).toEqual([0xc0, 0xc0, 16]);
  await page.getByRole('button', { name: 'Show with the others Group', exact: true }).click();

  // In time: its bar slides them all, its ends trim them all.
  const bar = rowOf(page, 'Group').getByTestId('layer-bar');
  const from = await middle(bar);
  await drag(page, from, { x: from.x + 80, y: from.y });
  const slid = await sceneOf(page, server);
  const { from: start, to: end } = named<ControllerLayer>(slid, 'Group');
  expect(start).toBeGreaterThan(0);
  expect([named(slid, 'Front').from, named(slid, 'Back').from, named(slid, 'Between').from]).toEqual([start, start, 0]);
  await goToFrame(page, 0);
  await expect.poll(reds).toEqual([16, 16, 255]);
  const edge = await middle(rowOf(page, 'Group').getByTestId('bar-start'));
  await drag(page, edge, { x: edge.x + 60, y: edge.y });
  const trimmed = await sceneOf(page, server);
  expect(named<Layer>(trimmed, 'Group').from).toBeGreaterThan(start);
  expect(named(trimmed, 'Front').from).toBe(start);
  await goToFrame(page, start + 1);
  await expect.poll(reds).toEqual([16, 16, 255]);
  await goToFrame(page, Math.min(end - 1, 90));
  await expect.poll(reds).toEqual([0xc0, 0xc0, 255]);

  // Put away it is one row; duplicated and deleted it goes with its members.
  await page.getByRole('button', { name: 'Put away the members of Group' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  await page.getByRole('button', { name: 'Show the members of Group' }).click();
  await choose(page, 'Group');
  await page.keyboard.press('Control+d');
  await expect(page.getByTestId('layer-row')).toHaveCount(7);
  await choose(page, 'Group 2');
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  await choose(page, 'Group');
  await page.keyboard.press('Control+Shift+g');
  expect(inOrder(await sceneOf(page, server)).map((l) => l.name)).toEqual(['Front', 'Back', 'Between']);
});

test('solo and tags go down their columns; rows open together, and only for what is animated', async ({
  page,
  server,
}) => {
  await openMade(
    page,
    server,
    'Columns',
    [0, 1, 2].map((i) => discLayer(`d${i}`, `Dot ${i}`, [100 + 100 * i, 120], '#FFFFFF', 40)),
    keyed('d1', 'rotation', [
      [0, 0],
      [40, 90],
    ]),
  );
  const at = await onScene(page, 400, 240);
  const reds = () => redsOf(page, [at(100, 120), at(200, 120), at(300, 120)]);
  await expect.poll(reds).toEqual([255, 255, 255]);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  await drag(page, await middle(button('Show alone Dot 0')), await middle(button('Show alone Dot 1')));
  await expect.poll(reds).toEqual([255, 255, 16]);
  await drag(
    page,
    await middle(button('Show with the others Dot 0')),
    await middle(button('Show with the others Dot 1')),
  );
  await expect.poll(reds).toEqual([255, 255, 255]);

  await choose(page, 'Dot 0');
  await page.getByRole('radio', { name: 'leaf' }).click();
  await drag(page, await middle(button('Tag of Dot 0: leaf')), await middle(button('Tag of Dot 1: slate')));
  expect(inOrder(await sceneOf(page, server)).map(({ tag }) => tag)).toEqual(['leaf', 'leaf', 'slate']);
  await button('Tag of Dot 1: leaf').click();
  await expect(page.getByLabel('Place', { exact: true })).toContainText('2 layers');

  // Where keyframes are shows on a closed row; the selected rows open together.
  await expect(page.getByTestId('key-ticks')).toHaveAttribute('data-frames', '2');
  await openRow(page, 'Dot 0');
  await expect(page.getByTestId('ribbon-row')).toHaveCount(1);
  await expect(page.getByText('Nothing is animated yet')).toBeVisible();
  await page.getByRole('button', { name: 'Only layers that are animated' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await page.getByRole('button', { name: 'Show 2 more that are not animated' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
});

test('a card that was open opens again with its layer; proportions stay as they were chosen', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'As it was left', [
    discLayer('a', 'One', [100, 120], '#FFFFFF', 40),
    discLayer('b', 'Two', [300, 120], '#FFFFFF', 60),
  ]);
  const ellipse = page.getByLabel('Card Ellipse', { exact: true });
  await choose(page, 'One');
  await page.getByRole('button', { name: 'Open Ellipse' }).click();
  await choose(page, 'Two');
  await expect(ellipse.getByLabel('Width', { exact: true })).toBeHidden();
  await choose(page, 'One');
  await expect(ellipse.getByLabel('Width', { exact: true })).toHaveValue('40');

  const size = async (name: string) => {
    const { params } = itemOf(named(await sceneOf(page, server), name), 'ellipse');
    return [params.width, params.height].map((p) => (p as { value: number }).value);
  };
  // Each alone, until they are to stay in proportion: on every layer from then on.
  await setNumber(page, 'Width', '80');
  expect(await size('One')).toEqual([80, 40]);
  await ellipse.getByRole('button', { name: 'Width: keep in proportion' }).click();
  await setNumber(page, 'Height', '80');
  expect(await size('One')).toEqual([160, 80]);
  await choose(page, 'Two');
  await page.getByRole('button', { name: 'Open Ellipse' }).click();
  await setNumber(page, 'Width', '30');
  expect(await size('Two')).toEqual([30, 30]);

  // A scale that was let loose stays so.
  await page.getByRole('button', { name: 'Scale: keep in proportion' }).click();
  await choose(page, 'One');
  await setNumber(page, 'Scale x', '150');
  expect(named(await sceneOf(page, server), 'One').params.scale).toEqual({ value: [1.5, 1] });
});

test('a routine goes at another speed, in another order, for ever; players are taken out, and copies join', async ({
  page,
  server,
}) => {
  await openMade(
    page,
    server,
    'Routine',
    [0, 1, 2].map((i) => discLayer(`d${i}`, `Dot ${i}`, [60, 60 + 60 * i])),
  );
  await choose(page, 'Dot 0', 'Dot 1', 'Dot 2');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Routine for the selected' }).click();
  const card = page.getByLabel('Routine', { exact: true });
  const starts = async () => Promise.all([0, 1, 2].map(async (i) => (await framesOf(page, server, `Dot ${i}`))[0]));
  expect(await starts()).toEqual([0, 4, 8]);
  await card.getByLabel('Order of the players').selectOption('From the last');
  expect(await starts()).toEqual([8, 4, 0]);
  expect(await framesOf(page, server, 'Dot 2')).toEqual([0, 12]);
  await setNumber(page, 'Speed of the routine', '50');
  expect(await framesOf(page, server, 'Dot 2')).toEqual([0, 24]);
  await card.getByLabel('For ever').check();
  expect(named(await sceneOf(page, server), 'Dot 2').params.position).toMatchObject({ after: 'offset' });
  await card.getByRole('button', { name: 'Take Dot 1 out' }).click();
  expect(await framesOf(page, server, 'Dot 1')).toEqual([]);
  await choose(page, 'Dot 2');
  await page.keyboard.press('Control+d');
  await expect(card.getByRole('list', { name: 'Players' }).getByText('Dot 3')).toBeVisible();
  expect(await starts()).toEqual([8, undefined, 4]);
  expect((await framesOf(page, server, 'Dot 3'))[0]).toBe(0);
});

test('colours taken from a swatch follow it on every layer; palettes come out of layers and files, and are saved', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Swatches', [
    discLayer('a', 'One', [100, 120], '#FFB23E', 60),
    discLayer('b', 'Two', [200, 120], '#FFB23E', 60),
    discLayer('c', 'Three', [300, 120], '#2EC4B6', 60),
  ]);
  await page.getByRole('button', { name: 'Colours', exact: true }).click();
  const at = await onScene(page, 400, 240);
  const reds = () => redsOf(page, [at(80, 110), at(180, 110), at(280, 110)]);
  await expect.poll(reds).toEqual([0xff, 0xff, 0x2e]);
  const drawer = page.getByRole('region', { name: 'Colours', exact: true });
  await page.keyboard.press('Control+a');
  await drawer.getByRole('button', { name: 'Colours of the selected layers' }).click();
  await expect(drawer.getByTestId('swatch')).toHaveCount(2);
  const amber = drawer.getByRole('listitem', { name: 'Swatch #FFB23E' });
  await expect(amber).toContainText('2 layers');
  const dye = async (button: Locator, label: string, color: string) => {
    await button.click();
    await page.getByLabel(`${label}, as hex`).fill(color);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
  };
  await dye(amber.getByRole('button', { name: 'Colour of #FFB23E', exact: true }), 'Colour of #FFB23E', '#C00000');
  await expect.poll(reds).toEqual([0xc0, 0xc0, 0x2e]);

  // Detached, one keeps its colour; the third takes the swatch instead of its own.
  const open = async (name: string) => {
    await choose(page, name);
    await page.getByRole('button', { name: 'Open Fill' }).click();
    await page.getByLabel('Card Fill', { exact: true }).getByRole('button', { name: 'Colour', exact: true }).click();
  };
  await open('Two');
  await page.getByRole('button', { name: 'Detach' }).click();
  await page.keyboard.press('Escape');
  await open('Three');
  await page.getByRole('dialog').getByRole('button', { name: '#FFB23E', exact: true }).click();
  await page.keyboard.press('Escape');
  await expect.poll(reds).toEqual([0xc0, 0xc0, 0xc0]);
  await dye(amber.getByRole('button', { name: 'Colour of #FFB23E', exact: true }), 'Colour of #FFB23E', '#400000');
  await expect.poll(reds).toEqual([0x40, 0xc0, 0x40]);
  await page.keyboard.press('Control+z');
  await expect.poll(reds).toEqual([0xc0, 0xc0, 0xc0]);

  const read = (name: string, mimeType: string, buffer: Buffer) =>
    page.getByTestId('read-palette').setInputFiles({ name, mimeType, buffer });
  await read('brand.css', 'text/css', Buffer.from(':root { --harbour: #0a3d62; --late: rgb(1 2 3) }'));
  await expect(drawer.getByRole('listitem', { name: 'Swatch Harbour' })).toBeVisible();
  await read('badge.png', 'image/png', discPng('#E4572E'));
  await expect(drawer.getByTestId('swatch')).toHaveCount(6);
  await read('empty.css', 'text/css', Buffer.from('body {}'));
  await expect(page.getByText('“empty.css”: No colour was found')).toBeVisible();
  await drawer.getByRole('button', { name: 'Save' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'As CSS custom properties' }).click(),
  ]);
  expect(await readFile(await file.path(), 'utf8')).toContain('  --harbour: #0a3d62;\n');
});

test('drawings are joined into one, and come apart again', async ({ page, server }) => {
  await openMade(page, server, 'Join', [
    discLayer('a', 'Front', [100, 120], '#FF0000', 60),
    discLayer('b', 'Back', [250, 120], '#00FF00', 60),
  ]);
  const at = await onScene(page, 400, 240);
  const colors = async () => Promise.all([85, 235].map((x) => pixel(page, at(x, 110))));
  const before = [
    [255, 0, 0],
    [0, 255, 0],
  ];
  await expect.poll(colors).toEqual(before);
  await choose(page, 'Front', 'Back');
  await rowOf(page, 'Front').click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Join into one drawing' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect.poll(colors).toEqual(before);
  const joined = named(await sceneOf(page, server), 'Front');
  expect(joined.recipe.map((id) => joined.items[id]?.name)).toEqual(['Back', 'Front']);
  // It turns about its middle.
  expect([joined.params.pivot, joined.params.position]).toEqual([{ value: [175, 120] }, { value: [175, 120] }]);
  // A group has a pivot of its own: put on a corner, or dragged with Alt; what is seen stays.
  await page.getByRole('button', { name: 'Open Back' }).click();
  const card = page.getByLabel('Card Back', { exact: true });
  await card.getByRole('button', { name: 'Pivot on top left' }).click();
  const pivot = async () =>
    Object.values(named(await sceneOf(page, server), 'Front').items).find(({ name }) => name === 'Back')?.params.pivot;
  expect(await pivot()).toEqual({ value: [-30, -30] });
  await expect.poll(colors).toEqual(before);
  const mark = await middle(page.getByTestId('group-pivot'));
  await page.keyboard.down('Alt');
  await drag(page, mark, { x: mark.x + 30, y: mark.y + 30 });
  await page.keyboard.up('Alt');
  expect(await pivot()).toEqual({ value: [0, 0] });
  await expect.poll(colors).toEqual(before);
  await page.keyboard.press('Escape');
  await choose(page, 'Front');
  await page.keyboard.press('Control+Shift+g');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  await expect.poll(colors).toEqual(before);
});

test('what is made while others are shown alone shows too; without those that were, all show again', async ({
  page,
  server,
}) => {
  await threeSquares(page, server, 'Alone');
  const alone = page.getByRole('status').filter({ hasText: 'Shown alone' });
  const soloed = page.getByRole('button', { name: /^Show with the others/ });
  await page.getByRole('button', { name: 'Show alone Rectangle 2', exact: true }).click();
  await expect(alone).toContainText('Shown alone: “Rectangle 2”');
  await addStar(page);
  await expect(alone).toContainText('Shown alone: 2 layers');
  await expect(soloed).toHaveCount(2);
  await page.keyboard.press('Delete');
  await expect(alone).toContainText('Shown alone: “Rectangle 2”');
  await choose(page, 'Rectangle 2');
  await page.keyboard.press('Delete');
  await expect(alone).toBeHidden();
  await expect(page.locator('[data-testid=layer-row] .opacity-50')).toHaveCount(0);

  await page.getByRole('button', { name: 'Show alone Rectangle', exact: true }).click();
  await choose(page, 'Rectangle 3');
  await alone.getByRole('button', { name: 'Show all' }).click();
  await expect(soloed).toHaveCount(0);
  // What was chosen stays so.
  await page.keyboard.press('Delete');
  expect(inOrder(await sceneOf(page, server)).map(({ name }) => name)).toEqual(['Rectangle']);
});
