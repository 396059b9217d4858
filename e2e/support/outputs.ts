/** Renders of a project that is open, its preview, and how far pictures of it are from each other. */
import type { BrowserContext, Page } from '@playwright/test';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { goToFrame } from './editor';
import { colorAt, differing, type Pixels, readPng, unpack } from './media';
import type { Server } from './server';
import { expect } from './test';

export const render = async (
  page: Page,
  format: string,
  fill: (page: Page) => Promise<void> = async () => undefined,
) => {
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: format, exact: true }).click();
  await fill(page);
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
};

export interface Row {
  id: string;
  projectId: string;
  status: string;
  sceneName: string;
  settings: { format: string };
  error: string | null;
}

/** The finished renders of a project by format, once there are so many. */
export const finished = async (server: Server, project: string, count: number): Promise<Map<string, Row>> => {
  const done = async () =>
    (await server.api<Row[]>('GET', '/renders')).body.filter((r) => r.projectId === project && r.status === 'done');
  await expect.poll(async () => (await done()).length, { timeout: 60_000 }).toBe(count);
  return new Map((await done()).map((r) => [r.settings.format, r]));
};

/** The editor's own picture of the scene at 100 %. */
export const previewPixels = async (page: Page, width = 300): Promise<Pixels> => {
  await page.getByRole('button', { name: 'Zoom to 100 %' }).click();
  const picture = page.getByTestId('picture');
  await expect(picture).toHaveJSProperty('width', width);
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

export interface Shown {
  readonly png: Pixels;
  readonly svg: Pixels;
  readonly bannerNames: readonly string[];
}

/**
 * Renders frame 7 of an open project's scene in three formats, and compares preview, PNG and banner, in a browser whose
 * canvases have filters and in one whose have none.
 */
export const agreeing = async (page: Page, server: Server, context: BrowserContext, id: string): Promise<Shown> => {
  await goToFrame(page, 7);
  await render(page, 'PNG');
  await render(page, 'HTML5 banner', async () => {
    // Those that are reduced are nearly the same, not the same.
    await page.getByRole('dialog').getByLabel('Pictures', { exact: true }).selectOption('As they were imported');
  });
  await render(page, 'SVG');
  const rows = await finished(server, id, 3);
  const file = (format: string) => server.bytes(`/renders/${rows.get(format)?.id}/file`);
  const png = await readPng(await file('png'));
  // Grain is laid over by a blend whose rounding differs by a level.
  expect(differing(await previewPixels(page), png, 1)).toBe(0);

  const banner = unpack(await file('html5'));
  const shot = async (address: string, before: () => void = () => undefined) => {
    const alone = await context.newPage();
    const wrong: string[] = [];
    alone.on('pageerror', (error) => wrong.push(error.message));
    await alone.addInitScript(before);
    await alone.route('http://delivered.example/**', (route) =>
      route.fulfill({ path: join(banner.folder, new URL(route.request().url()).pathname) }),
    );
    await alone.setViewportSize({ width: 300, height: 250 });
    await alone.goto(address);
    // A banner's canvas takes the place of the fallback picture once its own are read, and is drawn then.
    await alone.locator('canvas, svg').waitFor();
    await alone.evaluate(async () => {
      for (let n = 0; n < 3; n++) await new Promise(requestAnimationFrame);
    });
    const pixels = await readPng(await alone.screenshot());
    await alone.close();
    expect(wrong).toEqual([]);
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
  expect(svgText).not.toMatch(/<text|<script|href="(?!data:|#)/);
  const folder = mkdtempSync(join(tmpdir(), 'kite-svg-'));
  writeFileSync(join(folder, 'frame.svg'), svgText);
  return { png, svg: await shot(`file://${folder}/frame.svg`), bannerNames: banner.names };
};

/** How far colours of two pictures are from each other, pixel by pixel, where it is wanted. */
export const distances = (a: Pixels, b: Pixels, wanted: (x: number, y: number) => boolean = () => true): number[] =>
  Array.from({ length: 250 }, (_, y) =>
    Array.from({ length: 300 }, (_x, x) => {
      if (!wanted(x, y)) return [];
      const [p, q] = [colorAt(a, x, y), colorAt(b, x, y)];
      return [Math.max(...[0, 1, 2].map((c) => Math.abs(p[c]! - q[c]!)))];
    }).flat(),
  ).flat();
export const share = (list: readonly number[], beyond: number): number =>
  list.filter((d) => d > beyond).length / list.length;
