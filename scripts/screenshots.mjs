// npm run screenshots: one picture of each main view, from the demo project, into docs/screenshots.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install } from './steps.mjs';

install();
await build();
const { chromium } = await import('@playwright/test');

/** The mark as a drawing program might have written it, with something that cannot be kept. */
const MARK = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300">
<linearGradient id="g"><stop stop-color="#FFB23E"/><stop offset="1" stop-color="#FF5D5D"/></linearGradient>
<rect id="Ground" width="400" height="300" fill="#1B1F4B"/>
<path id="Moon" fill="url(#g)" d="M210 40a90 90 0 1 0 80 130a70 70 0 1 1-80-130z"/>
<g id="Rails" fill="#2EC4B6"><rect x="60" y="220" width="280" height="14" rx="7"/><rect x="100" y="250" width="200" height="14" rx="7"/></g>
<g id="Lamp"><circle cx="320" cy="70" r="18" fill="#E9ECF5"/><path d="M320 30v-18M360 70h18M280 70h-18" stroke="#E9ECF5" stroke-width="6" stroke-linecap="round"/></g>
<filter id="glow"><feGaussianBlur in="SourceAlpha" stdDeviation="3"/><feComponentTransfer><feFuncA type="linear" slope="0.8"/></feComponentTransfer><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge></filter>
<filter id="noise"><feTurbulence/></filter><g filter="url(#noise)"><text id="Wordmark" x="200" y="290" font-family="Unbounded" font-weight="700" font-size="20" text-anchor="middle" fill="#E9ECF5" filter="url(#glow)">Night Tram</text></g>
</svg>`;

const data = mkdtempSync(join(tmpdir(), 'kite-shots-'));
const server = spawn(process.execPath, ['dist/server.mjs', '--data', data, '--port', '0']);
const url = await new Promise((resolve) =>
  server.stdout.on('data', (chunk) => {
    const match = /is at (http:\S+)/.exec(String(chunk));
    if (match) resolve(match[1]);
  }),
);
const browser = await chromium.launch({
  executablePath: process.env.KITE_CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// Whoever takes pictures is not here for the first time.
await page.addInitScript(() => localStorage.setItem('kite-first-steps', '["away"]'));
const shot = async (name) => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};
const frame = async (n) => {
  await page.getByLabel('Frame', { exact: true }).fill(String(n));
  await page.getByLabel('Frame', { exact: true }).press('Enter');
};
const layer = (name) => page.getByLabel(`Layer ${name}`, { exact: true }).getByText(name, { exact: true }).first();

try {
  await page.goto(url);
  await page.getByTestId('project-card').waitFor();
  await page.waitForTimeout(4_000);
  await shot('projects');
  await page.getByRole('link', { name: /^Open/ }).click();
  await page.getByLabel('Open Moon').click();
  await layer('Moon').click();
  await frame(32);
  await shot('editor');
  // A soft mask over half of the moon, what it cuts faint, and the effects as they would look.
  const moon = await page.getByTestId('canvas').boundingBox();
  const from = [moon.x + moon.width / 2 - 40, moon.y + moon.height / 2 - 60];
  await page.keyboard.press('e');
  await page.keyboard.press('Shift+M');
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(from[0] + 100, from[1] + 100, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Open Mask' }).click();
  await page.getByLabel('Feather', { exact: true }).fill('40');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Masks', exact: true }).click();
  await page.getByRole('radio', { name: 'Faint' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
  await shot('masks');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Masks', exact: true }).click();
  await page.getByRole('radio', { name: 'Gone' }).click();
  await page.keyboard.press('Escape');
  for (let n = 0; n < 2; n++) await page.keyboard.press('Control+z');

  await page.getByRole('button', { name: 'Scene Lamp fan', exact: true }).click();
  await layer('Lamp fan').click();
  await page.getByLabel('Open Lamp fan').click();
  await frame(30);
  await page.getByTestId('bead').nth(2).click();
  const grid = page.getByRole('button', { name: 'Scene Window grid', exact: true });
  await grid.scrollIntoViewIfNeeded();
  await grid.click();
  await frame(118);
  await layer('Mill Lane').click();
  await page.getByLabel('Stop: a value of its own').scrollIntoViewIfNeeded();
  await shot('nest-knobs');

  await page.getByRole('button', { name: 'Scene Route title', exact: true }).click();
  await layer('Tram').click();
  await page.keyboard.press('Control+Shift+A');
  await frame(98);
  await page.keyboard.press('c');
  await page.getByRole('radio', { name: 'Speed' }).click();
  await page.getByRole('button', { name: 'Dusk colours' }).click();
  await shot('curves');
  await page.getByRole('button', { name: 'Daylight colours' }).click();
  await page.keyboard.press('c');

  await page.getByRole('button', { name: 'Scene Next stop strip', exact: true }).click();
  await frame(36);
  await page.getByRole('group', { name: 'Layer Bar 3', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Bar 3' }).click();
  await page.getByRole('button', { name: 'Position, computed' }).click();
  await page.getByText('= ').waitFor();
  await shot('formula');
  await page.getByRole('button', { name: 'Close the formula' }).click();

  await page.getByRole('button', { name: 'Scene Riders by hour', exact: true }).click();
  await frame(46);
  await page.getByRole('group', { name: 'Layer Ring', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Ring' }).click();
  await page.getByRole('button', { name: 'Open Chart' }).click();
  await page.getByLabel('Inner', { exact: true }).scrollIntoViewIfNeeded();
  await shot('chart');

  await page.getByRole('button', { name: 'Scene Turning sign', exact: true }).click();
  await frame(33);
  await page.keyboard.press('Shift+D');
  await page.getByRole('group', { name: 'Layer Sign', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Sign' }).click();
  await shot('depth');
  await page.getByRole('button', { name: 'Close the second view' }).click();
  await page.getByRole('button', { name: 'Scene Climbing plant', exact: true }).click();
  await frame(60);
  await page.getByRole('group', { name: 'Layer Plant', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Open Grow' }).click();
  await page.waitForTimeout(1_200);
  await shot('growth');
  await page.getByRole('button', { name: 'Scene Fog and lamp', exact: true }).click();
  await page.getByRole('group', { name: 'Layer Flame', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.keyboard.press('b');
  await frame(6);
  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('dialog', { name: 'Onion skin' }).getByRole('checkbox').check();
  await page.keyboard.press('Escape');
  await page.getByTestId('cels-row').first().scrollIntoViewIfNeeded();
  await shot('cels');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Onion skin' }).click();
  await page.getByRole('dialog', { name: 'Onion skin' }).getByRole('checkbox').uncheck();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Scene Night pass', exact: true }).click();
  await page.getByRole('group', { name: 'Layer Night', exact: true }).click({ position: { x: 90, y: 12 } });
  await page.getByRole('button', { name: 'Poses', exact: true }).first().click();
  await page.getByTestId('held').nth(1).click();
  await page.waitForTimeout(1_500);
  await shot('poses');
  await page.getByRole('button', { name: 'Poses', exact: true }).first().click();
  await page.getByRole('button', { name: 'Scene Route title', exact: true }).click();
  await frame(130);

  await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  const files = page.getByTestId('import-files');
  await files.setInputFiles({ name: 'Tram mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(MARK) });
  await page.getByRole('dialog').getByText('What cannot be kept').waitFor();
  await shot('svg-import');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  await page.getByRole('button', { name: 'Scene Lamp fan', exact: true }).click();
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'Animated GIF' }).click();
  await shot('render');
  await page.getByRole('button', { name: 'Cancel' }).click();

  await page.getByRole('link', { name: 'Deliveries' }).click();
  await page.getByRole('button', { name: 'Render all' }).click();
  await page.getByRole('link', { name: 'All as one zip' }).waitFor({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Video, twice as large' }).click();
  await page.getByLabel('Bit rate').fill('900');
  await page.keyboard.press('Enter');
  await page.getByText('Out of date', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Banner for the ad server' }).click();
  await page.getByRole('button', { name: 'Weigh it' }).click();
  await page.getByText('KB of 150 KB').waitFor();
  await page.mouse.move(640, 780);
  await shot('deliveries');
  await page.getByRole('main').getByRole('link', { name: 'Versions' }).click();
  await page.getByRole('button', { name: 'Show Observatory' }).click();
  await page.getByLabel('Scene shown').selectOption({ label: 'Late ticket' });
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.locator('[data-testid="version-playing"][data-drawn="200"]').waitFor();
  await shot('versions');
  await page.getByRole('main').getByRole('link', { name: 'Deliveries' }).click();

  await page.goto(url);
  await page.getByRole('button', { name: 'Start from Story ad' }).click();
  await page.getByLabel('Words of Second line', { exact: true }).fill('Nor do we.');
  await page.keyboard.press('Escape');
  await layer('Second line').click();
  await page.getByRole('button', { name: 'Open Text' }).click();
  await page.getByRole('radio', { name: 'In a box' }).click();
  await page.getByRole('radio', { name: 'Shrink' }).click();
  await page.getByRole('button', { name: 'Features', exact: true }).click();
  await page.waitForTimeout(1_000);
  await shot('words');

  // Somebody else is in the project meanwhile.
  await page.goto(url);
  await page.getByRole('link', { name: 'Open Quillhaven Night Tram', exact: true }).click();
  await page.getByTestId('canvas').waitFor();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill('reveal');
  await shot('search');
  await page.keyboard.press('Escape');
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript(() => localStorage.setItem('kite-person', JSON.stringify({ id: 'ida', name: 'Ida' })));
  const ida = await context.newPage();
  await ida.goto(page.url());
  await ida.getByLabel('Layer Wordmark', { exact: true }).getByText('Wordmark', { exact: true }).first().click();
  await ida.keyboard.press('Shift+ArrowUp');
  await layer('Moon').click();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.getByRole('button', { name: 'History', exact: true }).click();
  for (const name of ['As the client saw it', 'Moon to the left']) {
    await page.getByLabel('Name for how it is now').fill(name);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByText(name, { exact: true }).waitFor();
  }
  await page
    .getByRole('button', { name: /^What “/ })
    .first()
    .click();
  await page.mouse.move(640, 480);
  await page.waitForTimeout(5_000);
  await shot('history');
  await page.goto(`${url}/help/write-on`);
  await page.waitForTimeout(2_500);
  await shot('help');
} finally {
  await browser.close();
  server.kill('SIGTERM');
  server.once('exit', () => rmSync(data, { recursive: true, force: true }));
}
