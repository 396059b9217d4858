/** Pictures and drawings brought in, through the interface. */
import type { CutOut, DrawingLayer, Layer, Scene, StillProperty } from '@kite/core/document/types';
import { expect } from '@playwright/test';
import { newProject, onScene, saved, setNumber } from './support/editor';
import { sceneOf, inOrder, named, valueOf, disc, pixel, importFiles } from './support/scene';
import { test } from './support/test';

/** What is cut out of the picture that a layer shows. */
const cutOf = (layer: Layer): CutOut => {
  const card = Object.values((layer as DrawingLayer).items).find((item) => item.kind === 'picture');
  return (card?.params.cut as StillProperty).value as CutOut;
};

test('five pictures come in their order, one is swapped, one is cut out', async ({ page, server }) => {
  await newProject(page, server, 'Pictures', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const colors = ['#FF5D5D', '#2EC4B6', '#FFB23E', '#1B1F4B', '#10132E'];
  const files = colors.map((color, i) => ({ name: `Lamp ${i + 1}.png`, mimeType: 'image/png', buffer: disc(color) }));
  await importFiles(page, files);
  await page.getByRole('button', { name: 'First in front' }).click();
  const wanted = ['Lamp 1', 'Lamp 2', 'Lamp 3', 'Lamp 4', 'Lamp 5'];
  await expect.poll(async () => inOrder(await sceneOf(page, server)).map((l) => l.name)).toEqual(wanted);
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  // The order is remembered: the next pictures are not asked about.
  await page
    .getByTestId('layer-row')
    .first()
    .click({ position: { x: 90, y: 12 } });
  for (let i = 2; i <= 5; i++) {
    await page
      .getByTestId('layer-row')
      .nth(i - 1)
      .click({ position: { x: 90, y: 12 }, modifiers: ['Control'] });
  }
  await page
    .getByTestId('layer-row')
    .first()
    .click({ position: { x: 90, y: 12 } });

  await page.getByRole('button', { name: 'Cut out a background' }).click();
  const ground = at(123, 108);
  await page.mouse.click(ground.x, ground.y);
  await setNumber(page, 'Soften', '0');
  const cut = cutOf(named(await sceneOf(page, server), 'Lamp 1'));
  expect(cut?.seeds).toHaveLength(1);
  expect(cut?.seeds[0]?.x).toBeLessThan(8);
  // Hiding the rest shows the scene through where the background was.
  await page.keyboard.press('Escape');
  for (const name of wanted.slice(1)) await page.getByRole('button', { name: `Hide ${name}` }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(123, 108))).toEqual(await pixel(page, at(20, 20)));
  expect(await pixel(page, at(150, 125))).toEqual([255, 93, 93]);

  await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  const swap = page.getByTestId('asset').first().getByTestId('swap-file');
  await swap.setInputFiles({ name: 'New lamp.png', mimeType: 'image/png', buffer: disc('#00AA00') });
  await expect.poll(() => pixel(page, at(220, 125)).then(() => pixel(page, at(150, 125)))).not.toEqual([255, 93, 93]);
  expect(cutOf(named(await sceneOf(page, server), 'Lamp 1'))).toEqual(cut);
});

test('an SVG comes in as layers, in its order, and what is lost is listed', async ({ page, server }) => {
  await newProject(page, server, 'Drawing', 'Medium rectangle');
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100">' +
    '<rect id="Rails" x="10" y="70" width="80" height="8" fill="#2EC4B6"/>' +
    '<circle id="Moon" cx="50" cy="40" r="25" fill="#FFB23E"/>' +
    '<g id="Stars" opacity="0.5"><circle id="Big" cx="12" cy="12" r="6" fill="#FFF"/><g id="Small ones">' +
    '<circle id="Near" cx="80" cy="10" r="2" fill="#FFF"/><circle id="Far" cx="90" cy="20" r="1" fill="#FFF"/></g></g>' +
    '<path id="Left out" d="M0 0h5v5z" fill="red"/><image href="http://example.invalid/x.png"/><script>alert(1)</script></svg>';
  await importFiles(page, [{ name: 'Mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) }]);
  const dialog = page.getByRole('dialog', { name: 'Import Mark' });
  await expect(dialog.getByText('a script is left out')).toBeVisible();
  await expect(dialog.getByText('a picture in a file of its own is left out')).toBeVisible();
  await dialog.getByLabel('Left out').uncheck();
  // Groups are taken apart by the tree; what is in them is as faint as they are.
  await expect(dialog.getByText('3 of 4 parts')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take Stars apart: 2 parts' }).click();
  await dialog.getByRole('button', { name: 'Take Small ones apart: 2 parts' }).click();
  await dialog.getByLabel('Far', { exact: true }).uncheck();
  await expect(dialog.getByText('5 of 7 parts')).toBeHidden();
  await expect(dialog.getByText('4 of 6 parts')).toBeVisible();
  await expect(dialog.getByRole('checkbox', { name: 'Stars', exact: true })).toBeChecked({ indeterminate: true });
  await dialog.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  const scene = await sceneOf(page, server);
  expect(inOrder(scene).map((l) => l.name)).toEqual(['Near', 'Big', 'Moon', 'Rails']);
  const near = named(scene, 'Near');
  expect(
    Object.values(near.items).some(
      ({ params }) => params.opacity && 'value' in params.opacity && params.opacity.value === 0.5,
    ),
  ).toBe(true);
  expect(valueOf(named(scene, 'Moon'), 'position')).toEqual([150, 115]);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(0);
});

test('pictures, shadows, masks and blends of an SVG come along, in one step', async ({ page, server }) => {
  await newProject(page, server, 'Card', 'Medium rectangle');
  const picture = `data:image/png;base64,${disc('#D1495B', '#FFB23E').toString('base64')}`;
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 120" width="200" height="120">' +
    '<mask id="m"><rect x="10" y="10" width="60" height="40" fill="#808080"/></mask>' +
    '<rect id="Card" width="200" height="120" fill="#2B2F77" style="filter:drop-shadow(0 4px 6px rgba(0,0,0,0.5))"/>' +
    `<image id="Lamp" x="10" y="10" width="120" height="80" href="${picture}" mask="url(#m)"/>` +
    `<image id="Lamp again" x="140" y="10" width="30" height="20" href="${picture}"/>` +
    '<rect id="Glass" x="0" y="60" width="200" height="40" fill="#2EC4B6" style="mix-blend-mode:multiply"/></svg>';
  await importFiles(page, [{ name: 'Pass.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) }]);
  const dialog = page.getByRole('dialog', { name: 'Import Pass' });
  await expect(dialog.getByText('4 of 4 parts')).toBeVisible();
  await expect(dialog.getByRole('region', { name: 'What cannot be kept' })).toBeHidden();
  await dialog.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  const at = await onScene(page, 300, 250);
  // 50 and 65 pixels are left on each side of the drawing in the scene.
  const shown = () => Promise.all([at(110, 95), at(205, 85), at(60, 150)].map((place) => pixel(page, place)));
  await expect.poll(shown).toEqual([
    // The lamp through a grey mask, half on the card; once more by itself; and the glass on the card.
    [expect.closeTo(126, -1), expect.closeTo(60, -1), expect.closeTo(105, -1)],
    [209, 73, 91],
    [8, 36, 85],
  ]);
  const project = await saved(page, server);
  expect(Object.values(project.assets).map(({ name, kind }) => [name, kind])).toEqual([['Pass', 'picture']]);
  expect(named(await sceneOf(page, server), 'Glass').blend).toBe('multiply');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(0);
  expect(Object.keys((await saved(page, server)).assets)).toEqual([]);
});

test('a drawing that was copied as code, and words, are pasted; what was copied here afterwards comes before them', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Pasted', 'Medium rectangle');
  await onScene(page, 300, 250);
  const paste = (type: string, text: string) =>
    page.evaluate(
      ([kind, words]) => {
        const data = new DataTransfer();
        data.setData(kind, words);
        window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
      },
      [type, text] as const,
    );
  const drawing =
    '<?xml version="1.0"?><!-- Rails --><svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><circle id="Moon" r="9" cx="20" cy="20"/></svg>';
  await paste('text/plain', drawing);
  await page
    .getByRole('dialog', { name: 'Import Pasted drawing' })
    .getByRole('button', { name: 'Import', exact: true })
    .click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await paste('text/plain', 'Ride home easy\r\nevery night, until the last stop of the line');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const scene = await sceneOf(page, server);
  expect(inOrder(scene).map(({ name }) => name)).toEqual([
    'Ride home easy every night, until the last stop of the line',
    'Moon',
  ]);
  const words = inOrder(scene)[0] as DrawingLayer;
  expect(valueOf(words, 'position')).toEqual([150, 125]);
  expect(Object.values(words.items).find(({ kind }) => kind === 'text')?.params).toMatchObject({
    text: { value: 'Ride home easy\nevery night, until the last stop of the line' },
    frame: { value: 'box' },
    width: { value: 240 },
  });
  // Words that were copied in a field, by the browser itself; then a layer, which is what was copied last.
  const names = async () => inOrder(await sceneOf(page, server)).map(({ name }) => name);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Harbour Steps');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  expect(await names()).toContain('Harbour Steps');
  await page.getByTestId('layer-row').filter({ hasText: 'Moon' }).click();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  expect(await names()).toContain('Moon 2');
});

test('files are dropped and pasted; copied pictures go to another project with their files', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'From', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const spot = at(100, 80);
  await page.evaluate(
    ([base64, x, y]) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], 'Dropped.png', { type: 'image/png' }));
      const target = document.querySelector('[data-testid=canvas]');
      target?.dispatchEvent(
        new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data, clientX: x, clientY: y }),
      );
      const pasted = new DataTransfer();
      pasted.items.add(new File([bytes], 'Pasted.png', { type: 'image/png' }));
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: pasted, bubbles: true }));
    },
    [disc('#FF5D5D').toString('base64'), spot.x, spot.y] as const,
  );
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const scene = await sceneOf(page, server);
  expect(valueOf(named(scene, 'Dropped'), 'position')).toEqual([100, 80]);
  expect(valueOf(named(scene, 'Pasted'), 'position')).toEqual([150, 125]);

  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await newProject(page, server, 'To', 'Medium rectangle');
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const there = await saved(page, server);
  const copies = inOrder(there.scenes[there.order[0] as string] as Scene) as DrawingLayer[];
  expect(copies.map((l) => l.name)).toEqual(inOrder(scene).map((l) => l.name));
  for (const copy of copies) {
    const [card] = Object.values(copy.items);
    expect(there.assets[(card?.params.asset as StillProperty).value as string]?.kind).toBe('picture');
  }
  await page.keyboard.press('Escape');
  const here = await onScene(page, 300, 250);
  await expect.poll(() => pixel(page, here(100, 80))).toEqual([255, 93, 93]);
});
