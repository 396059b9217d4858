import { newDelivery } from '@kite/core/delivery/kept';
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Id, Project, Scene } from '@kite/core/document/types';
import { takeSwatch } from '@kite/core/edits/swatches';
import { applyEdit } from '@kite/core/edits/apply';
import { writeArchive } from '@kite/core/interchange/archive';
import type { Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { saved } from './support/editor';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const AMBER = { id: 'amber', name: 'Lamp amber', color: '#FFB23E' } as const;

/** A line of words on a ground of its own. */
const banner = (id: Id, width: number, height: number): Scene => {
  const scene = newScene(id, `Banner ${width}`, {
    ...{ width, height, rate: { num: 25, den: 1 }, length: 20, background: '#1B1F4B' },
  });
  const words = [
    newItem('t', 'text', { text: 'Last tram 02:40', size: 20 }),
    newItem('f', 'fill', { color: '#FFFFFF' }),
  ];
  const plate = [newItem('r', 'rectangle', { width, height }), newItem('f', 'fill', { color: AMBER.color })];
  const layers = [newDrawing(scene, 'w', 'Line', words), newDrawing(scene, 'p', 'Plate', plate)];
  return { ...scene, layers: Object.fromEntries(layers.map((own) => [own.id, own])), order: ['w', 'p'] };
};

/** Two sizes that say the same, in a colour of the palette. */
const opened = async (page: Page, server: Server, at = ''): Promise<string> => {
  const made = newProject('p', 'Stops', [banner('a', 300, 100), banner('b', 160, 120)]);
  const deliveries = [{ ...newDelivery('d', 'Stills', ['a'], { format: 'png' }), file: '{scene}-{version}' }];
  let project: Project = { ...made, swatches: [AMBER], deliveries };
  for (const scene of made.order) {
    const ref = { scene, layer: 'p', item: 'f', key: 'color' };
    project = applyEdit(project, takeSwatch(ref, AMBER, { write: 'curve', frame: 0 })).doc;
  }
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(project, new Map()));
  await page.goto(`${server.url}/projects/${body.id}${at}`);
  return body.id;
};

const cell = (page: Page, column: string, version: string) =>
  page.getByLabel(`${column} of ${version}`, { exact: true });

/** Lines of a spreadsheet, put where the caret is. */
const paste = (page: Page, text: string) =>
  page.evaluate((given) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', given);
    const event = new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true });
    document.activeElement?.dispatchEvent(event);
  }, text);

const namesOf = async (page: Page, server: Server) => {
  const { versions } = await saved(page, server);
  return versions.rows.map(({ name, values }) => [name, ...versions.columns.map(({ id }) => values[id] ?? null)]);
};

test('a table of versions is written, pasted, looked at and taken back', async ({ page, server }) => {
  const id = await opened(page, server);
  await expect(page.getByTestId('canvas')).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('translate');
  await page.getByRole('option', { name: /^Versions/ }).click();

  // Both sizes say the same: one column is of both.
  await expect(page.getByText('in 2 scenes')).toHaveCount(1);
  await page.getByLabel('Last tram 02:40').check();
  await page.getByLabel('Lamp amber').check();
  await page.getByRole('button', { name: 'Add 2 columns' }).click();
  await page.getByRole('button', { name: 'Add a version' }).click();
  await cell(page, 'Last tram 02:40', 'Version 1').fill('Last tram 02:22');
  // Enter goes on in the next line, which comes with it.
  await cell(page, 'Last tram 02:40', 'Version 1').press('Enter');
  await expect(cell(page, 'Last tram 02:40', 'Version 2')).toBeFocused();
  await page.keyboard.type('Last tram 02:58');
  await page.keyboard.press('Escape');
  expect(await namesOf(page, server)).toEqual([
    ['Version 1', 'Last tram 02:22', null],
    ['Version 2', 'Last tram 02:58', null],
  ]);

  // Names, words and a colour from a spreadsheet.
  await page.getByLabel('Name of version 1').focus();
  await paste(page, 'Harbour Steps\tLast tram 02:20\nObservatory\t\t#2ec4b6\nMill Lane\t"Last tram\n03:10"');
  expect(await namesOf(page, server)).toEqual([
    ['Harbour Steps', 'Last tram 02:20', null],
    ['Observatory', null, '#2EC4B6'],
    ['Mill Lane', 'Last tram\n03:10', null],
  ]);
  await page.getByLabel('Lamp amber of Mill Lane').focus();
  await paste(page, 'teal\tx');
  await expect(
    page.getByText('“teal” in “Lamp amber” is no colour, as #FFB23E is. Nothing was changed.'),
  ).toBeVisible();

  // Each is drawn as it is, and the open one plays in either size.
  const ground = (version: string) =>
    page
      .getByRole('button', { name: `Show ${version}` })
      .locator('canvas')
      .evaluate((canvas: HTMLCanvasElement) => [...canvas.getContext('2d')!.getImageData(4, 4, 1, 1).data.slice(0, 3)]);
  await expect.poll(() => ground('Observatory')).toEqual([0x2e, 0xc4, 0xb6]);
  await expect.poll(() => ground('Harbour Steps')).toEqual([0xff, 0xb2, 0x3e]);
  await page.getByRole('button', { name: 'Show Observatory' }).click();
  await expect(page.getByRole('region', { name: 'Version Observatory' })).toBeVisible();
  await page.getByLabel('Scene shown').selectOption({ label: 'Banner 160' });
  await expect(page.getByTestId('version-playing')).toHaveAttribute('data-drawn', /\d/);

  // What no longer fits is told, though it does in the project.
  await expect(page.getByText('to look at')).toHaveCount(0);
  await cell(page, 'Last tram 02:40', 'Mill Lane').fill(
    'The very last tram of the night leaves here at ten past three',
  );
  await page.keyboard.press('Escape');
  await expect(page.getByText('2 to look at')).toBeVisible();
  await page.getByRole('button', { name: 'Show Mill Lane' }).click();
  await expect(page.getByRole('list', { name: 'To look at' })).toContainText('is cut by the edge of the picture.');
  await page.getByRole('button', { name: 'Show Observatory' }).click();

  // Put into the project it is what everybody sees, until it is taken back.
  await page.getByRole('button', { name: 'Put it into the project' }).click();
  expect((await saved(page, server)).swatches[0]?.color).toBe('#2EC4B6');
  await page.getByRole('button', { name: 'Undo: Put a version into the project' }).click();
  expect((await saved(page, server)).swatches[0]?.color).toBe('#FFB23E');
  await page.getByRole('button', { name: 'Remove the version' }).click();
  await expect(page.getByRole('button', { name: 'Show Observatory' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: Remove a version' }).click();
  await expect(page.getByRole('button', { name: 'Show Observatory' })).toBeVisible();
  await page.reload();
  expect(new URL(page.url()).pathname).toBe(`/projects/${id}/versions`);
  await expect(cell(page, 'Last tram 02:40', 'Harbour Steps')).toHaveValue('Last tram 02:20');
});

test('a file of each version, by one press; what is out of date is made again alone', async ({ page, server }) => {
  await opened(page, server, '/versions');
  await page.getByLabel('Lamp amber').check();
  await page.getByRole('button', { name: 'Add the column' }).click();
  // A table that was kept elsewhere.
  await page.getByLabel('A table as CSV').setInputFiles({
    name: 'stops.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('\uFEFFVersion;Lamp amber\r\nHarbour Steps;#FF5D5D\r\nObservatory;#2EC4B6\r\n'),
  });
  await expect(page.getByRole('button', { name: /^Show / })).toHaveCount(2);
  await page.getByLabel('A table as CSV').setInputFiles({
    name: 'others.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Town,Hour\nQuillhaven,2\n'),
  });
  await expect(page.getByText('The first line names no column of this table. Nothing was changed.')).toBeVisible();

  await page.getByRole('main').getByRole('link', { name: 'Deliveries' }).click();
  await page.getByLabel('A file for each version (2)').check();
  const row = page.getByTestId('delivery');
  await expect(row).toContainText('2 files, never rendered');
  await page.getByRole('button', { name: 'Render all 2' }).click();
  await expect(row).toContainText('2 files up to date', { timeout: 60_000 });
  const files = page.getByRole('list', { name: 'Files of versions' }).getByRole('listitem');
  await expect(files).toContainText(['Harbour Steps', 'Observatory']);
  await expect(files.getByRole('link', { name: 'Download Banner-300-Observatory' })).toBeVisible();
  const link = await page.getByRole('link', { name: 'All as one zip' }).getAttribute('href');
  const zip = unzipSync(await server.bytes((link ?? '').replace('/api', '')));
  expect(Object.keys(zip)).toEqual(['Banner-300-Harbour-Steps.png', 'Banner-300-Observatory.png']);
  expect(strFromU8(zip['Banner-300-Observatory.png']!.subarray(1, 4))).toBe('PNG');

  await page.getByRole('main').getByRole('link', { name: 'Versions' }).click();
  await page.getByLabel('Lamp amber of Observatory: as in the project').click();
  await page.getByRole('main').getByRole('link', { name: 'Deliveries' }).click();
  await expect(row).toContainText('1 of 2 files out of date');
  await page.getByRole('button', { name: 'Render what is out of date (1)' }).first().click();
  await expect(row).toContainText('2 files up to date', { timeout: 60_000 });
  await page.getByRole('link', { name: 'All renders' }).click();
  await expect(page.getByTestId('render-row')).toContainText([
    'Stills, Observatory',
    'Stills, Observatory',
    'Stills, Harbour Steps',
  ]);
});

test('words that were split say what a version says, to the pixel as the project that says it', async ({
  page,
  server,
}) => {
  const id = await opened(page, server, '/versions');
  await page.getByLabel('Last tram 02:40').check();
  await page.getByRole('button', { name: 'Add the column' }).click();
  await page.getByRole('button', { name: 'Add a version' }).click();
  // Taken apart after the table was made: its column stays that of these words.
  await page.getByRole('link', { name: 'Back to the scene' }).click();
  await page
    .getByTestId('layer-row')
    .first()
    .click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Split into letters' }).click();
  await expect.poll(async () => (await saved(page, server)).scenes.a?.order.length).toBe(14);

  await page.goto(`${server.url}/projects/${id}/versions`);
  await cell(page, 'Last tram 02:40', 'Version 1').fill('First tram 04:10');
  await page.keyboard.press('Escape');
  const poster = page.getByRole('button', { name: 'Show Version 1' }).locator('canvas');
  const drawn = () => poster.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  await expect(poster).toHaveAttribute('data-drawn', /./);
  const ofVersion = await drawn();

  const file = async (name: string) => {
    await page.getByRole('button', { name: 'Render this one' }).click();
    const link = page.getByTestId('delivery').getByRole('link', { name: `Download ${name}`, exact: true });
    const href = await link.getAttribute('href', { timeout: 60_000 });
    return Buffer.from(await server.bytes((href ?? '').replace('/api', '')));
  };
  await page.getByRole('main').getByRole('link', { name: 'Deliveries' }).click();
  await page.getByLabel('A file for each version (1)').check();
  const ofTheVersion = await file('Banner-300-Version-1');
  await page.getByLabel('A file for each version (1)').uncheck();

  await page.getByRole('main').getByRole('link', { name: 'Versions' }).click();
  await page.getByRole('button', { name: 'Put it into the project' }).click();
  await expect(page.getByText('The project is as “Version 1” now.')).toBeVisible();
  const { sets, order } = (await saved(page, server)).scenes.a as Scene;
  expect([sets[0]?.word?.parts.length, order.length]).toEqual([14, 15]);
  await expect(poster).toHaveAttribute('data-drawn', /./);
  expect(await drawn()).toBe(ofVersion);
  await page.getByRole('main').getByRole('link', { name: 'Deliveries' }).click();
  expect((await file('Banner-300')).equals(ofTheVersion)).toBe(true);
});
