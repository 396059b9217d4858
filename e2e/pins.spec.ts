/** Pictures stretched to four points, corners that layers share, and meshes. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Point } from '@kite/core/document/types';
import { writeArchive } from '@kite/core/interchange/archive';
import { applyThrough } from '@kite/core/geometry/through';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { addCard, drag, middle, onScene, setNumber } from './support/editor';
import { BLANK, discLayer, openMade } from './support/made';
import { agreeing } from './support/outputs';
import { named, pixel, sceneOf } from './support/scene';
import { expect, test } from './support/test';

test('a layer is pinned by its corners, which snap to another one’s', async ({ page, server }) => {
  await openMade(page, server, 'Pinned', [
    discLayer('b', 'Disc', [330, 60], '#2EC4B6', 60),
    {
      ...discLayer('a', 'Sheet', [120, 120]),
      items: {
        r: newItem('r', 'rectangle', { width: 120, height: 80 }),
        f: newItem('f', 'fill', { color: '#FFB23E' }),
      },
      recipe: ['r', 'f'],
    },
  ]);
  const at = await onScene(page, 400, 240);
  await page.mouse.click(at(120, 120).x, at(120, 120).y);
  await addCard(page, 'Corner pin');
  // A new one changes nothing.
  expect(await pixel(page, at(150, 140))).toEqual([0xff, 0xb2, 0x3e]);
  expect(await pixel(page, at(220, 120))).toEqual([0x10, 0x13, 0x2e]);
  // To 3 px beside the disc's box, whose corner is at 300, 30.
  const corner = await middle(page.getByTestId('pin-topRight'));
  await drag(page, corner, at(303, 32));
  const pinned = async () => {
    const sheet = named(await sceneOf(page, server), 'Sheet');
    const card = Object.values(sheet.items).find(({ kind }) => kind === 'pin')!;
    return (card.params.topRight as { value: Point }).value;
  };
  await expect.poll(pinned).toEqual([180, -90]);
  await expect.poll(() => pixel(page, at(225, 90))).toEqual([0xff, 0xb2, 0x3e]);
  await page.keyboard.press('Control+z');
  await expect.poll(pinned).toEqual([60, -40]);
});

test('three stretched words share four corners, which are dropped on each other, keyed at once and loop', async ({
  page,
  server,
}) => {
  const word = (id: string, text: string, top: number, color: string) => {
    const corners = { topLeft: [-90, -25], topRight: [90, -25], bottomRight: [90, 25], bottomLeft: [-90, 25] } as const;
    const cards = [
      newItem(`${id}t`, 'text', { text, size: 60 }),
      newItem(`${id}f`, 'fill', { color }),
      newItem(`${id}p`, 'pin', corners),
    ];
    return newDrawing(BLANK, id, text, cards, { position: [200, top] });
  };
  await openMade(page, server, 'Words', [
    word('a', 'RIDE', 45, '#FFB23E'),
    word('b', 'HOME', 120, '#E9ECF5'),
    word('c', 'EASY', 195, '#FF5D5D'),
  ]);
  const at = await onScene(page, 400, 240);
  const row = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  const open = async (name: string) => {
    await row(name).getByText(name, { exact: true }).first().click();
    const card = page.getByRole('button', { name: /^(Open|Close) Corner pin$/ });
    // It stays unfolded with its layer, without its handles.
    if ((await card.getAttribute('aria-expanded')) === 'true') await card.click();
    await card.click();
    await expect(page.getByTestId('pin-topRight')).toBeVisible();
  };
  /** Where a corner stands, in the scene, at a frame. */
  const corner = async (id: string, key: string, frame: number): Promise<Point> => {
    const scene = await sceneOf(page, server);
    const card = compileScene(scene, NO_LIBRARY).cardAt(id, `${id}p`, frame)!;
    return applyThrough(card.through, card.values[key] as Point);
  };
  // HOME's upper corners on RIDE's lower ones, EASY's on HOME's: 4 px beside is near enough.
  await open('HOME');
  await drag(page, at(110, 95), at(113, 72));
  await drag(page, at(290, 95), at(288, 68));
  await expect(page.getByTestId('pin-topLeft')).toHaveAttribute('data-joined', 'true');
  await open('EASY');
  await drag(page, at(110, 170), at(108, 147));
  await drag(page, at(290, 170), at(292, 143));
  const pairs = [
    ['a', 'bottomLeft', 'b', 'topLeft'],
    ['a', 'bottomRight', 'b', 'topRight'],
    ['b', 'bottomLeft', 'c', 'topLeft'],
    ['b', 'bottomRight', 'c', 'topRight'],
  ] as const;
  const together = async (frame: number) => {
    for (const [one, key, other, own] of pairs)
      expect(await corner(one, key, frame)).toEqual(await corner(other, own, frame));
  };
  await expect.poll(() => corner('c', 'topRight', 0)).toEqual([290, 145]);
  await together(0);

  // All corners of the three keyed in one press: those that follow have no keyframes of their own.
  await row('RIDE').click();
  await row('EASY').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Keyframes at the playhead' }).click();
  await page.getByRole('menuitem', { name: 'Key all corners of pins' }).click();
  const keyed = async () =>
    Object.values((await sceneOf(page, server)).layers).map(
      (layer) =>
        layer.kind === 'drawing' &&
        Object.values(layer.items[`${layer.id}p`]!.params).filter((p) => 'keys' in p).length,
    );
  await expect.poll(keyed).toEqual([4, 2, 2]);

  // Moved by either of those that share it, a corner takes the others along: with auto-key to a new keyframe of the lead.
  await setNumber(page, 'Frame', '50');
  await page.keyboard.press('Escape');
  await open('EASY');
  await page.keyboard.press('a');
  await drag(page, at(290, 145), at(330, 165));
  await expect.poll(() => corner('b', 'bottomRight', 50)).toEqual([330, 165]);
  await together(50);
  await expect.poll(() => corner('b', 'bottomRight', 0)).toEqual([290, 145]);
  await row('RIDE').click();
  await row('EASY').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Keyframes at the playhead' }).click();
  await page.getByRole('menuitem', { name: 'First keys again at the end' }).click();
  await expect.poll(() => corner('c', 'topRight', 99)).toEqual([290, 145]);
  await together(75);

  // Joined in x alone, and let go: it stays where it is.
  await open('EASY');
  const shared = await middle(page.getByTestId('pin-topRight'));
  await page.mouse.click(shared.x, shared.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Follow in x alone' }).click();
  await expect.poll(async () => (await corner('c', 'topRight', 50))[0]).toBe(330);
  const now = await middle(page.getByTestId('pin-topRight'));
  await page.mouse.click(now.x, now.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Let go of HOME · Bottom right' }).click();
  await expect(page.getByTestId('pin-topRight')).toHaveAttribute('data-joined', 'false');
  await expect.poll(async () => Math.round((await corner('c', 'topRight', 50))[0])).toBe(330);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => corner('c', 'topRight', 50)).toEqual([330, 165]);
});

test('a mesh is bent by its points, keeps its shape with more of them, and is the same in every output', async ({
  page,
  server,
  context,
}) => {
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#10132E' } as const;
  const scene = newScene('s', 'Mesh', size);
  const sheet = newDrawing(
    scene,
    'a',
    'Sheet',
    [
      newItem('r', 'rectangle', { width: 160, height: 100 }),
      newItem('f', 'fill', {
        style: 'linear',
        from: [-80, -50],
        to: [80, 50],
        gradient: {
          stops: [
            { at: 0, color: '#FF5D5D' },
            { at: 1, color: '#2EC4B6' },
          ],
        },
      }),
      newItem('w', 'stroke', { color: '#FFB23E', width: 8 }),
      newItem('x', 'blur', { amount: 1 }),
    ],
    { position: [150, 130] },
  );
  const project = newProject('p', 'Mesh', [{ ...scene, layers: { a: sheet }, order: ['a'] }]);
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map()));
  await page.goto(`${server.url}/projects/${body.id}`);
  await expect(page.getByTestId('canvas')).toBeVisible();
  const at = await onScene(page, 300, 250);
  await page.mouse.click(at(150, 100).x, at(150, 100).y);
  await addCard(page, 'Mesh');
  const above = at(128, 70);
  expect(await pixel(page, above)).toEqual([0x10, 0x13, 0x2e]);
  // The middle of its upper edge, 26 px up: the edge follows in a curve.
  const upper = await middle(page.getByTestId('mesh-1-0'));
  await page.keyboard.down('Control');
  await drag(page, upper, { x: upper.x, y: upper.y - 26 });
  await page.keyboard.up('Control');
  await expect.poll(async () => (await pixel(page, above))[0]).toBeGreaterThan(80);
  const points = async () => {
    const card = Object.values(named(await sceneOf(page, server), 'Sheet').items).find(({ kind }) => kind === 'mesh')!;
    return (card.params.points as { value: { columns: number; ways: readonly number[] } }).value;
  };
  await expect.poll(async () => (await points()).ways.slice(2, 4)).toEqual([0, -26]);
  await setNumber(page, 'Columns', '4');
  await expect.poll(async () => (await points()).columns).toBe(4);
  expect((await points()).ways.slice(4, 6)).toEqual([0, -26]);
  await expect(page.getByTestId('mesh-4-2')).toBeVisible();
  await page.keyboard.press('Escape');
  await agreeing(page, server, context, body.id);
});
