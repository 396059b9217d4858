import { newDelivery } from '@kite/core/delivery/kept';
/** What leaves a project: kept, rendered at a press, checked before, compared after. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Delivery, DrawingLayer, Id, KeptSettings, Project, Scene } from '@kite/core/document/types';
import { writeArchive } from '@kite/core/interchange/archive';
import type { Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { saved } from './support/editor';
import { colorAt, readGif, readVideo } from './support/media';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const SIZE = { width: 200, height: 120, rate: { num: 25, den: 1 }, length: 20, background: '#1B1F4B' } as const;
const FULL = { width: SIZE.width, height: SIZE.height };

const filled = (id: Id, color: string, fields: Partial<Scene> = {}): Scene => {
  const scene = { ...newScene(id, `Scene ${id}`, SIZE), ...fields };
  const items = [newItem('r', 'rectangle', FULL), newItem('f', 'fill', { color })];
  const layer = newDrawing(scene, 'l', 'Plate', items);
  return { ...scene, layers: { l: layer }, order: ['l'] };
};
const delivery = (id: Id, name: string, settings: KeptSettings, scenes: readonly Id[] = ['a'], fade = 0): Delivery => ({
  ...newDelivery(id, name, scenes, settings),
  fade,
  file: '{project}-{delivery}',
});
const opened = async (page: Page, server: Server, project: Project, at = ''): Promise<string> => {
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map()));
  await page.goto(`${server.url}/projects/${body.id}${at}`);
  return body.id;
};
interface Row {
  id: string;
  projectId: string;
  deliveryName: string;
  status: string;
}
const fileOf = async (server: Server, project: string, name: string): Promise<Uint8Array> => {
  const rows = (await server.api<Row[]>('GET', '/renders')).body;
  const row = rows.find((r) => r.projectId === project && r.deliveryName === name);
  return server.bytes(`/renders/${row?.id}/file`);
};

test('five deliveries by one press, as one zip; what is out of date is known, and made again', async ({
  page,
  server,
}) => {
  const scenes = [filled('a', '#FFB23E'), filled('b', '#2EC4B6')];
  const project: Project = {
    ...newProject('p', 'Five', scenes),
    deliveries: [
      delivery('d1', 'Video', { format: 'mp4' }),
      delivery('d2', 'Loop', { format: 'gif', hold: 1 }),
      delivery('d3', 'Banner', { format: 'html5', click: 'https://nighttram.example/' }),
      delivery('d4', 'Still', { format: 'jpeg' }),
      delivery('d5', 'Film', { format: 'mp4', colors: 'full' }, ['a', 'b'], 10),
    ],
  };
  const id = await opened(page, server, project, '/deliveries');
  const rows = page.getByTestId('delivery');
  await expect(rows).toHaveCount(5);
  await expect(rows.filter({ hasText: 'Never rendered' })).toHaveCount(5);
  await page.getByRole('button', { name: 'Render all' }).click();
  await expect(rows.filter({ hasText: 'Up to date' })).toHaveCount(5, { timeout: 60_000 });
  await expect(page.getByText('Asked for together: 5 of 5 done')).toBeVisible();
  const link = await page.getByRole('link', { name: 'All as one zip' }).getAttribute('href');
  const zip = unzipSync(await server.bytes((link ?? '').replace('/api', '')));
  expect(Object.keys(zip).sort()).toEqual([
    'Five-Banner.zip',
    'Five-Film.mp4',
    'Five-Loop.gif',
    'Five-Still.jpg',
    'Five-Video.mp4',
  ]);

  // Twenty frames and twenty, of which ten are both: amber, half of each, teal.
  const film = readVideo(zip['Five-Film.mp4'] as Uint8Array, SIZE.width, SIZE.height);
  expect(film.frames).toBe(30);
  const near = (frame: number, wanted: readonly number[]) => {
    const color = colorAt(film.frame(frame), 100, 60);
    wanted.forEach((v, i) =>
      expect(Math.abs(v - (color[i] ?? -99)), `frame ${frame}: ${color.join()}`).toBeLessThan(6),
    );
  };
  near(5, [0xff, 0xb2, 0x3e]);
  near(15, [(0xff + 0x2e) / 2, (0xb2 + 0xc4) / 2, (0x3e + 0xb6) / 2]);
  near(29, [0x2e, 0xc4, 0xb6]);

  // Another setting, undone and done again; the other four stay as they are.
  await page.getByRole('button', { name: 'Loop' }).click();
  await page.getByLabel('Last stays', { exact: true }).fill('2');
  await page.getByLabel('Last stays', { exact: true }).press('Enter');
  await expect(rows.filter({ hasText: 'Out of date' })).toHaveCount(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(rows.filter({ hasText: 'Up to date' })).toHaveCount(5);
  await page.getByRole('button', { name: /^Redo/ }).click();
  await page.getByRole('button', { name: 'Render what is out of date (1)' }).click();
  await expect(rows.filter({ hasText: 'Up to date' })).toHaveCount(5, { timeout: 30_000 });
  // What rests at its end, and two seconds more.
  expect(readGif(await fileOf(server, id, 'Loop')).delays.at(-1)).toBe(80 + 200);

  // Another order, a copy, and one less: each can be taken back.
  await page.getByRole('button', { name: 'Move up' }).click();
  await expect(rows.first()).toContainText('Loop');
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(rows).toHaveCount(6);
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(rows).toHaveCount(5);
  await page.getByRole('button', { name: 'Undo: Delete a delivery' }).click();
  await expect(rows).toHaveCount(6);

  // Both files of it, beside each other.
  await page.getByRole('link', { name: 'All renders' }).click();
  await page.getByTestId('render-row').filter({ hasText: 'Loop' }).first().getByRole('button').first().click();
  await page.getByRole('radio', { name: 'Side by side' }).click();
  await expect(page.getByTestId('beside').locator('img')).toHaveCount(2);

  // One taken from the other: only how long the last picture stays was changed.
  await page.getByRole('radio', { name: 'Difference' }).click();
  await expect(page.getByTestId('difference')).toHaveAttribute('data-drawn', 'true');
  const brightest = await page.getByTestId('difference').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return data.reduce((most, v, i) => (i % 4 < 3 ? Math.max(most, v) : most), 0);
  });
  expect(brightest).toBe(0);
});

test('a GIF that fades is mixed with each ground that it is made for', async ({ page, server }) => {
  const fading = filled('a', '#FF5D5D', { background: null });
  const plate = fading.layers.l as DrawingLayer;
  const half = { ...plate, params: { ...plate.params, opacity: { value: 0.5 } } };
  const project: Project = {
    ...newProject('p', 'Grounds', [{ ...fading, layers: { l: half } }]),
    deliveries: [
      delivery('d1', 'On white', { format: 'gif', ground: '#FFFFFF' }),
      delivery('d2', 'On night', { format: 'gif', ground: '#1B1F4B' }),
    ],
  };
  const id = await opened(page, server, project, '/deliveries');
  await page.getByRole('button', { name: 'Render all' }).click();
  await expect(page.getByText('Asked for together: 2 of 2 done')).toBeVisible({ timeout: 30_000 });
  for (const [name, ground] of [
    ['On white', [0xff, 0xff, 0xff]],
    ['On night', [0x1b, 0x1f, 0x4b]],
  ] as const) {
    const color = colorAt(readGif(await fileOf(server, id, name)).at(0), 100, 60);
    [0xff, 0x5d, 0x5d].forEach((v, i) => {
      const wanted = (v + (ground[i] as number)) / 2;
      expect(Math.abs((color[i] as number) - wanted), `${name}: ${color.join()}`).toBeLessThan(4);
    });
  }
});

test('a check is counted, shown where it is, and mended by a press; a delivery is kept from the dialog', async ({
  page,
  server,
}) => {
  const scene = newScene('a', 'Late ticket', { ...SIZE, length: 100 });
  const font = { family: 'Inter', weight: 500, italic: false };
  const words = newDrawing(scene, 'w', 'Words', [
    newItem('t', 'text', { text: 'Ride home easy', size: 3, font }),
    newItem('f', 'fill', { color: '#E9ECF5' }),
  ]);
  const project = newProject('p', 'Checked', [{ ...scene, layers: { w: words }, order: ['w'] }]);
  await opened(page, server, project);
  await page.getByRole('button', { name: '1 to look at' }).click();
  const finding = page.getByTestId('finding');
  await expect(finding).toContainText('“Ride home easy” is 3.0 px; 3.6 px is the least here.');
  await finding.getByRole('button', { name: 'Show me' }).click();
  await expect(page.getByTestId('layer-row').filter({ hasText: 'Words' })).toHaveClass(/bg-sky-2/);
  // It stands in the dialog too, and is mended there.
  await page.getByRole('button', { name: 'Render', exact: true }).click();
  await page.getByText('1 to look at in this scene before it is rendered').click();
  await page.getByRole('button', { name: 'Make it 4 px' }).click();
  await expect(page.getByRole('button', { name: 'Checks: nothing to look at', includeHidden: true })).toBeVisible();
  await page.getByRole('radio', { name: 'Animated GIF' }).click();
  await page.getByRole('button', { name: 'Keep as a delivery' }).click();
  await page.getByRole('button', { name: 'Show deliveries' }).click();
  await expect(page.getByTestId('delivery')).toContainText('Late ticket, Animated GIF');
  const doc = await saved(page, server);
  expect(doc.deliveries).toMatchObject([{ scenes: ['a'], settings: { format: 'gif' } }]);
  expect((doc.scenes.a?.layers.w as DrawingLayer).items.t?.params.size).toEqual({ value: 4 });

  // A loop that jumps is found with the delivery; the way there and back.
  await page.getByLabel('Delivery name').fill('For the page');
  await page.getByLabel('Delivery name').press('Enter');
  await page.getByRole('button', { name: 'One more, as a film' }).click();
  await page.getByLabel('Cross-fade', { exact: true }).fill('5');
  await page.getByLabel('Cross-fade', { exact: true }).press('Enter');
  await expect(page.getByText('195 frames at 25 a second')).toBeVisible();
  await page.getByLabel('File name').fill('{scene}-{client}');
  await page.getByLabel('File name').press('Enter');
  await expect(page.getByText('There is no {client}: the parts are {project}, {scene}')).toBeVisible();
  await page.getByRole('link', { name: 'Back to the scene' }).click();
  await expect(page.getByTestId('layer-row')).toHaveCount(1);
  expect((await saved(page, server)).deliveries).toMatchObject([
    { name: 'For the page', scenes: ['a', 'a'], fade: 5, file: '{scene}-{client}' },
  ]);
});
