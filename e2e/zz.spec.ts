import { expect, test } from './support/test';
test('look', async ({ page, server }) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: 'Open Quillhaven Night Tram', exact: true }).click();
  await expect(page.getByTestId('canvas')).toBeVisible();
  const id = new URL(page.url()).pathname.split('/')[2];
  await page.goto(`${server.url}/projects/${id}/versions`);
  await page.getByText('Add the column').waitFor();
  await page.screenshot({ path: '/tmp/w/v1.png' });
  for (const n of ['Last tram 02:40', 'Plan my ride']) { const b = page.getByLabel(n); console.log(n, await b.count()); if (await b.count()) await b.first().check(); }
  const boxes = page.getByRole('checkbox');
  console.log(await boxes.count());
  await page.getByRole('button', { name: /^Add .*column/ }).click();
  await page.getByRole('button', { name: 'Add a version' }).click();
  await page.waitForTimeout(1000);
  await page.screenshot({ path: '/tmp/w/v2.png' });
  await page.locator('textarea').first().fill('Letzte Bahn 02:40');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Sista tåget');
  await page.keyboard.press('Escape');
  await page.waitForTimeout(3000);
  await page.screenshot({ path: '/tmp/w/v3.png' });
});
