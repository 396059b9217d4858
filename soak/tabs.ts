/** Two tabs on one project, and a server that comes and goes: the edits of both have to be there in the end. */
import { newProject, newScene } from '@kite/core/document/make';
import type { Project } from '@kite/core/document/types';
import { Chance } from '@kite/core/test/random';
import { type Page } from '@playwright/test';
import { withEditor } from '../e2e/support/browser';
import { fault, type Figures } from './report';

const SIZE = { width: 320, height: 180, rate: { num: 25, den: 1 }, length: 25, background: null } as const;

const addShape = async (page: Page): Promise<void> => {
  // A tab in the background is not drawn.
  await page.bringToFront();
  const star = page.getByRole('button', { name: 'Star', exact: true }).first();
  if (!(await star.isVisible())) await page.getByRole('button', { name: 'Add a shape' }).click();
  await star.dblclick();
};

/** Whether all that was done in it has reached the server. */
const isSaved = async (page: Page): Promise<boolean> => {
  try {
    await page.getByTestId('save-state').getByText('Saved', { exact: true }).waitFor({ timeout: 60_000 });
    return true;
  } catch {
    return false;
  }
};

export const tabs = (count: number, seed: number): Promise<Figures> => {
  const project = newProject('tabs', 'Tabs', [newScene('s', 'Shared', SIZE)]);
  return withEditor(project, async (page, server) => {
    const other = await page.context().newPage();
    await other.goto(page.url());
    await other.getByTestId('picture').waitFor();
    const path = `/projects/${new URL(page.url()).pathname.split('/')[2]}`;
    const layers = async () => {
      const { document } = (await server.api<{ document: Project }>('GET', path)).body;
      return Object.values(document.scenes).reduce((sum, scene) => sum + Object.keys(scene.layers).length, 0);
    };
    let [made, kills, faults] = [0, 0, 0];
    for (let round = 0; round < count; round++) {
      const chance = new Chance(seed * 1e6 + round);
      let up = true;
      for (let n = chance.whole(2, 6); n > 0; n--) {
        if (up && chance.happens(0.4)) {
          await server.kill();
          up = false;
          kills++;
        } else if (!up && chance.happens(0.3)) {
          await server.start();
          up = true;
        }
        await addShape(chance.one([page, other]));
        made++;
      }
      if (!up) await server.start();
      const both = (await isSaved(page)) && (await isSaved(other));
      const there = both ? await layers() : -1;
      if (there === made) continue;
      faults++;
      fault('an edit of a tab', seed * 1e6 + round, both ? `${made} made, ${there} there` : 'not saved in a minute');
      made = await layers();
    }
    return { 'rounds of two tabs': count, 'edits made in them': made, 'kills -9 among them': kills, faults };
  });
};
