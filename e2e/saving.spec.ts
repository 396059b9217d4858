/** Ordinary edits go on saving: at limits, with any text, and beside one that the server refuses. */
import type { DrawingLayer, KeyedProperty } from '@kite/core/document/types';
import { addStar, beginText, goToFrame, newProject, saved, setNumber } from './support/editor';
import { named, sceneOf } from './support/scene';
import { Server } from './support/server';
import { expect, test } from './support/test';

test('a whole curve that is moved past a limit stops at it, is saved, undone and rendered', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Limits', 'Square');
  await addStar(page);
  await setNumber(page, 'Opacity', '0');
  await page.getByLabel('Opacity: Animate: add a keyframe here').click();
  await goToFrame(page, 20);
  await page.getByRole('button', { name: /^Auto-key/ }).click();
  await setNumber(page, 'Opacity', '150');
  await expect(page.getByRole('status').filter({ hasText: 'at most 100 %' })).toBeVisible();
  await page.getByRole('button', { name: /^Auto-key/ }).click();
  // Beyond the last keyframe, where there is none, all of them are meant.
  await goToFrame(page, 25);
  await setNumber(page, 'Opacity', '80');
  const keys = async () => {
    const opacity = named<DrawingLayer>(await sceneOf(page, server), 'Star').params.opacity as KeyedProperty;
    return opacity.keys.map((k) => k.value);
  };
  expect(await keys()).toEqual([0, 0.8]);
  await page.keyboard.press('Control+z');
  expect(await keys()).toEqual([0, 1]);
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG', exact: true }).click();
  await page
    .getByRole('button', { name: /^Render|^Start/ })
    .last()
    .click();
  await expect(page.getByText(/is in the queue/)).toBeVisible();
});

test('a text that is cut in an emoji is saved, and so is what follows', async ({ page, server }) => {
  await newProject(page, server, 'Emoji', 'Square');
  await beginText(page);
  await page.keyboard.insertText(`${'x'.repeat(59)}🚋`);
  await page.keyboard.press('Escape');
  await addStar(page);
  const names = Object.values((await sceneOf(page, server)).layers).map((l) => l.name);
  expect(names.toSorted()).toEqual(['Star', 'x'.repeat(59)]);
});

test('an edit that the server refuses is taken back alone, by name; the rest is saved', async ({ page, server }) => {
  const id = await newProject(page, server, 'Refused', 'Square');
  await addStar(page);
  await saved(page, server);
  // The server takes everything of the next save but what is called so.
  await page.route(`**/api/projects/${id}`, async (route) => {
    if (route.request().method() !== 'PATCH') return route.fallback();
    const body = route.request().postDataJSON() as {
      base: number;
      saves: { id: string; label: string; patches: unknown[] }[];
    };
    const bad = body.saves.filter((save) => save.label !== 'Add a layer');
    const rest = body.saves.filter((save) => !bad.includes(save));
    const answer =
      rest.length > 0
        ? (await server.api<{ revision: number }>('PATCH', `/projects/${id}`, { base: body.base, saves: rest })).body
        : { revision: body.base };
    await route.fulfill({ json: { ...answer, refused: bad.map((s) => ({ id: s.id, message: 'name: is taken' })) } });
  });
  await setNumber(page, 'Opacity', '40');
  await page.getByRole('button', { name: 'Ellipse' }).dblclick();
  await expect(page.getByText(/could not be saved and was taken back.*name: is taken/)).toBeVisible();
  await expect(page.getByLabel('Layer Ellipse')).toBeVisible();
  const doc = await saved(page, server);
  const layers = doc.scenes[doc.order[0] as string]?.layers ?? {};
  expect(
    Object.values(layers)
      .map((l) => [l.name, l.params.opacity])
      .toSorted(),
  ).toEqual([
    ['Ellipse', undefined],
    ['Star', undefined],
  ]);
});

test('Render says at once that the server is away; two tabs that are closed lose nothing', async ({
  page,
  context,
}) => {
  const own = new Server();
  await own.start();
  try {
    await newProject(page, own, 'Two tabs', 'Square');
    await saved(page, own);
    const other = await context.newPage();
    await other.goto(page.url());
    await expect(other.getByTestId('canvas')).toBeVisible();
    await own.kill();
    await addStar(page);
    await page.getByRole('button', { name: 'Ellipse' }).dblclick();
    await page.getByRole('button', { name: 'Polygon' }).dblclick();
    await addStar(other);
    await other.getByRole('button', { name: 'Rectangle' }).dblclick();
    await expect(page.getByTestId('save-state')).toContainText('3 edits kept');
    await expect(other.getByTestId('save-state')).toContainText('2 edits kept');
    await page.getByRole('button', { name: 'Render', exact: true }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Render|^Start/ })
      .last()
      .click();
    await expect(page.getByText(/3 edits wait in this browser: the server does not answer/)).toBeVisible();
    const address = page.url();
    for (const tab of [page, other]) await tab.close({ runBeforeUnload: false });
    await own.start();
    const fresh = await context.newPage();
    await fresh.goto(address);
    await expect(fresh.getByText(/Taken over from a tab/)).toBeVisible();
    const doc = await saved(fresh, own);
    const names = Object.values(doc.scenes[doc.order[0] as string]?.layers ?? {}).map((l) => l.name);
    expect(names.toSorted()).toEqual(['Ellipse', 'Polygon', 'Rectangle', 'Star', 'Star']);
  } finally {
    await own.stop();
  }
});

// As by keys that repeat faster than a page can be told of them one by one.
test('two hundred undos are saved together', async ({ page, server }) => {
  const id = await newProject(page, server, 'Undos', 'Square');
  await addStar(page);
  await page.getByRole('group', { name: 'Layer Star', exact: true }).click({ position: { x: 90, y: 12 } });
  let requests = 0;
  page.on('request', (request) => {
    if (request.method() === 'PATCH' && request.url().endsWith(id)) requests++;
  });
  const press = (init: { key: string; code: string; ctrlKey?: boolean }) =>
    page.evaluate((how) => {
      for (let i = 0; i < 200; i++)
        document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { ...how, bubbles: true }));
    }, init);
  await press({ key: 'ArrowRight', code: 'ArrowRight' });
  await saved(page, server);
  const nudges = requests;
  await press({ key: 'z', code: 'KeyZ', ctrlKey: true });
  const star = named<DrawingLayer>(await sceneOf(page, server), 'Star');
  expect(star.params.position).toEqual({ value: [540, 540] });
  expect(nudges).toBeLessThan(20);
  expect(requests - nudges).toBeLessThan(20);
});
