/** What tests do in the editor, by its labels, as a person would. */
import type { Project } from '@kite/core/document/types';
import { expect, type Locator, type Page } from '@playwright/test';
import { COMMON_SIZES, type NamedSize } from '../../apps/web/src/pages/projects/sizes';
import { isEffect } from '@kite/core/recipe/shown';
import { KINDS } from '@kite/core/recipe/table';
import { parseRate } from '@kite/core/time/rate';
import type { Server } from './server';

/** A project made in the form, by the name of a size. */
export const newProjectByHand = async (page: Page, server: Server, name: string, size: string): Promise<string> => {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New project' }).first().click();
  await page.getByLabel('Project name').fill(name);
  await page.getByRole('button', { name: new RegExp(`^${size}`) }).click();
  await page.getByRole('button', { name: 'Create the project' }).click();
  await expect(page.getByTestId('canvas')).toBeVisible();
  return new URL(page.url()).pathname.split('/')[2] as string;
};

/** The same project, made without the form. */
export const newProject = async (page: Page, server: Server, name: string, size: string): Promise<string> => {
  const { width, height, fps, seconds } = COMMON_SIZES.find((s) => s.label === size) as NamedSize;
  const rate = parseRate(fps);
  const { body } = await server.api<{ id: string }>('POST', '/projects', {
    name,
    scene: 'Scene 1',
    size: { width, height, rate, length: seconds * Number(fps), background: '#FFFFFF' },
  });
  await page.goto(`${server.url}/projects/${body.id}`);
  await expect(page.getByTestId('canvas')).toBeVisible();
  return body.id;
};

/** The server's document, once all edits have arrived. */
export const saved = async (page: Page, server: Server): Promise<Project> => {
  await expect(page.getByTestId('save-state')).toHaveText('Saved');
  const id = new URL(page.url()).pathname.split('/')[2] as string;
  return (await server.api<{ document: Project }>('GET', `/projects/${id}`)).body.document;
};

export const drag = async (page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> => {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
};

/** The middle of something on the page. */
export const middle = async (locator: Locator): Promise<{ x: number; y: number }> => {
  const box = await locator.boundingBox();
  if (!box) throw new Error('not on the page');
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

/** Where a point of the scene is on the page, while the scene is shown at its own size. */
export const onScene = async (page: Page, width: number, height: number) => {
  await page.getByRole('button', { name: 'Zoom to 100 %' }).click();
  const area = await page.getByTestId('canvas').boundingBox();
  if (!area) throw new Error('no canvas');
  const left = area.x + Math.round((Math.floor(area.width) - width) / 2);
  const top = area.y + Math.round((Math.floor(area.height) - height) / 2);
  return (x: number, y: number) => ({ x: left + x, y: top + y });
};

export const setNumber = async (page: Page | Locator, label: string, value: string): Promise<void> => {
  const field = page.getByLabel(label, { exact: true });
  await field.click();
  await field.fill(value);
  await field.press('Enter');
};

export const goToFrame = async (page: Page, frame: number): Promise<void> => {
  await setNumber(page, 'Frame', String(frame));
  await expect(page.getByTestId('picture')).toHaveAttribute('data-frame', String(frame));
};

const EFFECTS = [...KINDS.values()].filter(isEffect).map((kind) => kind.label);

export const addCard = async (page: Page, label: string): Promise<void> => {
  if (EFFECTS.includes(label)) {
    await page.getByRole('button', { name: 'Add an effect', exact: true }).click();
    await page.getByRole('dialog', { name: 'Effects' }).getByRole('button', { name: label, exact: true }).click();
    return;
  }
  await page.getByRole('button', { name: 'Add a card', exact: true }).click();
  await page.getByRole('menuitem', { name: label, exact: true }).click();
};

/** A new text in the middle of the canvas, which waits for its words. */
export const beginText = async (page: Page): Promise<void> => {
  await page.keyboard.press('t');
  await page.getByTestId('canvas').click();
  await expect(page.getByTestId('canvas-text')).toBeFocused();
};

export const addStar = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: 'Add a shape' }).click();
  await page.getByRole('button', { name: 'Star' }).dblclick();
};

/** A banner with three rectangles of 40 pixels in a row. */
export const threeSquares = async (page: Page, server: Server, name: string) => {
  await newProject(page, server, name, 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  for (const x of [50, 130, 210]) {
    await page.keyboard.press('r');
    await drag(page, at(x, 100), at(x + 40, 140));
  }
  await expect(page.getByTestId('layer-row')).toHaveCount(3);
  return at;
};

/** Keeps back what fits the pattern, as a slow wire does, until what this gives is called. */
export const holdBack = async (page: Page, pattern: string): Promise<() => void> => {
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route(pattern, async (route) => {
    await held;
    await route.continue();
  });
  return letGo;
};
