/** The projects page, and going from project to archive and back. */
import { newProject, saved } from './support/editor';
import { expect, test } from './support/test';

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
  const picture = () =>
    card.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [canvas.width, canvas.height];
      copy.getContext('2d')?.drawImage(canvas, 0, 0);
      return copy.toDataURL();
    });
  // What is not in sight is not drawn.
  await card.scrollIntoViewIfNeeded();
  await page.mouse.move(5, 400);
  await expect(card.locator('canvas')).toHaveAttribute('data-drawn', /^\d+$/);
  const poster = await picture();
  await card.hover();
  await expect.poll(picture).not.toBe(poster);
  await page.mouse.move(5, 400);
  await expect.poll(picture).toBe(poster);
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
