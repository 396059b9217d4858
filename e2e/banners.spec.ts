/**
 * The banners of all demo scenes: their players are joined from different parts, and each shows what the server draws.
 * Weights are those of the zips, at 300 pixels wide.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoProject } from '@kite/demo/project';
import { differing, readPng, unpack } from './support/media';
import { expect, test } from './support/test';

const WIDTH = 300;
/** Of the scenes that ad servers are meant for. */
const MOST = 60_000;
const MOST_OF_ALL = 80_000;
const ADS = ['Mark reveal', 'Route title', 'Next stop strip', 'Lamp fan', 'Riders by hour'];

const kite = (...args: readonly string[]) => execFileSync('node', ['dist/kite.mjs', ...args], { stdio: 'pipe' });
const folder = mkdtempSync(join(tmpdir(), 'kite-banners-'));
const project = join(folder, 'demo.kite');

test.beforeAll(() => {
  kite('demo', '--out', project);
});

for (const { name, width, length } of Object.values(demoProject().scenes)) {
  test(`the banner of ${name} shows what the server draws, and is light`, async ({ context }) => {
    const render = (format: string, ...more: readonly string[]): string => {
      const out = join(folder, `${name}-${more.join('')}.${format}`);
      const scale = String(WIDTH / width);
      kite('render', project, '--scene', name, '--format', format, '--scale', scale, '--out', out, ...more);
      return out;
    };
    const zip = render('html5');
    expect(statSync(zip).size).toBeLessThan(ADS.includes(name) ? MOST : MOST_OF_ALL);
    const banner = unpack(new Uint8Array(readFileSync(zip)));
    const page = await context.newPage();
    const wrong: string[] = [];
    page.on('pageerror', (error) => wrong.push(error.message));
    for (const frame of [Math.floor(length / 3), Math.floor((length * 2) / 3)]) {
      await page.goto('about:blank');
      await page.goto(`file://${banner.folder}/index.html#frame=${frame}`);
      const url = await page.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/png'));
      const shown = await readPng(Buffer.from(url.split(',')[1] ?? '', 'base64'));
      const drawn = await readPng(readFileSync(render('png', '--frame', String(frame))));
      expect(differing(shown, drawn, 1), `frame ${frame}`).toBe(0);
    }
    expect(wrong).toEqual([]);
  });
}

test('a banner that is out of sight does nothing, and goes on once it is seen', async ({ context }) => {
  const zip = join(folder, 'strip.zip');
  const scale = String(WIDTH / 1920);
  kite(
    'render',
    project,
    '--scene',
    'Next stop strip',
    '--format',
    'html5',
    '--scale',
    scale,
    '--loop',
    '0',
    '--out',
    zip,
  );
  const banner = unpack(new Uint8Array(readFileSync(zip)));
  const page = await context.newPage();
  await page.route('http://delivered.example/**', (route) => {
    const path = new URL(route.request().url()).pathname;
    if (path !== '/around.html') return route.fulfill({ path: join(banner.folder, path) });
    const around = '<div style="height:3000px"></div><iframe src="index.html" width="300" height="169"></iframe>';
    return route.fulfill({ contentType: 'text/html', body: around });
  });
  await page.addInitScript(() => {
    const own = window as unknown as { asked: number };
    own.asked = 0;
    const ask = window.requestAnimationFrame.bind(window);
    window.requestAnimationFrame = (then) => {
      own.asked++;
      return ask(then);
    };
  });
  await page.goto('http://delivered.example/around.html');
  const [, inner] = page.frames();
  await inner!.locator('canvas').waitFor({ state: 'attached' });
  const asked = () => inner!.evaluate(() => (window as unknown as { asked: number }).asked);
  const pictures = () =>
    page.evaluate(async () => {
      for (let n = 0; n < 20; n++) await new Promise(requestAnimationFrame);
    });
  await pictures();
  const before = await asked();
  await pictures();
  expect(await asked()).toBe(before);
  await page.evaluate(() => window.scrollTo(0, 3000));
  await expect.poll(asked).toBeGreaterThan(before + 10);
});
