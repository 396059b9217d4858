/** Nothing acknowledged is lost: not by kill -9, not by a server that is away, not by a closed tab. */
import type { Project } from '@kite/core/document/types';
import { newProject, saved } from './support/editor';
import type { Server } from './support/server';
import { alone as test, expect } from './support/test';

interface Head {
  document: Project;
  revision: number;
}
const demoOf = async (server: Server): Promise<string> => {
  const { body } = await server.api<{ id: string }[]>('GET', '/projects');
  return body[0]?.id as string;
};

test('kill -9 in the middle of edits, six times over: every acknowledged edit is there', async ({ own }) => {
  test.setTimeout(180_000);
  const id = await demoOf(own);
  let acknowledged = 0;
  for (let round = 0; round < 6; round++) {
    const { body } = await own.api<Head>('GET', `/projects/${id}`);
    expect(body.revision).toBeGreaterThanOrEqual(acknowledged);
    if (body.revision > 0) expect(body.document.name).toBe(`Edit ${body.revision}`);
    let base = body.revision;
    const editing = (async () => {
      for (;;) {
        const patches = [{ op: 'replace', path: ['name'], value: `Edit ${base + 1}` }];
        const save = { base, saves: [{ id: `${round}-${base}`, label: 'Rename', patches }] };
        const answer = await own.api<{ revision: number }>('PATCH', `/projects/${id}`, save).catch(() => null);
        if (!answer) return;
        expect(answer.status).toBe(200);
        base = acknowledged = answer.body.revision;
      }
    })();
    await new Promise((r) => setTimeout(r, 300 + round * 130));
    await own.kill();
    await editing;
    await own.start();
  }
  expect(acknowledged).toBeGreaterThan(20);
  const { body } = await own.api<Head>('GET', `/projects/${id}`);
  expect(body.revision).toBeGreaterThanOrEqual(acknowledged);
  expect(body.document.name).toBe(`Edit ${body.revision}`);
});

test('kill -9 in the middle of a render: it is taken up again and finished', async ({ own }) => {
  test.setTimeout(180_000);
  const id = await demoOf(own);
  const { body } = await own.api<Head>('GET', `/projects/${id}`);
  const settings = { format: 'mp4', scale: 0.5, rate: null, from: 0, to: 120, quality: 'draft' };
  interface Row {
    id: string;
    status: string;
    done: number;
    attempts: number;
    error: string | null;
    result: { frames: number } | null;
  }
  const render = (await own.api<Row>('POST', '/renders', { project: id, scene: body.document.order[0], settings }))
    .body;
  const row = async () => (await own.api<Row[]>('GET', '/renders')).body.find((r) => r.id === render.id);
  for (let round = 0; round < 2; round++) {
    await expect.poll(async () => (await row())?.done ?? 0, { timeout: 30_000, intervals: [50] }).toBeGreaterThan(0);
    await own.kill();
    await own.start();
  }
  await expect.poll(async () => (await row())?.status, { timeout: 60_000 }).toBe('done');
  expect((await row())?.result?.frames).toBe(120);
  expect((await row())?.attempts).toBe(3);

  // One that the server does not survive is reported, not tried for ever.
  const again = (await own.api<Row>('POST', '/renders', { project: id, scene: body.document.order[0], settings })).body;
  const second = async () => (await own.api<Row[]>('GET', '/renders')).body.find((r) => r.id === again.id);
  for (let round = 0; round < 3; round++) {
    await expect.poll(async () => (await second())?.done ?? 0, { timeout: 30_000, intervals: [50] }).toBeGreaterThan(0);
    await own.kill();
    await own.start();
  }
  expect((await second())?.status).toBe('failed');
  expect((await second())?.error).toContain('ended 3 times');
});

test('edits made while the server is away are kept, through a reload, and sent when it is back', async ({
  page,
  own,
}) => {
  await newProject(page, own, 'Kept edits', 'Square');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  await saved(page, own);

  await own.kill();
  await page.getByRole('button', { name: 'Ellipse' }).dblclick();
  await page.getByRole('button', { name: 'Rectangle' }).dblclick();
  await expect(page.getByTestId('save-state')).toContainText('Server away: 2 edits kept in this browser');

  // Back again: they are sent by themselves.
  await own.start();
  await expect(page.getByTestId('save-state')).toHaveText('Saved', { timeout: 15_000 });
  expect(
    Object.keys((await saved(page, own)).scenes[(await saved(page, own)).order[0] as string]?.layers ?? {}),
  ).toHaveLength(3);

  // Away once more, and the tab is closed before the server is back.
  await own.kill();
  await page.getByRole('button', { name: 'Polygon' }).dblclick();
  await expect(page.getByTestId('save-state')).toContainText('1 edit kept');
  page.on('dialog', (dialog) => void dialog.accept());
  await own.start();
  await page.goto(page.url());
  await expect(page.getByLabel('Layer Polygon')).toBeVisible();
  const doc = await saved(page, own);
  expect(Object.keys(doc.scenes[doc.order[0] as string]?.layers ?? {})).toHaveLength(4);
});

test('two pages on one project: edits of both are kept', async ({ page, context, own }) => {
  await newProject(page, own, 'Two pages', 'Square');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByTestId('canvas')).toBeVisible();
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
  await saved(page, own);
  await other.getByRole('button', { name: 'Add a shape' }).click();
  await other.getByRole('button', { name: 'Ellipse' }).dblclick();
  await expect(other.getByLabel('Layer Ellipse')).toBeVisible();
  const doc = await saved(other, own);
  const names = Object.values(doc.scenes[doc.order[0] as string]?.layers ?? {}).map((l) => l.name);
  expect(names.toSorted()).toEqual(['Ellipse', 'Star']);
  await expect(other.getByLabel('Layer Star')).toBeVisible();
});
