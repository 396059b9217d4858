// npm run screenshots: one picture of each main view, from the demo project, into docs/screenshots.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install } from './steps.mjs';

install();
await build();
const { chromium } = await import('@playwright/test');

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
  await page.waitForTimeout(800);
  await shot('projects');
  await page.getByRole('button', { name: 'New project' }).click();
  await shot('new-project');
  await page.keyboard.press('Escape');

  await page.getByRole('link', { name: /^Open/ }).click();
  await page.getByLabel('Open Moon').click();
  await layer('Moon').click();
  await frame(32);
  await shot('editor');

  await page.getByRole('button', { name: 'Scene Lamp fan', exact: true }).click();
  await layer('Lamp fan').click();
  await page.getByLabel('Open Lamp fan').click();
  await frame(30);
  await page.getByRole('button', { name: 'Open Repeater' }).first().click();
  await shot('recipe');
  await page.getByTestId('bead').nth(2).click();
  await shot('ease');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Dusk colours' }).click();
  await shot('dusk');
  await page.getByRole('button', { name: 'Daylight colours' }).click();

  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'Animated GIF' }).click();
  await shot('render');
  await page.getByRole('button', { name: 'Cancel' }).click();

  const [project] = await (await fetch(`${url}/api/projects`)).json();
  const { document } = await (await fetch(`${url}/api/projects/${project.id}`)).json();
  const [mark, fan] = document.order;
  const range = { scale: 0.5, rate: null, from: 0 };
  const asked = [
    [fan, { format: 'gif', ...range, scale: 0.25, to: 90, loop: 0, palette: 'global', dither: 'diffuse' }],
    [fan, { format: 'html5', ...range, scale: 0.5, to: 90, loop: 0, fallback: 36, click: 'https://nighttram.example' }],
    [mark, { format: 'png', scale: 1, frame: 112 }],
    [mark, { format: 'mp4', ...range, to: 120, quality: 'good' }],
  ];
  for (const [scene, settings] of asked) {
    await fetch(`${url}/api/renders`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ project: project.id, scene, settings }),
    });
  }
  await page.goto(`${url}/renders`);
  await page.locator('[data-testid=render-row][data-status=done]').nth(3).waitFor({ timeout: 60_000 });
  await page.getByTestId('render-row').filter({ hasText: 'HTML5 banner' }).getByRole('button').first().click();
  await page.waitForTimeout(1_200);
  await shot('renders');
} finally {
  await browser.close();
  server.kill('SIGTERM');
  server.once('exit', () => rmSync(data, { recursive: true, force: true }));
}
