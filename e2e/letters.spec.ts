/** Words whose letters move without being split. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { DrawingLayer } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { applyEdit } from '@kite/core/edits/apply';
import { writeArchive } from '@kite/core/interchange/archive';
import { addCard, goToFrame, onScene, setNumber } from './support/editor';
import { discLayer, openMade } from './support/made';
import { agreeing } from './support/outputs';
import { itemOf, named, pixel, sceneOf } from './support/scene';
import { expect, test } from './support/test';

test('a live word comes in letter by letter in one press, is changed late, and is the same in every output', async ({
  page,
  server,
  context,
}) => {
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 60, background: '#1B2A41' };
  const scene = newScene('s', 'Test', size);
  const font = { family: 'Inter', weight: 800, italic: false };
  const word = newDrawing(
    scene,
    'w',
    'Word',
    [newItem('t', 'text', { text: 'HHHH', size: 40, font }), newItem('f', 'fill', { color: '#FFFFFF' })],
    { position: [150, 125] },
  );
  const doc = applyEdit(newProject('p', 'Letters', [scene]), addLayers('s', [word])).doc;
  const { id } = (await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()))).body;
  await page.goto(`${server.url}/projects/${id}`);
  await page.getByRole('group', { name: 'Layer Word', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('radio', { name: 'Letters', exact: true }).click();
  await page.getByRole('button', { name: /^Fade in/ }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).first().click();

  // The layer itself does not move; a card of its text does.
  const layer = async () => named<DrawingLayer>(await sceneOf(page, server), 'Word');
  expect((await layer()).params.opacity).toBeUndefined();
  expect(itemOf(await layer(), 'letters')).toMatchObject({
    params: { by: { value: 'letters' }, stagger: { value: 2 } },
  });
  await setNumber(page, 'Apart', '10');

  const at = await onScene(page, 300, 250);
  /** How bright columns of the picture are at most, from left to right, in so many parts of a stretch. */
  const brightest = async (left: number, right: number, parts: number) => {
    const reds: number[] = [];
    for (let i = 0; i < parts; i++) {
      let most = 0;
      const width = (right - left) / parts;
      for (let k = 0; k < 6; k++) {
        const [red = 0] = await pixel(page, at(left + i * width + ((k + 0.5) * width) / 6, 112));
        most = Math.max(most, red);
      }
      reds.push(most);
    }
    return reds;
  };
  await goToFrame(page, 22);
  await page.keyboard.press('Escape');
  // Four letters of 30 pixels about the middle: the first is there, two are on their way, the last has not begun.
  const [first, second, third, last] = (await brightest(90, 210, 4)) as [number, number, number, number];
  expect([first > 240, second < first - 20, third < second - 60, third > 27, last]).toEqual([
    true,
    true,
    true,
    true,
    27,
  ]);

  // Other words, in another size, keep the motion.
  await page.getByRole('group', { name: 'Layer Word', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Text' }).click();
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('HHHHHHHHH');
  await setNumber(page, 'Size', '30');
  await page.keyboard.press('Escape');
  const late = (await brightest(48, 252, 9)) as number[];
  expect([late[0]! > 240, late[1]! < late[0]! - 20, late[2]! < late[1]! - 60]).toEqual([true, true, true]);
  expect(late.slice(3)).toEqual([27, 27, 27, 27, 27, 27]);
  await goToFrame(page, 59);
  expect((await brightest(48, 252, 9))[4]).toBeGreaterThan(240);
  await page.getByRole('group', { name: 'Layer Word', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Fade in' }).click();
  await setNumber(page, 'Blur', '2');
  await setNumber(page, 'Coloured', '50');
  await agreeing(page, server, context, id);
});

test('cards that can do nothing where they stand say why', async ({ page, server }) => {
  await openMade(page, server, 'Idle cards', [discLayer('a', 'Lamp', [200, 120])]);
  await page.getByRole('group', { name: 'Layer Lamp', exact: true }).click({ position: { x: 90, y: 12 } });
  await addCard(page, 'Letters');
  await expect(page.getByText('there is no text above it')).toBeVisible();
  await addCard(page, 'Mask');
  await expect(page.getByText('It cuts by the outlines of what is in it, and there are none.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a card to the group' }).click();
  await page.getByRole('menuitem', { name: 'Fill', exact: true }).click();
  await expect(page.getByText('what is painted in it does not count')).toBeVisible();
});
