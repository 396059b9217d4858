/** Building the picture as it should finally stand, through the interface. */
import type {
  DrawingLayer,
  KeyedProperty,
  Layer,
  PathValue,
  PictureLayer,
  Point,
  Scene,
} from '@kite/core/document/types';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, type Page } from '@playwright/test';
import { addCard, drag, goToFrame, middle, newProject, onScene, saved, setNumber } from './support/editor';
import type { Server } from './support/server';
import { test } from './support/test';

const sceneOf = async (page: Page, server: Server): Promise<Scene> => {
  const project = await saved(page, server);
  return project.scenes[project.order[0] as string] as Scene;
};
const inOrder = (scene: Scene): Layer[] => scene.order.map((id) => scene.layers[id] as Layer);
const named = <L extends Layer = DrawingLayer>(scene: Scene, name: string): L =>
  inOrder(scene).find((l) => l.name === name) as L;
const valueOf = (layer: Layer, key: string) => (layer.params[key] as { value: unknown }).value;
const itemOf = (layer: DrawingLayer, kind: string) => Object.values(layer.items).find((i) => i.kind === kind)!;

/** A disc of a colour on a flat ground, as a PNG. */
const disc = (color: string, ground = '#F0F0EC', width = 60, height = 40): Buffer => {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = ground;
  context.fillRect(0, 0, width, height);
  context.fillStyle = color;
  context.beginPath();
  context.arc(width / 2, height / 2, height * 0.4, 0, 7);
  context.fill();
  return canvas.toBuffer('image/png');
};

/** The colour of a pixel of the scene, as the canvas shows it. */
const pixel = async (page: Page, at: { x: number; y: number }): Promise<number[]> => {
  const picture = await page.screenshot({ clip: { x: Math.floor(at.x), y: Math.floor(at.y), width: 1, height: 1 } });
  const canvas = createCanvas(1, 1);
  const context = canvas.getContext('2d');
  context.drawImage(await loadImage(picture), 0, 0);
  return [...context.getImageData(0, 0, 1, 1).data.slice(0, 3)];
};

const importFiles = async (page: Page, files: { name: string; mimeType: string; buffer: Buffer }[]) => {
  if ((await page.getByTestId('import-files').count()) === 0) {
    await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  }
  await page.getByTestId('import-files').setInputFiles(files);
};

test('a wedge of 35 %, exact numbers and a combined hole', async ({ page, server }) => {
  await newProject(page, server, 'Wedge', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('w');
  await drag(page, at(50, 25), at(250, 225));
  let layer = named(await sceneOf(page, server), 'Wedge');
  expect(itemOf(layer, 'wedge').params).toMatchObject({ radius: { value: 100 } });
  await page.getByRole('button', { name: 'Open Wedge' }).last().click();
  await setNumber(page, 'Share', '50');
  await setNumber(page, 'Share', '7*5');
  await setNumber(page, 'Inner', '40');
  layer = named(await sceneOf(page, server), 'Wedge');
  expect(itemOf(layer, 'wedge').params).toMatchObject({ share: { value: 0.35 }, inner: { value: 40 } });
  // 35 % is 126° clockwise from the top: inside at 100°, outside at 150°; the hole shows the ground.
  const polar = (degrees: number, radius: number) =>
    at(150 + radius * Math.sin((degrees * Math.PI) / 180), 125 - radius * Math.cos((degrees * Math.PI) / 180));
  await page.keyboard.press('Escape');
  const ground = await pixel(page, polar(150, 70));
  expect(await pixel(page, polar(100, 70))).not.toEqual(ground);
  expect(await pixel(page, polar(100, 20))).toEqual(ground);
});

test('a path drawn, keyed, and re-edited: a new vertex goes into every keyframe', async ({ page, server }) => {
  await newProject(page, server, 'Path', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('d');
  for (const [x, y] of [
    [60, 60],
    [240, 60],
    [240, 180],
    [60, 180],
  ] as const) {
    const p = at(x, y);
    await page.mouse.click(p.x, p.y);
  }
  const first = at(60, 60);
  await page.mouse.click(first.x, first.y);
  const inside = at(150, 120);
  await page.mouse.dblclick(inside.x, inside.y);
  await expect(page.getByTestId('vertex-0')).toBeVisible();

  await page.getByRole('button', { name: /^Outline: Animate/ }).click();
  await goToFrame(page, 20);
  await page.keyboard.press('a');
  const corner = await middle(page.getByTestId('vertex-2'));
  await drag(page, corner, { x: corner.x + 20, y: corner.y + 30 });
  const keys = async () => {
    const layer = named(await sceneOf(page, server), 'Path');
    return (itemOf(layer, 'path').params.path as KeyedProperty).keys.map((k) => (k.value as PathValue).vertices);
  };
  expect((await keys()).map((v) => v.length)).toEqual([4, 4]);
  expect((await keys()).map((v) => v[2]!.slice(0, 2))).toEqual([
    [90, 60],
    [110, 90],
  ]);

  // On the side between the second and the third vertex.
  const side = at(245, 105);
  await page.mouse.dblclick(side.x, side.y);
  await expect(page.getByTestId('vertex-4')).toBeVisible();
  expect((await keys()).map((v) => v.length)).toEqual([5, 5]);
  await page.keyboard.press('Delete');
  await expect(page.getByTestId('vertex-4')).toBeHidden();
  expect((await keys()).map((v) => v.length)).toEqual([4, 4]);
  await page.getByTestId('vertex-1').click();
  await page.getByRole('button', { name: 'Smooth' }).click();
  await expect(page.getByTestId('vertex-1-out')).toBeVisible();
  await page.getByRole('button', { name: 'First', exact: true }).click();
  expect((await keys())[0]![0]!.slice(0, 2)).toEqual([90, -60]);
});

test('text: typed on the canvas, set, kerned, changed late, and split into letters in place', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Words', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('t');
  const spot = at(150, 140);
  await page.mouse.click(spot.x, spot.y);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('Tram AV');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('Escape');
  let layer = named(await sceneOf(page, server), 'Tram AV');
  expect(itemOf(layer, 'text').params).toMatchObject({ text: { value: 'Tram AV' }, pairs: { value: 'AV -10' } });

  await page.getByRole('button', { name: 'Open Text' }).last().click();
  await page.getByLabel('Font', { exact: true }).click();
  await page.getByRole('option', { name: 'Lora' }).click();
  await setNumber(page, 'Size', '48');
  layer = named(await sceneOf(page, server), 'Tram AV');
  expect(itemOf(layer, 'text').params).toMatchObject({
    font: { value: { family: 'Lora', weight: 700 } },
    size: { value: 48 },
  });

  // A fade that has to outlive a change of the word.
  await page
    .getByRole('button', { name: /^Opacity: Animate/ })
    .first()
    .click();
  await page.mouse.dblclick(spot.x, spot.y - 5);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('Moon');
  await page.keyboard.press('Escape');
  layer = named(await sceneOf(page, server), 'Moon');
  expect((layer.params.opacity as KeyedProperty).keys).toHaveLength(1);

  const before = await page.getByTestId('canvas').screenshot();
  await page
    .getByTestId('layer-row')
    .first()
    .click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Split into letters' }).click();
  const scene = await sceneOf(page, server);
  expect(inOrder(scene).map((l) => l.name)).toEqual(['M', 'o', 'o 2', 'n']);
  for (const letter of inOrder(scene)) expect((letter.params.opacity as KeyedProperty).keys).toHaveLength(1);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('Escape');
  const after = await page.getByTestId('canvas').screenshot();
  expect(differing(await pixelsOf(before), await pixelsOf(after))).toBeLessThan(0.02);
});

const pixelsOf = async (png: Buffer): Promise<Uint8ClampedArray> => {
  const image = await loadImage(png);
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
};
const differing = (a: Uint8ClampedArray, b: Uint8ClampedArray): number => {
  let count = 0;
  for (let i = 0; i < a.length; i += 4) if (Math.abs(a[i]! - b[i]!) > 40) count++;
  return count / (a.length / 4);
};

test('five pictures come in their order, one is swapped, one is cut out', async ({ page, server }) => {
  await newProject(page, server, 'Pictures', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const colors = ['#FF5D5D', '#2EC4B6', '#FFB23E', '#1B1F4B', '#10132E'];
  const files = colors.map((color, i) => ({ name: `Lamp ${i + 1}.png`, mimeType: 'image/png', buffer: disc(color) }));
  await importFiles(page, files);
  await page.getByRole('button', { name: 'First in front' }).click();
  const wanted = ['Lamp 1', 'Lamp 2', 'Lamp 3', 'Lamp 4', 'Lamp 5'];
  await expect.poll(async () => inOrder(await sceneOf(page, server)).map((l) => l.name)).toEqual(wanted);
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  // The order is remembered: the next pictures are not asked about.
  await page
    .getByTestId('layer-row')
    .first()
    .click({ position: { x: 90, y: 12 } });
  for (let i = 2; i <= 5; i++) {
    await page
      .getByTestId('layer-row')
      .nth(i - 1)
      .click({ position: { x: 90, y: 12 }, modifiers: ['Control'] });
  }
  await page
    .getByTestId('layer-row')
    .first()
    .click({ position: { x: 90, y: 12 } });

  await page.getByRole('button', { name: 'Cut out a background' }).click();
  const ground = at(123, 108);
  await page.mouse.click(ground.x, ground.y);
  await setNumber(page, 'Soften', '0');
  const cut = named<PictureLayer>(await sceneOf(page, server), 'Lamp 1').cut;
  expect(cut?.seeds).toHaveLength(1);
  expect(cut?.seeds[0]?.x).toBeLessThan(8);
  // Hiding the rest shows the scene through where the background was.
  await page.keyboard.press('Escape');
  for (const name of wanted.slice(1)) await page.getByRole('button', { name: `Hide ${name}` }).click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(123, 108))).toEqual(await pixel(page, at(20, 20)));
  expect(await pixel(page, at(150, 125))).toEqual([255, 93, 93]);

  await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  const swap = page.getByTestId('asset').first().getByTestId('swap-file');
  await swap.setInputFiles({ name: 'New lamp.png', mimeType: 'image/png', buffer: disc('#00AA00') });
  await expect.poll(() => pixel(page, at(220, 125)).then(() => pixel(page, at(150, 125)))).not.toEqual([255, 93, 93]);
  const swapped = named<PictureLayer>(await sceneOf(page, server), 'Lamp 1');
  expect(swapped.cut).toEqual(await sceneOf(page, server).then((s) => named<PictureLayer>(s, 'Lamp 1').cut));
});

test('an SVG comes in as layers, in its order, and what is lost is listed', async ({ page, server }) => {
  await newProject(page, server, 'Drawing', 'Medium rectangle');
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100">' +
    '<rect id="Rails" x="10" y="70" width="80" height="8" fill="#2EC4B6"/>' +
    '<circle id="Moon" cx="50" cy="40" r="25" fill="#FFB23E"/>' +
    '<path id="Left out" d="M0 0h5v5z" fill="red"/><image href="http://evil.example/x.png"/><script>alert(1)</script></svg>';
  await importFiles(page, [{ name: 'Mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) }]);
  const dialog = page.getByRole('dialog', { name: 'Import Mark' });
  await expect(dialog.getByText('a script is left out')).toBeVisible();
  await expect(dialog.getByText('a picture inside the drawing is left out')).toBeVisible();
  await dialog.getByLabel('Left out').uncheck();
  await dialog.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const scene = await sceneOf(page, server);
  expect(inOrder(scene).map((l) => l.name)).toEqual(['Moon', 'Rails']);
  expect(valueOf(named(scene, 'Moon'), 'position')).toEqual([150, 115]);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('layer-row')).toHaveCount(0);
});

const threeSquares = async (page: Page, at: (x: number, y: number) => { x: number; y: number }) => {
  for (const [x, y] of [
    [20, 20],
    [120, 20],
    [200, 140],
  ] as const) {
    await page.keyboard.press('r');
    await drag(page, at(x, y), at(x + 60, y + 40));
  }
};

test('a moved layer snaps to a corner, Ctrl lets go, and lines show it', async ({ page, server }) => {
  await newProject(page, server, 'Snap', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  // To 3 px beside where its corner meets the first one's.
  const grip = at(220, 160);
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x - 60, grip.y - 40, { steps: 4 });
  await page.mouse.move(grip.x - 117, grip.y - 77, { steps: 4 });
  await expect(page.getByTestId('snap-line')).toHaveCount(2);
  await page.mouse.up();
  // The first stands from 20 to 80 and 20 to 60: the third's corner comes to (80, 60).
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle 3'), 'position')).toEqual([110, 80]);
  await page.keyboard.press('Control+z');
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x - 60, grip.y - 40, { steps: 4 });
  await page.keyboard.down('Control');
  await page.mouse.move(grip.x - 117, grip.y - 77, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Control');
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle 3'), 'position')).toEqual([113, 83]);
});

test('parents by a dragged link, without a jump; groups, alignment, tags, tucking and solo', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Order', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  const place = async (name: string) => valueOf(named(await sceneOf(page, server), name), 'position') as Point;
  const rowOf = (name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
  const [link, target] = [
    await middle(page.getByRole('button', { name: /^Parent of Rectangle 3/ })),
    await middle(rowOf('Rectangle')),
  ];
  await drag(page, link, { x: target.x - 300, y: target.y });
  const scene = await sceneOf(page, server);
  expect(named(scene, 'Rectangle 3').parent).toBe(named(scene, 'Rectangle').id);
  // In its parent's pixels, whose middle is at (50, 40), it stands where it stood.
  expect(await place('Rectangle 3')).toEqual([180, 120]);
  await drag(page, at(30, 30), at(30, 80));
  expect(await place('Rectangle')).toEqual([50, 90]);
  expect(await place('Rectangle 3')).toEqual([180, 120]);
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Align left edges' }).click();
  expect([await place('Rectangle'), await place('Rectangle 2'), await place('Rectangle 3')]).toEqual([
    [50, 40],
    [50, 40],
    [0, 120],
  ]);
  await page.keyboard.press('Control+z');

  await page.keyboard.press('Control+g');
  const grouped = await sceneOf(page, server);
  expect(inOrder(grouped).map((l) => l.name)).toEqual(['Group', 'Rectangle 3', 'Rectangle 2', 'Rectangle']);
  expect(named(grouped, 'Rectangle 2').parent).toBe(named<Layer>(grouped, 'Group').id);
  await page.keyboard.press('Control+Shift+g');
  expect(named(await sceneOf(page, server), 'Rectangle 2').parent).toBeNull();

  const menu = async (name: string, entry: string) => {
    await rowOf(name).click({ button: 'right', position: { x: 90, y: 12 } });
    await page.getByRole('menuitem', { name: entry }).click();
  };
  const shown = await pixel(page, at(150, 40));
  await menu('Rectangle', 'Show alone');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(150, 40))).not.toEqual(shown);
  await menu('Rectangle', 'Show with the others');
  await page.keyboard.press('Escape');
  await expect.poll(() => pixel(page, at(150, 40))).toEqual(shown);
  await menu('Rectangle 2', 'Tuck away');
  await expect(rowOf('Rectangle 2')).toBeHidden();
  await page.keyboard.press('Escape');
  expect(await pixel(page, at(150, 40))).toEqual(shown);
  await page.getByRole('button', { name: 'Show 1 tucked layer' }).click();
  await expect(rowOf('Rectangle 2')).toBeVisible();
});

test('a controller has knobs; the pivot moves without the picture; colours are kept as swatches and taken from the canvas', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Knobs', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await threeSquares(page, at);
  await page.getByRole('button', { name: 'Pivot on top left' }).click();
  const square = named(await sceneOf(page, server), 'Rectangle 3');
  expect([valueOf(square, 'pivot'), valueOf(square, 'position')]).toEqual([
    [-30, -20],
    [200, 140],
  ]);

  const source = await pixel(page, at(50, 40));
  await page.getByRole('button', { name: 'Open Fill' }).last().click();
  await page.getByLabel('Colour', { exact: true }).click();
  await page.getByRole('button', { name: 'Add to the swatches' }).click();
  await page.getByRole('button', { name: 'Take a colour from the canvas' }).click();
  const from = at(50, 40);
  await page.mouse.click(from.x, from.y);
  const hex = `#${source.map((n) => n.toString(16).padStart(2, '0')).join('')}`.toUpperCase();
  await expect
    .poll(async () => itemOf(named(await sceneOf(page, server), 'Rectangle 3'), 'fill').params.color)
    .toEqual({ value: hex });
  expect((await saved(page, server)).swatches).toHaveLength(1);

  await page.getByRole('button', { name: 'Add a controller' }).click();
  await page.getByRole('button', { name: 'Add a knob' }).click();
  await page.getByRole('menuitem', { name: 'Percent' }).click();
  await setNumber(page, 'Percent', '40');
  const rig = named<Extract<Layer, { kind: 'controller' }>>(await sceneOf(page, server), 'Controller');
  expect(Object.values(rig.knobs)[0]).toMatchObject({ name: 'Percent', params: { value: { value: 0.4 } } });
});

test('guides come out of the rulers, by number too, and things snap to them', async ({ page, server }) => {
  await newProject(page, server, 'Guides', 'Medium rectangle');
  await page.getByRole('button', { name: 'Rulers, guides and grid' }).click();
  await page.getByLabel('Rulers', { exact: true }).check();
  await page.keyboard.press('Escape');
  const at = await onScene(page, 300, 250);
  const ruler = await middle(page.getByTestId('ruler-left'));
  await drag(page, ruler, at(100, 120));
  expect((await sceneOf(page, server)).guides).toEqual({ x: [100], y: [] });
  await setNumber(page, 'Guide x 1', '110');
  await page.keyboard.press('r');
  await drag(page, at(20, 20), at(80, 60));
  await drag(page, at(40, 40), at(67, 40));
  // Its right edge, at 107 when let go near it, comes to stand on the guide.
  expect(valueOf(named(await sceneOf(page, server), 'Rectangle'), 'position')).toEqual([80, 40]);
  await addCard(page, 'Trim');
});

test('an open path goes on from its end, and a group has handles of its own', async ({ page, server }) => {
  await newProject(page, server, 'On', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const click = (x: number, y: number) => page.mouse.click(at(x, y).x, at(x, y).y);
  await page.keyboard.press('d');
  await click(40, 60);
  await click(140, 60);
  await page.keyboard.press('Enter');
  const pathOf = async () =>
    (itemOf(named(await sceneOf(page, server), 'Path'), 'path').params.path as { value: PathValue }).value;
  expect((await pathOf()).vertices).toHaveLength(2);
  await page.keyboard.press('d');
  await click(140, 60);
  await click(140, 160);
  await page.keyboard.press('Enter');
  expect((await pathOf()).vertices.map((v) => v.slice(0, 2))).toEqual([
    [-50, 0],
    [50, 0],
    [50, 100],
  ]);
  await page.keyboard.press('d');
  await click(40, 60);
  await click(40, 160);
  await click(140, 160);
  expect((await pathOf()).closed).toBe(true);
  expect((await pathOf()).vertices).toHaveLength(4);

  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await drag(page, at(200, 40), at(260, 80));
  await page.getByRole('button', { name: 'Rectangle: more' }).click();
  await page.getByRole('menuitem', { name: 'Put in a new group' }).click();
  await page.getByRole('button', { name: 'Open Group' }).click();
  await expect(page.getByTestId('group-box')).toBeAttached();
  await drag(page, at(230, 60), at(240, 90));
  await drag(page, await middle(page.getByTestId('group-1/1')), at(330, 150));
  const layer = named(await sceneOf(page, server), 'Rectangle');
  expect(valueOf(layer, 'position')).toEqual([230, 60]);
  expect(layer.params.scale).toBeUndefined();
  const { position, scale } = itemOf(layer, 'group').params as { [key: string]: { value: Point } };
  expect(scale!.value[0]).toBeCloseTo(2, 0);
  // The far corner, at (210, 70) after the move, stayed.
  expect(position!.value[0] - 30 * scale!.value[0]).toBeCloseTo(-20, 1);
});

test('files are dropped and pasted; copied pictures go to another project with their files', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'From', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  const spot = at(100, 80);
  await page.evaluate(
    ([base64, x, y]) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], 'Dropped.png', { type: 'image/png' }));
      const target = document.querySelector('[data-testid=canvas]');
      target?.dispatchEvent(
        new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data, clientX: x, clientY: y }),
      );
      const pasted = new DataTransfer();
      pasted.items.add(new File([bytes], 'Pasted.png', { type: 'image/png' }));
      window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: pasted, bubbles: true }));
    },
    [disc('#FF5D5D').toString('base64'), spot.x, spot.y] as const,
  );
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const scene = await sceneOf(page, server);
  expect(valueOf(named(scene, 'Dropped'), 'position')).toEqual([100, 80]);
  expect(valueOf(named(scene, 'Pasted'), 'position')).toEqual([150, 125]);

  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await newProject(page, server, 'To', 'Medium rectangle');
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(2);
  const there = await saved(page, server);
  const copies = inOrder(there.scenes[there.order[0] as string] as Scene) as PictureLayer[];
  expect(copies.map((l) => l.name)).toEqual(inOrder(scene).map((l) => l.name));
  for (const copy of copies) expect(there.assets[copy.asset]?.kind).toBe('picture');
  await page.keyboard.press('Escape');
  const here = await onScene(page, 300, 250);
  await expect.poll(() => pixel(page, here(100, 80))).toEqual([255, 93, 93]);
});
