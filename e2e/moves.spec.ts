/** Moves and routines: ready motion that writes keyframes and stays adjustable. */
import { newDrawing, newItem } from '@kite/core/document/make';
import type { KeyedProperty, Point } from '@kite/core/document/types';
import { curveOf } from '@kite/core/motion/eases/table';
import { expect } from '@playwright/test';
import { drag, goToFrame, middle, onScene, saved, setNumber } from './support/editor';
import { BLANK, discLayer, openMade } from './support/made';
import { readPng } from './support/media';
import { inOrder, itemOf, named, redsOf, sceneOf } from './support/scene';
import { test } from './support/test';
import { bead, choose, framesOf, keysOf } from './support/timeline';

test('an entrance of 24 frames at full strength, in the rendered frames too, and adjusted afterwards', async ({
  page,
  server,
}) => {
  const project = await openMade(page, server, 'Entrance', [discLayer('a', 'Ball', [300, 120])]);
  await choose(page, 'Ball');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Slide in' }).click();
  await setNumber(page, 'Frames of the move', '24');
  await setNumber(page, 'Opacity there of the move', '100');
  await setNumber(page, 'Size there of the move', '100');
  await setNumber(page, 'Distance of the move', '200');
  // Both ends stand on the move's own card.
  await setNumber(page, 'Strength at the start', '100');
  await setNumber(page, 'Strength at the end', '100');
  const keys = await keysOf(page, server, 'Ball');
  expect(keys.map((k) => [k.frame, k.value])).toEqual([
    [0, [100, 120]],
    [24, [300, 120]],
  ]);
  expect(keys[0]?.ease).toEqual({ kind: 'bezier', x1: 1, y1: 0, x2: 0, y2: 1 });

  // CSS's cubic-bezier(1, 0, 0, 1) at the frames' shares, read off the rendered pictures.
  const curve = curveOf({ kind: 'bezier', x1: 1, y1: 0, x2: 0, y2: 1 });
  await saved(page, server);
  for (const frame of [0, 6, 11, 12, 13, 18, 24]) {
    const settings = { format: 'png', scale: 1, frame };
    const { body } = await server.api<{ id: string }>('POST', '/renders', { project, scene: 's', settings });
    await expect
      .poll(
        async () =>
          (await server.api<{ id: string; status: string }[]>('GET', '/renders')).body.find((r) => r.id === body.id)
            ?.status,
      )
      .toBe('done');
    const { data, width } = await readPng(await server.bytes(`/renders/${body.id}/file`));
    const row = Array.from({ length: width }, (_, x) => data[(120 * width + x) * 4] as number);
    const bright = row.flatMap((red, x) => (red > 130 ? [x + 0.5] : []));
    const centre = bright.reduce((a, b) => a + b, 0) / bright.length;
    expect(centre).toBeCloseTo(100 + 200 * curve(frame / 24), 0);
  }
  await expect(page.getByLabel('Slide in', { exact: true })).toHaveCount(1);
  // Set on the keyframe it is a change by hand: the move lets go of its keyframes.
  if (!(await bead(page, 'Position', 0).isVisible())) await page.getByRole('button', { name: 'Open Ball' }).click();
  await bead(page, 'Position', 0).click();
  const start = page.getByRole('region', { name: 'Ease', exact: true }).getByLabel('Strength at the start');
  await start.click();
  await start.fill('40');
  await start.press('Enter');
  await expect(page.getByLabel('Slide in', { exact: true })).toHaveCount(0);
});

test('a move is adjusted on several layers at once, dragged on the canvas, kept, and taken away', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Moves', [discLayer('a', 'Ball', [300, 80]), discLayer('b', 'Bell', [300, 160])]);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Slide in' }).click();
  const card = page.getByLabel('Slide in', { exact: true });
  await expect(card).toContainText('2 layers');
  await card.getByRole('button', { name: 'Bottom' }).click();
  await setNumber(page, 'Distance of the move', '60');
  expect((await keysOf(page, server, 'Ball'))[0]?.value).toEqual([300, 140]);
  expect((await keysOf(page, server, 'Bell'))[0]?.value).toEqual([300, 220]);
  await page.getByLabel('Name for this move').fill('Tram stop in');
  await page.keyboard.press('Enter');
  await expect(
    page.getByLabel('Moves of this project').getByRole('button', { name: 'Tram stop in', exact: true }),
  ).toBeVisible();

  // The far bead of one layer is dragged: its move takes another way, and can still be adjusted.
  await choose(page, 'Ball');
  await goToFrame(page, 50);
  const far = await middle(page.getByTestId('motion-bead').first());
  await drag(page, far, { x: far.x - 60, y: far.y });
  const from = (await keysOf(page, server, 'Ball'))[0]?.value as Point;
  expect(from[0]).toBeLessThan(280);
  await expect(card).toBeVisible();
  await card.getByRole('button', { name: 'Take this move and its keyframes away' }).click();
  expect(named(await sceneOf(page, server), 'Ball').params.position).toEqual({ value: [300, 80] });
  expect((await keysOf(page, server, 'Bell')).length).toBe(2);
});

test('a layer, and each letter of another, rises from behind its own edge, whatever it says', async ({
  page,
  server,
}) => {
  const font = { family: 'Inter', weight: 800, italic: false };
  const words = newDrawing(
    BLANK,
    'w',
    'Words',
    [newItem('t', 'text', { text: 'HHH', size: 40, font }), newItem('f', 'fill', { color: '#FFB23E' })],
    { position: [300, 120] },
  );
  await openMade(page, server, 'Risen', [words, discLayer('a', 'Moon', [100, 120], '#FFB23E', 80)]);
  const at = await onScene(page, 400, 240);
  const ground = 0x10;
  await choose(page, 'Moon');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Rise from behind', exact: true }).click();
  await page.getByRole('group', { name: 'Ease of the move' }).getByRole('button', { name: 'Linear' }).click();
  await choose(page, 'Words');
  await page.getByRole('radio', { name: 'Letters' }).click();
  await page.getByRole('button', { name: 'Rise from behind', exact: true }).click();
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  // Nothing of either, then half of the disc above its lower end, then all.
  const seen = () => redsOf(page, [at(100, 110), at(100, 130), at(100, 170), at(300, 106)]);
  await goToFrame(page, 0);
  await page.keyboard.press('Escape');
  await expect.poll(seen).toEqual([ground, ground, ground, ground]);
  await goToFrame(page, 10);
  await expect.poll(seen).toEqual([ground, 255, ground, expect.any(Number)]);
  await goToFrame(page, 40);
  await expect.poll(seen).toEqual([255, 255, ground, 255]);
  // Other words, twice as large, come from behind their own edge.
  await choose(page, 'Words');
  await page.getByRole('button', { name: 'Open Text', exact: true }).click();
  await setNumber(page, 'Size', '80');
  await expect.poll(() => redsOf(page, [at(300, 92)])).toEqual([255]);
  await goToFrame(page, 0);
  await expect.poll(() => redsOf(page, [at(300, 70), at(300, 92)])).toEqual([ground, ground]);
  // Taken away the move leaves no wipe behind, and all is there from the first frame.
  await choose(page, 'Moon');
  await page.getByRole('button', { name: 'Take this move and its keyframes away' }).click();
  await expect.poll(() => redsOf(page, [at(100, 110)])).toEqual([255]);
  await saved(page, server);
  expect(itemOf(named(await sceneOf(page, server), 'Moon'), 'wipe')).toBeUndefined();
});

test('outlines are drawn on, on several layers at once, as long as is wanted; what has no stroke is named', async ({
  page,
  server,
}) => {
  const rail = (id: string, name: string, y: number) =>
    newDrawing(
      BLANK,
      id,
      name,
      [
        newItem(`${id}p`, 'line', { from: [-100, 0], to: [100, 0] }),
        newItem(`${id}s`, 'stroke', { width: 10, color: '#FF5D5D' }),
      ],
      { position: [200, y] },
    );
  await openMade(page, server, 'Rails', [
    rail('a', 'Rail', 100),
    rail('b', 'Rail 2', 140),
    discLayer('c', 'Moon', [200, 40]),
  ]);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Draw on' }).click();
  await expect(page.getByText('“Moon” has no stroke to be drawn: add the card Stroke.')).toBeVisible();
  await setNumber(page, 'Frames of the move', '20');
  await page.getByRole('group', { name: 'Ease of the move' }).getByRole('button', { name: 'Linear' }).click();
  await saved(page, server);
  const ends = async () => {
    const scene = await sceneOf(page, server);
    return ['Rail', 'Rail 2'].map((name) => {
      const { params } = itemOf(named(scene, name), 'trim')!;
      return (params.end as KeyedProperty).keys.map(({ frame, value }) => [frame, value]);
    });
  };
  const keyed = (frames: number) => [
    [0, 0],
    [frames, 1],
  ];
  expect(await ends()).toEqual([keyed(20), keyed(20)]);
  await goToFrame(page, 10);
  const at = await onScene(page, 400, 240);
  await page.keyboard.press('Escape');
  // Half of it half-way: the ground shows on the right.
  const ground = 0x10;
  await expect.poll(() => redsOf(page, [at(280, 100), at(280, 140)])).toEqual([ground, ground]);
  expect(await redsOf(page, [at(120, 100), at(120, 140)])).not.toContain(ground);
  // Taken away it leaves no trim behind.
  await choose(page, 'Rail');
  await page.getByRole('button', { name: 'Take this move and its keyframes away' }).click();
  await saved(page, server);
  expect(itemOf(named(await sceneOf(page, server), 'Rail'), 'trim')).toBeUndefined();
  expect(itemOf(named(await sceneOf(page, server), 'Rail 2'), 'trim')).toBeDefined();
});

test('a routine is played by three layers, one after another; a changed step changes all of them', async ({
  page,
  server,
}) => {
  const three = [60, 120, 180].map((y, i) => discLayer(`d${i}`, `Lamp ${i + 1}`, [60, y]));
  await openMade(page, server, 'Routine', three);
  await goToFrame(page, 10);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Moves', exact: true }).click();
  await page.getByRole('button', { name: 'Routine for the selected' }).click();
  const card = page.getByLabel('Routine', { exact: true });
  await expect(card).toContainText('3 layers, 24 frames');
  await setNumber(page, 'Each later by of the routine', '6');
  expect(await framesOf(page, server, 'Lamp 3')).toEqual([22, 34]);
  const second = card.getByLabel('Step 2');
  await second.getByLabel('What the step does').selectOption('colour');
  await second.getByLabel('Gap before the step').fill('-6');
  await page.keyboard.press('Enter');
  await card.getByLabel('Step 1').getByLabel('Move by x').fill('40');
  await page.keyboard.press('Enter');
  const scene = await sceneOf(page, server);
  for (const [i, layer] of inOrder(scene).entries()) {
    expect((layer.params.position as KeyedProperty).keys.map((k) => [k.frame, (k.value as Point)[0]])).toEqual([
      [10 + 6 * i, 60],
      [22 + 6 * i, 100],
    ]);
    const fill = Object.values(named(scene, layer.name).items).find((item) => item.kind === 'fill');
    expect((fill?.params.color as KeyedProperty).keys.map((k) => k.frame)).toEqual([16 + 6 * i, 28 + 6 * i]);
    expect(layer.params.scale).toEqual({ value: [1, 1] });
  }
  await card.getByRole('button', { name: 'Take the routine and its keyframes away' }).click();
  expect(named(await sceneOf(page, server), 'Lamp 2').params.position).toEqual({ value: [60, 120] });
});
