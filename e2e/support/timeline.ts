/** The timeline by its labels, and the keyframes that came of what was done there. */
import { isKeyed, type Keyframe } from '@kite/core/document/types';
import type { Page } from '@playwright/test';
import { named, sceneOf } from './scene';
import type { Server } from './server';

export const keysOf = async (
  page: Page,
  server: Server,
  layer: string,
  key = 'position',
): Promise<readonly Keyframe[]> => {
  const property = named(await sceneOf(page, server), layer).params[key];
  return isKeyed(property) ? property.keys : [];
};
export const framesOf = async (page: Page, server: Server, layer: string, key = 'position') =>
  (await keysOf(page, server, layer, key)).map((k) => k.frame);

const rowOf = (page: Page, name: string) => page.getByRole('group', { name: `Layer ${name}`, exact: true });
export const choose = async (page: Page, ...names: readonly string[]) => {
  for (const [i, name] of names.entries()) {
    await rowOf(page, name).click({ position: { x: 90, y: 12 }, ...(i > 0 && { modifiers: ['Control'] }) });
  }
};
/** Shows the ribbons of a layer. */
export const openRow = (page: Page, name: string) =>
  rowOf(page, name)
    .getByRole('button', { name: `Open ${name}`, exact: true })
    .click();
export const bead = (page: Page, name: string, frame: number) =>
  page.getByRole('button', { name: `Keyframe of ${name} at ${frame}`, exact: true });
