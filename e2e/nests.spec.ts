/** Scenes played inside scenes. */
import { expect } from '@playwright/test';
import { newKnob } from '@kite/core/document/knobs';
import { newController, newNest, newProject as emptyProject } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import { setFormula } from '@kite/core/edits/formulas';
import { addKnob } from '@kite/core/edits/knobs';
import { addLayers } from '@kite/core/edits/layers';
import { addMarker } from '@kite/core/edits/markers';
import { addScene } from '@kite/core/edits/scenes';
import { setKnobHere } from '@kite/core/edits/settings';
import { writeArchive } from '@kite/core/interchange/archive';
import { addCard, goToFrame, middle, onScene, saved } from './support/editor';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import { readPng } from './support/media';
import { pixel, redsOf } from './support/scene';
import { test } from './support/test';

const GROUND = [16, 19, 46];

test('layers are nested, played twice as fast, opened, and rendered as they are shown', async ({ page, server }) => {
  const project = await openMade(
    page,
    server,
    'Nest',
    [discLayer('a', 'Ball', [40, 120]), discLayer('b', 'Bell', [40, 200])],
    keyed('a', 'position', [
      [0, [40, 120], { kind: 'linear' }],
      [80, [360, 120]],
    ]),
  );
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 30);
  const ball = await pixel(page, at(160, 120));
  expect(ball[0]).toBeGreaterThan(200);
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Ball', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Nest in a scene of their own' }).click();
  const doc = await saved(page, server);
  expect(doc.order.length).toBe(2);
  expect(doc.scenes.s?.order.length).toBe(1);
  await goToFrame(page, 41);
  await goToFrame(page, 30);
  expect(await pixel(page, at(160, 120))).toEqual(ball);

  // Twice as fast: at frame 15 it is where it was at frame 30.
  const card = page.getByLabel('Card Nest', { exact: true });
  await card.getByLabel('Speed', { exact: true }).fill('200');
  await page.keyboard.press('Enter');
  await goToFrame(page, 15);
  await expect.poll(() => pixel(page, at(160, 120))).toEqual(ball);
  await saved(page, server);
  const settings = { format: 'png', scale: 1, frame: 15 };
  const { body } = await server.api<{ id: string }>('POST', '/renders', { project, scene: 's', settings });
  const state = async () =>
    (await server.api<{ id: string; status: string }[]>('GET', '/renders')).body.find((r) => r.id === body.id)?.status;
  await expect.poll(state).toBe('done');
  const { data, width } = await readPng(await server.bytes(`/renders/${body.id}/file`));
  const colour = (x: number, y: number) => [...data.slice((y * width + x) * 4, (y * width + x) * 4 + 3)];
  expect([colour(160, 120), colour(120, 120)]).toEqual([ball, GROUND]);

  // Backwards, then one frame for good.
  await card.getByLabel('Plays', { exact: true }).selectOption('freeze');
  await card.getByLabel('Frame', { exact: true }).fill('80');
  await page.keyboard.press('Enter');
  await expect.poll(() => pixel(page, at(360, 120))).toEqual(ball);
  await page.getByRole('button', { name: 'Open this scene' }).click();
  await expect(page.getByRole('group', { name: 'Layer Bell', exact: true })).toBeVisible();

  // It stands beside the others.
  const strip = page.getByRole('button', { name: 'Scene Test part', exact: true });
  await expect(strip).toBeVisible();
});

test('a nest is repeated with a delay, a card says why it does nothing, and another scene or file is chosen', async ({
  page,
  server,
}) => {
  await openMade(
    page,
    server,
    'Repeated',
    [discLayer('a', 'Ball', [40, 60])],
    keyed('a', 'position', [
      [0, [40, 60], { kind: 'linear' }],
      [80, [360, 60]],
    ]),
  );
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 40);
  const ball = await pixel(page, at(200, 60));
  await page.keyboard.press('Control+a');
  const row = await middle(page.getByRole('group', { name: 'Layer Ball', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Nest in a scene of their own' }).click();
  await expect(page.getByLabel('Card Nest', { exact: true })).toBeVisible();

  await addCard(page, 'Repeater');
  const repeater = page.getByLabel('Card Repeater', { exact: true });
  for (const [label, value] of [
    ['Copies', '2'],
    ['Copy delay', '20'],
    ['Move x', '0'],
    ['Move y', '100'],
  ] as const) {
    await repeater.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press('Enter');
  }
  // Four pixels a frame: the copy below is 80 behind.
  await expect.poll(() => pixel(page, at(120, 160))).toEqual(ball);
  expect([await pixel(page, at(200, 60)), await pixel(page, at(200, 160))]).toEqual([ball, GROUND]);

  await addCard(page, 'Trim');
  await expect(page.getByText('It works on outlines. Above it there are pictures alone')).toBeVisible();
  await addCard(page, 'Picture');
  const picture = page.getByLabel('Card Picture', { exact: true });
  await expect(picture.getByLabel('File', { exact: true }).locator('option')).toHaveText(['Nothing imported yet']);

  // A scene that would play itself is not offered.
  await page.getByRole('button', { name: 'Open Nest', exact: true }).click();
  const nest = page.getByLabel('Card Nest', { exact: true });
  await expect(nest.getByLabel('Scene', { exact: true }).locator('option')).toHaveText(['Ball']);
  await nest.getByRole('button', { name: 'Open this scene' }).click();
  await expect(page.getByRole('group', { name: 'Layer Ball', exact: true })).toBeVisible();
});

test('one scene is nested five times in five colours by its knob, follows the scene in the rest, and gets a copy of its own', async ({
  page,
  server,
}) => {
  const size = { width: 60, height: 60, rate: BLANK.rate, length: 100, background: null };
  const petal = discLayer('petal', 'Petal', [30, 30], '#FFFFFF', 40);
  const knobs = [
    newKnob('tone', 'color', 'Tone'),
    newKnob('wide', 'number', 'Wide'),
    newKnob('beat', 'number', 'Beat'),
  ];
  const doc = [
    addScene('petals', 'Petal scene', size),
    addLayers('petals', [petal, newController(BLANK, 'rig', 'Rig')]),
    ...knobs.map((knob) =>
      addKnob('petals', 'rig', { ...knob, params: { value: { value: knob.kind === 'color' ? '#FFFFFF' : 40 } } }),
    ),
    setFormula({ scene: 'petals', layer: 'petal', item: 'petalf', key: 'color' }, '{@rig/tone/value}'),
    setFormula({ scene: 'petals', layer: 'petal', item: 'petale', key: 'width' }, '{@rig/wide/value}'),
    setFormula({ scene: 'petals', layer: 'rig', item: 'beat', key: 'value' }, 'frame * 2 + 500'),
    addLayers(
      's',
      [0, 1, 2, 3, 4].map((i) => newNest(BLANK, `n${i}`, `Flower ${i}`, 'petals', { position: [60 + 70 * i, 120] })),
    ),
  ].reduce((now, edit) => applyEdit(now, edit).doc, emptyProject('p', 'Petals', [BLANK]));
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  await page.goto(`${server.url}/projects/${body.id}`);
  await expect(page.getByTestId('layer-row')).toHaveCount(5);
  const at = await onScene(page, 400, 240);
  // Beside the mark of the pivot.
  const red = () =>
    redsOf(
      page,
      [0, 1, 2, 3, 4].map((i) => at(52 + 70 * i, 112)),
    );
  await expect.poll(red).toEqual([255, 255, 255, 255, 255]);
  const tones = ['#E00000', '#C00000', '#A00000', '#800000', '#600000'];
  const choose = (i: number) =>
    page
      .getByRole('group', { name: `Layer Flower ${i}`, exact: true })
      .getByText(`Flower ${i}`)
      .first()
      .click();
  for (const [i, tone] of tones.entries()) {
    await choose(i);
    const inside = page.getByRole('region', { name: 'Knobs of Petal scene' });
    await expect(inside.getByText('Played by 5 layers')).toBeVisible();
    await inside.getByLabel('Tone: a value of its own').check();
    await inside.getByRole('button', { name: 'Tone', exact: true }).click();
    await page.getByLabel('Tone, as hex').fill(tone);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
  }
  await expect.poll(red).toEqual([0xe0, 0xc0, 0xa0, 0x80, 0x60]);

  // A knob that the nest leaves alone shows what it has inside, at the playhead.
  await goToFrame(page, 7);
  await expect(page.getByRole('region', { name: 'Knobs of Petal scene' }).getByText('514')).toBeVisible();
  await goToFrame(page, 0);

  // Without its own it follows the scene again; undone, it has it again.
  const inside = page.getByRole('region', { name: 'Knobs of Petal scene' });
  await inside.getByLabel('Tone: a value of its own').uncheck();
  await expect.poll(red).toEqual([0xe0, 0xc0, 0xa0, 0x80, 255]);
  await page.keyboard.press('Control+z');
  await expect.poll(red).toEqual([0xe0, 0xc0, 0xa0, 0x80, 0x60]);

  // A change inside shows in all, but in the one with a scene of its own.
  await choose(0);
  await inside.getByRole('button', { name: 'Own copy' }).click();
  await expect(
    page.getByRole('region', { name: 'Knobs of Petal scene 2' }).getByText('Played here alone'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Scene Petal scene', exact: true }).click();
  await page.getByLabel('Wide', { exact: true }).fill('4');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Scene Test', exact: true }).click();
  const beside = () =>
    redsOf(
      page,
      [0, 1, 4].map((i) => at(60 + 70 * i + 10, 120)),
    );
  await expect.poll(beside).toEqual([0xe0, 16, 16]);
});

test('a layer is cut into four shots, wide, close, medium and back, or at the markers', async ({ page, server }) => {
  await openMade(
    page,
    server,
    'Shots',
    [discLayer('a', 'Bell', [200, 120], '#FFB23E', 60)],
    addMarker('s', { id: 'm', frame: 40, name: 'Close' }),
  );
  const at = await onScene(page, 400, 240);
  // Inside of the disc only where it is larger: by 1.35 and by 1.8.
  const shown = async () => {
    const pixels = await Promise.all([at(237, 120), at(249, 120)].map((spot) => pixel(page, spot)));
    return pixels.map(([red = 0]) => red > 200).join();
  };
  const choose = async (entry: string) => {
    const row = await middle(page.getByRole('group', { name: 'Layer Bell', exact: true }));
    await page.mouse.click(row.x - 300, row.y, { button: 'right' });
    await page.getByRole('menuitem', { name: entry }).click();
  };
  await choose('Cut into four shots');
  await expect(page.getByTestId('layer-row')).toHaveCount(4);
  await page.keyboard.press('Escape');
  for (const [frame, wanted] of [
    [10, 'false,false'],
    [30, 'true,true'],
    [60, 'true,false'],
    [90, 'false,false'],
  ] as const) {
    await goToFrame(page, frame);
    await expect.poll(shown).toBe(wanted);
  }
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  await choose('Cut into shots at the markers');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await goToFrame(page, 45);
  await expect.poll(shown).toBe('true,true');
});

test('a nest is opened in its place: with its knobs, what is behind and in front of it faint, at the frame that was seen, and the way back', async ({
  page,
  server,
}) => {
  const inner = { ...BLANK, id: 'in', name: 'Inside', width: 100, height: 100, background: null };
  const ball = discLayer('ball', 'Ball', [50, 50], '#FFFFFF', 40);
  const colour = { ...newKnob('colour', 'color', 'Colour'), params: { value: { value: '#FFFFFF' } } };
  const nested = {
    ...newNest(BLANK, 'n', 'Nest', 'in'),
    params: { position: { value: [200, 120] as const }, scale: { value: [2, 2] as const } },
  };
  const edits = [
    addLayers('in', [newController(inner, 'rig', 'Rig'), ball]),
    addKnob('in', 'rig', colour),
    setFormula({ scene: 'in', layer: 'ball', item: 'ballf', key: 'color' }, '{@rig/colour/value}'),
    addLayers('s', [
      discLayer('front', 'Front', [60, 120], '#FFFFFF', 40),
      discLayer('over', 'Over', [225, 120], '#FFFFFF', 20),
      nested,
      discLayer('under', 'Under', [190, 120], '#FFFFFF', 20),
      discLayer('back', 'Back', [340, 120], '#FFFFFF', 40),
    ]),
    setKnobHere({ scene: 's', layer: 'n', item: nested.recipe[0] as string }, colour, '#FFB23E', 'own'),
  ];
  const project = edits.reduce(
    (doc, edit) => applyEdit(doc, edit).doc,
    emptyProject('p', 'In place', [{ ...BLANK, background: '#101010' }, inner]),
  );
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map()));
  await page.goto(`${server.url}/projects/${body.id}`);
  await goToFrame(page, 30);
  await page.keyboard.press('Escape');
  const at = await onScene(page, 400, 240);
  await page.mouse.dblclick(at(200, 120).x, at(200, 120).y);
  await expect(page.getByRole('group', { name: 'Layer Ball', exact: true })).toBeVisible();
  const bar = page.getByRole('group', { name: 'Seen in its place' });
  await expect(bar).toContainText('“Inside” in its place in “Test”, with the knob set there');
  await expect(page.getByTestId('picture')).toHaveAttribute('data-frame', '30');
  // The scene inside is as large as life; around it the other stands at half its size.
  const inside = await onScene(page, 100, 100);
  await expect.poll(() => pixel(page, inside(50, 40))).toEqual([0xff, 0xb2, 0x3e]);
  const around = (x: number, y: number) => pixel(page, inside(x, y));
  const [front, back, ground] = [await around(-20, 50), await around(120, 50), await around(-20, 80)];
  // What is in front covers the scene itself, faintly; what is behind doesn't.
  const orange = [0xff, 0xb2, 0x3e];
  const mixed = await around(62, 50);
  mixed.forEach((v, c) => expect(Math.abs(v - (orange[c]! * 0.7 + 255 * 0.3))).toBeLessThanOrEqual(2));
  expect(await around(45, 50)).toEqual(orange);
  expect(Math.abs(front[0]! - ground[0]! - 0.3 * (255 - ground[0]!))).toBeLessThanOrEqual(2);
  // White and nearly black, at three tenths.
  expect(Math.abs(back[0]! - ground[0]! - 0.3 * (255 - 16))).toBeLessThanOrEqual(2);

  // What is done inside is done to the scene; then back to where one came from.
  await page.getByRole('group', { name: 'Layer Ball', exact: true }).click({ position: { x: 90, y: 12 } });
  await goToFrame(page, 42);
  await bar.getByRole('button', { name: 'Back' }).click();
  await expect(page.getByRole('group', { name: 'Layer Nest', exact: true })).toBeVisible();
  await expect(page.getByLabel('Frame', { exact: true })).toHaveValue('42');
  await expect(page.getByLabel('Card Nest', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Open this scene' }).click();
  await expect(page.getByRole('group', { name: 'Layer Ball', exact: true })).toBeVisible();
  await expect(bar).toBeHidden();
});
