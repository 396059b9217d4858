// npm run firefox: banners of the demo, and the first steps in the editor, in Firefox. Not part of npm test: it needs Debian's firefox-esr.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, debianPackage, install } from './steps.mjs';

const FIREFOX = process.env.KITE_FIREFOX ?? '/usr/bin/firefox-esr';
/** Banners that are nearer to the PNG than this look the same, in decibels. */
const NEAR = 48;
/** Scenes of the demo, and the frames that are looked at. */
const LOOKS = [
  ['Late ticket', 1, [20, 60, 200]],
  ['Mark reveal', 0.25, [50, 100]],
  ['Route title', 0.25, [70, 120]],
  ['Next stop strip', 0.25, [60]],
  ['Lamp fan', 0.25, [40]],
  ['Window grid', 0.25, [47]],
  ['Riders by hour', 0.25, [71]],
  ['Climbing plant', 0.25, [90]],
  ['Turning sign', 0.25, [5, 30]],
  ['Ride home easy', 0.25, [15, 47]],
  ['Letter cube', 0.25, [15, 47]],
  ['Lit window', 0.25, [5, 30]],
  ['Fog and lamp', 0.25, [5, 15]],
  ['Night pass', 0.25, [15]],
];

install();
if (!existsSync(FIREFOX)) debianPackage('firefox-esr', 'Firefox', 'KITE_FIREFOX');
await build();
const { default: puppeteer } = await import('puppeteer-core');
const { createCanvas, loadImage } = await import('@napi-rs/canvas');
const { unzipSync } = await import('fflate');

const folder = mkdtempSync(join(tmpdir(), 'kite-firefox-'));
const kite = (...args) =>
  execFileSync(process.execPath, ['dist/kite.mjs', ...args], { stdio: ['ignore', 'ignore', 'inherit'] });

const pixels = async (bytes) => {
  const image = await loadImage(bytes);
  const context = createCanvas(image.width, image.height).getContext('2d');
  // A page is white where a picture is see-through.
  context.fillStyle = 'white';
  context.fillRect(0, 0, image.width, image.height);
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
};
const decibels = (a, b) => {
  const sum = a.reduce((all, v, i) => all + (i % 4 < 3 ? (v - b[i]) ** 2 : 0), 0);
  return 10 * Math.log10(255 ** 2 / (sum / (a.length * 0.75)));
};

let failed = 0;
const says = (name, fits, told) => {
  console.log(`${fits ? 'ok  ' : 'FAIL'}  ${name}: ${told}`);
  if (!fits) failed++;
};

/** Asks the page until it answers so. The page's policy keeps puppeteer from waiting inside it, by functions made of text. */
const until = async (ask, fits) => {
  for (let tries = 0; tries < 300; tries++) {
    if (fits(await ask())) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`Not so after 30 seconds: ${fits}`);
};

const banners = async (browser) => {
  const demo = join(folder, 'demo.kite');
  kite('demo', '--out', demo);
  for (const [scene, scale, frames] of LOOKS) {
    const zip = join(folder, 'banner.zip');
    kite('render', demo, '--scene', scene, '--format', 'html5', '--scale', String(scale), '--out', zip);
    const place = join(folder, scene);
    mkdirSync(place, { recursive: true });
    for (const [name, bytes] of Object.entries(unzipSync(readFileSync(zip)))) writeFileSync(join(place, name), bytes);
    for (const frame of frames) {
      const png = join(folder, 'frame.png');
      kite('frame', demo, '--scene', scene, '--frame', String(frame), '--scale', String(scale), '--out', png);
      const { width, height } = await loadImage(png);
      const page = await browser.newPage();
      await page.goto(`file://${place}/index.html#frame=${frame}`);
      await page.waitForSelector('canvas');
      const shown = await page.screenshot({ clip: { x: 0, y: 0, width, height } });
      const near = decibels(await pixels(readFileSync(png)), await pixels(shown));
      says(`banner of ${scene}, frame ${frame}`, near >= NEAR, `${near.toFixed(1)} dB`);
      await page.close();
    }
  }
};

const editor = async (browser) => {
  const server = spawn(process.execPath, ['dist/server.mjs', '--data', join(folder, 'data'), '--port', '0']);
  try {
    const url = await new Promise((resolve) =>
      server.stdout.on('data', (chunk) => {
        const match = /is at (http:\S+)/.exec(String(chunk));
        if (match) resolve(match[1]);
      }),
    );
    const page = await browser.newPage();
    const wrong = [];
    page.on('pageerror', (error) => wrong.push(error.message));
    const [{ id }] = await (await fetch(`${url}/api/projects`)).json();
    const project = async () => (await fetch(`${url}/api/projects/${id}`)).json();
    const { document: before } = await project();
    await page.goto(`${url}/projects/${id}`);
    await page.waitForSelector('[data-testid=picture][data-drawn]');
    says('the editor', true, 'opens and draws the demo');
    const rows = () => page.$$eval('[data-testid=layer-row]', (all) => all.length);
    const press = async (selector, options) => {
      await until(
        () => page.$(selector),
        (found) => found !== null,
      );
      await (await page.$(selector)).click(options);
    };
    await press('::-p-aria([name="New scene"][role="button"])');
    await press('[role=dialog] button[type=submit]');
    await until(rows, (count) => count === 0);
    await press('::-p-aria([name="Add a shape"][role="button"])');
    await press('::-p-aria([name="Star"][role="button"])', { count: 2 });
    await until(rows, (count) => count === 1);
    says('a star', true, 'is a layer of a new scene');
    const kept = async () => {
      const { document } = await project();
      const made = document.order.find((id) => !before.order.includes(id));
      return made ? Object.keys(document.scenes[made].layers).length : 0;
    };
    await until(kept, (count) => count === 1);
    says('what is made', true, 'is saved');
    says('nothing', wrong.length === 0, wrong.join('; ') || 'went wrong');
  } finally {
    server.kill('SIGKILL');
  }
};

const browser = await puppeteer.launch({
  browser: 'firefox',
  executablePath: FIREFOX,
  headless: true,
  // Firefox 140 does not know the command that puppeteer sends for a viewport.
  defaultViewport: null,
  args: ['--width=1280', '--height=900'],
});
try {
  await banners(browser);
  await editor(browser);
} finally {
  await browser.close();
  rmSync(folder, { recursive: true, force: true });
}
console.log(failed === 0 ? 'All as it should be.' : `${failed} not as it should be.`);
process.exit(failed === 0 ? 0 : 1);
