/** What comes out of a render, read with tools that are not ours. */
import { newPicture, newProject as newProjectOf } from '@kite/core/document/make';
import type { Project } from '@kite/core/document/types';
import { writeArchive } from '@kite/core/interchange/archive';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { goToFrame, newProject, saved } from './support/editor';
import { colorAt, differing, readGif, readPng, readVideo, unpack } from './support/media';
import { BLANK, discLayer, keyed, openMade } from './support/made';
import type { Server } from './support/server';
import { expect, test } from './support/test';
import { finished, previewPixels, render } from './support/outputs';

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
  // Asked again, it is as it was the last time.
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await expect(page.getByRole('radio', { name: 'PNG', exact: true })).toBeChecked();
  await page.keyboard.press('Escape');
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
    // A picture for each change; thirty frames a second in hundredths are three seconds in all.
    expect([gif.width, gif.height]).toEqual([300, 250]);
    expect(gif.delays.length).toBeGreaterThan(5);
    expect(gif.delays.reduce((a, b) => a + b)).toBe(300);
    // Played three times is repeated twice.
    expect(gif.loop).toBe(2);
    expect(near(colorAt(gif.at((86 * 100) / 30 + 1), 10, 10), TEAL)).toBe(true);
  });

  await test.step('HTML5: opens from its folder with the network off, frame by frame the server’s pixels', async () => {
    const banner = unpack(await file('html5'));
    expect(banner.names.sort()).toEqual(['fallback.jpg', 'index.html', 'player.js', 'scene.js']);
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
    // The fallback picture is packed as photographs are: nearly the same.
    const fallback = await readPng(readFileSync(join(banner.folder, 'fallback.jpg')));
    expect(differing(await pixels(), fallback, 40)).toBeLessThan((300 * 250) / 100);
    // Whoever wants less motion is shown the end.
    await alone.goto('about:blank');
    await alone.goto(`file://${banner.folder}/index.html#frame=89`);
    const end = await pixels();
    await alone.emulateMedia({ reducedMotion: 'reduce' });
    await alone.goto('about:blank');
    await alone.goto(`file://${banner.folder}/index.html`);
    expect(differing(await pixels(), end)).toBe(0);
    await alone.emulateMedia({ reducedMotion: 'no-preference' });
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
    const list = page.getByTestId('render-row').filter({ hasText: 'Late ticket fan' });
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
    expect((await download).suggestedFilename()).toBe('Scene-1.zip');
  });
});

test('moving pictures with transparency, frames and a sheet: chosen in the dialog, and in Chromium what was drawn', async ({
  page,
  server,
}) => {
  const id = await openMade(
    page,
    server,
    'Moving',
    [discLayer('a', 'Ball', [40, 120], '#2EC4B6', 60)],
    keyed('a', 'opacity', [
      [0, 1, { kind: 'linear' }],
      [9, 0.3],
    ]),
  );
  const part = async () => {
    await page.getByLabel('Last frame to render').fill('9');
    await page.getByLabel('Last frame to render').press('Enter');
  };
  await render(page, 'Animated PNG', part);
  await render(page, 'WebP', async () => {
    await part();
    await page.getByLabel('Without loss', { exact: true }).check();
  });
  await render(page, 'Frames', part);
  await render(page, 'Sheet of frames', part);
  await render(page, 'MOV video', part);
  await render(page, 'JPEG');
  await render(page, 'Animated SVG', part);
  const rows = await finished(server, id, 7);
  const address = (format: string) => `/api/renders/${rows.get(format)?.id}/file`;
  const frames = unzipSync(await server.bytes(`/renders/${rows.get('frames')?.id}/file`));
  expect(Object.keys(frames).length).toBe(10);
  const drawn = await readPng(frames['frame-0005.png'] as Uint8Array);

  await test.step('an animated SVG shows, at its time, the frame that was drawn', async () => {
    const moving = await page.context().newPage();
    await moving.goto(server.url + address('animated-svg'));
    await moving.evaluate((seconds) => {
      const root = document.documentElement as unknown as SVGSVGElement;
      root.pauseAnimations();
      root.setCurrentTime(seconds);
    }, 4.5 / 25);
    const clip = { x: 0, y: 0, width: 400, height: 240 };
    expect(differing(await readPng(await moving.screenshot({ clip })), drawn, 12)).toBe(0);
    await moving.close();
  });

  for (const [format, type] of [
    ['apng', 'image/png'],
    ['webp', 'image/webp'],
  ] as const) {
    const { count, pixels } = await page.evaluate(
      async ({ url, type: mime }) => {
        const data = await (await fetch(url)).arrayBuffer();
        const decoder = new ImageDecoder({ data, type: mime, preferAnimation: true });
        await decoder.tracks.ready;
        const { image } = await decoder.decode({ frameIndex: 4 });
        const context = new OffscreenCanvas(image.displayWidth, image.displayHeight).getContext('2d');
        context?.drawImage(image, 0, 0);
        const shown = context?.getImageData(0, 0, image.displayWidth, image.displayHeight).data;
        return { count: decoder.tracks.selectedTrack?.frameCount, pixels: [...(shown ?? [])] };
      },
      { url: address(format), type },
    );
    expect(count).toBe(10);
    const farthest = pixels.reduce((most, v, i) => Math.max(most, Math.abs(v - (drawn.data[i] ?? 0))), 0);
    expect(farthest, format).toBeLessThanOrEqual(2);
  }
  const sheet = unzipSync(await server.bytes(`/renders/${rows.get('sheet')?.id}/file`));
  expect(Object.keys(sheet).sort()).toEqual(['sheet.json', 'sheet.png']);

  // What a page cannot show is said, and can be downloaded.
  await page.goto(`${server.url}/renders`);
  await page.getByText('MOV video').first().click();
  await expect(page.getByText('MOV video: a file for other programs.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Download' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Open as delivered' })).toBeHidden();
});

test('a banner: areas that lead elsewhere, by keyboard too; played again; closed; pictures as small as they are shown', async ({
  page,
  server,
  context,
}) => {
  // A picture of 400 by 240 pixels, shown at a tenth of that.
  const photo = createCanvas(400, 240);
  const pen = photo.getContext('2d');
  for (let x = 0; x < 400; x += 4) {
    pen.fillStyle = `hsl(${x} 80% ${30 + (x % 40)}%)`;
    pen.fillRect(x, 0, 4, 240);
  }
  const bytes = new Uint8Array(photo.toBuffer('image/png'));
  const sha = createHash('sha256').update(bytes).digest('hex');
  const asset = {
    id: 'p',
    name: 'Quay.png',
    sha,
    bytes: bytes.length,
    kind: 'picture',
    type: 'image/png',
    width: 400,
    height: 240,
  } as const;
  const small = newPicture(BLANK, 'q', 'Quay', 'p');
  const quay = {
    ...small,
    params: { ...small.params, position: { value: [320, 60] }, scale: { value: [0.1, 0.1] } },
  } as const;
  const button = discLayer('b', 'Button', [100, 120], '#FF5D5D', 80);
  const scene = {
    ...BLANK,
    length: 10,
    poster: 5,
    layers: { b: { ...button, to: 10 }, q: { ...quay, to: 10 } },
    order: ['b', 'q'],
  };
  const doc = { ...newProjectOf('p', 'Banner', [scene]), assets: { p: asset } };
  const { body } = await server.api<{ id: string }>(
    'POST',
    '/projects/import',
    writeArchive(doc, new Map([[sha, bytes]])),
  );
  await page.goto(`${server.url}/projects/${body.id}`);
  await render(page, 'HTML5 banner', async () => {
    await page.getByLabel('Plays', { exact: true }).fill('1');
    await page.getByLabel('Click leads to').fill('https://nighttram.example/home');
    await page.getByLabel('Click areas').fill('Button = https://nighttram.example/plan');
    await page.getByLabel('Play again button').check();
    await page.getByLabel('Close button').check();
    await page.getByRole('button', { name: 'Weigh it' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'Player' })).toContainText(/\d+ KB of 150 KB/);
  });
  const rows = await finished(server, body.id, 1);
  const banner = unpack(await server.bytes(`/renders/${rows.get('html5')?.id}/file`));
  expect(banner.names.filter((name) => name.startsWith('picture-'))).toHaveLength(1);
  const [name = ''] = banner.names.filter((n) => n.startsWith('picture-'));
  const kept = await loadImage(readFileSync(join(banner.folder, name)));
  expect([kept.width, kept.height]).toEqual([40, 24]);
  expect(readFileSync(join(banner.folder, name)).length).toBeLessThan(bytes.length / 2);

  await context.route('https://nighttram.example/**', (route) => route.fulfill({ body: 'there' }));
  const alone = await context.newPage();
  await alone.goto(`file://${banner.folder}/index.html`);
  const opens = async (press: () => Promise<void>): Promise<string> => {
    const popup = alone.waitForEvent('popup');
    await press();
    const opened = await popup;
    await opened.waitForURL(/example/);
    const url = opened.url();
    await opened.close();
    return url;
  };
  const area = alone.getByRole('link', { name: 'Button' });
  await expect(area).toBeVisible();
  expect(await area.boundingBox()).toMatchObject({ x: 60, y: 80, width: 80, height: 80 });
  expect(await opens(() => alone.mouse.click(100, 120))).toBe('https://nighttram.example/plan');
  expect(await opens(() => alone.mouse.click(250, 200))).toBe('https://nighttram.example/home');
  await area.focus();
  expect(await opens(() => alone.keyboard.press('Enter'))).toBe('https://nighttram.example/plan');
  // It has played its ten frames; played again it moves once more, and is gone when it is closed.
  const again = alone.getByRole('button', { name: 'Play again' });
  await expect(again).toBeVisible();
  await again.click();
  await expect(again).toBeHidden();
  await expect(again).toBeVisible();
  await alone.getByRole('button', { name: 'Close' }).click();
  await expect(alone.locator('#kite')).toHaveCount(0);
  await alone.close();
});
