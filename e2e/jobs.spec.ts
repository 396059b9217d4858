/** Jobs of docs/jobs.md, walked as they are told there, their presses, drags and typed values counted. */
import type { KeyedProperty } from '@kite/core/document/types';
import { expect, type Locator, type Page } from '@playwright/test';
import { drag, middle as middleOf, newProject, onScene, saved, setNumber } from './support/editor';
import { disc, importFiles, inOrder, itemOf, named, sceneOf } from './support/scene';
import { test } from './support/test';
import { framesOf } from './support/timeline';

type Place = { x: number; y: number };

/** Does what a hand does, and counts it. */
class Hand {
  presses = 0;
  drags = 0;
  typed = 0;
  constructor(private readonly page: Page) {}

  async press(what: Locator | Place, button: 'left' | 'right' = 'left'): Promise<void> {
    this.presses++;
    await ('x' in what ? this.page.mouse.click(what.x, what.y, { button }) : what.click({ button }));
  }
  /** A key pressed counts as a press. */
  async key(keys: string): Promise<void> {
    this.presses++;
    await this.page.keyboard.press(keys);
  }
  async button(name: string): Promise<void> {
    await this.press(this.page.getByRole('button', { name, exact: true }).first());
  }
  async item(name: string): Promise<void> {
    await this.press(this.page.getByRole('menuitem', { name, exact: true }));
  }
  async drag(from: Place, to: Place): Promise<void> {
    this.drags++;
    await drag(this.page, from, to);
  }
  /** A value typed into a field, with the Enter that ends it. */
  async type(label: string, value: string, within: Page | Locator = this.page): Promise<void> {
    this.typed++;
    await setNumber(within, label, value);
  }
  async choose(label: string, option: string): Promise<void> {
    this.presses++;
    await this.page.getByRole('combobox', { name: label, exact: true }).selectOption(option);
  }
  async words(text: string): Promise<void> {
    this.typed++;
    await this.page.keyboard.type(text);
  }
  get count() {
    return { presses: this.presses, drags: this.drags, typed: this.typed };
  }
}

const start = async (page: Page, server: Parameters<typeof newProject>[1], name: string) => {
  await newProject(page, server, name, 'Medium rectangle');
  return { hand: new Hand(page), at: await onScene(page, 300, 250) };
};

test('a dot burst', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Burst');
  await hand.key('e');
  await hand.drag(at(144, 119), at(156, 131));
  await hand.button('Add a card');
  await hand.item('Repeater');
  await hand.choose('Layout', 'circle');
  await hand.type('Copies', '12');
  await hand.type('Radius', '0');
  await hand.button('Radius: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '20');
  await hand.type('Radius', '100');
  await hand.button('Opacity: Animate: add a keyframe here');
  await hand.type('Frame', '30');
  await hand.type('Opacity', '0');
  const dot = named(await sceneOf(page, server), 'Ellipse');
  expect((itemOf(dot, 'repeater').params.radius as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [20, 100],
  ]);
  expect((dot.params.opacity as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [20, 1],
    [30, 0],
  ]);
  expect(hand.count).toEqual({ presses: 7, drags: 1, typed: 6 });
});

test('three words, one after another, and one of them swapped late', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Words');
  await hand.key('t');
  await hand.press(at(150, 125));
  await hand.words('Last tram tonight');
  await hand.key('Escape');
  await hand.button('Moves');
  await hand.press(page.getByRole('radio', { name: 'Words' }));
  await hand.button('Rise in');
  const card = async () => itemOf(named(await sceneOf(page, server), 'Last tram tonight'), 'letters');
  const before = await card();
  expect(before.params).toMatchObject({ by: { value: 'words' } });
  const text = page.getByLabel('Card Text', { exact: true });
  await hand.press(text.getByRole('button', { name: 'Open Text' }));
  hand.typed++;
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('First tram tonight');
  await page.getByRole('textbox', { name: 'Text', exact: true }).blur();
  const [layer] = inOrder(await sceneOf(page, server));
  expect(layer?.kind === 'drawing' && itemOf(layer, 'text').params.text).toEqual({ value: 'First tram tonight' });
  expect(layer?.kind === 'drawing' && itemOf(layer, 'letters').params).toEqual(before.params);
  expect(hand.count).toEqual({ presses: 7, drags: 0, typed: 2 });
});

test('a title that rises from behind its line', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Risen');
  await hand.key('t');
  await hand.press(at(150, 125));
  await hand.words('Ride home easy');
  await hand.key('Escape');
  await hand.button('Moves');
  await hand.press(page.getByRole('radio', { name: 'Letters' }));
  await hand.button('Rise from behind');
  const { params } = itemOf(named(await sceneOf(page, server), 'Ride home easy'), 'letters');
  expect((params.behind as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 1],
    [20, 0],
  ]);
  expect(hand.count).toEqual({ presses: 6, drags: 0, typed: 1 });
});

test('a routine on four boxes', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Routine');
  for (let i = 0; i < 4; i++) {
    await hand.key('r');
    await hand.drag(at(20, 20 + 55 * i), at(60, 60 + 55 * i));
  }
  await hand.key('Control+a');
  await hand.button('Moves');
  await hand.button('Routine for the selected');
  const card = page.getByLabel('Routine', { exact: true });
  await hand.type('Move by x', '180');
  await hand.press(card.getByLabel('Step 2').getByLabel('What the step does'));
  await card.getByLabel('Step 2').getByLabel('What the step does').selectOption('turn');
  await hand.type('Turn by', '90');
  await hand.type('Each later by of the routine', '6');
  const scene = await sceneOf(page, server);
  expect(scene.routines[0]).toMatchObject({ stagger: 6, players: { length: 4 } });
  for (const [i, { name }] of inOrder(scene).entries()) {
    expect((await framesOf(page, server, name))[0]).toBe(6 * i);
    expect(await framesOf(page, server, name, 'rotation')).toEqual([12 + 6 * i, 24 + 6 * i]);
  }
  expect(hand.count).toEqual({ presses: 8, drags: 4, typed: 3 });
});

test('a strip of bars, each some frames after the one above it', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Strip');
  await hand.key('r');
  await hand.drag(at(20, 20), at(80, 40));
  await hand.button('Add a card');
  await hand.item('Repeater');
  await hand.type('Copies', '6');
  await hand.type('Move x', '0');
  await hand.type('Move y', '36');
  await hand.type('Copy delay', '3');
  await hand.press(page.getByLabel('Card Rectangle', { exact: true }).getByRole('button', { name: 'Open Rectangle' }));
  await hand.button('Centre: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '20');
  await hand.type('Centre x', '200');
  const bar = named(await sceneOf(page, server), 'Rectangle');
  expect((itemOf(bar, 'rectangle').params.centre as KeyedProperty).keys.map((k) => k.frame)).toEqual([0, 20]);
  expect(itemOf(bar, 'repeater').params).toMatchObject({ copies: { value: 6 }, delay: { value: 3 } });
  expect(hand.count).toEqual({ presses: 6, drags: 1, typed: 6 });
});

test('a banner that slides in, rendered', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Banner');
  await hand.key('t');
  await hand.press(at(150, 100));
  await hand.words('Late ticket');
  await hand.key('Escape');
  await hand.button('Moves');
  await hand.button('Slide in');
  await hand.key('r');
  await hand.drag(at(180, 180), at(280, 220));
  await hand.button('Rise in');
  await hand.type('First frame of the move', '12');
  await hand.button('Render');
  await hand.press(page.getByRole('dialog').getByText('HTML5 banner').first());
  await hand.press(page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }));
  const doc = await saved(page, server);
  const scene = doc.scenes[doc.order[0] as string];
  const button = Object.values(scene?.layers ?? {}).find(({ name }) => name === 'Rectangle');
  expect(button).toMatchObject({ from: 12, moves: [{ from: 12 }] });
  await expect(page.getByText('“Scene 1” is in the queue.')).toBeVisible();
  expect(hand.count).toEqual({ presses: 10, drags: 1, typed: 2 });
});

test('four letters, written', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Written');
  await hand.key('t');
  await hand.press(at(150, 125));
  await hand.words('MILL');
  await hand.key('Escape');
  await page
    .getByRole('group', { name: 'Layer MILL', exact: true })
    .click({ button: 'right', position: { x: 90, y: 12 } });
  hand.presses++;
  await hand.item('Write on by strokes …');
  const dialog = page.getByRole('dialog', { name: /Write .* on/ });
  await hand.press(dialog.getByRole('button', { name: 'Write on', exact: true }));
  const [layer] = inOrder(await sceneOf(page, server));
  const strokes = layer?.kind === 'drawing' ? Object.values(layer.items).filter(({ kind }) => kind === 'trim') : [];
  expect(strokes.length).toBeGreaterThan(0);
  expect(hand.count).toEqual({ presses: 6, drags: 0, typed: 1 });
});

test('a wedge that opens', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Wedge');
  await hand.key('w');
  await hand.drag(at(90, 65), at(210, 185));
  await hand.press(page.getByLabel('Card Wedge', { exact: true }).getByRole('button', { name: 'Open Wedge' }));
  await hand.type('Share', '0');
  await hand.button('Share: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '25');
  await hand.type('Share', '72');
  const wedge = itemOf(named(await sceneOf(page, server), 'Wedge'), 'wedge');
  expect((wedge.params.share as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [25, 0.72],
  ]);
  expect(hand.count).toEqual({ presses: 4, drags: 1, typed: 3 });
});

test('a fan wipe', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Fan');
  await hand.key('r');
  await hand.drag(at(40, 40), at(260, 210));
  await hand.button('Add an effect');
  await hand.button('Wipe');
  await hand.choose('Wipe', 'clock');
  await hand.type('Shown', '0');
  await hand.button('Shown: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '25');
  await hand.type('Shown', '100');
  const wipe = itemOf(named(await sceneOf(page, server), 'Rectangle'), 'wipe');
  expect(wipe.params.style).toEqual({ value: 'clock' });
  expect((wipe.params.shown as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [25, 1],
  ]);
  expect(hand.count).toEqual({ presses: 6, drags: 1, typed: 3 });
});

test('eight letters along a curve', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Curve');
  await hand.key('t');
  await hand.press(at(150, 180));
  await hand.words('LASTTRAM');
  await hand.key('Escape');
  await hand.button('Add a card');
  await hand.item('Along a path');
  await hand.type('Apart', '2');
  await hand.type('Moved on', '-100');
  await hand.button('Moved on: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '24');
  await hand.type('Moved on', '0');
  const along = itemOf(named(await sceneOf(page, server), 'LASTTRAM'), 'along');
  expect((along.params.shift as KeyedProperty).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, -1],
    [24, 0],
  ]);
  expect(along.params.stagger).toEqual({ value: 2 });
  expect(hand.count).toEqual({ presses: 7, drags: 0, typed: 5 });
});

test('a bar that winds along a road', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Road');
  await hand.key('r');
  await hand.drag(at(100, 120), at(200, 135));
  await hand.button('Add a card');
  await hand.item('Along a path');
  await hand.choose('Lies', 'Bent along it');
  await hand.type('Moved on', '-200');
  await hand.button('Moved on: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '40');
  await hand.type('Moved on', '200');
  const along = itemOf(named(await sceneOf(page, server), 'Rectangle'), 'along');
  expect(along.params.lies).toEqual({ value: 'bent' });
  expect((along.params.shift as KeyedProperty).keys.map((k) => k.value)).toEqual([-2, 2]);
  expect(hand.count).toEqual({ presses: 6, drags: 1, typed: 3 });
});

test('words round a badge', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Badge');
  await hand.key('t');
  await hand.press(at(150, 125));
  await hand.words('LAST TRAM TONIGHT');
  await hand.key('Escape');
  await hand.key('e');
  await hand.drag(at(110, 85), at(190, 165));
  await hand.key('Escape');
  await hand.key('Control+a');
  await hand.press(at(150, 100), 'right');
  await hand.item('Lay along a path');
  const layers = inOrder(await sceneOf(page, server));
  expect(layers.map(({ name }) => name)).toEqual(['LAST TRAM TONIGHT']);
  expect(hand.count).toEqual({ presses: 8, drags: 1, typed: 1 });
});

test('liquid in a word', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Liquid');
  await hand.key('t');
  await hand.press(at(150, 140));
  await hand.words('MILL');
  await hand.key('Escape');
  await hand.key('r');
  await hand.drag(at(40, 110), at(260, 200));
  await hand.button('Add a card');
  await hand.item('Roughen');
  await hand.button('Position: Animate: add a keyframe here');
  await hand.type('Frame', '30');
  await hand.key('a');
  await hand.drag(at(150, 190), at(150, 120));
  const row = (name: string) => page.getByRole('button', { name: new RegExp(`^Mattes of ${name}:`) });
  await hand.drag(await middleOf(row('Rectangle')), await middleOf(page.getByLabel('Hide MILL')));
  const scene = await sceneOf(page, server);
  expect(itemOf(named(scene, 'Rectangle'), 'matte').params.layer).toEqual({ value: named(scene, 'MILL').id });
  expect((named(scene, 'Rectangle').params.position as KeyedProperty).keys.map((k) => k.frame)).toEqual([0, 30]);
  expect(hand.count).toEqual({ presses: 8, drags: 3, typed: 2 });
});

test('a star burst', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Stars');
  await hand.button('Add a shape');
  await hand.button('Star');
  await hand.drag(at(140, 115), at(160, 135));
  await hand.button('Add a card');
  await hand.item('Repeater');
  await hand.choose('Layout', 'circle');
  await hand.type('Copies', '10');
  await hand.type('Radius', '0');
  await hand.button('Radius: Animate: add a keyframe here');
  await hand.key('a');
  await hand.type('Frame', '24');
  await hand.type('Radius', '110');
  await hand.button('Moves');
  await hand.button('Shrink out');
  const star = named(await sceneOf(page, server), 'Star');
  expect((itemOf(star, 'repeater').params.radius as KeyedProperty).keys.map((k) => k.value)).toEqual([0, 110]);
  expect(star.moves).toMatchObject([{ move: { name: 'Shrink out' } }]);
  expect(hand.count).toEqual({ presses: 9, drags: 1, typed: 4 });
});

test('a grid of panes of one picture', async ({ page, server }) => {
  const { hand } = await start(page, server, 'Grid');
  await importFiles(page, [{ name: 'Lamp.png', mimeType: 'image/png', buffer: disc('#FFB23E') }]);
  hand.presses += 2;
  const row = page.getByRole('group', { name: 'Layer Lamp', exact: true });
  await row.click({ button: 'right', position: { x: 90, y: 12 } });
  hand.presses++;
  await hand.item('Cut into panes …');
  const dialog = page.getByRole('dialog', { name: 'Cut “Lamp” into panes' });
  await hand.press(dialog.getByRole('button', { name: 'Cut', exact: true }));
  await hand.button('Moves');
  await hand.button('Grow in');
  await hand.type('Stagger step', '3');
  const layers = inOrder(await sceneOf(page, server));
  expect(layers.map(({ moves }) => moves[0]?.from)).toEqual(layers.map((_, i) => 3 * i));
  expect(layers.length).toBe(6);
  expect(hand.count).toEqual({ presses: 7, drags: 0, typed: 1 });
});

test('eight pictures, one after another, as a banner', async ({ page, server }) => {
  const { hand } = await start(page, server, 'Eight');
  const files = Array.from({ length: 8 }, (_, i) => ({
    name: `Stop ${i + 1}.png`,
    mimeType: 'image/png',
    buffer: disc('#FFB23E'),
  }));
  await importFiles(page, files);
  hand.presses += 2;
  await hand.button('First in front');
  await hand.button('Moves');
  await hand.button('Fade in');
  await hand.type('Stagger step', '8');
  await hand.button('Render');
  await hand.press(page.getByRole('dialog').getByText('HTML5 banner').first());
  await hand.press(page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }));
  const layers = inOrder(await sceneOf(page, server));
  expect(layers.map(({ moves }) => moves[0]?.from)).toEqual(layers.map((_, i) => 8 * i));
  await expect(page.getByText('“Scene 1” is in the queue.')).toBeVisible();
  expect(hand.count).toEqual({ presses: 8, drags: 0, typed: 1 });
});

test('a banner of two slides', async ({ page, server }) => {
  const { hand, at } = await start(page, server, 'Slides');
  await hand.key('t');
  await hand.press(at(150, 125));
  await hand.words('Every 12 minutes');
  await hand.key('Escape');
  await hand.button('Moves');
  await hand.button('Fade in');
  await hand.button('Fade out');
  await hand.type('First frame of the move', '40', page.getByRole('region', { name: 'Fade out' }));
  await hand.key('t');
  await hand.press(at(150, 225));
  await hand.words('till dawn');
  await hand.key('Escape');
  await hand.button('Rise in');
  await hand.type('First frame of the move', '50');
  const scene = await sceneOf(page, server);
  expect(named(scene, 'Every 12 minutes').moves.map(({ from }) => from)).toEqual([0, 40]);
  expect(named(scene, 'till dawn')).toMatchObject({ from: 50, moves: [{ from: 50 }] });
  expect(hand.count).toEqual({ presses: 10, drags: 0, typed: 4 });
});

test('artwork that grows in, part by part', async ({ page, server }) => {
  const { hand } = await start(page, server, 'Artwork');
  const parts = ['Rails', 'Wheel', 'Body', 'Lamp'].map(
    (id, i) => `<rect id="${id}" x="${10 + i * 20}" y="${70 - i * 15}" width="15" height="10" fill="#2EC4B6"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100"><g id="Tram">${parts.join('')}</g></svg>`;
  await importFiles(page, [{ name: 'Tram.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) }]);
  hand.presses += 2;
  await hand.press(page.getByRole('dialog').getByRole('button', { name: 'Import', exact: true }));
  await hand.button('Moves');
  await hand.button('Grow in');
  await hand.type('Stagger step', '4');
  const layers = inOrder(await sceneOf(page, server));
  expect(layers.map(({ name }) => name)).toEqual(['Lamp', 'Body', 'Wheel', 'Rails']);
  expect(layers.map(({ moves }) => moves[0]?.from).toSorted((a = 0, b = 0) => a - b)).toEqual([0, 4, 8, 12]);
  expect(hand.count).toEqual({ presses: 5, drags: 0, typed: 1 });
});
