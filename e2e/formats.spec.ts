/** What comes out of a render, read with tools that are not ours, and the one engine behind it all. */
import { countingIds, newDrawing, newItem, newProject as emptyProject, newScene } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import type { Asset, DrawingLayer, Item, Project, Value } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';
import { setFormula } from '@kite/core/edits/formulas';
import { addLayers } from '@kite/core/edits/layers';
import { animate } from '@kite/core/edits/properties';
import { writeArchive } from '@kite/core/interchange/archive';
import { createCanvas } from '@napi-rs/canvas';
import type { BrowserContext, Page } from '@playwright/test';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { goToFrame, newProject, saved } from './support/editor';
import { colorAt, differing, type Pixels, readGif, readPng, readVideo, unpack } from './support/media';
import type { Server } from './support/server';
import { expect, test } from './support/test';

/** Of the demo’s fan, which comes with its colours. */
const TEAL = [0x2e, 0xc4, 0xb6];
const near = (color: readonly number[], wanted: readonly number[], by = 3) =>
  wanted.every((v, i) => Math.abs(v - (color[i] ?? -99)) <= by);

/** Copies the demo's fan into a banner-sized project through the editor's own clipboard. */
const fanBanner = async (page: Page, server: Server): Promise<Project> => {
  const { body } = await server.api<{ id: string; name: string }[]>('GET', '/projects');
  const demo = body.find((p) => p.name === 'Quillhaven Night Tram');
  await page.goto(`${server.url}/projects/${demo?.id}`);
  await page.getByRole('button', { name: 'Scene Lamp fan', exact: true }).click();
  await page.getByTestId('canvas').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await newProject(page, server, 'Late ticket fan', 'Medium rectangle');
  await page.getByLabel('Scene length', { exact: true }).fill('90');
  await page.getByLabel('Scene length', { exact: true }).press('Enter');
  await page.keyboard.press('Control+v');
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  // The fan was made for 1080 pixels: all three shrink as one, and sit in the middle.
  for (const axis of ['Scale x', 'Position x', 'Position y']) {
    const field = page.getByLabel(axis, { exact: true });
    await field.click();
    await field.fill(axis === 'Scale x' ? '25' : axis === 'Position x' ? '150' : '125');
    await field.press('Enter');
  }
  return saved(page, server);
};

const render = async (page: Page, format: string, fill: (page: Page) => Promise<void> = async () => undefined) => {
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: format }).click();
  await fill(page);
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
};

interface Row {
  id: string;
  projectId: string;
  status: string;
  sceneName: string;
  settings: { format: string };
  error: string | null;
}

/** The finished renders of a project by format, once there are so many. */
const finished = async (server: Server, project: string, count: number): Promise<Map<string, Row>> => {
  const done = async () =>
    (await server.api<Row[]>('GET', '/renders')).body.filter((r) => r.projectId === project && r.status === 'done');
  await expect.poll(async () => (await done()).length, { timeout: 60_000 }).toBe(count);
  return new Map((await done()).map((r) => [r.settings.format, r]));
};

/** The editor's own picture of the scene at 100 %. */
const previewPixels = async (page: Page): Promise<Pixels> => {
  await page.getByRole('button', { name: 'Zoom to 100 %' }).click();
  const picture = page.getByTestId('picture');
  await expect(picture).toHaveJSProperty('width', 300);
  const url = await picture.evaluate((canvas: HTMLCanvasElement) => {
    // What a bitmap renderer shows can be drawn elsewhere, but not read.
    const copy = document.createElement('canvas');
    copy.width = canvas.width;
    copy.height = canvas.height;
    copy.getContext('2d')?.drawImage(canvas, 0, 0);
    return copy.toDataURL('image/png');
  });
  return readPng(Buffer.from(url.split(',')[1] ?? '', 'base64'));
};

test('all formats, from the dialog to the files', async ({ page, server, context }) => {
  const doc = await fanBanner(page, server);
  const scene = Object.values(doc.scenes)[0];
  expect([scene?.width, scene?.height, scene?.length]).toEqual([300, 250, 90]);
  await goToFrame(page, 86);

  await render(page, 'MP4 video');
  await render(page, 'Animated GIF', async () => {
    await page.getByLabel('Plays', { exact: true }).fill('3');
    await page.getByLabel('Plays', { exact: true }).press('Enter');
  });
  await render(page, 'HTML5 banner', async () => {
    await page.getByLabel('Fallback frame').fill('40');
    await page.getByLabel('Fallback frame').press('Enter');
    await page.getByLabel('Click leads to').fill('https://nighttram.example');
  });
  await render(page, 'PNG');
  const rows = await finished(server, doc.id, 4);
  const file = (format: string) => server.bytes(`/renders/${rows.get(format)?.id}/file`);

  await test.step('PNG: the frame at the playhead', async () => {
    const png = await readPng(await file('png'));
    expect([png.width, png.height]).toEqual([300, 250]);
    expect(colorAt(png, 10, 10).slice(0, 3)).toEqual(TEAL);
  });

  await test.step('MP4: frames, rate, size, tags and colours', async () => {
    const video = readVideo(await file('mp4'), 300, 250);
    expect(video.frames).toBe(90);
    expect(video.head).toMatch(/Video: h264.*yuv420p\(tv, bt709.*300x250/);
    expect(video.head).toMatch(/30 fps/);
    expect(near(colorAt(video.frame(86), 10, 10), TEAL)).toBe(true);
    expect(near(colorAt(video.frame(0), 10, 10), [255, 255, 255])).toBe(true);
  });

  await test.step('GIF: delays, loop count and colours', async () => {
    const gif = readGif(await file('gif'));
    expect([gif.width, gif.height, gif.delays.length]).toEqual([300, 250, 90]);
    // Thirty frames a second in hundredths: 3, 4, 3 ... three seconds in all.
    expect(gif.delays.slice(0, 3)).toEqual([3, 4, 3]);
    expect(gif.delays.reduce((a, b) => a + b)).toBe(300);
    // Played three times is repeated twice.
    expect(gif.loop).toBe(2);
    expect(near(colorAt(gif.frame(86), 10, 10), TEAL)).toBe(true);
  });

  await test.step('HTML5: opens from its folder with the network off, frame by frame the server’s pixels', async () => {
    const banner = unpack(await file('html5'));
    expect(banner.names.sort()).toEqual(['fallback.png', 'index.html', 'player.js', 'scene.js']);
    const html = readFileSync(join(banner.folder, 'index.html'), 'utf8');
    expect(html).toContain('<meta name="ad.size" content="width=300,height=250">');
    expect(html).toContain('var clickTag = "https://nighttram.example"');

    const asked: string[] = [];
    const alone = await context.newPage();
    await alone.context().setOffline(true);
    alone.on('request', (request) => asked.push(request.url()));
    const errors: string[] = [];
    alone.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
    await alone.goto(`file://${banner.folder}/index.html#frame=86`);
    const pixels = async () => {
      const url = await alone.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/png'));
      return readPng(Buffer.from(url.split(',')[1] ?? '', 'base64'));
    };
    expect(differing(await pixels(), await readPng(await file('png')))).toBe(0);
    await alone.goto('about:blank');
    await alone.goto(`file://${banner.folder}/index.html#frame=40`);
    expect(differing(await pixels(), await readPng(readFileSync(join(banner.folder, 'fallback.png'))))).toBe(0);
    // By itself it plays.
    await alone.goto('about:blank');
    await alone.goto(`file://${banner.folder}/index.html`);
    const first = await pixels();
    await expect.poll(async () => differing(first, await pixels())).toBeGreaterThan(100);
    expect(
      asked.filter((url) => !url.startsWith('file://') && !url.startsWith('data:') && url !== 'about:blank'),
    ).toEqual([]);
    expect(errors).toEqual([]);
    await alone.context().setOffline(false);
    await alone.close();
  });

  await test.step('the editor’s preview is the server’s picture, pixel for pixel', async () => {
    await page.getByTestId('canvas').click({ position: { x: 5, y: 5 } });
    expect(differing(await previewPixels(page), await readPng(await file('png')))).toBe(0);
  });

  await test.step('the Renders page plays each of them', async () => {
    await page.goto(`${server.url}/renders`);
    const list = page.getByTestId('render-row');
    await expect(list).toHaveCount(4);
    await list.filter({ hasText: 'MP4 video' }).getByRole('button').first().click();
    const video = page.locator('video');
    await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.readyState)).toBeGreaterThan(1);
    await expect(page.getByText('300 × 250 px · 90 frames · 3.00 s')).toBeVisible();
    await list.filter({ hasText: 'Animated GIF' }).getByRole('button').first().click();
    await expect.poll(() => page.locator('section img').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(300);
    await list.filter({ hasText: 'HTML5 banner' }).getByRole('button').first().click();
    await expect(page.frameLocator('iframe').locator('canvas')).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Download' }).click();
    expect((await download).suggestedFilename()).toBe('Scene 1.zip');
  });
});

/** A picture, words, masks and every ink in one scene. */
const wholeScene = async (server: Server): Promise<string> => {
  const canvas = createCanvas(120, 80);
  const context = canvas.getContext('2d');
  context.fillStyle = '#F0F0EC';
  context.fillRect(0, 0, 120, 80);
  context.fillStyle = '#FF5D5D';
  context.fillRect(30, 20, 60, 40);
  const { body: asset } = await server.api<Asset>('POST', '/assets?name=Ticket', canvas.toBuffer('image/png'));
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#1B1F4B' };
  const scene = newScene('s', 'Whole', size);
  const id = countingIds('w');
  const card = (kind: string, values: { [key: string]: Value } = {}, children?: readonly Item[]): Item => ({
    ...newItem(id(), kind, values),
    ...(children && { children: children.map((c) => c.id) }),
  });
  const hole = card('star', { outer: 30, inner: 14 });
  const shown = card('ellipse', { width: 90, height: 60 });
  const round = card('ellipse', { width: 40, height: 44 });
  const bar = card('rectangle', { width: 60, height: 14, centre: [8, 6] });
  const dot = card('ellipse', { width: 12, height: 12, centre: [-6, -8] });
  const inked = (style: string, more: { [key: string]: Value }) => ({
    style,
    from: [-40, 0] as const,
    to: [40, 0] as const,
    ...more,
  });
  const layers = [
    newDrawing(
      scene,
      'words',
      'Words',
      [
        card('text', { text: 'Last tram\n02:40', size: 40 }),
        card('fill', inked('linear', {})),
        card('stroke', { width: 1 }),
      ],
      { position: [150, 60] },
    ),
    newDrawing(
      scene,
      'ticket',
      'Ticket',
      [
        card('picture', {
          asset: asset.id,
          cut: { seeds: [{ x: 1, y: 1, tolerance: 0.1 }], grow: 1, soften: 3, strokes: [] },
        }),
        card('blur', { amount: 3 }),
      ],
      { position: [80, 180] },
    ),
    newDrawing(
      scene,
      'masked',
      'Masked',
      [
        card('rectangle', { width: 120, height: 70 }),
        card('fill', inked('angular', { grain: 0.5 })),
        card('mask', {}, [shown]),
        shown,
        card('mask', { mode: 'hide' }, [hole]),
        hole,
      ],
      { position: [210, 180] },
    ),
    newDrawing(
      scene,
      'soft',
      'Soft',
      [
        card('rectangle', { width: 60, height: 60 }),
        card('fill', { color: '#FFB23E' }),
        card('mask', { feather: 5, grow: 3 }, [round]),
        round,
        card('mask', { mode: 'exclude', strength: 0.7, feather: 2 }, [bar]),
        bar,
        card('mask', { mode: 'show', inverted: true, strength: 0.9 }, [dot]),
        dot,
      ],
      { position: [262, 42] },
    ),
    newDrawing(
      scene,
      'line',
      'Line',
      [
        card('line', { from: [-120, 0], to: [120, 0] }),
        card('zigsteps', { points: 'smooth' }),
        card('stroke', { width: 9, taperStart: 0.4, taperEnd: 0.4, ...inked('radial', {}) }),
      ],
      { position: [150, 128] },
    ),
  ];
  const doc = applyEdit(emptyProject('p', 'Whole', [scene]), {
    label: 'Build',
    change: (draft) => {
      addAsset(asset).change(draft);
      addLayers('s', layers).change(draft);
      // Formulas move some of it, and the letters of one are not written anywhere.
      const words = layers[0] as DrawingLayer;
      const text = words.recipe[0] as string;
      const formula = (layer: string, key: string, source: string, item?: string) =>
        setFormula({ scene: 's', layer, key, ...(item !== undefined && { item }) }, source).change(draft);
      formula('words', 'text', '"Last tram\n" + text(2.4 + time / 10, 2)', text);
      formula('masked', 'rotation', 'wave(1, 12) + drift(2, 9, 4)');
      formula('ticket', 'position.x', `round(textWidth({@words/${text}/text}) / 2)`);
    },
  }).doc;
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  return body.id;
};

interface Shown {
  readonly png: Pixels;
  readonly svg: Pixels;
  readonly bannerNames: readonly string[];
}

/**
 * Renders frame 7 of an open project's scene in three formats, and compares preview, PNG and banner, in a browser whose
 * canvases have filters and in one whose have none.
 */
const agreeing = async (page: Page, server: Server, context: BrowserContext, id: string): Promise<Shown> => {
  await goToFrame(page, 7);
  for (const format of ['PNG', 'HTML5 banner', 'SVG']) await render(page, format);
  const rows = await finished(server, id, 3);
  const file = (format: string) => server.bytes(`/renders/${rows.get(format)?.id}/file`);
  const png = await readPng(await file('png'));
  // Grain is laid over by a blend whose rounding differs by a level.
  expect(differing(await previewPixels(page), png, 1)).toBe(0);

  const banner = unpack(await file('html5'));
  const shot = async (address: string, before: () => void = () => undefined) => {
    const alone = await context.newPage();
    await alone.addInitScript(before);
    await alone.route('http://delivered.example/**', (route) =>
      route.fulfill({ path: join(banner.folder, new URL(route.request().url()).pathname) }),
    );
    await alone.setViewportSize({ width: 300, height: 250 });
    await alone.goto(address);
    // Pictures decoded, and what is drawn by then shown.
    await alone.evaluate(async () => {
      await Promise.all([...document.images].map((image) => image.decode()));
      for (let n = 0; n < 3; n++) await new Promise(requestAnimationFrame);
    });
    const pixels = await readPng(await alone.screenshot());
    await alone.close();
    return pixels;
  };
  expect(differing(await shot(`file://${banner.folder}/index.html#frame=7`), png, 1)).toBe(0);
  // In a browser whose canvases have no filters our own kernels stand in for them.
  const unfiltered = await shot('http://delivered.example/index.html#frame=7', () => {
    delete (CanvasRenderingContext2D.prototype as Partial<CanvasFilters>).filter;
  });
  expect(differing(unfiltered, png, 2)).toBe(0);
  expect(differing(unfiltered, png, 0)).toBeGreaterThan(0);

  const svgText = new TextDecoder().decode(await file('svg'));
  expect(svgText).not.toMatch(/<text|<script|href="(?!data:)/);
  const folder = mkdtempSync(join(tmpdir(), 'kite-svg-'));
  writeFileSync(join(folder, 'frame.svg'), svgText);
  return { png, svg: await shot(`file://${folder}/frame.svg`), bannerNames: banner.names };
};

/** How far colours of two pictures are from each other, pixel by pixel, where it is wanted. */
const distances = (a: Pixels, b: Pixels, wanted: (x: number, y: number) => boolean): number[] =>
  Array.from({ length: 250 }, (_, y) =>
    Array.from({ length: 300 }, (_x, x) => {
      if (!wanted(x, y)) return [];
      const [p, q] = [colorAt(a, x, y), colorAt(b, x, y)];
      return [Math.max(...[0, 1, 2].map((c) => Math.abs(p[c]! - q[c]!)))];
    }).flat(),
  ).flat();
const share = (list: readonly number[], beyond: number): number => list.filter((d) => d > beyond).length / list.length;

test('words, cut-outs, masks, inks and blurs are the same in preview, PNG, banner and SVG', async ({
  page,
  server,
  context,
}) => {
  const id = await wholeScene(server);
  await page.goto(`${server.url}/projects/${id}`);
  await expect(page.getByTestId('layer-row')).toHaveCount(5);
  const { png, svg, bannerNames } = await agreeing(page, server, context, id);
  expect(bannerNames).toContain('picture-1.png');
  expect(bannerNames.some((n) => /\.(otf|ttf|woff2?|wasm)$/.test(n))).toBe(false);
  // Angular gradients and grain are what SVG has no means for: their part of the picture is left out of the comparison.
  expect(
    share(
      distances(svg, png, (x, y) => x <= 145 || y <= 138),
      40,
    ),
  ).toBeLessThan(0.005);
  // Of soft masks every level counts, but where hard edges are drawn by another's rules.
  expect(
    share(
      distances(svg, png, (x, y) => x > 238 && y < 76),
      3,
    ),
  ).toBeLessThan(0.01);
});

/** A disc on a square for each effect, in rows. */
const effectsScene = async (server: Server): Promise<string> => {
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#26324F' };
  const scene = newScene('s', 'Effects', size);
  const effects: readonly (readonly [string, { readonly [key: string]: Value }])[] = [
    ['shadow', { distance: 6, softness: 6 }],
    ['shadow', { softness: 8, spread: 0.6, color: '#FF5D5D', strength: 0.8, alone: true }],
    ['glow', { size: 10 }],
    ['flood', { color: '#2DC4B6', strength: 0.6 }],
    ['tint', { dark: '#1B2A41', light: '#F2E9DC' }],
    ['tint', { map: 'gradient', strength: 0.7 }],
    ['levels', { black: 0.1, white: 0.7, middle: 1.4, low: 0.05, high: 0.9 }],
    ['brightness', { brightness: 1.2, contrast: 1.3 }],
    ['colorturn', { hue: 120, strength: 1.4 }],
    ['colorturn', { hue: 40, light: 0.3 }],
    ['colorturn', { one: true, hue: 200, strength: 0.8 }],
    ['invert', { strength: 0.9 }],
    ['threshold', { at: 0.55, dark: '#1B2A41', light: '#F2E9DC' }],
    ['wipe', { style: 'round', shown: 0.6, soft: 6 }],
    ['wipe', { style: 'blinds', shown: 0.5, blinds: 4, angle: 30 }],
    ['wipe', { style: 'clock', shown: 0.7, hides: true, soft: 2 }],
    ['matte', { layer: 'm', by: 'alpha' }],
    ['matte', { layer: 'm', by: 'brightness', inverted: true, strength: 0.9 }],
    ['outline', { width: 3, color: '#F2E9DC' }],
    ['tile', { across: 1, down: 0, mirror: 'across', moved: [5, 0] }],
    ['blur', { amount: 4, way: 'across' }],
    ['blur', { amount: 4, edges: 'kept' }],
    ['trail', { count: 3, every: 2, opacity: 0.3, scale: 0.6 }],
    ['motion-blur', { shutter: 360, samples: 8 }],
    // What SVG has no means for stands below the others.
    ['grain', { strength: 0.4, size: 2, colored: true, moving: true }],
    ['pixelate', { side: 7 }],
    ['warp', { amount: 5, size: 12, phase: 0.4 }],
  ];
  const layers = effects.map(([kind, values], i) =>
    newDrawing(
      scene,
      `l${i}`,
      `${kind} ${i}`,
      [
        newItem(`r${i}`, 'rectangle', { width: 36, height: 30 }),
        newItem(`f${i}`, 'fill', { color: '#C2714A' }),
        newItem(`e${i}`, 'ellipse', { width: 16, height: 16, centre: [10, 8] }),
        newItem(`g${i}`, 'fill', { color: '#F2E9DCC0' }),
        newItem(`x${i}`, kind, values),
      ],
      { position: [30 + (i % 6) * 48, 28 + Math.floor(i / 6) * 48] },
    ),
  );
  // Across the whole scene, unseen: what shows of it is where others are cut by it.
  const cutting = newDrawing(
    scene,
    'm',
    'Matte',
    [
      newItem('mr', 'rectangle', { width: 22, height: 22 }),
      newItem('mo', 'repeater', { copies: 6, position: [48, 0] }),
      newItem('mf', 'fill', { color: '#7FB2E5' }),
      newItem('mb', 'blur', { amount: 2 }),
    ],
    { position: [30, 124] },
  );
  const moving = effects.flatMap(([kind], i) => (kind === 'trail' || kind === 'motion-blur' ? [`l${i}`] : []));
  const cover = newDrawing(scene, 'over', 'Over all', [
    newItem('ob', 'below'),
    newItem('ot', 'flood', { color: '#C2714A', strength: 0.3 }),
    newItem('ow', 'wipe', { shown: 0.5 }),
  ]);
  const doc = [
    addLayers('s', [cover, ...layers, { ...cutting, hidden: true }]),
    ...moving.map((layer) => {
      const [x, y] = [(30 + (Number(layer.slice(1)) % 6) * 48) as number, 28 + 3 * 48];
      return animate({ scene: 's', layer, key: 'position' }, [
        [0, [x - 20, y], { kind: 'linear' }],
        [14, [x + 20, y - 8]],
      ]);
    }),
  ].reduce((now, edit) => applyEdit(now, edit).doc, emptyProject('p', 'Effects', [scene]));
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  return body.id;
};

test('every effect is the same in preview, PNG, banner and SVG', async ({ page, server, context }) => {
  const id = await effectsScene(server);
  await page.goto(`${server.url}/projects/${id}`);
  await expect(page.getByTestId('layer-row').first()).toBeVisible();
  const { png, svg } = await agreeing(page, server, context, id);
  const apart = distances(svg, png, (_x, y) => y < 194);
  // SVG grows an outline by squares: its corners are not round.
  expect([share(apart, 3) < 0.02, share(apart, 40) < 0.001]).toEqual([true, true]);
});
