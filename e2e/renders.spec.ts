/** Following a render: progress, time left, cancelling, trying again, and rendering a part. */
import { drag, newProject } from './support/editor';
import { readGif } from './support/media';
import { expect, test } from './support/test';

test('a render shows its progress, can be cancelled and tried again', async ({ page, server }) => {
  const { body } = await server.api<{ id: string; name: string }[]>('GET', '/projects');
  await page.goto(`${server.url}/projects/${body.find((p) => p.name === 'Quillhaven Night Tram')?.id}`);
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByLabel('Scale', { exact: true }).fill('150');
  await page.getByLabel('Scale', { exact: true }).press('Enter');
  await expect(page.getByRole('dialog')).toContainText('2880 × 1620 px · 120 frames at 30 a second · 4.00 s');
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('button', { name: 'Show renders' }).click();

  const row = page.getByTestId('render-row').first();
  await expect(row).toContainText(/Frame \d+ of 120 .*left/, { timeout: 20_000 });
  await expect(row.getByRole('progressbar')).toBeVisible();
  await row.getByRole('button', { name: 'Cancel' }).click();
  await expect(row).toHaveAttribute('data-status', 'cancelled');
  await expect(page.getByText('This render was cancelled. It can be tried again.')).toBeVisible();

  await row.getByRole('button', { name: 'Try again' }).click();
  await expect(row).toHaveAttribute('data-status', 'done', { timeout: 60_000 });
  await expect(row).toContainText('2880 × 1620 · 4.00 s');
  await row.getByRole('button', { name: 'Delete' }).click();
  const large = page.getByTestId('render-row').filter({ hasText: '2880 × 1620' });
  await expect(large).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(large).toHaveCount(1);

  await large.getByRole('button', { name: 'Delete' }).click();
  await expect(large).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Deleted' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Bring back' }).click();
  await page.keyboard.press('Escape');
  await expect(large).toHaveAttribute('data-status', 'done');
  await large.getByRole('button').first().click();
  await expect.poll(() => page.locator('video').evaluate((film: HTMLVideoElement) => film.videoWidth)).toBe(2880);

  await large.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Deleted' }).click();
  await page.getByRole('button', { name: 'Delete all of them for good' }).click();
  await expect(page.getByText('None was deleted in the last day.')).toBeVisible();
});

test('the play range is what a render of the play range holds', async ({ page, server }) => {
  await newProject(page, server, 'Ranges', 'Mobile banner');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  const strip = await page.getByTestId('range-strip').boundingBox();
  const y = (strip?.y ?? 0) + 3;
  await drag(page, { x: (strip?.x ?? 0) + 100, y }, { x: (strip?.x ?? 0) + 200, y });
  const shown = (await page.getByRole('button', { name: 'Play the whole scene again' }).textContent()) ?? '';
  const [first, last] = (shown.match(/\d+/g) ?? []).map(Number) as [number, number];
  expect(last).toBeGreaterThan(first + 10);

  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'Animated GIF' }).click();
  await page.getByRole('radio', { name: `Play range, ${first} to ${last}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('button', { name: 'Show renders' }).click();
  await expect(page.getByTestId('render-row').first()).toHaveAttribute('data-status', 'done', { timeout: 30_000 });
  const [row] = (await server.api<{ id: string }[]>('GET', '/renders')).body;
  // Nothing moves: one picture, for as many hundredths as its frames last, 30 a second.
  const { delays } = readGif(await server.bytes(`/renders/${row?.id}/file`));
  expect(delays).toEqual([Math.round(((last - first + 1) * 100) / 30)]);
});
