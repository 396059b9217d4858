/** Fields: what is typed, dragged or chosen in them, for one thing or several, and what becomes of it when they are left or stay open. */
import type { DrawingLayer, KeyedProperty, Point } from '@kite/core/document/types';
import { addStar, beginText, goToFrame, middle, newProject, setNumber, threeSquares } from './support/editor';
import { discLayer, openMade } from './support/made';
import { named, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';
import { choose } from './support/timeline';

test('fields that are come to and left, by pointer or by keyboard, change nothing, whatever they round', async ({
  page,
  server,
}) => {
  await threeSquares(page, server, 'Fields left alone');
  await page.getByLabel('Turn: Animate: add a keyframe here').click();
  await page.getByLabel('Position: Animate: add a keyframe here').click();
  await goToFrame(page, 30);
  await page.keyboard.press('a');
  await setNumber(page, 'Turn', '100');
  await setNumber(page, 'Position x', '200');
  await goToFrame(page, 7);
  const before = await sceneOf(page, server);
  const turn = page.getByLabel('Turn', { exact: true });
  await expect(turn).toHaveValue(/\./);

  await turn.click();
  await page.getByLabel('Position x', { exact: true }).click();
  for (let i = 0; i < 8; i++) await page.keyboard.press('Tab');
  await turn.press('Enter');
  await expect(turn).not.toBeFocused();
  expect(await sceneOf(page, server)).toEqual(before);
  // What was typed and typed back is as it was, too; another number is not.
  await turn.click();
  await turn.press('End');
  await turn.press('0');
  await turn.press('Backspace');
  await turn.press('Enter');
  expect(await sceneOf(page, server)).toEqual(before);
  await setNumber(page, 'Turn', '24');
  const { keys } = named(await sceneOf(page, server), 'Rectangle 3').params.rotation as KeyedProperty;
  expect(keys.map((k) => k.frame)).toEqual([0, 7, 30]);
});

test('a place far out is read to its last digit', async ({ page, server }) => {
  await threeSquares(page, server, 'Far out');
  for (const axis of ['x', 'y']) {
    const place = page.getByLabel(`Position ${axis}`, { exact: true });
    await setNumber(page, `Position ${axis}`, '-1234.56');
    await expect(place).toHaveValue('-1234.56');
    // Both are whole pixels, rounded each by itself.
    expect(await place.evaluate(({ scrollWidth, clientWidth }) => scrollWidth - clientWidth)).toBeLessThan(2);
  }
});

test('cards that several layers have in common are set for all of them at once, and say where they differ', async ({
  page,
  server,
}) => {
  await threeSquares(page, server, 'Common');
  const row = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  await row('Rectangle').click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Rectangle', exact: true }).last().click();
  await setNumber(page, 'Width', '60');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+a');
  const common = page.getByRole('region', { name: 'Common cards' });
  await expect(common.getByText('3 layers')).toBeVisible();
  const card = common.getByRole('listitem', { name: 'Card Rectangle of all' });
  await expect(card.getByText('mixed')).toBeVisible();
  await card.getByRole('button', { name: 'Open Rectangle' }).click();
  await expect(card.getByLabel('Width', { exact: true })).toHaveValue('mixed');
  await expect(card.getByLabel('Height', { exact: true })).toHaveValue('40');
  const sizes = async () =>
    Object.values((await sceneOf(page, server)).layers).map((layer) => {
      const own = Object.values((layer as DrawingLayer).items).find((item) => item.kind === 'rectangle');
      return [own?.params.width, own?.params.height];
    });
  const widths = async () => (await sizes()).map(([width]) => (width as { value: number }).value).toSorted();
  // Those that differ go on differing when they are stepped or dragged, by as much as the field says meanwhile.
  const width = card.getByLabel('Width', { exact: true });
  await width.press('Shift+ArrowUp');
  expect(await widths()).toEqual([50, 50, 70]);
  await width.press('Escape');
  await expect(width).not.toBeFocused();
  const grip = await middle(width);
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x - 30, grip.y, { steps: 3 });
  await expect(width).toHaveValue('−30');
  await page.mouse.up();
  expect(await widths()).toEqual([20, 20, 40]);
  await expect(width).toHaveValue('mixed');
  await page.keyboard.press('Control+z');
  expect(await widths()).toEqual([50, 50, 70]);
  const left = page.getByLabel('Place', { exact: true }).getByLabel('Position x', { exact: true });
  await left.press('ArrowDown');
  const places = Object.values((await sceneOf(page, server)).layers).map((layer) =>
    valueOf(layer as DrawingLayer, 'position'),
  );
  expect(places).toEqual(
    expect.arrayContaining([
      [69, 120],
      [149, 120],
      [229, 120],
    ]),
  );
  await left.press('Escape');

  await setNumber(page, 'Width', '50');
  await setNumber(page, 'Height', '30');
  expect(await sizes()).toEqual(Array.from({ length: 3 }, () => [{ value: 50 }, { value: 30 }]));

  // Keyed for all by one press, and switched off by one.
  await card.getByLabel('Width: Animate: add a keyframe here').click();
  expect(await sizes()).toEqual(
    Array.from({ length: 3 }, () => [expect.objectContaining({ keys: expect.anything() }), { value: 30 }]),
  );
  // So are the values of several beads.
  await page.keyboard.press('Control+Shift+A');
  await expect(page.getByRole('region', { name: 'Keyframes' }).getByText('3 selected')).toBeVisible();
  await setNumber(page, 'Value of the keyframe', '70');
  const values = (await sizes()).map(([own]) => (own as KeyedProperty).keys.map((k) => k.value));
  expect(values).toEqual([[70], [70], [70]]);
  await page.keyboard.press('Control+a');
  await common.getByRole('button', { name: 'Switch Fill off' }).click();
  const fills = Object.values((await sceneOf(page, server)).layers).map(
    (layer) => Object.values((layer as DrawingLayer).items).find((item) => item.kind === 'fill')?.on,
  );
  expect(fills).toEqual([false, false, false]);
});

test('what is typed or chosen in a field that stays open is saved too, and not said to be before it is', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Open fields', 'Square');
  await beginText(page);
  const scene = async () => {
    await expect(page.getByTestId('save-state')).toHaveText('Saved');
    return sceneOf(page, server);
  };
  const words = async () =>
    Object.values((await scene()).layers).flatMap((layer) =>
      Object.values((layer as DrawingLayer).items).flatMap((item) => (item.kind === 'text' ? item.params.text : [])),
    );
  await page.keyboard.type('Night');
  expect(await words()).toEqual([{ value: 'Night' }]);
  await page.keyboard.type(' tram');
  expect(await words()).toEqual([{ value: 'Night tram' }]);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.reload();
  expect(await words()).toEqual([{ value: 'Night tram' }]);

  await page.getByRole('button', { name: 'Background', exact: true }).click();
  await page.getByLabel('Background, as hex', { exact: true }).fill('#33AA88');
  expect((await scene()).background).toBe('#33AA88');
});

test('a new text that is left without words goes again, and comes back with Undo', async ({ page, server }) => {
  await newProject(page, server, 'No words', 'Square');
  await beginText(page);
  await page.keyboard.type('Night');
  await page.getByTestId('canvas-text').fill('');
  await page.keyboard.press('Escape');
  expect(Object.values((await sceneOf(page, server)).layers)).toEqual([]);
  await page.keyboard.press('Control+z');
  expect(Object.values((await sceneOf(page, server)).layers)).toMatchObject([{ name: 'Text' }]);
});

test('what is typed into a layer stays when another one is chosen or changed before the field was left', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Left fields', 'Square');
  await beginText(page);
  await page.keyboard.press('Escape');
  await addStar(page);
  const row = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  await row('Text').click({ position: { x: 90, y: 12 } });
  const words = page.getByRole('textbox', { name: 'Text', exact: true });
  await page.getByRole('button', { name: 'Open Text', exact: true }).last().click();
  const now = async () => {
    const scene = await sceneOf(page, server);
    const text = Object.values(named<DrawingLayer>(scene, 'Text').items).find((item) => item.kind === 'text');
    const star = named<DrawingLayer>(scene, 'Star');
    return { text: text?.params.text, hidden: star.hidden, position: star.params.position };
  };
  const before = await now();
  await words.fill('Night');
  await row('Star').getByLabel('Hide Star', { exact: true }).click();
  expect(await now()).toEqual({ ...before, text: { value: 'Night' }, hidden: true });

  await words.fill('Night tram');
  await row('Star').click({ position: { x: 90, y: 12 } });
  await expect(words).toBeHidden();
  await page.keyboard.press('ArrowRight');
  const moved = await now();
  expect(moved).toEqual({ text: { value: 'Night tram' }, hidden: true, position: expect.anything() });
  expect(moved.position).not.toEqual(before.position);
  // A number that was typed and not entered, too.
  const left = page.getByLabel('Position x', { exact: true });
  await left.click();
  await page.keyboard.type('77');
  await row('Text').click({ position: { x: 90, y: 12 } });
  await expect(left).not.toHaveValue('77');
  expect((await now()).position).toEqual({ value: [77, (before.position as { value: Point }).value[1]] });
  await page.keyboard.press('Control+z');
  // Each is a step of its own.
  await page.keyboard.press('Control+z');
  expect(await now()).toEqual({ ...before, text: { value: 'Night tram' }, hidden: true });
});

test('a list of many has all of them once it is come to, by pointer or by keyboard', async ({ page, server }) => {
  const discs = Array.from({ length: 100 }, (_, i) => discLayer(`d${i}`, `Disc ${i}`, [4 * i, 120]));
  await openMade(page, server, 'Many', discs);
  await choose(page, 'Disc 0');
  const parent = page.locator('label').filter({ hasText: 'Parent' }).getByRole('combobox');
  await expect(parent).toHaveText('None');
  const parentOf = async () => named(await sceneOf(page, server), 'Disc 0').parent;

  const { x, y } = await middle(parent);
  await page.mouse.click(x, y);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  expect(await parentOf()).toBe('d2');
  await page.keyboard.press('Tab');
  await expect(parent).toHaveText('Disc 2');
  await parent.focus();
  await page.keyboard.type('Disc 77');
  expect(await parentOf()).toBe('d77');
});
