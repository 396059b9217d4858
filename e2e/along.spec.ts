/** Words along a path: a layer that they are laid along, typed again, moved on, and a layer again; or an arch of their own. */
import { newDrawing, newItem } from '@kite/core/document/make';
import { addCard, onScene, setNumber } from './support/editor';
import { BLANK, discLayer, openMade } from './support/made';
import { itemOf, named, pixel, sceneOf } from './support/scene';
import { expect, test } from './support/test';

const WHITE = [255, 255, 255];
const font = { family: 'Inter', weight: 800, italic: false };
/** Words whose letters have a bar in their middle, 14 pixels above the line that they stand on. */
const words = (text: string) =>
  newDrawing(
    BLANK,
    'w',
    'Words',
    [newItem('t', 'text', { text, size: 40, font }), newItem('f', 'fill', { color: '#FFFFFF' })],
    { position: [200, 200] },
  );

test('words are laid along a disc, typed straight, moved on round it and off it again', async ({ page, server }) => {
  await openMade(page, server, 'Along', [words('HHH'), discLayer('d', 'Moon', [200, 120], '#FFB23E', 80)]);
  const at = await onScene(page, 400, 240);
  const seen = async (x: number, y: number) => (await pixel(page, at(x, y))).slice(0, 3);
  const moon = [255, 178, 62];
  await expect.poll(() => seen(200, 186)).toEqual(WHITE);

  await page.keyboard.press('Control+a');
  await page.getByRole('group', { name: 'Layer Words', exact: true }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Lay along a path', exact: true }).click();
  // The middle letter stands on top of the disc, which goes on being seen, and neither is a layer of its own.
  await expect.poll(() => seen(200, 66)).toEqual(WHITE);
  expect([await seen(200, 120), await seen(200, 186)]).toEqual([moon, [16, 19, 46]]);
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await expect(page.getByTestId('held-outline')).toHaveCount(1);

  // They are typed as they are laid out, where the caret stands in them.
  await page.mouse.dblclick(at(200, 66).x, at(200, 66).y);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('HHHHH');
  await expect.poll(() => seen(200, 186)).toEqual(WHITE);
  await page.keyboard.press('Escape');
  await expect.poll(() => seen(200, 66)).toEqual(WHITE);
  expect(itemOf(named(await sceneOf(page, server), 'Words'), 'text').params.text).toEqual({ value: 'HHHHH' });

  await page.getByRole('button', { name: 'Open Moon', exact: true }).click();
  await setNumber(page, 'Moved on', '50');
  await expect.poll(() => seen(200, 174)).toEqual(WHITE);
  expect(await seen(200, 66)).not.toEqual(WHITE);
  await page.getByLabel('Other side', { exact: true }).check();
  // Within the disc, their heads towards its middle.
  await expect.poll(() => seen(200, 146)).toEqual(WHITE);

  await page.getByRole('button', { name: 'Moon: more', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Make a layer of it' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  await expect.poll(() => seen(200, 186)).toEqual(WHITE);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => seen(200, 186)).toEqual(WHITE);
  await expect(page.getByRole('group', { name: 'Layer Words', exact: true })).toBeVisible();
});

test('a new card has an arch of its own, and without an outline it says so', async ({ page, server }) => {
  await openMade(page, server, 'Arch', [words('HHHHH')]);
  const at = await onScene(page, 400, 240);
  const seen = async (x: number, y: number) => (await pixel(page, at(x, y))).slice(0, 3);
  await page.getByRole('group', { name: 'Layer Words', exact: true }).click({ position: { x: 90, y: 12 } });
  await addCard(page, 'Along a path');
  const box = async () => {
    const item = itemOf(named(await sceneOf(page, server), 'Words'), 'path');
    return (item.params.path as unknown as { value: { vertices: number[][] } }).value.vertices;
  };
  const [left, right] = (await box()) as [number[], number[]];
  // From one end of the words to the other, its middle three quarters of its handles above them.
  expect([left[1], right[1]]).toEqual([0, 0]);
  expect(right[0]! + left[0]!).toBeCloseTo(0, 0);
  const rise = 0.75 * -left[5]!;
  await expect.poll(() => seen(200, 200 - rise - 14)).toEqual(WHITE);
  await page.getByRole('button', { name: 'Path: more', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Delete', exact: true }).click();
  await expect(page.getByText('It lays what is above along an outline in it, and there is none.')).toBeVisible();
  await expect.poll(() => seen(200, 186)).toEqual(WHITE);
  const card = page.getByLabel('Card Along a path', { exact: true });
  await card.getByRole('button', { name: 'Add a card to the group' }).click();
  await page.getByRole('menuitem', { name: 'Ellipse', exact: true }).click();
  await expect.poll(() => seen(200, 200 - 100 - 14)).toEqual(WHITE);

  // Bent, a letter is wider on its outer side: the right leg of the middle one leans away from the other.
  const leg = () => seen(200 + 13, 200 - 126);
  expect(await leg()).not.toEqual(WHITE);
  await card.getByRole('button', { name: 'Open Along a path', exact: true }).click();
  await card.getByLabel('Lies', { exact: true }).selectOption('Bent along it');
  await expect.poll(leg).toEqual(WHITE);
});
