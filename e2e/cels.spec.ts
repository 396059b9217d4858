/** Drawing by hand: strokes of the brush, cel after cel, held, reversed, erased and taken back. */
import type { BrushStroke, DrawingLayer } from '@kite/core/document/types';
import { createCanvas } from '@napi-rs/canvas';
import { celFramesOf, celsCardOf, celsIn } from '@kite/core/edits/cels';
import { goToFrame, middle, newProject, onScene, setNumber } from './support/editor';
import { discLayer, openMade } from './support/made';
import { inOrder, pixel, pixelsOf, sceneOf } from './support/scene';
import { expect, test } from './support/test';
import type { Page } from '@playwright/test';

/** The brush, once it has come over the wire. */
const takeBrush = async (page: Page) => {
  await page.keyboard.press('b');
  await expect(page.getByRole('toolbar', { name: 'Brush' })).toBeVisible();
};

const GROUND = [255, 255, 255];
const INK = [0x4f, 0x86, 0xb8];

test('forty cels are painted, each going on from the one before, then held for longer and reversed', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Painted', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const colorOf = (x: number, y: number) => pixel(page, at(x, y));
  const layer = async () => inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const cels = async () => celsIn(await layer(), celsCardOf(await layer()) as string);
  const frames = async () => celFramesOf(await layer());
  const dab = async (x: number, y: number) => {
    await page.mouse.move(at(x, y).x, at(x, y).y);
    await page.mouse.down();
    await page.mouse.move(at(x + 10, y).x, at(x + 10, y).y, { steps: 3 });
    await page.mouse.up();
  };
  // Where the dab of a cel is: in rows of ten.
  const placeOf = (cel: number): [number, number] => [20 + (cel % 10) * 25, 110 + Math.floor(cel / 10) * 25];
  await takeBrush(page);
  await setNumber(page, 'Brush size', '14');
  for (let cel = 0; cel < 40; cel++) {
    if (cel > 0) await page.getByRole('button', { name: 'Go on', exact: true }).click();
    await dab(...placeOf(cel));
  }
  await expect.poll(async () => (await cels()).length).toBe(40);
  await expect.poll(frames).toEqual(Array.from({ length: 40 }, (_, i) => 2 * i));
  await goToFrame(page, 79);
  await expect.poll(() => colorOf(25, 110)).toEqual(INK);
  await expect.poll(() => colorOf(250, 185)).toEqual(INK);
  // Each shows what has been painted until then.
  await goToFrame(page, 21);
  await expect.poll(() => colorOf(25, 135)).toEqual(INK);
  await expect.poll(() => colorOf(50, 135)).toEqual(GROUND);

  // By the keyboard to where this cel begins, the one before, and the one after.
  for (const begins of ['20', '18']) {
    await page.keyboard.press('Alt+Comma');
    await expect(page.getByLabel('Frame', { exact: true })).toHaveValue(begins);
  }
  await page.keyboard.press('Alt+Period');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveValue('20');

  // By its edge the eleventh is held for ten frames; one step takes that back.
  await page.keyboard.press('Escape');
  const box = page.getByTestId('cel').nth(10);
  const edge = await middle(box.getByTestId('cel-edge'));
  const wide = (await box.boundingBox())!.width + 1;
  await page.mouse.move(edge.x, edge.y);
  await page.mouse.down();
  await page.mouse.move(edge.x + wide * 4, edge.y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => (await frames())?.slice(9, 13)).toEqual([18, 20, 30, 32]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await frames())?.slice(9, 13)).toEqual([18, 20, 22, 24]);

  await page.getByTestId('cel').first().click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Reverse all' }).click();
  await goToFrame(page, 0);
  await expect.poll(() => colorOf(250, 185)).toEqual(INK);
  await goToFrame(page, 78);
  await expect.poll(() => colorOf(25, 110)).toEqual(INK);
  await expect.poll(() => colorOf(50, 110)).toEqual(GROUND);
  await page.getByTestId('cel').first().click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'All on ones' }).click();
  await expect.poll(async () => (await frames())?.at(-1)).toBe(39);
});

test('the brush erases, each stroke is one step, a cel changes places, and by a number it is a keyed choice', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Brush', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const colorOf = (x: number, y: number) => pixel(page, at(x, y));
  const layer = async () => inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const line = async (y: number, from = 60, to = 240) => {
    await page.mouse.move(at(from, y).x, at(from, y).y);
    await page.mouse.down();
    await page.mouse.move(at(to, y).x, at(to, y).y, { steps: 20 });
    await page.mouse.up();
  };
  await takeBrush(page);
  await setNumber(page, 'Brush size', '30');
  await setNumber(page, 'Pressure', '0');
  await line(130);
  await expect.poll(() => colorOf(150, 140)).toEqual(INK);
  await page.getByRole('button', { name: 'Erase', exact: true }).click();
  await line(130, 140, 160);
  await expect.poll(() => colorOf(150, 130)).toEqual(GROUND);
  await expect.poll(() => colorOf(80, 130)).toEqual(INK);
  await page.keyboard.press('Control+z');
  await expect.poll(() => colorOf(150, 130)).toEqual(INK);
  await page.getByRole('button', { name: 'Erase', exact: true }).click();

  // A second cel, empty, by its key; the first shows through it as onion skin.
  await page.keyboard.press('Shift+N');
  await expect(page.getByTestId('cel')).toHaveCount(2);
  await expect.poll(() => colorOf(150, 130)).toEqual(GROUND);
  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('dialog', { name: 'Onion skin' }).getByRole('checkbox').check();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await colorOf(150, 130))[0]).toBeLessThan(250);
  await takeBrush(page);
  await line(200);
  await expect.poll(() => colorOf(150, 200)).toEqual(INK);

  // The second is dragged before the first, with the timeline closer.
  await page.keyboard.press('Escape');
  for (let n = 0; n < 5; n++) await page.keyboard.press('=');
  const boxes = page.getByTestId('cel');
  const [from, to] = [await middle(boxes.nth(1)), await middle(boxes.nth(0))];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x - 2, to.y, { steps: 5 });
  await page.mouse.up();
  await goToFrame(page, 0);
  await expect.poll(() => colorOf(150, 200)).toEqual(INK);

  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('dialog', { name: 'Onion skin' }).getByRole('checkbox').uncheck();
  await page.keyboard.press('Escape');
  // As a number: a mouth, a wobble, a choice.
  await page.keyboard.press('Escape');
  await page.getByTestId('layer-row').first().click();
  await page.getByRole('button', { name: 'Open Cels', exact: true }).click();
  await page.getByRole('radio', { name: 'By number' }).click();
  await setNumber(page, 'Cel', '2');
  await expect.poll(() => colorOf(110, 138)).toEqual(INK);
  expect(Object.values((await layer()).items).filter(({ kind }) => kind === 'cel')).toHaveLength(2);
});

test('strokes are taken by a line around them, moved and deleted', async ({ page, server }) => {
  await newProject(page, server, 'Taken', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const colorOf = (x: number, y: number) => pixel(page, at(x, y));
  const go = async (...points: readonly (readonly [number, number])[]) => {
    for (const [i, [x, y]] of points.entries()) {
      await page.mouse.move(at(x, y).x, at(x, y).y, { steps: 8 });
      if (i === 0) await page.mouse.down();
    }
    await page.mouse.up();
  };
  await takeBrush(page);
  await setNumber(page, 'Brush size', '20');
  await setNumber(page, 'Pressure', '0');
  await go([40, 130], [90, 130]);
  await go([200, 130], [250, 130]);
  await expect.poll(() => colorOf(225, 130)).toEqual(INK);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take some of 2' }).click();
  await go([180, 100], [280, 100], [280, 160], [180, 160]);
  await expect(page.getByTestId('lasso-taken')).toBeVisible();
  await go([225, 130], [225, 200]);
  await expect.poll(() => colorOf(225, 200)).toEqual(INK);
  await expect.poll(() => colorOf(225, 130)).toEqual(GROUND);
  await expect.poll(() => colorOf(60, 130)).toEqual(INK);
  await page.keyboard.press('Delete');
  await expect.poll(() => colorOf(225, 200)).toEqual(GROUND);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => colorOf(225, 130)).toEqual(INK);

  // One is taken by a press on it, and by a point of it is bent, made thicker, and made shorter.
  await page.mouse.click(at(65, 130).x, at(65, 130).y);
  await expect(page.getByTestId('stroke-point')).toHaveCount(2);
  await go([90, 130], [90, 60]);
  await expect.poll(() => colorOf(88, 66)).toEqual(INK);
  await expect.poll(() => colorOf(85, 130)).toEqual(GROUND);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('stroke-point')).toHaveCount(1);
  await expect.poll(() => colorOf(88, 66)).toEqual(GROUND);
  await expect.poll(() => colorOf(40, 123)).toEqual(INK);
});

test('a disc is painted on: what is still to be covered shows faint, with a brush as large at any zoom', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Painted on', [discLayer('d', 'Disc', [200, 120], '#FFB23E', 100)]);
  const at = await onScene(page, 400, 240);
  const colorOf = (x: number, y: number) => pixel(page, at(x, y));
  const [night, amber] = [
    [0x10, 0x13, 0x2e],
    [0xff, 0xb2, 0x3e],
  ];
  const dab = async (x: number, y: number) => {
    await page.mouse.move(at(x, y).x, at(x, y).y);
    await page.mouse.down();
    await page.mouse.move(at(x + 10, y).x, at(x + 10, y).y, { steps: 3 });
    await page.mouse.up();
  };
  await takeBrush(page);
  await setNumber(page, 'Brush size', '24');
  await page.getByRole('button', { name: 'As large on the screen at any zoom' }).click();
  await dab(170, 110);
  await page.keyboard.press('Escape');
  await page
    .getByRole('group', { name: 'Layer Disc', exact: true })
    .click({ position: { x: 90, y: 12 }, modifiers: ['Shift'] });
  await page
    .getByRole('group', { name: 'Layer Disc', exact: true })
    .click({ position: { x: 90, y: 12 }, button: 'right' });
  await page.getByRole('menuitem', { name: 'Cut the others by the front one' }).click();
  await expect.poll(() => colorOf(175, 110)).toEqual(amber);
  await expect.poll(() => colorOf(220, 130)).toEqual(night);
  await page.getByRole('group', { name: /^Layer Drawn/ }).click({ position: { x: 90, y: 12 } });
  await takeBrush(page);
  // A quarter of the way from night to amber.
  await expect.poll(() => colorOf(220, 130)).toEqual([0x4c, 0x3b, 0x32]);
  await dab(215, 130);
  await expect.poll(() => colorOf(220, 130)).toEqual(amber);
  // At twice the size half as many pixels of the scene are covered.
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await page.keyboard.press('Escape');
  await takeBrush(page);
  const strokes = async () =>
    inOrder(await sceneOf(page, server)).flatMap((layer) =>
      Object.values((layer as DrawingLayer).items).flatMap(
        ({ params }) => (params.strokes as { value: BrushStroke[] } | undefined)?.value ?? [],
      ),
    );
  expect((await strokes()).map(({ size }) => size)).toEqual([24, 24]);
  const middleOf = await middle(page.getByTestId('canvas'));
  await page.mouse.move(middleOf.x, middleOf.y);
  await page.mouse.down();
  await page.mouse.move(middleOf.x + 10, middleOf.y, { steps: 3 });
  await page.mouse.up();
  await expect.poll(async () => (await strokes()).length).toBe(3);
  expect((await strokes())[2]?.size).toBeLessThan(24);
});

const NIGHT = [0x10, 0x13, 0x2e];

test('a textured tip, half as strong, a tip out of a picture, and a frame of what lies behind to paint over', async ({
  page,
  server,
}) => {
  const [paper, ink] = [createCanvas(60, 40), '#000000'];
  const context = paper.getContext('2d');
  context.fillStyle = '#FFFFFF';
  context.fillRect(0, 0, 60, 40);
  context.fillStyle = ink;
  context.fillRect(20, 10, 20, 20);

  await openMade(page, server, 'Tips', [discLayer('d', 'Disc', [200, 150], '#2EC4B6', 80)]);
  const at = await onScene(page, 400, 240);
  const colorOf = (x: number, y: number) => pixel(page, at(x, y));
  const layer = async () => inOrder(await sceneOf(page, server))[0] as DrawingLayer;
  const strokes = async () =>
    Object.values((await layer()).items).flatMap(({ kind, params }) =>
      kind === 'brush' && params.strokes && 'value' in params.strokes ? (params.strokes.value as BrushStroke[]) : [],
    );
  const line = async (y: number, from = 40, to = 120) => {
    await page.mouse.move(at(from, y).x, at(from, y).y);
    await page.mouse.down();
    await page.mouse.move(at(to, y).x, at(to, y).y, { steps: 20 });
    await page.mouse.up();
  };
  const tip = page.getByRole('button', { name: 'Tip', exact: true });
  await takeBrush(page);
  await setNumber(page, 'Brush size', '30');
  await setNumber(page, 'Pressure', '0');
  const bar = page.getByRole('toolbar', { name: 'Brush' });
  await setNumber(bar, 'Opacity', '50');
  await line(60);
  await expect.poll(() => colorOf(80, 60)).toEqual(INK.map((v, i) => expect.closeTo((v + NIGHT[i]!) / 2, -0.5)));
  await setNumber(bar, 'Opacity', '100');
  await tip.click();
  await page.getByRole('radio', { name: 'Chalk' }).click();
  await expect(page.getByRole('dialog', { name: 'Tip' })).toBeHidden();
  await line(110);
  await expect
    .poll(async () => (await strokes()).map((s) => [s.tip, s.opacity, s.seed !== undefined]))
    .toEqual([
      ['round', 0.5, false],
      ['chalk', undefined, true],
    ]);
  // Grain: some of what it goes over is covered, some is not. Every stroke has its own.
  const [from, to] = [at(45, 102), at(105, 118)];
  const clip = { x: from.x, y: from.y, width: to.x - from.x, height: to.y - from.y };
  const covered = async () => {
    const data = await pixelsOf(await page.screenshot({ clip }));
    const blues = data.filter((_, i) => i % 4 === 2);
    return blues.filter((blue) => blue > 90).length / blues.length;
  };
  await expect.poll(covered).toBeGreaterThan(0.15);
  expect(await covered()).toBeLessThan(0.99);

  // The dark square of a picture, without the paper around it.
  await tip.click();
  await page.getByTestId('tip-file').setInputFiles({
    name: 'Square.png',
    mimeType: 'image/png',
    buffer: paper.toBuffer('image/png'),
  });
  await expect(page.getByRole('radio', { name: 'Square tip' })).toBeChecked();
  await page.keyboard.press('Escape');
  await page.mouse.click(at(60, 180).x, at(60, 180).y);
  // Its colour is laid over what is nearly, not quite, opaque.
  await expect.poll(() => colorOf(72, 192)).toEqual(INK.map((v) => expect.closeTo(v, -0.6)));
  await expect.poll(() => colorOf(72, 197)).toEqual(NIGHT);
  expect((await strokes()).at(-1)).toMatchObject({ tip: 'own' });
  // What is no picture is refused, and nothing is changed.
  await tip.click();
  await page
    .getByTestId('tip-file')
    .setInputFiles({ name: 'Notes.png', mimeType: 'image/png', buffer: Buffer.from('no') });
  await expect(page.getByText('“Notes.png” cannot be read as a picture. Nothing was changed.')).toBeVisible();
  await page.keyboard.press('Escape');

  // A cel that begins as the disc behind it: that can go, and what was there stays.
  await goToFrame(page, 10);
  await page.getByRole('button', { name: 'Cel from what lies behind' }).click();
  await expect(page.getByTestId('cel')).toHaveCount(2);
  await page.mouse.click(at(200, 150).x, at(200, 150).y);
  await expect.poll(() => colorOf(200, 150)).toEqual(INK);
  await page.keyboard.press('Escape');
  await page.getByRole('group', { name: 'Layer Disc' }).click();
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await goToFrame(page, 10);
  await expect.poll(() => colorOf(170, 150)).toEqual([0x2e, 0xc4, 0xb6]);
  await expect.poll(() => colorOf(200, 150)).toEqual(INK);
  await expect.poll(() => colorOf(150, 100)).toEqual(NIGHT);
  await goToFrame(page, 5);
  await expect.poll(() => colorOf(170, 150)).toEqual(NIGHT);
});
