/** From an empty project to a finished animation, in the real interface, and all of it again after a reload. */
import type { DrawingLayer, KeyedProperty } from '@kite/core/document/types';
import { addCard, drag, goToFrame, middle, newProjectByHand, onScene, saved, setNumber } from './support/editor';
import { openRow } from './support/timeline';
import { expect, test } from './support/test';

test('create, draw, trim, repeat, key, ease, play, undo, reload', async ({ page, server }) => {
  await newProjectByHand(page, server, 'Late ticket', 'Medium rectangle');
  const at = await onScene(page, 300, 250);

  // Draw a line from the middle upwards.
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Line', exact: true }).click();
  await drag(page, at(150, 100), at(150, 40));
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  let doc = await saved(page, server);
  const layerId = doc.scenes[doc.order[0] as string]?.order[0] as string;
  const layerOf = (d: typeof doc) => d.scenes[d.order[0] as string]?.layers[layerId] as DrawingLayer;
  const itemOf = (d: typeof doc, kind: string) => Object.values(layerOf(d).items).find((i) => i.kind === kind);
  expect(itemOf(doc, 'line')?.params.from).toEqual({ value: [0, 30] });
  expect(layerOf(doc)).toMatchObject({ name: 'Line', from: 0, to: 240 });

  // Trim and repeat it: the trim goes above the stroke, the repeater to the end.
  await addCard(page, 'Trim');
  await page.getByRole('button', { name: 'Close Trim' }).click();
  await addCard(page, 'Repeater');
  await setNumber(page, 'Copies', '4 * 3');
  await page.getByLabel('Card Repeater').getByLabel('Turn', { exact: true }).fill('360/12');
  await page.getByLabel('Card Repeater').getByLabel('Turn', { exact: true }).press('Enter');
  await page.getByLabel('Move x', { exact: true }).fill('0');
  await page.getByLabel('Move x', { exact: true }).press('Enter');
  await setNumber(page, 'Copy delay', '2');
  doc = await saved(page, server);
  expect(layerOf(doc).recipe.map((id) => layerOf(doc).items[id]?.kind)).toEqual(['line', 'trim', 'stroke', 'repeater']);
  expect(itemOf(doc, 'repeater')?.params).toMatchObject({
    copies: { value: 12 },
    rotation: { value: 30 },
    delay: { value: 2 },
  });

  // Key the trim's end: 0 % at frame 0, 100 % at frame 40.
  await page.getByRole('button', { name: 'Open Trim' }).click();
  await page.getByLabel('End: Animate: add a keyframe here').click();
  await page.getByRole('button', { name: 'Auto-key' }).click();
  await setNumber(page, 'End', '0');
  await goToFrame(page, 40);
  await setNumber(page, 'End', '100');
  doc = await saved(page, server);
  const endOf = (d: typeof doc) => itemOf(d, 'trim')?.params.end as KeyedProperty;
  expect(endOf(doc).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [40, 1],
  ]);

  // Its ribbon shows two beads; a span's ease is shaped by a handle and by strengths.
  await openRow(page, 'Line');
  await expect(page.getByTestId('bead')).toHaveCount(2);
  await page.getByTestId('bead').first().click();
  await setNumber(page, 'Strength at the end', '90');
  doc = await saved(page, server);
  expect(endOf(doc).keys[0]?.ease).toMatchObject({ kind: 'bezier', y1: 0, y2: 1 });
  expect((endOf(doc).keys[0]?.ease as { x2: number }).x2).toBeCloseTo(0.1, 9);
  const handle = page.getByTestId('ease-handle-1');
  const from = await middle(handle);
  await drag(page, from, { x: from.x + 30, y: from.y - 25 });
  doc = await saved(page, server);
  expect((endOf(doc).keys[0]?.ease as { y1: number }).y1).toBeGreaterThan(0.1);

  // Play: frames are drawn and counted, at half size where the machine is slow.
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByTestId('drawn-rate')).toHaveText(/^(drawn \d+\.\d|half size \d+)\/s$/);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();

  // One undo takes back one gesture; redo makes it again.
  const eased = JSON.stringify(endOf(doc));
  await page.keyboard.press('Control+z');
  expect(JSON.stringify(endOf(await saved(page, server)))).not.toBe(eased);
  await page.keyboard.press('Control+Shift+z');
  expect(JSON.stringify(endOf(await saved(page, server)))).toBe(eased);

  // Everything is there again after a reload.
  const before = await saved(page, server);
  await page.reload();
  await expect(page.getByLabel('Layer Line')).toBeVisible();
  await page.getByLabel('Open Line').click();
  await expect(page.getByTestId('bead')).toHaveCount(2);
  expect(await saved(page, server)).toEqual(before);
});
