/** Files from outside: fonts of every kind, and files that are not what they say. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Asset, DrawingLayer } from '@kite/core/document/types';
import { SHIPPED } from '@kite/core/type/shipped';
import { faceOf } from '@kite/core/type/harfbuzz';
import { PLAIN } from '@kite/core/test/fonts';
import { layoutText } from '@kite/core/type/layout';
import { toOpenType } from '@kite/render/woff';
import { applicationFont } from '@kite/render/fonts';
import { expect } from '@playwright/test';
import { deflateSync } from 'node:zlib';
import { newProject, onScene, saved } from './support/editor';
import { disc, importFiles, inOrder, named, sceneOf } from './support/scene';
import { test } from './support/test';

const require = createRequire(import.meta.url);
const fontFile = (name: string) =>
  readFileSync(join(dirname(require.resolve('@fontsource/caveat/package.json')), 'files', name));

/** The head of a PNG that says it is this large, and hardly anything after it. */
const hugePng = (width: number, height: number): Buffer => {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 6, 0, 0, 0], 8);
  const chunk = (type: string, data: Buffer) => {
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    return Buffer.concat([length, Buffer.from(type), data, Buffer.alloc(4)]);
  };
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(100))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
};

test('TTF, WOFF and WOFF2 are taken in as fonts; what is none, or broken, or huge, is refused in words', async ({
  server,
}) => {
  const send = (name: string, bytes: Uint8Array) =>
    server.api<Asset & { error: { message: string } }>('POST', `/assets?name=${encodeURIComponent(name)}`, bytes);
  const woff = fontFile('caveat-latin-700-normal.woff');
  for (const [name, bytes] of [
    ['woff', woff],
    ['woff2', fontFile('caveat-latin-700-normal.woff2')],
    ['ttf', await toOpenType(woff)],
  ] as const) {
    const { status, body } = await send(name, bytes);
    expect(status, name).toBe(201);
    expect(body, name).toMatchObject({ kind: 'font', family: 'Caveat', weight: 700, italic: false });
  }
  const cases: readonly (readonly [string, Uint8Array, RegExp])[] = [
    ['broken font', Buffer.concat([Buffer.from('wOFF'), Buffer.alloc(60, 255)]), /not a font/],
    ['half a font', woff.subarray(0, 4_000), /not a font/],
    ['a table of nothing', Buffer.concat([Buffer.from([0, 1, 0, 0]), Buffer.alloc(200)]), /not a font/],
    ['page', Buffer.from('<html><script>alert(1)</script></html>'), /not a PNG, JPEG, WebP or GIF/],
    ['nothing', Buffer.alloc(0), /empty/],
    ['too much', Buffer.alloc(51 * 2 ** 20), /51 MB; files of up to 50 MB/],
    ['huge', hugePng(20_000, 10_000), /20000 × 10000, 200 megapixels/],
    ['cut short', hugePng(300, 200), /cut short: its end is missing/],
  ];
  for (const [name, bytes, message] of cases) {
    const { status, body } = await send(name, bytes);
    expect(status, name).toBe(400);
    expect(body.error.message, name).toMatch(message);
  }
  expect((await server.api('GET', `/assets/${'0'.repeat(64)}`)).status).toBe(404);
  expect((await server.api('GET', '/fonts/inter/401/normal/0')).status).toBe(404);
});

test('a font of one’s own is chosen, goes into the archive, and is named where it is missing', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Fonts', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('t');
  const spot = at(150, 125);
  await page.mouse.click(spot.x, spot.y);
  await expect(page.getByTestId('canvas-text')).toBeFocused();
  await page.keyboard.type('Ride home easy');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Open Text' }).last().click();
  await page.getByTestId('font-file').setInputFiles({
    name: 'hand.woff2',
    mimeType: 'font/woff2',
    buffer: fontFile('caveat-latin-400-normal.woff2'),
  });
  await expect(page.getByText('The font Caveat can be chosen now.')).toBeVisible();
  const project = await saved(page, server);
  const [font] = Object.values(project.assets);
  expect(font).toMatchObject({ kind: 'font', family: 'Caveat', name: 'hand' });

  // A font that nobody has is stood in for, and said so at the field and over the picture.
  const scene = project.scenes[project.order[0] as string]!;
  const layer = Object.values(scene.layers)[0] as DrawingLayer;
  const item = Object.values(layer.items).find((i) => i.kind === 'text')!;
  const path = ['scenes', scene.id, 'layers', layer.id, 'items', item.id, 'params', 'font'];
  const value = { value: { family: 'Quillhaven Sans', weight: 400, italic: false } };
  const head = await server.api<{ revision: number }>('GET', `/projects/${project.id}`);
  const patches = [{ op: 'add', path, value }];
  await server.api('PATCH', `/projects/${project.id}`, {
    base: head.body.revision,
    saves: [{ id: 'x1', label: 'Font', patches }],
  });
  await page.reload();
  await expect(
    page.getByText(/asks for the font Quillhaven Sans 400, which is not here; Inter 400 stands in/),
  ).toBeVisible();
});

test('text is as wide as Chromium sets it, for every font that ships', async ({ page, server }) => {
  test.setTimeout(120_000);
  await page.goto(server.url);
  const texts = ['Last tram 02:40', 'AVATAR Toy fi ffl', 'The town sleeps. We don’t.'];
  let worst = 0;
  for (const family of SHIPPED) {
    const weight = family.weights.includes(700) ? 700 : (family.weights[0] as number);
    const files = (await applicationFont({ from: 'application', family: family.id, weight, italic: false }))!;
    const face = faceOf(files, weight);
    const ours = texts.map((text) => {
      const [line] = layoutText(face, { ...PLAIN, text }).lines;
      return line!.right - line!.left;
    });
    const theirs = await page.evaluate(
      async ([id, w, lines]) => {
        const font = new FontFace('measured', `url(/api/fonts/${id}/${w}/normal/0)`);
        document.fonts.add(await font.load());
        const context = document.createElement('canvas').getContext('2d')!;
        context.font = '100px measured';
        context.textRendering = 'geometricPrecision';
        const widths = lines.map((line) => context.measureText(line).width);
        document.fonts.delete(font);
        return widths;
      },
      [family.id, weight, texts] as const,
    );
    ours.forEach((width, i) => {
      const off = Math.abs(width / theirs[i]! - 1);
      worst = Math.max(worst, off);
      expect(off, `${family.name}: ${texts[i]}`).toBeLessThan(0.005);
    });
  }
  expect(worst).toBeGreaterThan(0);
});

test('an archive takes its files with it', async ({ page, server }) => {
  const asset = await server.api<Asset>('POST', '/assets?name=hand', fontFile('caveat-latin-600-normal.woff'));
  const made = await server.api<{ id: string }>('POST', '/projects', {
    name: 'With a font',
    scene: 'Scene',
    size: { width: 100, height: 100, rate: { num: 25, den: 1 }, length: 10, background: null },
  });
  const patches = [{ op: 'add', path: ['assets', asset.body.id], value: asset.body }];
  await server.api('PATCH', `/projects/${made.body.id}`, { base: 0, saves: [{ id: 'a1', label: 'Import', patches }] });
  const bytes = Buffer.from(await (await fetch(`${server.url}/api/projects/${made.body.id}/archive`)).arrayBuffer());
  expect(bytes.includes(Buffer.from(`assets/${asset.body.sha}`))).toBe(true);
  await page.goto(server.url);
  await page
    .getByLabel('Project archive')
    .setInputFiles({ name: 'x.kite', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByText('With a font 2', { exact: true })).toBeVisible();
  // A file that was changed on the way is found out.
  const broken = Buffer.from(bytes);
  const at = broken.indexOf(Buffer.from(`assets/${asset.body.sha}`)) + 71 + 200;
  broken[at] = (broken[at] as number) ^ 255;
  const answer = await server.api<{ error: { message: string } }>('POST', '/projects/import', broken);
  expect([answer.status, answer.body.error.message]).toEqual([
    400,
    expect.stringMatching(/the file of “hand” is damaged/),
  ]);
});

test('a size is kept under a name, and is there for the next project', async ({ page, server }) => {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByLabel('Width, px').fill('970');
  await page.getByLabel('Height, px').fill('250');
  await page.getByLabel('Name for this size').fill('Wide banner');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Wide banner 970×250/ })).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByRole('button', { name: /^Wide banner/ }).click();
  await expect(page.getByLabel('Width, px')).toHaveValue('970');
  await page.getByRole('button', { name: 'Remove the size Wide banner' }).click();
  await expect(page.getByRole('button', { name: /^Wide banner/ })).toBeHidden();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Wide banner/ })).toBeVisible();
});

test('one file imported twice is one file; a picture larger than the scene says that it was scaled, and gets its size back', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Twice', 'Medium rectangle');
  const large = disc('#FF5D5D', '#F0F0EC', 600, 400);
  const picture = (name: string) => ({ name, mimeType: 'image/png', buffer: large });
  await importFiles(page, [picture('Lamp.png')]);
  await expect(page.getByText('“Lamp” is 600 × 400, larger than the scene: scaled to fit.')).toBeVisible();
  const scale = async (name: string) => named(await sceneOf(page, server), name).params.scale;
  expect(await scale('Lamp')).toEqual({ value: [0.5, 0.5] });
  await page.getByRole('button', { name: 'Own size' }).click();
  expect(await scale('Lamp')).toEqual({ value: [1, 1] });

  await importFiles(page, [picture('Lamp again.png')]);
  await expect(page.getByText('A file was here already')).toBeVisible();
  const doc = await saved(page, server);
  expect(Object.keys(doc.assets)).toHaveLength(1);
  expect(inOrder(await sceneOf(page, server))).toHaveLength(2);
});
