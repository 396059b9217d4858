/** What was done is there after a reload and a restart: steps by day, states under names, what was deleted. */
import type { Project } from '@kite/core/document/types';
import type { Page } from '@playwright/test';
import { newProject, saved, setNumber } from './support/editor';
import type { Server } from './support/server';
import { alone as test, expect } from './support/test';

const addStar = async (page: Page) => {
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
};
const rows = (page: Page) => page.getByTestId('layer-row');
const history = async (page: Page) => {
  await page.getByRole('button', { name: 'History', exact: true }).click();
  return page.getByRole('region', { name: 'History' });
};
const documentOf = async (server: Server, id: string): Promise<Project> =>
  (await server.api<{ document: Project }>('GET', `/projects/${id}`)).body.document;

test('undo and redo reach back over a reload, and over a restart of the server', async ({ page, own }) => {
  const id = await newProject(page, own, 'Restart', 'Square');
  await addStar(page);
  await setNumber(page, 'Opacity', '40');
  await setNumber(page, 'Turn', '30');
  await saved(page, own);
  await page.reload();
  await page.getByRole('button', { name: /^Undo: / }).click();
  await saved(page, own);
  const before = await documentOf(own, id);

  await own.kill();
  await own.start();
  await page.reload();
  await expect(rows(page)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(rows(page)).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeDisabled();
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+y');
  await saved(page, own);
  expect((await documentOf(own, id)).scenes).toEqual(before.scenes);
  // What was taken back before the reload can be made again too.
  await page.getByRole('button', { name: /^Redo: / }).click();
  await rows(page).first().getByText('Star', { exact: true }).first().click();
  await expect(page.getByLabel('Turn', { exact: true })).toHaveValue('30');
});

test('steps stand by day with what each changed; a press goes there, and others are looked at', async ({
  page,
  own,
}) => {
  await newProject(page, own, 'Steps', 'Square');
  await addStar(page);
  await setNumber(page, 'Opacity', '40');
  await setNumber(page, 'Opacity', '60');
  const drawer = await history(page);
  await expect(drawer.getByRole('heading', { name: 'Today' })).toBeVisible();
  const steps = drawer.getByTestId('step');
  await expect(steps).toHaveCount(3);
  await steps
    .first()
    .getByRole('button', { name: /^What “/ })
    .click();
  await expect(steps.first()).toContainText('Scene 1 › Star › Opacity 40 % → 60 %');
  // To the first step: the later ones are taken back, and stay to be gone to.
  await steps
    .last()
    .getByRole('button', { name: /^Add|^Star|^New/ })
    .click();
  await expect(page.getByLabel('Opacity', { exact: true })).toHaveValue('100');
  await expect(steps).toHaveCount(3);
  await steps.first().locator('button[aria-current]').click();
  await expect(page.getByLabel('Opacity', { exact: true })).toHaveValue('60');
  // Any step is compared with now.
  await saved(page, own);
  await steps.nth(1).hover();
  await steps
    .nth(1)
    .getByRole('button', { name: /: more$/ })
    .click();
  await page.getByRole('menuitem', { name: 'Compare with now' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Opacity 40 % → 60 %');
});

test('a state is kept under a name, compared, gone back to in one step, opened as a copy and let go', async ({
  page,
  own,
}) => {
  const id = await newProject(page, own, 'Client', 'Square');
  await addStar(page);
  const drawer = await history(page);
  await drawer.getByLabel('Name for how it is now').fill('First cut');
  await drawer.getByRole('button', { name: 'Keep', exact: true }).click();
  const points = drawer.getByRole('region', { name: 'Checkpoints' }).getByRole('listitem');
  await expect(points).toHaveCount(1);
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Control+d');
  await expect(rows(page)).toHaveCount(2);

  await points.getByRole('button', { name: 'Compare First cut with now' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('img')).toHaveCount(2);
  await expect(dialog.getByRole('img').first()).toHaveAttribute('data-drawn', /\d+/);
  await expect(dialog).toContainText('Star 2 added');
  await dialog.getByRole('slider', { name: 'Frame' }).fill('30');
  await expect(dialog.getByRole('img').last()).toHaveAttribute('data-drawn', '30');
  await page.keyboard.press('Escape');

  // Two kept states stand beside each other as well.
  await drawer.getByLabel('Name for how it is now').fill('Two stars');
  await drawer.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(points).toHaveCount(2);
  await points.getByRole('button', { name: 'Compare First cut with now' }).click();
  await dialog.getByLabel('Beside it').selectOption('Two stars');
  await expect(dialog).toContainText('What is different in “Two stars”');
  await expect(dialog.getByRole('img', { name: /^Two stars, frame/ })).toHaveAttribute('data-drawn', /\d+/);
  await dialog.getByRole('button', { name: 'Go back to it' }).click();
  await expect(rows(page)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(rows(page)).toHaveCount(2);

  await points.getByRole('button', { name: 'First cut: more' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await drawer.getByLabel('Name of the checkpoint').fill('As it was shown');
  await drawer.getByLabel('Name of the checkpoint').press('Enter');
  await expect(points.getByText('As it was shown')).toBeVisible();
  await points.getByRole('button', { name: 'As it was shown: more' }).click();
  await page.getByRole('menuitem', { name: 'Open as a copy' }).click();
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page).not.toHaveURL(new RegExp(id));
  await expect(rows(page)).toHaveCount(1);

  await page.goBack();
  await expect(rows(page)).toHaveCount(2);
  const again = await history(page);
  await again.getByRole('button', { name: 'As it was shown: more' }).click();
  await page.getByRole('menuitem', { name: 'Let go' }).click();
  const kept = again.getByRole('region', { name: 'Checkpoints' }).getByRole('listitem');
  await expect(kept).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(kept).toHaveCount(2);
  await expect(kept.filter({ hasText: 'As it was shown' })).toBeVisible();
});

test('a scene that was deleted comes back as it was, also after a reload', async ({ page, own }) => {
  const id = await newProject(page, own, 'Scenes', 'Square');
  await addStar(page);
  await page.getByRole('button', { name: 'Scene Scene 1: more' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await saved(page, own);
  const { scenes } = await documentOf(own, id);
  await page.getByRole('button', { name: 'Scene Scene 2: more' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await saved(page, own);
  await page.reload();
  const drawer = await history(page);
  await drawer.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('button', { name: 'Scene Scene 2', exact: true })).toHaveAttribute(
    'aria-current',
    'true',
  );
  await expect(drawer.getByRole('region', { name: 'Deleted scenes' })).toHaveCount(0);
  await saved(page, own);
  expect((await documentOf(own, id)).scenes).toEqual(scenes);
});
