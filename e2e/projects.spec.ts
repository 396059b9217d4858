/** The projects page, and going from project to archive and back. */
import { readFileSync } from 'node:fs';
import { newProject, saved } from './support/editor';
import { alone, expect, test } from './support/test';

test('rename, duplicate, delete, undo the deletion, export and import', async ({ page, server }) => {
  await newProject(page, server, 'Night pass', 'Leaderboard');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  const document = await saved(page, server);

  await page.getByRole('link', { name: 'All projects' }).click();
  const card = (name: string) =>
    page.getByTestId('project-card').filter({ has: page.getByText(name, { exact: true }) });
  const choose = async (name: string, entry: string) => {
    await page.getByRole('button', { name: `${name}: more` }).click();
    await page.getByRole('menuitem', { name: entry }).click();
  };
  await choose('Night pass', 'Rename');
  await page.getByLabel('Project name').fill('Night pass 3.80');
  await page.getByLabel('Project name').press('Enter');
  await expect(card('Night pass 3.80')).toBeVisible();

  await choose('Night pass 3.80', 'Duplicate');
  await expect(card('Night pass 3.80 2')).toBeVisible();

  await choose('Night pass 3.80', 'Delete');
  await expect(card('Night pass 3.80')).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card('Night pass 3.80')).toBeVisible();

  const download = page.waitForEvent('download');
  await choose('Night pass 3.80', 'Export');
  const file = await download;
  expect(file.suggestedFilename()).toBe('Night pass 3.80.kite');
  await page.getByLabel('Project archive').setInputFiles(await file.path());
  await expect(card('Night pass 3.80 3')).toBeVisible();
  await card('Night pass 3.80 3').getByRole('link').click();
  await expect(page.getByLabel('Layer Star')).toBeVisible();
  expect((await saved(page, server)).scenes).toEqual(document.scenes);
});

test('a card plays under the pointer', async ({ page, server }) => {
  await page.goto(server.url);
  const card = page.getByTestId('project-card').filter({ hasText: 'Quillhaven Night Tram' });
  // What is not in sight is not fetched; what is, as a picture alone.
  await card.scrollIntoViewIfNeeded();
  await page.mouse.move(5, 400);
  const poster = card.getByRole('presentation');
  await expect.poll(() => poster.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
  await expect(card.locator('canvas')).toHaveCount(0);
  await card.hover();
  await expect(card.locator('canvas')).toHaveAttribute('data-drawn', /^[1-9]\d*$/);
  await expect(poster).toBeHidden();
  await page.mouse.move(5, 400);
  await expect(card.locator('canvas')).toHaveCount(0);
  await expect(poster).toBeVisible();
  // A picture that cannot be had leaves its room empty.
  await page.route('**/poster*', (route) => route.fulfill({ status: 500 }));
  await page.reload();
  await card.scrollIntoViewIfNeeded();
  await expect(card.locator('img')).toBeHidden();
});

test('sizes that cannot be are refused by the form', async ({ page, server }) => {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByLabel('Width, px').fill('0');
  await page.getByRole('button', { name: 'Create the project' }).click();
  await expect(page.getByRole('alert')).toHaveText('Width: at least 1');
  await page.getByLabel('Width, px').fill('90000');
  await expect(page.getByRole('alert')).toHaveText('Width: at most 8192');
});

alone(
  'projects are found by name and word, sorted, exported all at once, deleted and brought back',
  async ({ page, own: server }) => {
    for (const name of ['Pier 10', 'Pier 2', 'Ferry']) {
      await server.api('POST', '/projects', {
        name,
        scene: 'S',
        size: { width: 64, height: 64, rate: { num: 25, den: 1 }, length: 10, background: null },
      });
    }
    await page.goto(server.url);
    const cards = page.getByTestId('project-card');
    const names = () =>
      cards.evaluateAll((all) => all.map((card) => card.querySelector('a')?.getAttribute('aria-label')));
    await page.getByLabel('Find a project').fill('pier');
    await expect(cards).toHaveCount(2);
    await page.getByLabel('Order of projects').selectOption('By name');
    await expect.poll(names).toEqual(['Open Pier 2', 'Open Pier 10']);
    await page.getByLabel('Pier 2: more').click();
    await page.getByRole('menuitem', { name: 'Words to find it by' }).click();
    await page.getByRole('dialog').getByRole('textbox').fill('harbour, spring');
    await page.getByRole('button', { name: 'Keep these words' }).click();
    await page.getByRole('group', { name: 'Words' }).getByRole('button', { name: 'harbour' }).click();
    await expect.poll(names).toEqual(['Open Pier 2']);
    // It is the same after going there and back.
    await cards.getByRole('link').click();
    await expect(page.getByTestId('canvas')).toBeVisible();
    await page.goBack();
    await expect.poll(names).toEqual(['Open Pier 2']);
    await page.getByLabel('Find a project').fill('nothing like that');
    await page.getByRole('button', { name: 'Show all of them' }).click();
    await expect(page.getByLabel('Find a project')).toHaveValue('');

    const started = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export all' }).click();
    const file = await (await started).path();
    const before = await cards.count();
    await page.getByLabel('Project archive').setInputFiles({
      name: 'projects.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(file),
    });
    await expect(cards).toHaveCount(2 * before, { timeout: 60_000 });

    await page.getByLabel('Find a project').fill('ferry');
    await page.getByLabel('Ferry: more', { exact: true }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(cards).toHaveCount(1);
    await page.reload();
    await page.getByRole('button', { name: 'Deleted' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Bring back' }).first().click();
    await page.keyboard.press('Escape');
    await expect(cards).toHaveCount(2);
  },
);
