/** The editor's tools, one by one: canvas, layers, bars, beads, cards, scenes. */
import { KINDS } from '@kite/core/recipe/table';
import type { DrawingLayer, KeyedProperty } from '@kite/core/document/types';
import {
  addCard,
  drag,
  goToFrame,
  middle,
  newProject,
  onScene,
  saved,
  setNumber,
  threeSquares,
} from './support/editor';
import { named, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';
import { openRow } from './support/timeline';

test('canvas: select, move, scale, turn, marquee, nudge', async ({ page, server }) => {
  const at = await threeSquares(page, server, 'Canvas tools');
  const before = named(await sceneOf(page, server), 'Rectangle');
  expect(valueOf(before, 'position')).toEqual([70, 120]);

  await drag(page, at(60, 110), at(80, 130));
  let scene = await sceneOf(page, server);
  expect(valueOf(named(scene, 'Rectangle'), 'position')).toEqual([90, 140]);
  // A drag that comes back to where it began is no step: what is taken back is the one before.
  await page.mouse.move(at(90, 140).x, at(90, 140).y);
  await page.mouse.down();
  await page.mouse.move(at(200, 220).x, at(200, 220).y, { steps: 4 });
  await page.keyboard.down('Control');
  await page.mouse.move(at(90, 140).x, at(90, 140).y, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Control');
  await page.keyboard.press('Control+z');
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle'), 'position')).toEqual([70, 120]);
  await page.keyboard.press('Control+Shift+z');
  expect(await sceneOf(page, server)).toEqual(scene);

  await drag(page, await middle(page.getByTestId('handle-1/1')), at(150, 200));
  scene = await sceneOf(page, server);
  expect(valueOf(named(scene, 'Rectangle'), 'scale')).toEqual([2, 2]);
  // The far corner stayed where it was.
  expect(valueOf(named(scene, 'Rectangle'), 'position')).toEqual([110, 160]);

  const knob = await middle(page.getByTestId('handle-turn'));
  await page.mouse.move(knob.x, knob.y);
  await page.mouse.down();
  await page.keyboard.down('Shift');
  await page.mouse.move(at(180, 160).x, at(180, 160).y, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle'), 'rotation')).toBe(90);

  await page.keyboard.press('Shift+ArrowLeft');
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle'), 'position')).toEqual([100, 160]);

  await drag(page, at(125, 90), at(295, 115));
  await expect(page.getByLabel('Place', { exact: true })).toContainText('2 layers');
  await drag(page, at(150, 105), at(150, 85));
  scene = await sceneOf(page, server);
  expect(['Rectangle 2', 'Rectangle 3'].map((n) => valueOf(named(scene, n), 'position'))).toEqual([
    [150, 100],
    [230, 100],
  ]);
});

test('layers: rename, lock, hide, reorder, bars, copies', async ({ page, server }) => {
  const at = await threeSquares(page, server, 'Layer tools');
  const row = (name: string) => page.getByLabel(`Layer ${name}`, { exact: true });
  await row('Rectangle 3').getByText('Rectangle 3').first().dblclick();
  await page.getByLabel('Layer name').fill('Ticket');
  await page.getByLabel('Layer name').press('Enter');
  await page.getByLabel('Hide Rectangle 2').click();
  await page.getByLabel('Lock Ticket').click();
  let scene = await sceneOf(page, server);
  expect(named(scene, 'Rectangle 2').hidden).toBe(true);
  expect(named(scene, 'Ticket').locked).toBe(true);

  // A locked layer cannot be picked up from the canvas.
  await page.keyboard.press('Escape');
  await drag(page, at(225, 115), at(225, 160));
  expect(valueOf(named(await sceneOf(page, server), 'Ticket'), 'position')).toEqual([230, 120]);

  const name = await middle(row('Rectangle').getByText('Rectangle').first());
  await drag(page, name, { x: name.x, y: name.y - 70 });
  scene = await sceneOf(page, server);
  expect(scene.order.map((id) => scene.layers[id]?.name)[0]).toBe('Rectangle');

  const bar = row('Rectangle').getByTestId('layer-bar');
  const width = (await bar.boundingBox())?.width ?? 0;
  const frames = (px: number) => Math.round((px / width) * 240);
  const end = await middle(bar.getByTestId('bar-end'));
  await drag(page, end, { x: end.x - 100, y: end.y });
  expect(named(await sceneOf(page, server), 'Rectangle').to).toBe(240 - frames(100));
  const body = await middle(bar);
  await drag(page, body, { x: body.x + 50, y: body.y });
  expect(named(await sceneOf(page, server), 'Rectangle').from).toBe(frames(50));

  await page.keyboard.press('Control+d');
  scene = await sceneOf(page, server);
  expect(named(scene, 'Rectangle 3')).toMatchObject({ from: frames(50) });
  await page.keyboard.press('Control+x');
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
});

test('auto-key: off changes the keyframe that is here, or moves the whole curve and says so beforehand; on sets a keyframe', async ({
  page,
  server,
}) => {
  await threeSquares(page, server, 'Auto-key');
  await page.getByLabel('Turn: Animate: add a keyframe here').click();
  await goToFrame(page, 30);
  await page.keyboard.press('a');
  await setNumber(page, 'Turn', '90');
  const turn = async () => named(await sceneOf(page, server), 'Rectangle 3').params.rotation as KeyedProperty;
  expect((await turn()).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [30, 90],
  ]);
  await page.keyboard.press('a');
  // On a keyframe it is that one; the field says so while the hand is on it.
  const says = (text: string) => page.getByRole('note').filter({ hasText: text, visible: true });
  await page.getByLabel('Turn', { exact: true }).hover();
  await expect(says('this key')).toBeVisible();
  await setNumber(page, 'Turn', '80');
  expect((await turn()).keys.map((k) => k.value)).toEqual([0, 80]);
  // Between two it is all of them.
  await goToFrame(page, 15);
  await page.getByLabel('Turn', { exact: true }).hover();
  await expect(says('whole curve')).toBeVisible();
  await setNumber(page, 'Turn', '50');
  await expect(page.getByText(/Turn: the whole curve moved/)).toBeVisible();
  const [first, second] = (await turn()).keys.map((k) => k.value as number) as [number, number];
  expect([first !== 0, second - first]).toEqual([true, expect.closeTo(80, 6)]);

  // A keyframe put in between leaves the motion as it was.
  const shown = async () => {
    await goToFrame(page, 8);
    return page.getByLabel('Turn', { exact: true }).inputValue();
  };
  const before = await shown();
  await goToFrame(page, 11);
  await page.getByLabel('Turn: Add a keyframe here').last().click();
  expect((await turn()).keys.map((k) => k.frame)).toEqual([0, 11, 30]);
  expect(await shown()).toBe(before);
});

test('beads: add, sweep, move together, delete', async ({ page, server }) => {
  await threeSquares(page, server, 'Beads');
  await page.getByLabel('Turn: Animate: add a keyframe here').click();
  await page.getByLabel('Opacity: Animate: add a keyframe here').click();
  // Rows open when they are asked to; a closed one marks where its keyframes are.
  const ribbons = page.getByTestId('ribbon-row');
  await expect(ribbons).toHaveCount(0);
  await expect(page.getByTestId('key-ticks')).toHaveAttribute('data-frames', '1');
  await openRow(page, 'Rectangle 3');
  await expect(page.getByTestId('key-ticks')).toHaveCount(0);
  await expect(ribbons).toHaveCount(2);
  for (const i of [0, 1]) {
    const box = await ribbons.nth(i).locator('svg').last().boundingBox();
    await page.mouse.dblclick((box?.x ?? 0) + 300, (box?.y ?? 0) + 13);
  }
  await expect(page.getByTestId('bead')).toHaveCount(4);

  const area = await ribbons.first().boundingBox();
  const x = (area?.x ?? 0) + 232;
  await drag(page, { x: x + 200, y: (area?.y ?? 0) + 2 }, { x: x + 400, y: (area?.y ?? 0) + 50 });
  const chosen = page.locator('[data-testid=bead][aria-pressed=true]');
  await expect(chosen).toHaveCount(2);
  const layer = async () => named(await sceneOf(page, server), 'Rectangle 3');
  const last = (l: DrawingLayer, key: string) => (l.params[key] as KeyedProperty).keys.at(-1)?.frame ?? 0;
  const before = last(await layer(), 'rotation');
  const bead = await middle(chosen.first());
  await drag(page, bead, { x: bead.x + 60, y: bead.y });
  const moved = await layer();
  expect(last(moved, 'rotation')).toBeGreaterThan(before + 10);
  expect(last(moved, 'opacity') - last(moved, 'rotation')).toBe(0);

  await page.keyboard.press('Delete');
  await expect(page.getByTestId('bead')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('bead')).toHaveCount(4);
});

test('cards: add, reorder, switch off, group, remove; every parameter has a field', async ({ page, server }) => {
  // One card of each kind on one shape takes the page its time.
  test.slow();
  await threeSquares(page, server, 'Cards');
  const kinds = async () => {
    const layer = named(await sceneOf(page, server), 'Rectangle 3');
    return layer.recipe.map((id) => layer.items[id]?.kind);
  };
  // What shows a file or a scene is added with it, and settings stand in the card of a nest.
  const showsAgain = (of: { readonly kind: string }) => ['trail', 'motion-blur'].includes(of.kind) || 'again' in of;
  const added = [...KINDS.values()]
    .filter(({ kind, role }) => role !== 'setting' && !['rectangle', 'fill', 'picture', 'nest'].includes(kind))
    .toSorted((a, b) => Number(showsAgain(b)) - Number(showsAgain(a)));
  // Some bring a paint of their own.
  const brought = added.flatMap((of) => ('repainted' in of ? [of.kind, 'fill'] : [of.kind]));
  for (const { label, ...kind } of added) {
    await addCard(page, label);
    // What shows all of this again and again would keep the page busy.
    if (showsAgain(kind)) await page.getByRole('button', { name: `Switch ${label} off` }).click();
    await expect(page.getByLabel(`Card ${label}`, { exact: true })).toBeVisible();
    await page.getByRole('button', { name: `Close ${label}`, exact: true }).click();
  }
  expect((await kinds()).toSorted()).toEqual(['rectangle', 'fill', ...brought].toSorted());
  // The open card has always been among those that show; from here on all of them do.
  await page.getByRole('button', { name: /^Show all \d+ cards/ }).click();
  await page.getByRole('button', { name: 'Open Stroke' }).click();
  for (const label of ['Ink', 'Colour', 'Opacity', 'Width', 'Caps', 'Joins', 'Dashes', 'Dash offset']) {
    await expect(page.getByLabel('Card Stroke').getByLabel(label, { exact: true })).toBeVisible();
  }
  await page.getByLabel('Card Stroke').getByLabel('Ink', { exact: true }).selectOption('linear');
  await expect(page.getByLabel('Stop 1 colour')).toBeVisible();
  await page.getByLabel('Dashes', { exact: true }).fill('0, 24');
  await page.getByLabel('Dashes', { exact: true }).press('Enter');
  const stroke = async () =>
    Object.values(named(await sceneOf(page, server), 'Rectangle 3').items).find((i) => i.kind === 'stroke');
  expect((await stroke())?.params).toMatchObject({ style: { value: 'linear' }, dashes: { value: [0, 24] } });

  await page.getByRole('button', { name: 'Switch Stroke off' }).click();
  expect((await stroke())?.on).toBe(false);
  const order = await kinds();
  await page.getByRole('button', { name: 'Close Stroke' }).click();
  const grip = page.getByLabel('Reorder Fill').first();
  await grip.scrollIntoViewIfNeeded();
  await grip.focus();
  // What is done with the keyboard is told to those who do not see it: each key waits until the one before was heard.
  const told = page.locator('[id^=DndLiveRegion]').filter({ hasText: /^Fill/ });
  await page.keyboard.press('Space');
  await expect(told).toHaveText(/^Fill (picked up at|over) place \d+ of \d+/);
  const before = await told.textContent();
  await expect
    .poll(async () => {
      await page.keyboard.press('ArrowUp');
      return told.textContent();
    })
    .not.toBe(before?.replace('picked up at', 'over'));
  await page.keyboard.press('Space');
  await expect(told).toHaveText(/^Fill put down at place \d+ of \d+/);
  await expect.poll(kinds).not.toEqual(order);

  await page.getByRole('button', { name: 'Star: more' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  expect(await kinds()).not.toContain('star');
  await page.getByRole('button', { name: 'Polygon: more' }).click();
  await page.getByRole('menuitem', { name: 'Put in a new group' }).click();
  expect((await kinds()).filter((k) => k === 'group')).toHaveLength(2);
});

test('the path tool: corners, a curve, closed on its first vertex', async ({ page, server }) => {
  await newProject(page, server, 'Paths', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('d');
  await page.mouse.click(at(50, 50).x, at(50, 50).y);
  await page.mouse.click(at(150, 50).x, at(150, 50).y);
  await drag(page, at(100, 150), at(60, 150));
  await page.mouse.click(at(50, 50).x, at(50, 50).y);
  const layer = named(await sceneOf(page, server), 'Path');
  const path = Object.values(layer.items).find((item) => item.kind === 'path');
  const vertices = [
    [-50, -50, 0, 0, 0, 0],
    [50, -50, 0, 0, 0, 0],
    [0, 50, 40, 0, -40, 0],
  ];
  expect(path?.params.path).toEqual({ value: { closed: true, vertices } });
});

test('scenes: new, rename, duplicate, reorder, delete, and their own settings', async ({ page, server }) => {
  await newProject(page, server, 'Scenes', 'Square');
  await page.getByRole('button', { name: 'New scene' }).click();
  // As large, as long and as fast as the open one, until another size is chosen.
  await expect(page.getByLabel('Width, px')).toHaveValue('1080');
  await expect(page.getByLabel('Height, px')).toHaveValue('1080');
  await page.getByLabel('Scene name').fill('Story');
  await page.getByRole('button', { name: /^Story 1080/ }).click();
  await page.getByRole('button', { name: 'Add the scene' }).click();
  await expect(page.getByRole('button', { name: 'Scene Story', exact: true })).toHaveAttribute('aria-current', 'true');
  const choose = async (scene: string, entry: string) => {
    await page.getByRole('button', { name: `Scene ${scene}: more` }).click();
    await page.getByRole('menuitem', { name: entry }).click();
  };
  await choose('Story', 'Duplicate');
  await page.getByRole('button', { name: 'All scenes' }).click();
  await page.getByRole('menuitem', { name: 'Scene 1' }).click();
  await expect(page.getByRole('button', { name: 'Scene Scene 1', exact: true })).toHaveAttribute(
    'aria-current',
    'true',
  );
  await choose('Story 2', 'Rename');
  await page.getByLabel('Scene name').fill('Upright');
  await page.getByLabel('Scene name').press('Enter');
  await choose('Upright', 'Move left');
  await choose('Scene 1', 'Delete');
  const doc = await saved(page, server);
  expect(doc.order.map((id) => doc.scenes[id]?.name)).toEqual(['Upright', 'Story']);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Scene Scene 1', exact: true })).toBeVisible();

  await page.getByLabel('Scene frame rate').selectOption('23.976');
  await setNumber(page, 'Scene length', '48');
  const after = await saved(page, server);
  const shown = Object.values(after.scenes).find((s) => s.length === 48);
  expect(shown?.rate).toEqual({ num: 24000, den: 1001 });
});

test('layers are hidden and locked together, down the column too; to the front and back; the first picked leads a set', async ({
  page,
  server,
}) => {
  await threeSquares(page, server, 'Together');
  const scene = () => sceneOf(page, server);
  const layers = async () => {
    const { order, layers: all } = await scene();
    return order.map((id) => all[id] as DrawingLayer);
  };
  const row = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  // Dragged down the column from the first eye over the second.
  await drag(
    page,
    await middle(page.getByLabel('Hide Rectangle 3')),
    await middle(page.getByLabel('Hide Rectangle 2')),
  );
  expect((await layers()).map((l) => l.hidden)).toEqual([true, true, false]);
  await page.keyboard.press('Control+z');
  expect((await layers()).map((l) => l.hidden)).toEqual([false, false, false]);

  // Of several that are selected all.
  await row('Rectangle').click({ position: { x: 90, y: 12 } });
  await row('Rectangle 3').click({ position: { x: 90, y: 12 }, modifiers: ['Control'] });
  await page.getByLabel('Lock Rectangle 3').click();
  expect((await layers()).map((l) => l.locked)).toEqual([true, false, true]);
  await page.getByLabel('Unlock Rectangle 3').click();

  // The first picked one leads.
  await page.getByRole('button', { name: 'Make a set' }).click();
  const names = async () => {
    const { sets, layers: all } = await scene();
    return sets[0]?.members.map((id) => all[id]?.name);
  };
  expect(await names()).toEqual(['Rectangle', 'Rectangle 3']);
  await page.getByRole('button', { name: 'Rectangle 3 leads' }).click();
  expect(await names()).toEqual(['Rectangle 3', 'Rectangle']);

  await row('Rectangle').click({ position: { x: 90, y: 12 } });
  await page.keyboard.press('Control+Shift+ArrowUp');
  expect((await layers()).map((l) => l.name)).toEqual(['Rectangle', 'Rectangle 3', 'Rectangle 2']);
  await page.keyboard.press('Control+Shift+ArrowDown');
  expect((await layers()).map((l) => l.name)).toEqual(['Rectangle 3', 'Rectangle 2', 'Rectangle']);
  const at = await middle(row('Rectangle'));
  await page.mouse.click(at.x - 300, at.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Lock all others' }).click();
  expect((await layers()).map((l) => l.locked)).toEqual([true, true, false]);
});
