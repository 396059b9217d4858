/** Building the picture as it should finally stand, through the interface. */
import type { Gradient, KeyedProperty, PathValue, Point, Value } from '@kite/core/document/types';
import { expect } from '@playwright/test';
import { drag, goToFrame, middle, newProject, onScene, setNumber } from './support/editor';
import { sceneOf, inOrder, named, valueOf, itemOf, pixel, pixelsOf, differing } from './support/scene';
import { test } from './support/test';

test('a wedge of 35 %, exact numbers and a combined hole', async ({ page, server }) => {
  await newProject(page, server, 'Wedge', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('w');
  await drag(page, at(50, 25), at(250, 225));
  let layer = named(await sceneOf(page, server), 'Wedge');
  expect(itemOf(layer, 'wedge').params).toMatchObject({ radius: { value: 100 } });
  await page.getByRole('button', { name: 'Open Wedge' }).last().click();
  await setNumber(page, 'Share', '50');
  await setNumber(page, 'Share', '7*5');
  await setNumber(page, 'Inner', '40');
  layer = named(await sceneOf(page, server), 'Wedge');
  expect(itemOf(layer, 'wedge').params).toMatchObject({ share: { value: 0.35 }, inner: { value: 40 } });
  // 35 % is 126° clockwise from the top: inside at 100°, outside at 150°; the hole shows the ground.
  const polar = (degrees: number, radius: number) =>
    at(150 + radius * Math.sin((degrees * Math.PI) / 180), 125 - radius * Math.cos((degrees * Math.PI) / 180));
  await page.keyboard.press('Escape');
  const ground = await pixel(page, polar(150, 70));
  expect(await pixel(page, polar(100, 70))).not.toEqual(ground);
  expect(await pixel(page, polar(100, 20))).toEqual(ground);
});

test('a path drawn, keyed, and re-edited: a new vertex goes into every keyframe', async ({ page, server }) => {
  await newProject(page, server, 'Path', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('d');
  for (const [x, y] of [
    [60, 60],
    [240, 60],
    [240, 180],
    [60, 180],
  ] as const) {
    const p = at(x, y);
    await page.mouse.click(p.x, p.y);
  }
  const first = at(60, 60);
  await page.mouse.click(first.x, first.y);
  const inside = at(150, 120);
  await page.mouse.dblclick(inside.x, inside.y);
  await expect(page.getByTestId('vertex-0')).toBeVisible();

  await page.getByRole('button', { name: /^Outline: Animate/ }).click();
  await goToFrame(page, 20);
  await page.keyboard.press('a');
  const corner = await middle(page.getByTestId('vertex-2'));
  await drag(page, corner, { x: corner.x + 20, y: corner.y + 30 });
  const keys = async () => {
    const layer = named(await sceneOf(page, server), 'Path');
    return (itemOf(layer, 'path').params.path as KeyedProperty).keys.map((k) => (k.value as PathValue).vertices);
  };
  expect((await keys()).map((v) => v.length)).toEqual([4, 4]);
  expect((await keys()).map((v) => v[2]!.slice(0, 2))).toEqual([
    [90, 60],
    [110, 90],
  ]);

  // On the side between the second and the third vertex.
  const side = at(245, 105);
  await page.mouse.dblclick(side.x, side.y);
  await expect(page.getByTestId('vertex-4')).toBeVisible();
  expect((await keys()).map((v) => v.length)).toEqual([5, 5]);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('vertex-4')).toBeHidden();
  expect((await keys()).map((v) => v.length)).toEqual([4, 4]);
  // A few pixels outside of the shape do as well.
  await page.mouse.dblclick(at(252, 105).x, at(252, 105).y);
  await expect(page.getByTestId('vertex-4')).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('vertex-4')).toBeHidden();

  // Of several that are selected a click takes one alone, a drag all.
  await page.getByTestId('vertex-1').click();
  await page.getByTestId('vertex-2').click({ modifiers: ['Shift'] });
  const before = (await keys())[1]!;
  const grip = await middle(page.getByTestId('vertex-1'));
  await drag(page, grip, { x: grip.x, y: grip.y - 12 });
  const moved = (await keys())[1]!.map((v, i) => v[1] - before[i]![1]);
  expect(moved[1]).toBeLessThan(-8);
  expect([moved[0], moved[2]! - moved[1]!, moved[3]]).toEqual([0, 0, 0]);
  await page.keyboard.press('Control+z');
  await page.getByTestId('vertex-1').click();
  await drag(page, grip, { x: grip.x, y: grip.y - 12 });
  expect((await keys())[1]!.map((v, i) => v[1] !== before[i]![1])).toEqual([false, true, false, false]);
  await page.keyboard.press('Control+z');
  await page.getByTestId('vertex-1').click();
  await page.getByRole('button', { name: 'Smooth' }).click();
  await expect(page.getByTestId('vertex-1-out')).toBeVisible();
  await page.getByRole('button', { name: 'First', exact: true }).click();
  expect((await keys())[0]![0]!.slice(0, 2)).toEqual([90, -60]);
});

test('text: typed on the canvas, set, kerned, changed late, and split into letters in place', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Words', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('t');
  const spot = at(150, 140);
  await page.mouse.click(spot.x, spot.y);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('Tram AV');
  await expect(page.getByTestId('layer-row')).toHaveAccessibleName('Layer Tram AV');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('Escape');
  let layer = named(await sceneOf(page, server), 'Tram AV');
  expect(itemOf(layer, 'text').params).toMatchObject({ text: { value: 'Tram AV' }, pairs: { value: 'AV -10' } });
  // The words and the name that they gave are one step.
  await page.keyboard.press('Control+z');
  layer = named(await sceneOf(page, server), 'Text');
  expect(itemOf(layer, 'text').params).toMatchObject({ text: { value: 'Text' } });
  await page.keyboard.press('Control+Shift+z');
  layer = named(await sceneOf(page, server), 'Tram AV');

  await page.getByRole('button', { name: 'Open Text' }).last().click();
  await page.getByLabel('Font', { exact: true }).click();
  await page.getByRole('option', { name: 'Lora' }).click();
  await setNumber(page, 'Size', '48');
  layer = named(await sceneOf(page, server), 'Tram AV');
  expect(itemOf(layer, 'text').params).toMatchObject({
    font: { value: { family: 'Lora', weight: 700 } },
    size: { value: 48 },
  });

  // A fade that has to outlive a change of the word.
  await page
    .getByRole('button', { name: /^Opacity: Animate/ })
    .first()
    .click();
  await page.mouse.dblclick(spot.x, spot.y - 5);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('Moon');
  await page.keyboard.press('Escape');
  layer = named(await sceneOf(page, server), 'Moon');
  expect((layer.params.opacity as KeyedProperty).keys).toHaveLength(1);

  const before = await page.getByTestId('canvas').screenshot();
  await page
    .getByTestId('layer-row')
    .first()
    .click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Split into letters' }).click();
  const scene = await sceneOf(page, server);
  expect(inOrder(scene).map((l) => l.name)).toEqual(['M', 'o', 'o 2', 'n']);
  for (const letter of inOrder(scene)) expect((letter.params.opacity as KeyedProperty).keys).toHaveLength(1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Escape');
  const after = await page.getByTestId('canvas').screenshot();
  expect(differing(await pixelsOf(before), await pixelsOf(after))).toBeLessThan(0.02);

  // The letters are one word still: other words go into them, and their motion stays.
  await page
    .getByTestId('layer-row')
    .nth(1)
    .click({ position: { x: 90, y: 12 } });
  const words = page.getByLabel('Words of the set');
  await expect(words).toHaveValue('Moon');
  await words.fill('Moons');
  await words.press('Enter');
  await expect(page.getByTestId('layer-row')).toHaveCount(5);
  const longer = inOrder(await sceneOf(page, server));
  expect(longer.map((l) => l.name)).toEqual(['M', 'o', 'o 2', 'n', 's']);
  for (const letter of longer) expect((letter.params.opacity as KeyedProperty).keys).toHaveLength(1);
  await words.fill('  ');
  await words.press('Enter');
  await expect(page.getByText('A word has at least one letter. Nothing was changed.')).toBeVisible();
  await words.fill('Sun');
  await words.press('Enter');
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  await expect(words).toHaveValue('Sun');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(4);

  // Where all words are replaced it stands once, not letter by letter.
  await page.getByRole('button', { name: 'Replace words, pictures and colours' }).click();
  const replaced = page.getByRole('region', { name: 'Replace' }).getByRole('textbox');
  await expect(replaced).toHaveCount(1);
  await expect(replaced).toHaveValue('Moon');
  await replaced.fill('Tram 7');
  await replaced.press('Enter');
  await expect(page.getByTestId('layer-row')).toHaveCount(5);
});

test('an open path goes on from its end, and a group has handles of its own', async ({ page, server }) => {
  await newProject(page, server, 'On', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const click = (x: number, y: number) => page.mouse.click(at(x, y).x, at(x, y).y);
  await page.keyboard.press('d');
  await click(40, 60);
  await click(140, 60);
  await page.keyboard.press('Enter');
  const pathOf = async () =>
    (itemOf(named(await sceneOf(page, server), 'Path'), 'path').params.path as { value: PathValue }).value;
  expect((await pathOf()).vertices).toHaveLength(2);
  await page.keyboard.press('d');
  await click(140, 60);
  await click(140, 160);
  await page.keyboard.press('Enter');
  expect((await pathOf()).vertices.map((v) => v.slice(0, 2))).toEqual([
    [-50, 0],
    [50, 0],
    [50, 100],
  ]);
  await page.keyboard.press('d');
  await click(40, 60);
  await click(40, 160);
  await click(140, 160);
  expect((await pathOf()).closed).toBe(true);
  expect((await pathOf()).vertices).toHaveLength(4);

  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await drag(page, at(200, 40), at(260, 80));
  await page.getByRole('button', { name: 'Rectangle: more' }).click();
  await page.getByRole('menuitem', { name: 'Put in a new group' }).click();
  await page.getByRole('button', { name: 'Open Group' }).click();
  await expect(page.getByTestId('group-box')).toBeAttached();
  await drag(page, at(230, 60), at(240, 90));
  await drag(page, await middle(page.getByTestId('group-1/1')), at(330, 150));
  const layer = named(await sceneOf(page, server), 'Rectangle');
  expect(valueOf(layer, 'position')).toEqual([230, 60]);
  expect(layer.params.scale).toBeUndefined();
  const { position, scale } = itemOf(layer, 'group').params as { [key: string]: { value: Point } };
  expect(scale!.value[0]).toBeCloseTo(2, 0);
  // The far corner, at (210, 70) after the move, stayed.
  expect(position!.value[0] - 30 * scale!.value[0]).toBeCloseTo(-20, 1);
});

test('a gradient is moved on the canvas, and gets a stop by a double click on its line', async ({ page, server }) => {
  await newProject(page, server, 'Gradient', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('r');
  await drag(page, at(50, 25), at(250, 225));
  await page.getByRole('button', { name: 'Open Fill' }).last().click();
  await page.getByLabel('Ink', { exact: true }).selectOption('linear');
  const fill = async () => itemOf(named(await sceneOf(page, server), 'Rectangle'), 'fill').params;
  // It starts from the top, at (150, 25), to the bottom, at (150, 225).
  await drag(page, await middle(page.getByTestId('gradient-to')), at(250, 125));
  expect((await fill()).to).toEqual({ value: [100, 0] });
  const line = at(200, 75);
  await page.mouse.dblclick(line.x, line.y);
  await expect(page.getByTestId('gradient-stop')).toHaveCount(3);
  const stops = async () => {
    const { value } = (await fill()).gradient as { value: Value };
    return (value as Gradient).stops;
  };
  expect((await stops()).map((s) => s.at)).toEqual([0, expect.closeTo(0.5, 1), 1]);
  await drag(page, line, at(175, 50));
  expect((await stops())[1]?.at).toBeCloseTo(0.25, 1);
});

test('the edge of a radial gradient is dragged to an oval', async ({ page, server }) => {
  await newProject(page, server, 'Oval', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('r');
  await drag(page, at(50, 25), at(250, 225));
  await page.getByRole('button', { name: 'Open Fill' }).last().click();
  await page.getByLabel('Ink', { exact: true }).selectOption('radial');
  const fill = async () => itemOf(named(await sceneOf(page, server), 'Rectangle'), 'fill').params;
  await drag(page, await middle(page.getByTestId('gradient-from')), at(150, 125));
  await drag(page, await middle(page.getByTestId('gradient-to')), at(150, 215));
  await expect(page.getByTestId('gradient-side')).toBeVisible();
  // The edge is dragged to a point on the ellipse that is half as wide across: cos 45° of 90 pixels along, half of that across.
  await drag(page, await middle(page.getByTestId('gradient-side')), at(118.2, 188.6));
  expect((await fill()).breadth).toEqual({ value: 0.5 });
  await expect(page.getByLabel('Breadth', { exact: true })).toHaveValue('50');
  // As far across as 45 pixels the gradient is at its end, as far along as that half way.
  const [across, along] = [await pixel(page, at(95, 125)), await pixel(page, at(150, 170))];
  expect(across).toEqual(await pixel(page, at(70, 200)));
  expect(along).not.toEqual(across);
});

test('scenes play through in their order; a new length carries along what ended with the scene, or not', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Through', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('r');
  await drag(page, at(50, 25), at(250, 225));
  await page.keyboard.press('Escape');
  await setNumber(page, 'Scene length', '24');
  await expect(page.getByText('The layer that ended with the scene was carried along.')).toBeVisible();
  expect(named(await sceneOf(page, server), 'Rectangle').to).toBe(24);
  await setNumber(page, 'Scene length', '20');
  await page.getByRole('button', { name: 'Leave their ends' }).click();
  expect(named(await sceneOf(page, server), 'Rectangle').to).toBe(24);

  await page.getByRole('button', { name: 'Scene Scene 1: more' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await page.getByLabel('When the end is reached').selectOption({ label: 'Scenes' });
  const shown = page.locator('[aria-current=true][aria-label^="Scene "]');
  const first = await shown.getAttribute('aria-label');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(shown).not.toHaveAttribute('aria-label', first ?? '');
  await expect(shown).toHaveAttribute('aria-label', first ?? '');
  // with a drawer open the room is least: all of the transport can still be reached
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await page.getByRole('button', { name: 'History', exact: true }).click();
  const bar = page.getByTestId('transport');
  await expect.poll(() => bar.evaluate(({ scrollWidth, clientWidth }) => scrollWidth - clientWidth)).toBe(0);
});
