/**
 * Banners of the demo scenes at 300 pixels wide: what they weigh, how soon they start, and what playing takes of one core, in
 * headless Chromium. Beside them a page with the same picture that moves by CSS alone.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { wholeScene } from '@kite/core/scene/whole';
import { demoProject } from '@kite/demo/project';
import { EMPTY_STOCK } from '@kite/render/materials';
import { renderScene } from '@kite/render/render';
import { chromium, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { LAUNCH } from '../e2e/support/browser';

const WIDTH = 300;
const SECONDS = 5;

/** Processor time of the page's main thread while it is left alone, as a share of one core. */
const shareOfCore = async (page: Page): Promise<number> => {
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Performance.enable');
  const worked = async () => {
    const { metrics } = await devtools.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'TaskDuration')?.value ?? NaN;
  };
  await page.waitForTimeout(1_000);
  const before = await worked();
  await page.waitForTimeout(SECONDS * 1_000);
  return Number(((await worked()) - before).toFixed(3)) / SECONDS;
};

/** From the arrival of the player's script to the first picture, in ms. */
const startOf = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const script = performance.getEntriesByType('resource').find(({ name }) => name.endsWith('player.js'));
    const { shown } = window as unknown as { shown: number };
    return shown - (script as PerformanceResourceTiming).responseEnd;
  });

export const measureBanners = async (folder: string) => {
  const project = demoProject();
  const browser = await chromium.launch(LAUNCH);
  const page = await browser.newPage({ viewport: { width: 400, height: 400 } });
  await page.addInitScript(() => {
    new MutationObserver((_changes, observer) => {
      if (!document.querySelector('canvas')) return;
      (window as unknown as { shown: number }).shown = performance.now();
      observer.disconnect();
    }).observe(document, { childList: true, subtree: true });
  });
  const banners: Record<string, { bytes: number; startMs: number; core: number }> = {};
  let files: Record<string, Uint8Array> = {};
  await page.route('http://delivered.example/**', (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    const body = files[name];
    const types: Record<string, string> = { html: 'text/html', js: 'text/javascript', webp: 'image/webp' };
    return body
      ? route.fulfill({ body: Buffer.from(body), contentType: types[name.split('.').at(-1) ?? ''] ?? '' })
      : route.fulfill({ status: 404 });
  });
  for (const scene of Object.values(project.scenes)) {
    const own = defaultSettings('html5', scene) as FormatSettings<'html5'>;
    const out = join(folder, 'banner.zip');
    const settings = { ...own, scale: WIDTH / scene.width, loop: 0, stop: 0 };
    await renderScene({ scene: wholeScene(scene, project), stock: EMPTY_STOCK, settings, out });
    const zip = new Uint8Array(readFileSync(out));
    files = unzipSync(zip);
    await page.goto('http://delivered.example/index.html');
    await page.locator('canvas').waitFor();
    const startMs = Math.round(await startOf(page));
    banners[scene.name] = { bytes: zip.length, startMs, core: Number((await shareOfCore(page)).toFixed(3)) };
  }
  const picture = Object.keys(files).find((name) => name.startsWith('fallback')) ?? '';
  files['css.html'] = new TextEncoder().encode(
    `<style>@keyframes k{to{transform:rotate(1turn)}}img{animation:k 4s linear infinite}</style><img src="${picture}" width="300">`,
  );
  await page.goto('http://delivered.example/css.html');
  const css = await shareOfCore(page);
  await browser.close();
  return { banners, bannerCssCore: Number(css.toFixed(3)) };
};
