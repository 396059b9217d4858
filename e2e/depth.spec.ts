/** Layers in depth: as Chromium shows them by its own transforms; made, turned and pinned by hand; the same in every output. */
import { newController, newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Layer, Point, Value } from '@kite/core/document/types';
import { writeArchive } from '@kite/core/interchange/archive';
import { applyThrough } from '@kite/core/geometry/through';
import { projectedPoint } from '@kite/core/geometry/planes';
import { applySpace, placedInSpace } from '@kite/core/geometry/space';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { eyeOf } from '@kite/core/scene/eye';
import { demoProject } from '@kite/demo/project';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { drag, middle, newProject as newByHand, onScene, setNumber } from './support/editor';
import { BLANK, openMade } from './support/made';
import { colorAt, readPng, unpack } from './support/media';
import { agreeing, distances, finished, render, share } from './support/outputs';
import { inOrder, named, pixel, sceneOf, valueOf } from './support/scene';
import { expect, test } from './support/test';

const valued = (values: { readonly [key: string]: Value }) =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, { value }]));

test('squares at 200 poses stand where Chromium’s own transforms put them', async ({ page }) => {
  const [W, H, SIDE] = [640, 360, 120];
  const scene = newScene('s', 'Poses', { width: W, height: H, rate: { num: 25, den: 1 }, length: 1, background: null });
  const { distance } = eyeOf(scene);
  let seed = 11;
  const next = (least: number, most: number) => {
    seed = (seed * 48_271) % 2_147_483_647;
    return least + (seed / 2_147_483_647) * (most - least);
  };
  const turns = () => ({ turnX: next(-180, 180), turnY: next(-180, 180), rotation: next(-180, 180) });
  const poses = Array.from({ length: 200 }, () => ({
    outer: { position: [next(200, 440), next(100, 260)] as Point, z: next(-100, 400), ...turns() },
    inner: { position: [next(-80, 80), next(-80, 80)] as Point, z: next(-80, 80), ...turns() },
  }));
  await page.setContent('<body style="margin:0"><div id="eye" style="position:absolute;left:0;top:0"></div></body>');
  const shown = await page.evaluate(
    ({ poses: all, W: width, H: height, SIDE: side, distance: away }) => {
      const eye = document.getElementById('eye')!;
      Object.assign(eye.style, { width: `${width}px`, height: `${height}px`, perspective: `${away}px` });
      eye.style.perspectiveOrigin = '50% 50%';
      // z of CSS comes towards the viewer.
      const transform = ({ position: [x, y], z, turnX, turnY, rotation }: (typeof all)[number]['outer']) =>
        `translate3d(${x}px, ${y}px, ${-z}px) rotateX(${turnX}deg) rotateY(${turnY}deg) rotateZ(${rotation}deg)`;
      const box = (of: HTMLElement, style: Partial<CSSStyleDeclaration>) => {
        const made = of.appendChild(document.createElement('div'));
        Object.assign(made.style, {
          position: 'absolute',
          left: '0',
          top: '0',
          transformStyle: 'preserve-3d',
          ...style,
        });
        return made;
      };
      return all.map(({ outer, inner }) => {
        const about = box(eye, { transform: transform(outer), transformOrigin: '0 0' });
        const plane = box(about, { transform: transform(inner), transformOrigin: '0 0' });
        return [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1],
        ].map(([x, y]) => {
          const corner = box(plane, { left: `${(x! * side) / 2}px`, top: `${(y! * side) / 2}px` });
          const { left, top } = corner.getBoundingClientRect();
          return [left, top];
        });
      });
    },
    { poses, W, H, SIDE, distance },
  );
  poses.forEach(({ outer, inner }, i) => {
    const about: Layer = { ...newController(scene, 'c', 'About'), params: valued({ depth: true, ...outer }) };
    const items = [newItem('r', 'rectangle', { width: SIDE, height: SIDE }), newItem('f', 'fill')];
    const plane: Layer = {
      ...newDrawing(scene, 'p', 'Plane', items),
      parent: 'c',
      params: valued({ depth: true, ...inner }),
    };
    const program = compileScene({ ...scene, layers: { c: about, p: plane }, order: ['p', 'c'] }, NO_LIBRARY);
    const half = SIDE / 2;
    const own = (
      [
        [-half, -half],
        [half, -half],
        [half, half],
        [-half, half],
      ] as const
    ).map((corner) => applyThrough(program.throughAt('p', 0), corner));
    own.forEach(([x, y], k) => {
      const [left, top] = shown[i]![k] as [number, number];
      expect(Math.hypot(x - left, y - top), `pose ${i}, corner ${k}`).toBeLessThan(0.05);
    });
  });
});

test('a box is made of a layer in one step, turned by handles and by numbers, and is undone', async ({
  page,
  server,
}) => {
  const sign = newDrawing(
    newScene('s', 'Test', { width: 400, height: 240, rate: { num: 25, den: 1 }, length: 100, background: '#10132E' }),
    'a',
    'Sign',
    [newItem('r', 'rectangle', { width: 80, height: 80 }), newItem('f', 'fill', { color: '#FFB23E' })],
    { position: [200, 120] },
  );
  await openMade(page, server, 'Box', [sign]);
  const at = await onScene(page, 400, 240);
  await expect.poll(() => pixel(page, at(180, 100))).toEqual([0xff, 0xb2, 0x3e]);
  const row = await middle(page.getByRole('group', { name: 'Layer Sign', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Make a box, card, fan or stack …' }).click();
  const dialog = page.getByRole('dialog', { name: 'In depth: “Sign”' });
  await expect(dialog.getByLabel('Depth')).toHaveValue('80');
  await dialog.getByRole('button', { name: 'Make a box' }).click();
  await expect
    .poll(async () => inOrder(await sceneOf(page, server)).map(({ name }) => name))
    .toEqual(['Sign box', 'Sign', 'Sign right', 'Sign left', 'Sign top', 'Sign bottom', 'Sign back']);
  // Nothing changes until it is turned.
  expect(await pixel(page, at(180, 100))).toEqual([0xff, 0xb2, 0x3e]);
  expect(await pixel(page, at(242, 120))).toEqual([0x10, 0x13, 0x2e]);

  // Dragged to the left by 120 px at half a degree each, in steps of 15: the right side comes to the front.
  const handle = await middle(page.getByTestId('handle-turnY'));
  await page.keyboard.down('Shift');
  await drag(page, handle, { x: handle.x - 122, y: handle.y });
  await page.keyboard.up('Shift');
  await expect.poll(async () => valueOf(named(await sceneOf(page, server), 'Sign box'), 'turnY')).toBe(-60);
  await setNumber(page, 'Turn y', '-90');
  const right = [0x43, 0x72, 0x9c];
  await expect.poll(() => pixel(page, at(180, 100))).toEqual(right);
  await setNumber(page, 'Turn x', '-90');
  // Seen from above, still turned: the top.
  await expect.poll(() => pixel(page, at(180, 100))).toEqual([0x4f, 0x86, 0xb8]);

  // A press on a face takes hold of its layer, and not of one that it hides.
  await page.keyboard.press('Escape');
  await page.mouse.click(at(180, 100).x, at(180, 100).y);
  await expect(page.getByRole('group', { name: 'Layer Sign top', exact: true })).toHaveClass(/bg-sky-2/);
  // The back was nearest before the box was turned over, and stands last in the stack.
  await page.getByRole('group', { name: 'Layer Sign box', exact: true }).click();
  await setNumber(page, 'Turn x', '0');
  await setNumber(page, 'Turn y', '180');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(180, 100))).toEqual([0x3b, 0x65, 0x8a]);
  await page.mouse.click(at(180, 100).x, at(180, 100).y);
  await expect(page.getByRole('group', { name: 'Layer Sign back', exact: true })).toHaveClass(/bg-sky-2/);

  // A letter on it hangs from the face, and lies in its plane: seen straight on it is in the middle.
  await page.getByRole('group', { name: 'Layer Sign box', exact: true }).click();
  await setNumber(page, 'Turn y', '0');
  await page.keyboard.press('Escape');
  const front = await middle(page.getByRole('group', { name: 'Layer Sign', exact: true }));
  await page.mouse.click(front.x - 300, front.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Put a text on it' }).click();
  await page.keyboard.type('I');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect.poll(async () => named(await sceneOf(page, server), 'I')?.parent).toBe('a');
  await expect.poll(() => pixel(page, at(200, 118))).toEqual([0x1a, 0x1a, 0x1a]);
  await page.getByRole('group', { name: 'Layer Sign box', exact: true }).click();
  await setNumber(page, 'Turn y', '90');
  // Turned away with its face it is hidden by the other side.
  await expect.poll(() => pixel(page, at(180, 118))).not.toEqual([0xff, 0xb2, 0x3e]);
  expect(await pixel(page, at(200, 112))).not.toEqual([0x1a, 0x1a, 0x1a]);

  for (let i = 0; i < 11; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await sceneOf(page, server)).order).toEqual(['a']);
});

test('a box of chosen sizes is made in one step, where there is nothing yet', async ({ page, server }) => {
  await openMade(page, server, 'New box', []);
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'New box, card, fan or stack …' }).click();
  const dialog = page.getByRole('dialog', { name: 'New in depth' });
  await setNumber(dialog, 'Width', '120');
  await setNumber(dialog, 'Height', '60');
  await setNumber(dialog, 'Depth', '40');
  await dialog.getByRole('button', { name: 'Make a box' }).click();
  await expect
    .poll(async () => inOrder(await sceneOf(page, server)).map(({ name }) => name))
    .toEqual(['Box', 'Box front', 'Box right', 'Box left', 'Box top', 'Box bottom', 'Box back']);
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.keyboard.press('Escape');
  const at = await onScene(page, 400, 240);
  // Its front is 120 by 60 pixels in the middle.
  const front = [0x4f, 0x86, 0xb8];
  await expect.poll(() => pixel(page, at(142, 92))).toEqual(front);
  expect(await pixel(page, at(258, 148))).toEqual(front);
  expect(await pixel(page, at(138, 92))).toEqual([0x10, 0x13, 0x2e]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await sceneOf(page, server)).order).toEqual([]);
});

test('a card shows one side at a time, and that one is taken hold of', async ({ page, server }) => {
  const items = [newItem('r', 'rectangle', { width: 120, height: 80 }), newItem('f', 'fill', { color: '#FFB23E' })];
  await openMade(page, server, 'Card', [newDrawing(BLANK, 'a', 'Pass', items, { position: [200, 120] })]);
  const at = await onScene(page, 400, 240);
  const row = await middle(page.getByRole('group', { name: 'Layer Pass', exact: true }));
  await page.mouse.click(row.x - 300, row.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Make a box, card, fan or stack …' }).click();
  await page.getByRole('radio', { name: 'Card', exact: true }).click();
  await page.getByRole('button', { name: 'Make a card with a back' }).click();
  await setNumber(page, 'Turn y', '170');
  await page.keyboard.press('Escape');
  const spot = at(170, 100);
  await expect.poll(() => pixel(page, spot)).toEqual([0x4f, 0x86, 0xb8]);
  await page.mouse.click(spot.x, spot.y);
  await expect(page.getByRole('group', { name: 'Layer Pass back', exact: true })).toHaveClass(/bg-sky-2/);
  // The colour of a back is asked for only while the back is to have one.
  await expect(page.getByRole('button', { name: 'Colour of the back' })).toHaveCount(0);
});

test('five lettered cubes tumble one after another, tilted together, as they are rendered', async ({
  page,
  server,
}) => {
  // By a name of its own: the server has the demo itself.
  const demo = { ...demoProject(), name: 'Signs' };
  const wanted = Object.values(demo.scenes).find(({ name }) => name === 'Turning sign')!;
  const sign = Object.values(wanted.layers).find(({ name }) => name === 'Sign')!;
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(demo, new Map()));
  await page.goto(`${server.url}/projects/${body.id}/scenes/${wanted.id}`);
  await expect(page.getByTestId('canvas')).toBeVisible();
  await render(page, 'Frames', async () => setNumber(page.getByRole('dialog'), 'Scale', '25'));
  const { folder } = unpack(
    await server.bytes(`/renders/${(await finished(server, body.id, 1)).get('frames')?.id}/file`),
  );
  const files = readdirSync(folder)
    .filter((name) => name.endsWith('.png'))
    .sort();
  expect(files).toHaveLength(wanted.length);
  const { wiring } = compileScene({ ...wanted, nested: demo.scenes }, NO_LIBRARY);
  const turnAt = (key: string, frame: number) => wiring.sampler({ layer: sign.id, key })?.at(frame) as number;
  const fronts = ['#FFB23E', '#FF5D5D', '#E9ECF5', '#FFB23E', '#FF5D5D'];
  /** Which of some colours one is a shade of: the light changes how bright it is, and not its hue. */
  const shadeOf = (color: readonly number[], among: readonly string[]): string | undefined =>
    among.find((hex) => {
      const whole = [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));
      const by = color[0]! / whole[0]!;
      return whole.every((c, i) => Math.abs(color[i]! - c * by) < 6);
    });
  const seen: string[] = [];
  for (const frame of [0, 6, 11, 20, 26, 32, 38, 44, 50, 58, 64, 71]) {
    const png = await readPng(readFileSync(join(folder, files[frame]!)));
    const flat = { pivot: [0, 0], pivotZ: 0, scale: [1, 1], scaleZ: 1, rotation: 0 } as const;
    const [turnX, turnY] = [turnAt('turnX', frame), turnAt('turnY', frame)];
    const space = placedInSpace({ ...flat, position: [960, 540], z: 0, turnX, turnY });
    fronts.forEach((front, i) => {
      const begins = 12 + 4 * i;
      const isAtRest = frame <= begins || frame >= begins + 31;
      if (!isAtRest) return;
      // Beside the letter, near a corner of the face that is towards the viewer.
      const [x, y] = projectedPoint(eyeOf(wanted), applySpace(space, [(i - 2) * 300 + 112, -112, 0]));
      const color = colorAt(png, Math.round(x / 4), Math.round(y / 4));
      const shade = shadeOf(color, [front, '#2EC4B6']);
      expect(shade, `cube ${i} at frame ${frame}: ${color.join()}`).toBe(frame <= begins ? front : '#2EC4B6');
      seen.push(shade as string);
    });
  }
  expect(new Set(seen).size).toBe(4);
});

test('what is in depth is the same in preview, PNG, banner and SVG', async ({ page, server, context }) => {
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#10132E' } as const;
  const scene = newScene('s', 'Depth', size);
  const turned = (values: { readonly [key: string]: Value }) => valued({ depth: true, ...values });
  const plate = (id: string, color: string, values: { readonly [key: string]: Value }): Layer => ({
    ...newDrawing(scene, id, id, [
      newItem('r', 'rectangle', { width: 120, height: 80 }),
      newItem('f', 'fill', { color }),
      newItem('w', 'stroke', { color: '#F2E9DC', width: 6 }),
    ]),
    params: turned(values),
  });
  const glowing: Layer = {
    ...newDrawing(scene, 'g', 'Glowing', [
      newItem('e', 'ellipse', { width: 60, height: 60 }),
      newItem('f', 'fill', {
        style: 'linear',
        from: [-30, 0],
        to: [30, 0],
        gradient: {
          stops: [
            { at: 0, color: '#E4572E' },
            { at: 1, color: '#FFB23E' },
          ],
        },
      }),
      newItem('x', 'blur', { amount: 5 }),
    ]),
    params: {
      ...turned({ position: [80, 70], turnX: 40, turnY: 50 }),
      turnY: { keys: [0, 19].map((frame) => ({ frame, value: frame * 5, ease: { kind: 'linear' as const } })) },
    },
  };
  const layers = [
    plate('one', '#2EC4B6', { position: [150, 140], turnY: 40 }),
    plate('two', '#4F86B8', { position: [150, 140], turnY: -40, turnX: 20 }),
    glowing,
  ];
  const made = { ...scene, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) };
  const project = newProject('p', 'Depth', [made]);
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map()));
  await page.goto(`${server.url}/projects/${body.id}`);
  await expect(page.getByTestId('canvas')).toBeVisible();
  const { png, svg } = await agreeing(page, server, context, body.id);
  expect(share(distances(png, svg), 40)).toBeLessThan(0.0001);
  expect(distances(png, svg, (x, y) => y > 185 && x > 100).filter((d) => d > 40)).toEqual([]);
  expect(distances(png, svg, (x, y) => Math.hypot(x - 80, y - 70) < 8).filter((d) => d > 24)).toEqual([]);
});

test('Depth is a switch of any layer, and nothing changes by it', async ({ page, server }) => {
  await newByHand(page, server, 'Switch', 'Medium rectangle');
  await page.keyboard.press('r');
  const at = await onScene(page, 300, 250);
  await drag(page, at(80, 80), at(220, 170));
  const before = await pixel(page, at(90, 90));
  await expect(page.getByLabel('Turn x', { exact: true })).toHaveCount(0);
  await page.getByLabel('Depth', { exact: true }).check();
  expect(await pixel(page, at(90, 90))).toEqual(before);
  await setNumber(page, 'z', '300');
  // Farther away it is smaller.
  await expect.poll(() => pixel(page, at(82, 82))).toEqual([255, 255, 255]);

  // Through a camera that looks at another place all stands elsewhere; without it as before.
  const inside = at(130, 110);
  await expect.poll(() => pixel(page, inside)).toEqual(before);
  await page.getByRole('button', { name: 'Add a camera' }).click();
  await expect(page.getByLabel('Camera', { exact: true })).toBeChecked();
  await expect(page.getByLabel('View', { exact: true })).toHaveValue('40');
  // It looks at a point of its own from where its eye is: nothing changes by that either, and its turns are no more.
  await page.getByLabel('Looks at a point', { exact: true }).check();
  await expect(page.getByLabel('Target x', { exact: true })).toHaveValue('150');
  await expect(page.getByLabel('Turn x', { exact: true })).toHaveCount(0);
  await expect.poll(() => pixel(page, inside)).toEqual(before);
  await page.getByLabel('Looks at a point', { exact: true }).uncheck();
  await expect(page.getByLabel('Turn x', { exact: true })).toHaveValue('0');
  await expect.poll(() => pixel(page, inside)).toEqual(before);
  const position = page.getByLabel('Position x', { exact: true });
  await position.fill('450');
  await position.press('Enter');
  await expect.poll(() => pixel(page, inside)).toEqual([255, 255, 255]);
  await page.getByLabel('Camera', { exact: true }).uncheck();
  await expect(page.getByLabel('View', { exact: true })).toHaveCount(0);
  await expect.poll(() => pixel(page, inside)).toEqual(before);
});
