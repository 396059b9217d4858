/** Masks drawn over a layer, made of layers and made layers again, by what is seen of them. */
import { expect } from '@playwright/test';
import { newDrawing, newItem } from '@kite/core/document/make';
import { addCard, drag, goToFrame, middle, newProject, onScene, saved } from './support/editor';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import { disc, inOrder, itemOf, named, pixel, sceneOf } from './support/scene';
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
  await expect(page.getByTestId('mask-outline')).toHaveCount(1);
  await expect.poll(async () => lit(await pixel(page, right))).toBe(false);
  expect(lit(await pixel(page, left))).toBe(true);
  let layers = (await saved(page, server)).scenes.s?.layers ?? {};
  expect(Object.keys(layers)).toEqual(['a']);

  // What is drawn next is a layer again, unless it is wanted otherwise.
  await page.keyboard.press('r');
  await expect(page.getByLabel(/As a mask of “Lamp”/)).not.toBeChecked();
  await page.getByLabel(/As a mask of “Lamp”/).check();
  await drag(page, at(206, 110), at(240, 130));
  await expect(page.getByTestId('mask-outline')).toHaveCount(2);
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

test('a layer cuts others by a link dragged from row to row or to the picture, and is asked for before it goes', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Mattes', [
    discLayer('m', 'Window', [230, 120], '#2DC4B6', 60),
    discLayer('n', 'Door', [170, 120], '#2DC4B6', 40),
    discLayer('a', 'Lamp', [200, 120], '#FFB23E', 60),
  ]);
  const at = await onScene(page, 400, 240);
  const [inWindow, inNeither, inDoor] = [at(215, 120), at(196, 120), at(180, 120)];
  const shown = async () => {
    const pixels = [await pixel(page, inWindow), await pixel(page, inNeither), await pixel(page, inDoor)];
    return pixels.map(lit).join();
  };
  await expect.poll(shown).toBe('false,true,false');
  const link = (name: string) => page.getByRole('button', { name: new RegExp(`^Mattes of ${name}:`) });
  await drag(page, await middle(link('Lamp')), await middle(page.getByLabel('Hide Window')));
  await expect(page.getByLabel('Mattes of Lamp: is cut by Window')).toBeVisible();
  await expect(page.getByLabel('Mattes of Window: cuts Lamp')).toBeVisible();
  await expect(page.getByLabel('Show Window')).toBeVisible();
  await page.getByLabel('Hide Door').click();
  await expect.poll(shown).toBe('true,false,false');

  // Another one instead, by the card: from the list, then by dragging to the picture.
  await page.getByRole('group', { name: 'Layer Lamp', exact: true }).getByText('Lamp').first().click();
  await page.getByRole('button', { name: 'Open Matte' }).click();
  const card = page.getByLabel('Card Matte', { exact: true });
  await card.getByLabel('Layer', { exact: true }).selectOption('Door');
  await expect.poll(shown).toBe('false,false,true');
  await page.getByLabel('Show Window').click();
  await drag(page, await middle(card.getByLabel('Drag to a layer for layer')), at(245, 130));
  await expect.poll(shown).toBe('true,false,false');
  await card.getByLabel('Inverted', { exact: true }).check();
  await expect.poll(shown).toBe('false,true,true');

  // In a circle it is refused by name; what cuts is asked for before it goes, and told when it is gone.
  await drag(page, await middle(link('Window')), await middle(page.getByLabel('Hide Lamp')));
  await expect(page.getByText(/“Window” would be cut by itself: “Window” → “Lamp” → “Window”/)).toBeVisible();
  await page.getByRole('group', { name: 'Layer Window', exact: true }).getByText('Window').first().click();
  await page.keyboard.press('Delete');
  const dialog = page.getByRole('dialog', { name: '1 layer is cut by what is to go' });
  await expect(dialog.getByText('“Lamp” is cut by it')).toBeVisible();
  await dialog.getByRole('button', { name: 'Delete all the same' }).click();
  await expect(page.getByText('“Lamp” is cut by a layer that is gone')).toBeVisible();
  await expect.poll(shown).toBe('true,true,true');
  await page.keyboard.press('Control+z');
  await expect.poll(shown).toBe('false,true,true');
});

test('words are written on by one command, with no drawing, one after the other, and otherwise afterwards', async ({
  page,
  server,
}) => {
  const word = (id: string, text: string, y: number) =>
    newDrawing(
      BLANK,
      id,
      text,
      [
        newItem(`${id}t`, 'text', { text, size: 80, font: { family: 'Inter', weight: 900, italic: false } }),
        newItem(`${id}f`, 'fill', { color: '#FFB23E' }),
      ],
      { position: [200, y] },
    );
  await openMade(page, server, 'Written', [word('a', 'MILL', 90), word('b', 'LINE', 200)]);
  const at = await onScene(page, 400, 240);
  // In the first stem of MILL, in its last letter, and in the first stem of LINE.
  const spots = [at(113, 70), at(255, 70), at(122, 180)];
  const shown = async () => (await Promise.all(spots.map((spot) => pixel(page, spot)))).map(lit).join();
  await expect.poll(shown).toBe('true,true,true');
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer MILL', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Write on by strokes …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Write 2 layers on' });
  await dialog.getByLabel('Frames', { exact: true }).fill('40');
  await dialog.getByLabel('Each layer later by').fill('45');
  await dialog.getByRole('button', { name: 'Write on', exact: true }).click();
  await expect.poll(shown).toBe('false,false,false');
  await page.keyboard.press('Escape');
  await goToFrame(page, 21);
  await expect.poll(shown).toBe('true,false,false');
  await goToFrame(page, 40);
  await expect.poll(shown).toBe('true,true,false');
  await goToFrame(page, 86);
  await expect.poll(shown).toBe('true,true,true');

  // Taken up again: in half the time.
  await page.getByRole('group', { name: 'Layer LINE', exact: true }).getByText('LINE').first().click();
  await page.getByRole('button', { name: 'Written on: more' }).click();
  await page.getByRole('menuitem', { name: 'Write on otherwise …' }).click();
  const again = page.getByRole('dialog', { name: 'Write “LINE” on' });
  await expect(again.getByLabel('Frames', { exact: true })).toHaveValue('40');
  await again.getByLabel('Frames', { exact: true }).fill('10');
  await again.getByRole('button', { name: 'Write on', exact: true }).click();
  await page.keyboard.press('Escape');
  await goToFrame(page, 44);
  await expect.poll(shown).toBe('true,true,false');
  await goToFrame(page, 56);
  await expect.poll(shown).toBe('true,true,true');
  // And with a colour ahead of it, in a layer behind.
  await page.getByRole('group', { name: 'Layer LINE', exact: true }).getByText('LINE').first().click();
  await page.getByRole('button', { name: 'Written on: more' }).click();
  await page.getByRole('menuitem', { name: 'Write on otherwise …' }).click();
  await again.getByLabel('A colour runs ahead').check();
  await again.getByLabel('Frames ahead').fill('20');
  await again.getByRole('button', { name: 'Write on', exact: true }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await goToFrame(page, 40);
  await expect.poll(shown).toBe('true,true,false');
  await expect.poll(async () => (await pixel(page, at(122, 180)))[0]).toBeGreaterThan(150);
  for (let n = 0; n < 3; n++) await page.keyboard.press('Control+z');
  await goToFrame(page, 0);
  await expect.poll(shown).toBe('true,true,true');
});

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

test('liquid flows inside letters that stay as they are, and the whole picture is coloured from the top', async ({
  page,
  server,
}) => {
  const font = { family: 'Inter', weight: 900, italic: false };
  const letters = newDrawing(
    BLANK,
    't',
    'Letters',
    [newItem('tt', 'text', { text: 'MILL', size: 80, font }), newItem('tf', 'fill', { color: '#2DC4B6' })],
    { position: [200, 140] },
  );
  const liquid = newDrawing(
    BLANK,
    'l',
    'Liquid',
    [newItem('lr', 'rectangle', { width: 300, height: 100 }), newItem('lf', 'fill', { color: '#FFB23E' })],
    { position: [200, 140] },
  );
  await openMade(
    page,
    server,
    'Liquid',
    [letters, liquid],
    keyed('l', 'position', [
      [0, [200, 240], { kind: 'linear' }],
      [50, [200, 140]],
    ]),
  );
  const at = await onScene(page, 400, 240);
  // In the first stem, beside the letters, and above what flows.
  const [stem, beside] = [at(113, 120), at(60, 140)];
  const row = (name: string) => page.getByRole('button', { name: new RegExp(`^Mattes of ${name}:`) });
  await drag(page, await middle(row('Liquid')), await middle(page.getByLabel('Hide Letters')));
  await goToFrame(page, 0);
  await expect.poll(async () => lit(await pixel(page, stem))).toBe(false);
  await goToFrame(page, 50);
  await expect.poll(async () => lit(await pixel(page, stem))).toBe(true);
  expect(await pixel(page, beside)).toEqual([0x10, 0x13, 0x2e]);

  await page.getByRole('button', { name: 'Add effects on all that is there' }).click();
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await page.getByRole('button', { name: 'Invert' }).click();
  await expect.poll(() => pixel(page, beside)).toEqual([255 - 0x10, 255 - 0x13, 255 - 0x2e]);
  await expect.poll(async () => lit(await pixel(page, stem))).toBe(false);
  await page.getByLabel('Hide Effects').click();
  await expect.poll(async () => lit(await pixel(page, stem))).toBe(true);
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
  const row = await middle(page.getByRole('group', { name: 'Layer Sun', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Cut into panes …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Cut “Sun” into panes' });
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
