/** A strip of layers that follow a lead, and the formulas of their properties. */
import { newKnob } from '@kite/core/document/knobs';
import { newController } from '@kite/core/document/make';
import { addKnob } from '@kite/core/edits/knobs';
import type { Point } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { wholeScene } from '@kite/core/scene/whole';
import { expect, type Page } from '@playwright/test';
import { saved } from './editor';
import { BLANK, discLayer, keyed, openMade } from './made';
import { sceneOf } from './scene';
import type { Server } from './server';

const rig = newController(BLANK, 'rig', 'Rig');
const knob = (name: string, value: number, max: number) =>
  addKnob('s', 'rig', { ...newKnob(name.toLowerCase(), 'number', name), min: 0, max, params: { value: { value } } });
const strip = ['a', 'b', 'c', 'd'].map((id, i) => discLayer(id, i === 0 ? 'Lead' : `Follower ${i}`, [40, 40]));
export const openStrip = (page: Page, server: Server, name: string) =>
  openMade(
    page,
    server,
    name,
    strip,
    addLayers('s', [rig]),
    knob('Delay', 0.2, 1),
    keyed('a', 'position', [
      [0, [40, 40], { kind: 'linear' }],
      [50, [340, 40]],
    ]),
  );

export const field = (page: Page, name: string) => page.getByRole('textbox', { name: `Formula of ${name}` });
/** Opens the formula of a property of what is selected. */
export const open = async (page: Page, name: string) => {
  // It may be open from before.
  if (!(await field(page, name).isVisible())) {
    await page
      .getByRole('button', { name: `Formula of ${name}`, exact: true })
      .first()
      .click({ force: true });
  }
  await expect(field(page, name)).toBeVisible();
};
/** Escape, until what was there before is there again. */
export const givenUp = (page: Page, name: string, before: string) =>
  expect(async () => {
    // The list of names, where it has opened, goes first.
    await page.keyboard.press('Escape');
    await expect(field(page, name)).toHaveText(before, { timeout: 1_000 });
  }).toPass();
/** Where every layer stands at a frame. */
export const places = async (page: Page, server: Server, frame: number): Promise<Record<string, Point>> => {
  const project = await saved(page, server);
  const scene = wholeScene(await sceneOf(page, server), project);
  const { wiring } = compileScene(scene, NO_LIBRARY);
  return Object.fromEntries(
    Object.values(scene.layers).map((l) => [
      l.name,
      wiring.sampler({ layer: l.id, key: 'position' })?.at(frame) as Point,
    ]),
  );
};
