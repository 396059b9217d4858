/** What one layer shows cuts others: links, words written on, liquid in letters. */
import { expect } from '@playwright/test';
import { newDrawing, newItem } from '@kite/core/document/make';
import { drag, goToFrame, middle, onScene } from './support/editor';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import { pixel } from './support/scene';
import { test } from './support/test';

const lit = ([red = 0]: readonly number[]) => red > 200;

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
