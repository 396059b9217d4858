/** Two people in one project see what the other does as it is done, and take back their own. */
import type { Project } from '@kite/core/document/types';
import { Chance } from '@kite/core/test/random';
import type { Browser, Page } from '@playwright/test';
import { VIEWPORT } from './support/browser';
import { newProject, saved, setNumber } from './support/editor';
import { expect, test } from './support/test';

/** Another browser, and so somebody else. */
const somebodyElse = async (browser: Browser, name: string, address: string): Promise<Page> => {
  const context = await browser.newContext({ viewport: VIEWPORT });
  const page = await context.newPage();
  await page.goto(address);
  await page.evaluate(
    (called) => localStorage.setItem('kite-person', JSON.stringify({ id: called, name: called })),
    name,
  );
  await page.reload();
  await expect(page.getByTestId('canvas')).toBeVisible();
  return page;
};
const addShape = async (page: Page, shape: string) => {
  const opener = page.getByRole('button', { name: 'Add a shape' });
  if ((await opener.getAttribute('aria-pressed')) !== 'true') await opener.click();
  await page.getByRole('button', { name: shape }).dblclick();
};
const rows = (page: Page) => page.getByTestId('layer-row');
const names = (page: Page) => rows(page).evaluateAll((all) => all.map((row) => row.getAttribute('aria-label')));
const choose = (page: Page, layer: string) =>
  page
    .getByRole('group', { name: `Layer ${layer}`, exact: true })
    .getByText(layer, { exact: true })
    .first()
    .click();

test('edits, names and what is chosen are seen by the other as they are made; undo takes back one’s own', async ({
  page,
  server,
  browser,
}) => {
  await newProject(page, server, 'Together', 'Square');
  await addShape(page, 'Star');
  await saved(page, server);
  const ida = await somebodyElse(browser, 'Ida', page.url());
  await expect(page.getByRole('button', { name: '1 other is here' })).toBeVisible();
  await addShape(ida, 'Ellipse');
  await expect(rows(page)).toHaveCount(2);
  // What Ida has chosen shows on the canvas and in its row.
  await expect(page.getByTestId('other-chosen')).toContainText('Ida');
  await expect(page.getByRole('group', { name: 'Layer Ellipse', exact: true }).getByTitle('Ida')).toBeVisible();
  await page.getByRole('button', { name: '1 other is here' }).click();
  await expect(page.getByRole('dialog', { name: 'Who is here' })).toContainText('In Scene 1, at Ellipse');
  await page.getByLabel('Your name, as others see it').fill('Otto');
  await page.getByLabel('Your name, as others see it').press('Enter');
  await page.keyboard.press('Escape');
  await ida.getByRole('button', { name: '1 other is here' }).click();
  await expect(ida.getByRole('dialog', { name: 'Who is here' })).toContainText('Otto');
  await ida.keyboard.press('Escape');

  // Different properties of one layer do not come in each other's way.
  await choose(page, 'Star');
  await choose(ida, 'Star');
  await setNumber(page, 'Turn', '20');
  await setNumber(ida, 'Opacity', '50');
  await expect(ida.getByLabel('Turn', { exact: true })).toHaveValue('20');
  await expect(page.getByLabel('Opacity', { exact: true })).toHaveValue('50');
  // Each takes back what they did themselves, whatever came after.
  await page.getByTestId('canvas').focus();
  await page.keyboard.press('Control+z');
  await expect(ida.getByLabel('Turn', { exact: true })).toHaveValue('0');
  await expect(ida.getByLabel('Opacity', { exact: true })).toHaveValue('50');

  // Of one property the later one stands, and that is said.
  await setNumber(page, 'Opacity', '70');
  await expect(ida.getByLabel('Opacity', { exact: true })).toHaveValue('70');
  await expect(ida.getByText(/^Otto changed what you had just changed/)).toBeVisible();

  await ida.context().close();
  await expect(page.getByRole('button', { name: '1 other is here' })).toHaveCount(0);
  await expect(page.getByTestId('other-chosen')).toHaveCount(0);
});

test('two pages that edit at once end with one document, the same as the server’s', async ({
  page,
  server,
  browser,
}) => {
  await newProject(page, server, 'At once', 'Square');
  for (const shape of ['Star', 'Ellipse', 'Rectangle']) await addShape(page, shape);
  await saved(page, server);
  const ida = await somebodyElse(browser, 'Ida', page.url());
  // Rows are pressed faster than notices go.
  for (const own of [page, ida])
    await own.addStyleTag({ content: '[data-sonner-toast] { pointer-events: none !important }' });
  const chance = new Chance(7);
  const some = async (own: Page) => {
    const row = chance.whole(0, (await rows(own).count()) - 1);
    await rows(own)
      .nth(row)
      .locator('span.truncate')
      .first()
      .click({ timeout: 5_000 })
      .catch(async (error: unknown) => {
        // One that the other has just deleted is passed over.
        if ((await rows(own).count()) > row) throw error;
      });
    const keys = [
      'ArrowRight',
      'ArrowDown',
      'Control+d',
      'Control+z',
      'Control+y',
      'ArrowLeft',
      'Shift+ArrowUp',
      'Delete',
    ];
    const key = chance.one(keys);
    // There is always something left to be chosen, and no more rows than are in sight.
    const count = await rows(own).count();
    if (key === 'Delete' ? count < 4 : key === 'Control+d' && count > 4) return;
    await own.keyboard.press(key);
  };
  // Each on their own, as fast as they can.
  const round = async (own: Page) => {
    for (let i = 0; i < 60; i++) await some(own);
  };
  await Promise.all([round(page), round(ida)]);
  const id = new URL(page.url()).pathname.split('/')[2] as string;
  await Promise.all([saved(page, server), saved(ida, server)]);
  const stored = async () => (await server.api<{ document: Project }>('GET', `/projects/${id}`)).body.document;
  const order = async () => {
    const scene = Object.values((await stored()).scenes)[0]!;
    return scene.order.map((layer) => `Layer ${scene.layers[layer]!.name}`);
  };
  await expect.poll(() => names(page)).toEqual(await order());
  await expect.poll(() => names(ida)).toEqual(await order());
  // All that both show of each layer is what is stored.
  const values = async (own: Page) => {
    const out: string[] = [];
    for (let i = 0; i < (await rows(own).count()); i++) {
      await rows(own).nth(i).locator('span.truncate').first().click();
      for (const part of ['x', 'y']) out.push(await own.getByLabel(`Position ${part}`).inputValue());
    }
    return out;
  };
  const both = [await values(page), await values(ida)];
  expect(both[0]).toEqual(both[1]);
  await page.reload();
  await expect(rows(page)).toHaveCount((await order()).length);
  expect(await values(page)).toEqual(both[0]);
  await ida.context().close();
});
