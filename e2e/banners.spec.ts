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
