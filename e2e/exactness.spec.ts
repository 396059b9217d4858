/** Putting things exactly where they belong, and in order. */
import { newDrawing, newItem } from '@kite/core/document/make';
import type { DrawingLayer, Layer, Point } from '@kite/core/document/types';
import { expect, type Page } from '@playwright/test';
import { addCard, drag, middle, newProject, onScene, saved, setNumber } from './support/editor';
import { BLANK, discLayer, openMade } from './support/made';
import { sceneOf, inOrder, named, valueOf, itemOf, pixel } from './support/scene';
import { test } from './support/test';

const threeSquares = async (page: Page, at: (x: number, y: number) => { x: number; y: number }) => {
  for (const [x, y] of [
    [20, 20],
    [120, 20],
    [200, 140],
  ] as const) {
    await page.keyboard.press('r');
    await drag(page, at(x, y), at(x + 60, y + 40));
  }
};

test('a moved layer snaps to a corner, Ctrl lets go, and lines show it', async ({ page, server }) => {
  await newProject(page, server, 'Snap', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  // To 3 px beside where its corner meets the first one's.
  const grip = at(220, 160);
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x - 60, grip.y - 40, { steps: 4 });
  await page.mouse.move(grip.x - 117, grip.y - 77, { steps: 4 });
  await expect(page.getByTestId('snap-line')).toHaveCount(2);
  await page.mouse.up();
  // The first stands from 20 to 80 and 20 to 60: the third's corner comes to (80, 60).
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle 3'), 'position')).toEqual([110, 80]);
  await page.keyboard.press('Control+z');
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x - 60, grip.y - 40, { steps: 4 });
  await page.keyboard.down('Control');
  await page.mouse.move(grip.x - 117, grip.y - 77, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Control');
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle 3'), 'position')).toEqual([113, 83]);
});

test('parents by a dragged link, without a jump; groups, alignment, tags, tucking and solo', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Order', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  const place = async (name: string) => valueOf(named(await sceneOf(page, server), name), 'position') as Point;
  const rowOf = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  const [link, target] = [
    await middle(page.getByRole('button', { name: /^Parent of Rectangle 3/ })),
    await middle(rowOf('Rectangle')),
  ];
  await drag(page, link, { x: target.x - 300, y: target.y });
  const scene = await sceneOf(page, server);
  expect(named(scene, 'Rectangle 3').parent).toBe(named(scene, 'Rectangle').id);
  // In its parent's pixels, whose middle is at (50, 40), it stands where it stood.
  expect(await place('Rectangle 3')).toEqual([180, 120]);
  await drag(page, at(30, 30), at(30, 80));
  expect(await place('Rectangle')).toEqual([50, 90]);
  expect(await place('Rectangle 3')).toEqual([180, 120]);
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Align left edges' }).click();
  expect([await place('Rectangle'), await place('Rectangle 2'), await place('Rectangle 3')]).toEqual([
    [50, 40],
    [50, 40],
    [0, 120],
  ]);
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+g');
  const grouped = await sceneOf(page, server);
  expect(inOrder(grouped).map((l) => l.name)).toEqual(['Group', 'Rectangle 3', 'Rectangle 2', 'Rectangle']);
  expect(named(grouped, 'Rectangle 2').parent).toBe(named<Layer>(grouped, 'Group').id);
  await page.keyboard.press('Control+Shift+g');
  expect(named(await sceneOf(page, server), 'Rectangle 2').parent).toBeNull();

  const menu = async (name: string, entry: string) => {
    await rowOf(name).click({ button: 'right', position: { x: 90, y: 12 } });
    await page.getByRole('menuitem', { name: entry }).click();
  };
  const shown = await pixel(page, at(150, 40));
  await page.keyboard.press('Escape');
  await rowOf('Rectangle').click({ position: { x: 90, y: 12 } });
  await menu('Rectangle', 'Show alone');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(150, 40))).not.toEqual(shown);
  await menu('Rectangle', 'Show with the others');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(150, 40))).toEqual(shown);
  await menu('Rectangle 2', 'Tuck away');
  await expect(rowOf('Rectangle 2')).toBeHidden();
  await page.keyboard.press('Escape');
  expect(await pixel(page, at(150, 40))).toEqual(shown);
  await page.getByRole('button', { name: 'Show 1 tucked layer' }).click();
  await expect(rowOf('Rectangle 2')).toBeVisible();
});

test('what is outlined and turned comes to an edge with what is seen of it', async ({ page, server }) => {
  const outlined = (id: string, name: string, shape: string, rotation: number): DrawingLayer => {
    const cards = [
      newItem(`${id}s`, shape, { width: 40, height: 40 }),
      newItem(`${id}o`, 'stroke', { width: 10, join: 'miter' }),
    ];
    const layer = newDrawing(BLANK, id, name, cards);
    return { ...layer, params: { ...layer.params, rotation: { value: rotation } } };
  };
  await openMade(page, server, 'Edges', [
    outlined('a', 'Frame', 'rectangle', 0),
    outlined('b', 'Leaning', 'rectangle', 45),
    outlined('c', 'Ring', 'ellipse', 45),
  ]);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Align with the scene' }).click();
  await page.getByRole('button', { name: 'Align left edges' }).click();
  await saved(page, server);
  const scene = await sceneOf(page, server);
  const x = (name: string) => (valueOf(named(scene, name), 'position') as Point)[0];
  expect(x('Frame')).toBe(25);
  expect(x('Leaning')).toBeCloseTo(25 * Math.SQRT2, 3);
  // Four cubics are off a circle by at most 2.7e-4 of its radius.
  expect(Math.abs(x('Ring') - 25)).toBeLessThan(20 * 2.8e-4);
});

test('what is selected is flipped as one, from the menu of a layer and from the search', async ({ page, server }) => {
  await openMade(page, server, 'Flips', [
    discLayer('a', 'Small', [100, 100], '#FFB23E', 20),
    discLayer('b', 'Large', [200, 140], '#2EC4B6', 60),
  ]);
  const places = async () => {
    const scene = await sceneOf(page, server);
    return ['Small', 'Large'].map((name) => [
      valueOf(named(scene, name), 'position'),
      valueOf(named(scene, name), 'scale'),
    ]);
  };
  await page.keyboard.press('Control+a');
  await page
    .getByRole('group', { name: 'Layer Small', exact: true })
    .click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Flip left to right' }).click();
  // From 90 to 230 across: their middle is at 160.
  const [mirrored, plain] = [
    [-1, 1],
    [1, 1],
  ];
  await expect.poll(places).toEqual([
    [[220, 100], mirrored],
    [[120, 140], mirrored],
  ]);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill('mirror horizontal');
  await page.keyboard.press('Enter');
  await expect.poll(places).toEqual([
    [[100, 100], plain],
    [[200, 140], plain],
  ]);
});

test('a layer has its menu on the picture too, with all that is selected; where none is the scene has one', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Menus', [
    discLayer('a', 'Left', [100, 120], '#FFB23E', 60),
    discLayer('b', 'Right', [300, 120]),
  ]);
  const at = await onScene(page, 400, 240);
  const press = (x: number, y: number) => page.mouse.click(at(x, y).x, at(x, y).y, { button: 'right' });
  const names = async () => inOrder(await sceneOf(page, server)).map(({ name }) => name);
  await press(100, 120);
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect.poll(names).toEqual(['Left 2', 'Left', 'Right']);
  // One that is not selected is, and what was is not.
  await press(300, 120);
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect.poll(names).toEqual(['Left 2', 'Left']);
  // By keys it is that of what is selected.
  await page.getByRole('group', { name: 'Layer Left 2', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('ContextMenu');
  await expect(page.getByRole('menuitem', { name: 'Duplicate' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('menu')).toBeHidden();
  await expect(page.getByTestId('canvas')).toBeFocused();
  await press(200, 20);
  await page.getByRole('menuitem', { name: 'Select all layers' }).click();
  await press(100, 120);
  await page.getByRole('menuitem', { name: /^Group/ }).click();
  await expect.poll(names).toEqual(['Group', 'Left 2', 'Left']);
});

test('a controller has knobs; the pivot moves without the picture; colours are kept as swatches and taken from the canvas', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Knobs', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  await page.getByRole('button', { name: 'Pivot on top left' }).click();
  const square = named(await sceneOf(page, server), 'Rectangle 3');
  expect([valueOf(square, 'pivot'), valueOf(square, 'position')]).toEqual([
    [-30, -20],
    [200, 140],
  ]);

  const source = await pixel(page, at(50, 40));
  await page.getByRole('button', { name: 'Open Fill' }).last().click();
  await page.getByLabel('Colour', { exact: true }).click();
  await page.getByRole('button', { name: 'Add to the swatches' }).click();
  await page.getByRole('button', { name: 'Take a colour from the canvas' }).click();
  const from = at(50, 40);
  await page.mouse.click(from.x, from.y);
  const hex = `#${source.map((n) => n.toString(16).padStart(2, '0')).join('')}`.toUpperCase();
  await expect
    .poll(async () => itemOf(named(await sceneOf(page, server), 'Rectangle 3'), 'fill').params.color)
    .toEqual({ value: hex });
  expect((await saved(page, server)).swatches).toHaveLength(1);

  await page.getByRole('button', { name: 'Add a controller' }).click();
  await page.getByRole('button', { name: 'Add a knob' }).click();
  await page.getByRole('menuitem', { name: 'Percent' }).click();
  await setNumber(page, 'Percent', '40');
  const rig = named<Extract<Layer, { kind: 'controller' }>>(await sceneOf(page, server), 'Controller');
  expect(Object.values(rig.knobs)[0]).toMatchObject({ name: 'Percent', params: { value: { value: 0.4 } } });
});

test('guides come out of the rulers, by number too, and things snap to them', async ({ page, server }) => {
  await newProject(page, server, 'Guides', 'Medium rectangle');
  await page.getByRole('button', { name: 'Rulers, guides and grid' }).click();
  await page.getByLabel('Rulers', { exact: true }).check();
  await page.keyboard.press('Escape');
  const at = await onScene(page, 300, 250);
  const ruler = await middle(page.getByTestId('ruler-left'));
  await drag(page, ruler, at(100, 120));
  expect((await sceneOf(page, server)).guides).toEqual({ x: [100], y: [] });
  await setNumber(page, 'Guide x 1', '110');
  await page.keyboard.press('r');
  await drag(page, at(20, 20), at(80, 60));
  await drag(page, at(40, 40), at(67, 40));
  // Its right edge, at 107 when let go near it, comes to stand on the guide.
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle'), 'position')).toEqual([80, 40]);
  await addCard(page, 'Trim');
});
