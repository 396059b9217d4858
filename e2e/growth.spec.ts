/** What grows: from roots that are pressed, past places where it waits, along strokes that are drawn. */
import type { GrowthValue } from '@kite/core/document/types';
import { addCard, goToFrame, newProject, onScene, setNumber } from './support/editor';
import { importFiles, inOrder, itemOf, pixel, sceneOf } from './support/scene';
import { expect, test } from './support/test';

/** A plant of a square of 200: a stem, a branch to each side, and a leaf on the left one. */
const PLANT = `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200" viewBox="0 0 200 200">
<g fill="none" stroke="#2EC4B6" stroke-width="10">
<path d="M100 195V20"/><path d="M100 130H30"/><path d="M100 80H170"/>
</g><path fill="#2EC4B6" d="M35 130C20 110 0 110 5 130C0 150 20 150 35 130Z"/></svg>`;

const GROUND = [255, 255, 255];
const GREEN = [0x2e, 0xc4, 0xb6];

test('a plant from an SVG grows from a press at its root by one value, waits at a branch, and follows strokes', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Plant', 'Medium rectangle');
  await importFiles(page, [{ name: 'plant.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(PLANT) }]);
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'One layer', exact: true }).click();
  await dialog.getByRole('radio', { name: 'As it is', exact: true }).click();
  await dialog.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  const at = await onScene(page, 300, 250);
  // The plant stands in the middle: its corner is at 50, 25.
  const plant = (x: number, y: number) => at(x + 50, y + 25);
  const colorOf = (x: number, y: number) => pixel(page, plant(x, y));
  await expect.poll(() => colorOf(100, 190)).toEqual(GREEN);
  await addCard(page, 'Grow');
  const grown = (percent: string) => setNumber(page, 'Grown', percent);
  const value = async () => {
    const [layer] = inOrder(await sceneOf(page, server));
    if (layer?.kind !== 'drawing') throw new Error('no drawing');
    return (itemOf(layer, 'grow').params.from as { value: GrowthValue }).value;
  };

  // From its foot, until it is told otherwise.
  await grown('30');
  await expect.poll(() => colorOf(100, 190)).toEqual(GREEN);
  await expect.poll(() => colorOf(100, 30)).toEqual(GROUND);

  // What has not grown yet is seen faintly, so that a root can be pressed there.
  await page.getByRole('button', { name: 'Root', exact: true }).click();
  await expect.poll(async () => (await colorOf(100, 30))[0]).toBeLessThan(220);
  await page.mouse.click(plant(100, 22).x, plant(100, 22).y);
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await value()).points).toMatchObject([{ root: true, wait: 0, pace: 1 }]);
  await expect.poll(() => colorOf(100, 30)).toEqual(GREEN);
  await expect.poll(() => colorOf(100, 190)).toEqual(GROUND);
  // Both branches are reached before the foot, and the leaf after its stalk.
  await grown('70');
  await expect.poll(() => colorOf(165, 80)).toEqual(GREEN);
  await expect.poll(() => colorOf(40, 130)).toEqual(GROUND);

  // It waits on its left branch for longer than the rest takes.
  await page.getByRole('button', { name: 'Wait', exact: true }).click();
  await page.mouse.click(plant(80, 132).x, plant(80, 132).y);
  await page.keyboard.press('Escape');
  await setNumber(page, 'Wait 1, later by', '200');
  await grown('45');
  await expect.poll(() => colorOf(100, 190)).toEqual(GREEN);
  await expect.poll(() => colorOf(60, 130)).toEqual(GROUND);
  await grown('100');
  await expect.poll(() => colorOf(10, 130)).toEqual(GREEN);

  // One value, keyed twice.
  await grown('0');
  await page.getByLabel('Grown: Animate: add a keyframe here').click();
  await goToFrame(page, 60);
  await page.getByLabel('Grown: Add a keyframe here').click();
  await grown('100');
  await expect.poll(() => colorOf(10, 130)).toEqual(GREEN);
  await goToFrame(page, 15);
  await expect.poll(() => colorOf(100, 30)).toEqual(GREEN);
  await expect.poll(() => colorOf(10, 130)).toEqual(GROUND);

  // A stroke along the right branch, then one down the stem: that is the order, whatever the roots say.
  await page.getByRole('button', { name: 'Stroke', exact: true }).click();
  const stroke = async (...points: readonly (readonly [number, number])[]) => {
    for (const [i, point] of points.entries()) {
      const { x, y } = plant(...point);
      await page.mouse.move(x, y, { steps: 12 });
      if (i === 0) await page.mouse.down();
    }
    await page.mouse.up();
  };
  await stroke([168, 80], [104, 80]);
  await stroke([100, 20], [100, 130], [100, 192]);
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await value()).strokes.length).toBe(2);
  // As far as the first of them goes, in the time that each took here.
  const throughFirst = async () => {
    const [first = 0, second = 0] = (await value()).strokes.map((points) => points.at(-1));
    await grown(((100 * first) / (first + second)).toFixed(1));
  };
  await throughFirst();
  // Beside the strokes themselves, which show too.
  await expect.poll(() => colorOf(150, 84)).toEqual(GREEN);
  await expect.poll(() => colorOf(97, 40)).toEqual(GROUND);
  const drawn = (await value()).strokes;
  await page.getByRole('button', { name: 'Stroke 2 earlier' }).click();
  await expect.poll(async () => (await value()).strokes).toEqual(drawn.toReversed());
  await throughFirst();
  await expect.poll(() => colorOf(97, 40)).toEqual(GREEN);
  await expect.poll(() => colorOf(150, 84)).toEqual(GROUND);
  for (let undone = 0; undone < 2; undone++) await page.keyboard.press('Control+z');
  await expect.poll(() => colorOf(150, 84)).toEqual(GREEN);
  // Drawn again it begins where it ended.
  await page.getByRole('button', { name: 'Draw Stroke 1 again' }).click();
  await stroke([104, 80], [168, 80]);
  await expect.poll(async () => (await value()).strokes[0]?.slice(0, 2)).toEqual(drawn[0]?.slice(-3, -1));
  expect((await value()).strokes[1]).toEqual(drawn[1]);
  await page.getByRole('button', { name: 'Along middle lines' }).click();
  await expect.poll(async () => (await value()).strokes.length).toBeGreaterThan(2);
  await page.getByRole('button', { name: 'No strokes' }).click();
  await expect.poll(async () => (await value()).points.length).toBe(2);
});
