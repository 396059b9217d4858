/** Keyframes, ribbons, the time of layers: what the timeline and its cards do. */
import type { ApartProperty, KeyedProperty, Point, Scene } from '@kite/core/document/types';
import { setScene } from '@kite/core/edits/scenes';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { expect, type Page } from '@playwright/test';
import { drag, goToFrame, middle, saved, setNumber } from './support/editor';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import { inOrder, named, sceneOf } from './support/scene';
import { test } from './support/test';
import { bead, choose, framesOf, keysOf, openRow } from './support/timeline';

/** The page's x of a frame, by the ticks of the ruler being even. */
const xOf = async (page: Page) => {
  const box = await page.getByRole('slider', { name: 'Playhead' }).boundingBox();
  if (!box) throw new Error('no ruler');
  return (frame: number) => box.x + 16 + (frame / BLANK.length) * (box.width - 32);
};

const SOFT = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 } as const;
const ball = [discLayer('a', 'Ball', [40, 120]), discLayer('b', 'Bell', [40, 200], '#2EC4B6')];
const motion = [
  keyed('a', 'position', [
    [10, [40, 120]],
    [30, [200, 60]],
    [50, [360, 120]],
  ]),
  keyed('a', 'opacity', [
    [10, 0],
    [20, 1],
  ]),
];

test('beads are moved, copied, stretched, reversed, pasted on another layer, and typed in', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Beads', ball, ...motion);
  const frames = (key?: string, layer = 'Ball') => framesOf(page, server, layer, key);
  const x = await xOf(page);
  await choose(page, 'Ball');
  await page.keyboard.press('Control+Shift+A');
  await expect(page.getByLabel('Keyframes', { exact: true })).toContainText('5 selected');

  // The end of the selection is dragged from frame 50 to 90: everything in proportion.
  const end = await middle(page.getByTestId('stretch-end'));
  await drag(page, end, { x: end.x + x(90) - x(50), y: end.y });
  expect(await frames()).toEqual([10, 50, 90]);
  expect(await frames('opacity')).toEqual([10, 30]);
  await page.keyboard.press('Control+z');

  // Alt-drag copies; the copies are what is selected.
  const last = await middle(bead(page, 'Opacity', 20));
  await bead(page, 'Opacity', 20).click();
  await page.keyboard.down('Alt');
  await drag(page, last, { x: last.x + x(64) - x(20), y: last.y });
  await page.keyboard.up('Alt');
  expect(await frames('opacity')).toEqual([10, 20, 64]);
  await setNumber(page, 'Frame of the keyframes', '70');
  await setNumber(page, 'Value of the keyframe', '25');
  expect((await keysOf(page, server, 'Ball', 'opacity')).map((k) => [k.frame, k.value])).toEqual([
    [10, 0],
    [20, 1],
    [70, 0.25],
  ]);

  // Reversed about its own middle.
  await bead(page, 'Position', 10).click();
  await bead(page, 'Position', 30).click({ modifiers: ['Shift'] });
  await bead(page, 'Position', 50).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Reverse', exact: true }).first().click();
  expect((await keysOf(page, server, 'Ball')).map((k) => (k.value as Point)[0])).toEqual([360, 200, 40]);

  // Copied to the playhead of another layer.
  await page.keyboard.press('Control+c');
  await choose(page, 'Bell');
  await goToFrame(page, 5);
  await page.keyboard.press('Control+v');
  expect(await frames('position', 'Bell')).toEqual([5, 25, 45]);
  await page.getByRole('button', { name: 'First keys again at the end' }).click();
  const looped = await keysOf(page, server, 'Bell');
  expect([looped.at(-1)?.frame, looped.at(-1)?.value]).toEqual([99, looped[0]?.value]);
  await page.keyboard.press('[');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveValue('5');
});

test('a dragged bead snaps to a marker, Ctrl lets go', async ({ page, server }) => {
  await openMade(page, server, 'Snapping', ball, ...motion);
  const x = await xOf(page);
  await goToFrame(page, 63);
  await page.keyboard.press('m');
  await page.getByTestId('marker').dblclick();
  await page.getByLabel('Marker name').fill('Doors close');
  await page.keyboard.press('Enter');
  await goToFrame(page, 0);
  await page.getByRole('button', { name: 'Open Ball' }).click();
  const from = await middle(bead(page, 'Position', 50));
  // To half a frame beside the marker's.
  await drag(page, from, { x: from.x + x(62.6) - x(50), y: from.y });
  expect(await framesOf(page, server, 'Ball')).toEqual([10, 30, 63]);
  expect((await sceneOf(page, server)).markers.map((m) => [m.frame, m.name])).toEqual([[63, 'Doors close']]);
  const marker = await middle(page.getByTestId('marker'));
  await drag(page, marker, { x: marker.x + x(80) - x(63), y: marker.y });
  expect((await sceneOf(page, server)).markers[0]?.frame).toBe(80);
});

test('ten layers are keyed with one command', async ({ page, server }) => {
  const ten = Array.from({ length: 10 }, (_, i) => discLayer(`d${i}`, `Lamp ${i + 1}`, [20 + i * 36, 60]));
  await openMade(page, server, 'Ten', ten);
  await goToFrame(page, 12);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Keyframes at the playhead' }).click();
  await page.getByRole('menuitem', { name: 'Key all four' }).click();
  const scene = await sceneOf(page, server);
  for (const layer of inOrder(scene)) {
    for (const key of ['position', 'scale', 'rotation', 'opacity']) {
      expect((layer.params[key] as KeyedProperty).keys.map((k) => k.frame)).toEqual([12]);
    }
  }
  // Once they are animated, K keys all of it again elsewhere.
  await goToFrame(page, 40);
  await page.keyboard.press('k');
  expect(await framesOf(page, server, 'Lamp 10', 'rotation')).toEqual([12, 40]);
  await page.keyboard.press('Control+z');
  expect(await framesOf(page, server, 'Lamp 10', 'rotation')).toEqual([12]);
});

test('layers are split, stretched, shifted, extended and reversed', async ({ page, server }) => {
  await openMade(page, server, 'Time', ball, ...motion);
  await choose(page, 'Ball');
  await goToFrame(page, 40);
  const before = await sceneOf(page, server);
  await page.keyboard.press('/');
  const split = await sceneOf(page, server);
  expect(inOrder(split).map((l) => [l.name, l.from, l.to])).toEqual([
    ['Ball 2', 40, 100],
    ['Ball', 0, 40],
    ['Bell', 0, 100],
  ]);
  const marks = (scene: typeof before, frame: number) =>
    JSON.stringify(compileScene(scene, NO_LIBRARY).at(frame).marks);
  for (const frame of [12, 39, 40, 71]) expect(marks(split, frame)).toBe(marks(before, frame));

  await choose(page, 'Ball');
  await page.getByRole('button', { name: 'Extend' }).click();
  expect(named(await sceneOf(page, server), 'Ball').to).toBe(100);
  await setNumber(page, 'Shift by', '6');
  expect(await framesOf(page, server, 'Ball')).toEqual([16, 36, 56]);
  await setNumber(page, 'Stretch to', '50');
  const half = named(await sceneOf(page, server), 'Ball');
  expect([half.from, half.to, await framesOf(page, server, 'Ball')]).toEqual([6, 56, [11, 21, 31]]);
  await page.getByLabel('Time', { exact: true }).getByRole('button', { name: 'Reverse' }).click();
  expect(await framesOf(page, server, 'Ball')).toEqual([30, 40, 50]);
});

test('twelve lamp rays come one after another from the centre', async ({ page, server }) => {
  const rays = Array.from({ length: 12 }, (_, i) => discLayer(`r${i}`, `Ray ${i + 1}`, [20 + i * 30, 120]));
  await openMade(
    page,
    server,
    'Rays',
    rays,
    ...rays.map((ray) =>
      keyed(ray.id, 'scale', [
        [0, [0, 0]],
        [10, [1, 1]],
      ]),
    ),
  );
  await page.keyboard.press('Control+a');
  const card = page.getByLabel('Stagger', { exact: true });
  await card.getByRole('combobox').first().selectOption('centre');
  await setNumber(page, 'Stagger step', '3');
  const starts = async () => inOrder(await sceneOf(page, server)).map((l) => l.from);
  expect(await starts()).toEqual([15, 12, 9, 6, 3, 0, 0, 3, 6, 9, 12, 15]);
  expect(await framesOf(page, server, 'Ray 1', 'scale')).toEqual([15, 25]);
  await page.keyboard.press('Control+z');

  // The keyframes alone: the layers stay.
  await page.keyboard.press('Control+Shift+A');
  await setNumber(page, 'Stagger step', '2');
  expect(await starts()).toEqual(Array.from({ length: 12 }, () => 0));
  expect(await framesOf(page, server, 'Ray 12', 'scale')).toEqual([10, 20]);
});

test('copies come a step later each', async ({ page, server }) => {
  await openMade(page, server, 'Copies', [ball[0]!], motion[0]!);
  await choose(page, 'Ball');
  await setNumber(page, 'Stagger step', '4');
  await setNumber(page, 'Copies to make', '3');
  await page.getByRole('button', { name: 'Make copies' }).click();
  const made = inOrder(await sceneOf(page, server));
  expect(made.map((l) => [l.name, l.from])).toEqual([
    ['Ball', 0],
    ['Ball 2', 4],
    ['Ball 3', 8],
    ['Ball 4', 12],
  ]);
});

test('the stops of a route leave one after another along its curve, at one pace', async ({ page, server }) => {
  const stops = ['Saltings', 'Ropewalk', 'Quill Square'].map((name, i) => discLayer(`s${i}`, name, [40, 200]));
  const way = [
    [0, [40, 200]],
    [30, [200, 60]],
    [60, [360, 200]],
  ] as const;
  await openMade(page, server, 'Route', stops, ...stops.map((s) => keyed(s.id, 'position', way)));
  await choose(page, 'Saltings');
  const beads = page.getByTestId('motion-bead');
  await expect(beads).toHaveCount(3);
  expect(await page.getByTestId('motion-dot').count()).toBe(61);
  await beads.nth(1).dblclick();
  const curved = (await keysOf(page, server, 'Saltings'))[1];
  expect(curved?.handles).toBeDefined();
  // A handle is pulled: the other one turns along in one line with it.
  const tip = await middle(page.getByTestId('motion-handle-out'));
  await drag(page, tip, { x: tip.x, y: tip.y - 40 });
  const [inX, inY, outX, outY] = (await keysOf(page, server, 'Saltings'))[1]?.handles ?? [0, 0, 0, 0];
  expect(outY).toBeLessThan(-10);
  expect(Math.abs(inX * outY - inY * outX)).toBeLessThan(0.02 * Math.hypot(inX, inY) * Math.hypot(outX, outY));

  // Of several that are selected all are pulled as far.
  await page.keyboard.press('Control+Shift+A');
  const before = (await keysOf(page, server, 'Saltings')).map((k) => k.handles ?? [0, 0, 0, 0]);
  const grip = await middle(page.getByTestId('motion-handle-out').first());
  await drag(page, grip, { x: grip.x + 12, y: grip.y });
  const pulled = (await keysOf(page, server, 'Saltings')).map((k) => k.handles ?? [0, 0, 0, 0]);
  const ways = pulled.map((handles, i) => handles[2] - (before[i]?.[2] ?? 0));
  expect(ways[1]).toBeGreaterThan(5);
  ways.forEach((way) => expect(way).toBeCloseTo(ways[1] ?? 0, 0));
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+Shift+A');
  await page.getByRole('button', { name: 'Ease Linear' }).click();
  await page.getByLabel('One pace along the whole path').check();
  const scene = await sceneOf(page, server);
  const program = compileScene(scene, NO_LIBRARY);
  const place = (frame: number) => program.matrixAt('s0', frame).slice(4) as unknown as Point;
  const steps = Array.from({ length: 59 }, (_, f) =>
    Math.hypot(place(f + 1)[0] - place(f)[0], place(f + 1)[1] - place(f)[1]),
  );
  const mean = steps.reduce((a, b) => a + b) / steps.length;
  // Chords of a curve are a little shorter than its arcs.
  expect(Math.max(...steps) / mean).toBeLessThan(1.005);

  await page.keyboard.press('Control+c');
  await choose(page, 'Ropewalk', 'Quill Square');
  await goToFrame(page, 0);
  await page.keyboard.press('Control+v');
  expect((await keysOf(page, server, 'Quill Square'))[1]?.handles).toEqual([inX, inY, outX, outY]);
  await choose(page, 'Saltings', 'Ropewalk', 'Quill Square');
  await setNumber(page, 'Stagger step', '8');
  expect(await framesOf(page, server, 'Quill Square')).toEqual([16, 46, 76]);
});

test('x and y go apart and together, and the curves show each by itself', async ({ page, server }) => {
  await openMade(page, server, 'Apart', ball, ...motion);
  await choose(page, 'Ball');
  await page.getByRole('button', { name: 'Open Ball' }).click();
  await bead(page, 'Position', 10).click();
  await page.getByRole('button', { name: 'Take x and y apart' }).click();
  await expect(bead(page, 'Position y', 30)).toBeVisible();
  await bead(page, 'Position y', 30).click();
  await setNumber(page, 'Value of the keyframe', '20');
  const position = named(await sceneOf(page, server), 'Ball').params.position as ApartProperty;
  expect(position.parts.map((p) => (p as KeyedProperty).keys.map((k) => k.value))).toEqual([
    [40, 200, 360],
    [120, 20, 120],
  ]);
  await page.getByRole('button', { name: 'Bring x and y together' }).click();
  expect((await keysOf(page, server, 'Ball')).map((k) => k.value)).toEqual([
    [40, 120],
    [200, 20],
    [360, 120],
  ]);
});

test('speed is edited by its handles: the values stay, and zero is snapped to', async ({ page, server }) => {
  await openMade(
    page,
    server,
    'Speed',
    [ball[0]!],
    keyed('a', 'rotation', [
      [20, 0, { kind: 'linear' }],
      [60, 90],
    ]),
  );
  await choose(page, 'Ball');
  await page.keyboard.press('c');
  await expect(page.getByTestId('curve')).toHaveCount(1);
  await page.getByRole('radio', { name: 'Speed' }).click();
  const handle = page.getByTestId('curve-handle').first();
  const at = await middle(handle);
  await drag(page, at, { x: at.x + 20, y: at.y - 40 });
  const steep = (await keysOf(page, server, 'Ball', 'rotation'))[0]?.ease;
  if (steep?.kind !== 'bezier') throw new Error('no curve');
  expect(steep.y1 / steep.x1).toBeGreaterThan(1.1);
  // Back to nearly nothing: it snaps to a standstill.
  const up = await middle(page.getByTestId('curve-handle').first());
  const zero = await middle(page.getByText('0°/s', { exact: true }));
  // The label stands on its line.
  await drag(page, up, { x: up.x, y: zero.y + 5 });
  const keys = await keysOf(page, server, 'Ball', 'rotation');
  expect(keys[0]?.ease).toMatchObject({ kind: 'bezier', y1: 0 });
  expect(keys.map((k) => k.value)).toEqual([0, 90]);

  await page.getByRole('radio', { name: 'Value' }).click();
  const bead = page.getByTestId('curve-bead').last();
  const end = await middle(bead);
  await page.keyboard.down('Shift');
  await drag(page, end, { x: end.x, y: end.y + 30 });
  await page.keyboard.up('Shift');
  const lower = (await keysOf(page, server, 'Ball', 'rotation'))[1];
  expect(lower?.frame).toBe(60);
  expect(lower?.value as number).toBeLessThan(85);
});

test('keyframes that would lie on one another are one bead, which is all of them, and have their own where there is room', async ({
  page,
  server,
}) => {
  const long = 3000;
  const tracked = Array.from({ length: long / 2 }, (_, k) => [2 * k, Math.round(40 * Math.sin(k / 9)), SOFT] as const);
  await openMade(page, server, 'Tracked', [ball[0]!], setScene('s', { length: long }), keyed('a', 'rotation', tracked));
  await choose(page, 'Ball');
  await openRow(page, 'Ball');
  const heap = page.getByRole('button', { name: /^\d+ keyframes of Turn from 0 to \d+$/ });
  const count = Number(/^\d+/.exec((await heap.getAttribute('aria-label')) ?? '')?.[0]);
  expect(count).toBeGreaterThan(2);
  await heap.click();
  await expect(heap).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Delete');
  expect(await framesOf(page, server, 'Ball', 'rotation')).toEqual(tracked.map(([frame]) => frame).slice(count));
  await page.keyboard.press('Control+z');

  await page.keyboard.press('c');
  await expect(page.getByTestId('curve')).toHaveCount(1);
  const heaps = page.getByTestId('curve-bead').filter({ has: page.locator('title') });
  await expect(heaps.first()).toBeVisible();
  await expect(page.getByTestId('curve-handle')).toHaveCount(0);
  const hint = page.getByText('Zoom in on the time for the handles of eases');
  await expect(hint).toBeVisible();
  // One that was a heap before has a bead and handles of its own once there is room for them.
  for (let n = 0; n < 12; n++) await page.keyboard.press('=');
  await expect(page.getByTestId('curve-handle').first()).toBeVisible();
  await expect(hint).toHaveCount(0);
  await expect(heaps).toHaveCount(0);
  await expect(page.getByTestId('curve-bead').first()).toHaveAttribute('aria-label', /^Keyframe of Ball · Turn at/);
});

test('colours flash over a range, and the span turns so many times', async ({ page, server }) => {
  await openMade(
    page,
    server,
    'Flash',
    [ball[0]!],
    keyed('a', 'rotation', [
      [0, 0],
      [40, 90],
    ]),
  );
  await choose(page, 'Ball');
  await page
    .getByLabel('Card Fill', { exact: true })
    .getByRole('button', { name: /Open|Fill/ })
    .first()
    .click();
  await goToFrame(page, 10);
  await page.getByRole('button', { name: /^Colour: Animate/ }).click();
  await openRow(page, 'Ball');
  await bead(page, 'Fill · colour', 10).click();
  await setNumber(page, 'Frames of each colour', '5');
  await page.getByRole('button', { name: /^Flash, frames 10 to 99/ }).click();
  const item = Object.values(named(await sceneOf(page, server), 'Ball').items).find((i) => i.kind === 'fill');
  const keys = (item?.params.color as KeyedProperty).keys;
  // What is before it stays, and what it made is selected.
  expect(keys.slice(0, 4).map((k) => [k.frame, k.value, k.ease.kind])).toEqual([
    [9, '#FFB23E', 'hold'],
    [10, '#FFFFFF', 'hold'],
    [15, '#000000', 'hold'],
    [20, '#FFFFFF', 'hold'],
  ]);
  await expect(bead(page, 'Fill · colour', 95)).toHaveAttribute('aria-pressed', 'true');
  await expect(bead(page, 'Fill · colour', 9)).toHaveAttribute('aria-pressed', 'false');
  await bead(page, 'Turn', 0).click();
  await setNumber(page, 'Turns of this span', '-3');
  expect((await keysOf(page, server, 'Ball', 'rotation')).map((k) => k.value)).toEqual([0, -1080]);
});

test('beads of several scenes are swept together, moved, and copied from one to the other', async ({
  page,
  server,
}) => {
  await openMade(page, server, 'Two sizes', ball, ...motion);
  const other = async () => {
    const project = await saved(page, server);
    const scene = project.scenes[project.order[1] as string] as Scene;
    return (named(scene, 'Ball').params.position as KeyedProperty).keys.map((k) => k.frame);
  };
  await page.getByRole('button', { name: 'Scene Test: more' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await page.getByRole('button', { name: 'Scene Test', exact: true }).click();
  await page.getByRole('button', { name: 'Open Ball' }).click();
  await page.getByRole('button', { name: 'Ribbons of the other scenes too' }).click();
  await page.getByRole('button', { name: 'Open the scene Test 2' }).click();
  await expect(bead(page, 'Position', 30)).toHaveCount(2);

  // From left of the first ribbon's beads to the right of the last row, over both scenes.
  const x = await xOf(page);
  const top = await middle(bead(page, 'Position', 10).first());
  const rows = await page.getByTestId('ribbon-row').last().boundingBox();
  if (!rows) throw new Error('no ribbons');
  await drag(page, { x: x(5), y: top.y - 14 }, { x: x(96), y: rows.y + rows.height - 2 });
  await expect(page.getByLabel('Keyframes', { exact: true })).toContainText('10 selected');
  await setNumber(page, 'Frame of the keyframes', '15');
  expect([await framesOf(page, server, 'Ball'), await other()]).toEqual([
    [15, 35, 55],
    [15, 35, 55],
  ]);
  await page.keyboard.press('Control+z');
  expect(await other()).toEqual([10, 30, 50]);

  // A bead of the other scene alone; copied, it comes to the layer that is selected here.
  await bead(page, 'Position', 50).last().click();
  await page.keyboard.press('Control+c');
  await goToFrame(page, 80);
  await choose(page, 'Bell');
  await page.keyboard.press('Control+v');
  expect(await framesOf(page, server, 'Bell')).toEqual([80]);
  await bead(page, 'Position', 30).last().click();
  await page.keyboard.press('Delete');
  expect([await framesOf(page, server, 'Ball'), await other()]).toEqual([
    [10, 30, 50],
    [10, 50],
  ]);
});
