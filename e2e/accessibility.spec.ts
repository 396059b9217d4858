/** Every page, dialog and the editor, in both themes, against the rules of axe-core (WCAG 2.1, A and AA). */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { newProject } from './support/editor';
import type { Server } from './support/server';
import { expect, test } from './support/test';

const POPUP = '[role=menu], [role=dialog]';
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice'];

/**
 * What is wrong with a page, or with the parts of it that match. In dusk the same things stand there in other colours: of
 * them alone there is something new to say.
 */
const violations = async (page: Page, theme: Theme, part?: string): Promise<string[]> => {
  const axe = new AxeBuilder({ page });
  if (theme === 'day') axe.withTags(RULES);
  else axe.withRules(['color-contrast']);
  // A menu or panel that hangs from a button lies beside the landmarks, and is none.
  if (part) axe.include(part);
  if (part && theme === 'day') axe.disableRules('region');
  const { violations: found } = await axe.analyze();
  return found.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 4)
        .join(' | ')}`,
  );
};

const demoOf = async (server: Server): Promise<string> => {
  const cards = (await server.api<{ id: string; name: string }[]>('GET', '/projects')).body;
  return cards.find((c) => c.name === 'Quillhaven Night Tram')?.id as string;
};

const THEMES = ['day', 'dusk'] as const;
type Theme = (typeof THEMES)[number];

for (const theme of THEMES) {
  test.describe(theme, () => {
    test.beforeEach(async ({ page, server }) => {
      await page.goto(server.url);
      const button = page.getByRole('button', { name: theme === 'day' ? 'Daylight colours' : 'Dusk colours' });
      if (await button.isVisible()) await button.click();
    });

    test('pages', async ({ page, server }) => {
      await expect(page.getByTestId('project-card').first()).toBeVisible();
      expect.soft(await violations(page, theme), 'projects').toEqual([]);
      await page.getByRole('button', { name: 'New project' }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      expect.soft(await violations(page, theme), 'a new project').toEqual([]);
      for (const [name, path] of [
        ['renders', '/renders'],
        ['deliveries', `/projects/${await demoOf(server)}/deliveries`],
        ['versions', `/projects/${await demoOf(server)}/versions`],
        ['help', '/help'],
        ['the cards', '/help/cards'],
        ['the keyboard', '/help/keyboard'],
        ['formulas', '/help/formulas'],
        ['nowhere', '/no/such/page'],
      ] as const) {
        await page.goto(server.url + path);
        // A page that is still being fetched shows a line of its own in its place, and no heading.
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        expect.soft(await violations(page, theme), name).toEqual([]);
      }
    });

    test('the menus and panels of the editor', async ({ page, server }) => {
      await page.goto(`${server.url}/projects/${await demoOf(server)}`);
      await expect(page.getByTestId('picture')).toHaveAttribute('data-drawn', /^\d+$/);
      const openers = page.locator('button[aria-haspopup]:enabled');
      const popup = page.locator(POPUP);
      const opened = new Set<string>();
      for (const layer of ['Lamp ring', 'Wordmark']) {
        await page.getByRole('group', { name: `Layer ${layer}`, exact: true }).click({ position: { x: 90, y: 12 } });
        for (const name of await openers.evaluateAll((all) => all.map((b) => b.ariaLabel ?? b.textContent.trim()))) {
          // One of the scenes' menus stands for all.
          const kind = name.replace(/^Scene .*:/, 'Scene:');
          if (opened.has(kind)) continue;
          opened.add(kind);
          await page.getByRole('button', { name, exact: true }).first().click();
          await expect(popup).toBeVisible();
          expect.soft(await violations(page, theme, POPUP), kind).toEqual([]);
          await page.keyboard.press('Escape');
          await expect(popup, kind).toBeHidden();
        }
      }
      expect(opened.size).toBeGreaterThan(8);
    });

    test('the editor, its drawers and its dialogs', async ({ page, server }) => {
      await page.goto(`${server.url}/projects/${await demoOf(server)}`);
      await expect(page.getByTestId('picture')).toHaveAttribute('data-drawn', /^\d+$/);
      expect.soft(await violations(page, theme), 'nothing selected').toEqual([]);
      await page
        .getByRole('group', { name: /^Layer / })
        .first()
        .click({ position: { x: 90, y: 12 } });
      expect.soft(await violations(page, theme), 'a layer selected').toEqual([]);
      for (const drawer of ['Add a shape', 'Pictures and fonts', 'Moves', 'History']) {
        await page.getByRole('button', { name: drawer, exact: true }).click();
        await expect(page.locator('[data-drawer]')).toBeVisible();
        expect.soft(await violations(page, theme, '[data-drawer]'), drawer).toEqual([]);
      }
      const dialog = page.getByRole('dialog');
      for (const opener of ['Render', 'Keyboard', 'New scene']) {
        await page.getByRole('button', { name: opener, exact: true }).click();
        await expect(dialog).toBeVisible();
        expect.soft(await violations(page, theme, POPUP), opener).toEqual([]);
        await page.keyboard.press('Escape');
        await expect(dialog).toBeHidden();
      }
      await page.getByRole('button', { name: 'Pictures and fonts', exact: true }).click();
      await page.getByTestId('import-files').setInputFiles({
        name: 'Mark.svg',
        mimeType: 'image/svg+xml',
        buffer: Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><g><path d="M0 0h9v9z"/></g></svg>',
        ),
      });
      await expect(page.getByRole('dialog', { name: /^Import/ })).toBeVisible();
      expect.soft(await violations(page, theme, POPUP), 'import of an SVG').toEqual([]);
    });
  });
}

test('with the keyboard alone: a shape is added, has the focus of the inspector, and is rendered', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Keyboard', 'Square');
  const presses = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  // From area to area, and back.
  await presses('F6');
  const first = await page.evaluate(() => document.activeElement?.closest('[data-area]')?.getAttribute('data-area'));
  await presses('F6');
  const second = await page.evaluate(() => document.activeElement?.closest('[data-area]')?.getAttribute('data-area'));
  expect(first).toBeTruthy();
  expect(second).not.toBe(first);
  await presses('Shift+F6');
  expect(await page.evaluate(() => document.activeElement?.closest('[data-area]')?.getAttribute('data-area'))).toBe(
    first,
  );

  await page.getByRole('button', { name: 'Add a shape' }).focus();
  await presses('Enter');
  await page.getByRole('button', { name: 'Star' }).focus();
  await presses('Enter');
  const row = page.getByRole('group', { name: 'Layer Star', exact: true });
  await expect(row).toBeVisible();
  // Focus is on what was made.
  const area = () =>
    page.evaluate(() => document.activeElement?.closest('[data-area]')?.getAttribute('data-area') ?? 'none');
  await expect.poll(area).toBe('timeline');

  let steps = 0;
  const onRender = () => page.evaluate(() => document.activeElement?.textContent?.trim() === 'Render');
  while (!(await onRender()) && steps < 10) {
    await presses('F6');
    steps++;
  }
  expect(await onRender()).toBe(true);
  await presses('Enter');
  await expect(page.getByRole('dialog', { name: /^Render/ })).toBeVisible();
});

test('what is pressed has no frame of the browser’s, and what keys come to has ours', async ({ page, server }) => {
  await newProject(page, server, 'Frames', 'Square');
  const playhead = page.getByRole('slider', { name: 'Playhead' });
  const frame = () => playhead.evaluate((slider) => getComputedStyle(slider).outlineStyle);
  await playhead.click();
  await expect(playhead).toBeFocused();
  expect(await frame()).toBe('none');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Tab');
  await expect(playhead).toBeFocused();
  expect(await frame()).toBe('solid');
});

test('a shape that is made where the list of layers is full and scrolled away is shown, and has the focus', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Full list', 'Square');
  await page.getByRole('button', { name: 'Add a shape' }).click();
  const tile = page.getByRole('button', { name: 'Star', exact: true }).first();
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('data-layer') ?? null);
  const made = new Set<string>();
  for (let n = 1; n <= 24; n++) {
    // The row made last is above all others: away from there once the list is scrolled.
    await page.getByTestId('timeline-rows').evaluate((rows) => (rows.scrollTop = rows.scrollHeight));
    if (n > 1) await expect(page.getByRole('group', { name: 'Layer Star', exact: true })).toBeInViewport();
    await tile.focus();
    await page.keyboard.press('Enter');
    await expect
      .poll(async () => {
        const now = await focused();
        return (now === null ? made : made.add(now)).size;
      })
      .toBe(n);
  }
});
