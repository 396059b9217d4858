/** Formulas: typed, linked, tuned, followed, baked, and what becomes of them when things go. */
import type { ControllerLayer, DrawingLayer, KeyedProperty, Layer, Scene } from '@kite/core/document/types';
import { newDrawing } from '@kite/core/document/make';
import { writeArchive } from '@kite/core/interchange/archive';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { demoProject } from '@kite/demo/project';
import { expect, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { drag, goToFrame, middle, onScene, saved, setNumber } from './support/editor';
import { field, givenUp, open, openStrip, places } from './support/formulas';
import { discLayer, openMade } from './support/made';
import { pixel, named, sceneOf } from './support/scene';
import { runProgram } from './support/server';
import { test } from './support/test';
import { choose } from './support/timeline';

const type = async (page: Page, name: string, text: string) => {
  await field(page, name).fill(text);
  await page.keyboard.press('Escape');
  await field(page, name).fill(text);
  await page.keyboard.press('Enter');
};

test('three followers by one formula, tuned by a knob, a fourth duplicated, the lead renamed', async ({
  page,
  server,
}) => {
  await openStrip(page, server, 'Followers');
  await choose(page, 'Lead', 'Follower 1', 'Follower 2', 'Follower 3');
  await page.getByRole('button', { name: 'Make a set' }).click();
  await expect(page.getByRole('list', { name: 'Layers of Set, in order' }).getByRole('listitem')).toHaveCount(4);

  await choose(page, 'Follower 1', 'Follower 2', 'Follower 3');
  await open(page, 'position');
  await field(page, 'position').pressSequentially('lag({Lead / Pos');
  // What is typed in braces is completed.
  await expect(page.getByRole('option', { name: 'Lead / Position' })).toBeVisible();
  await type(page, 'position', 'lag({Lead / Position}, {Rig / Delay} * order) + [0, 20] * order');
  await goToFrame(page, 50);
  await expect(page.getByLabel('Formula of position').getByRole('status')).toHaveText('310, 60');
  expect(await places(page, server, 50)).toMatchObject({
    Lead: [340, 40],
    'Follower 1': [310, 60],
    'Follower 2': [280, 80],
    'Follower 3': [250, 100],
  });

  // The knob stands ready while nothing is selected; all three follow it.
  await page.keyboard.press('Escape');
  await page.getByTestId('canvas').click({ position: { x: 5, y: 5 } });
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('slider', { name: 'Delay, slid' }).fill('0.4');
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  expect((await places(page, server, 50))['Follower 2']).toEqual([220, 80]);

  await choose(page, 'Follower 3');
  await page.keyboard.press('Control+d');
  expect((await places(page, server, 90))['Follower 4']).toEqual([340, 120]);

  // Renamed, the lead leads on, and is shown by its new name.
  await page.getByRole('group', { name: 'Layer Lead', exact: true }).getByText('Lead').first().dblclick();
  await page.getByRole('textbox', { name: 'Layer name' }).fill('Tram');
  await page.keyboard.press('Enter');
  await choose(page, 'Follower 1');
  await open(page, 'position');
  await expect(field(page, 'position')).toContainText('{Tram / Position}');
  expect((await places(page, server, 90))['Follower 4']).toEqual([340, 120]);
});

test('what is wrong is said at the field, in the checks, and by kite check; the keyframes play', async ({
  page,
  server,
}) => {
  await openStrip(page, server, 'Wrong');
  await choose(page, 'Follower 1');
  await open(page, 'turn');
  await type(page, 'turn', '{Follower 2 / Turn} + ');
  await expect(page.getByRole('alert')).toContainText('Wanted a value, got the end');
  await type(page, 'turn', '{Follower 2 / Turn} + 1');
  await choose(page, 'Follower 2');
  await open(page, 'turn');
  await type(page, 'turn', 'lag({Follower 1 / Turn}, 1)');
  await expect(page.getByRole('alert')).toContainText(
    'Follower 2 / Turn → Follower 1 / Turn → Follower 2 / Turn. Its keyframes play',
  );
  const file = join(mkdtempSync(join(tmpdir(), 'kite-check-')), 'wrong.kite');
  writeFileSync(file, writeArchive(await saved(page, server), new Map()));
  const { text } = await runProgram('kite', ['check', file]);
  expect(text).toContain(
    '“Follower 1” has a formula on Turn that does not work: It goes round in a circle: Follower 1',
  );
  expect(text).toContain('2 to look at.');
  await page.getByRole('button', { name: '2 to look at' }).click();
  const finding = page.getByTestId('finding').filter({ hasText: '“Follower 1”' });
  await finding.getByRole('button', { name: 'Show me' }).click();
  await open(page, 'turn');
  await page.getByRole('button', { name: 'Remove the formula' }).click();
  await expect(page.getByRole('button', { name: 'Checks: nothing to look at' })).toBeVisible();
  expect(named(await sceneOf(page, server), 'Follower 1').formulas).toBeUndefined();
});

test('a link is dragged to another layer, late; y alone to a control; a value that is computed says so', async ({
  page,
  server,
}) => {
  await openStrip(page, server, 'Links');
  await choose(page, 'Follower 1');
  const from = await middle(page.getByRole('button', { name: 'Formula of position', exact: true }));
  const to = await middle(page.getByRole('group', { name: 'Layer Lead', exact: true }));
  await drag(page, from, { x: to.x - 300, y: to.y });
  const choosing = page.getByRole('dialog', { name: 'Link position' });
  await choosing.getByRole('radio', { name: 'Late by' }).click();
  await choosing.getByLabel('Seconds late').fill('0.4');
  await choosing.getByLabel('Seconds late').press('Enter');
  await choosing.getByRole('button', { name: 'Link', exact: true }).click();
  expect((await places(page, server, 50))['Follower 1']).toEqual([280, 40]);
  await goToFrame(page, 50);
  await expect(page.getByRole('button', { name: 'Position, computed' })).toHaveText('280, 40');

  await choose(page, 'Follower 2');
  await open(page, 'position');
  await page.getByRole('radio', { name: 'y alone' }).click();
  await type(page, 'position y', '{Lead / Position}.x / 2');
  expect((await places(page, server, 50))['Follower 2']).toEqual([40, 170]);
  await setNumber(page, 'Position x', '66');
  expect((await places(page, server, 50))['Follower 2']).toEqual([66, 170]);

  // Opened, the layer shows the curve that is computed.
  await page.getByRole('button', { name: 'Open Follower 1' }).click();
  await expect(page.getByTestId('formula-curve').first()).toBeVisible();
});

test('ready formulas, baking and back, and layers that are read do not go unasked', async ({ page, server }) => {
  await openStrip(page, server, 'Ready');
  await choose(page, 'Follower 1');
  await open(page, 'turn');
  await page.getByRole('button', { name: 'Ready formulas' }).click();
  await page.getByRole('button', { name: /^Spin steadily/ }).click();
  await goToFrame(page, 50);
  await expect(page.getByLabel('Formula of turn').getByRole('status')).toHaveText('180°');
  await page.getByRole('button', { name: 'Bake to keyframes' }).click();
  await page.getByRole('menuitem', { name: 'As few keyframes as will do' }).click();
  const turn = async () => named(await sceneOf(page, server), 'Follower 1').params.rotation as KeyedProperty;
  expect((await turn()).keys.map((k) => [k.frame, k.value])).toEqual([
    [0, 0],
    [99, 356.4],
  ]);
  await page.getByRole('button', { name: 'Let it live again' }).click();
  await expect(page.getByRole('button', { name: 'Turn, computed' })).toBeVisible();

  await choose(page, 'Follower 2');
  await open(page, 'position');
  await type(page, 'position', 'lag({Lead / Position}, 1) + [0, 50]');
  await choose(page, 'Lead');
  await page.keyboard.press('Delete');
  const asking = page.getByRole('dialog', { name: '1 formula reads what is to go' });
  await expect(asking).toContainText('Follower 2 / Position');
  await asking.getByRole('button', { name: 'Bake them, then delete' }).click();
  const scene = await sceneOf(page, server);
  expect(Object.values(scene.layers).some((l) => l.name === 'Lead')).toBe(false);
  const keys = (named(scene, 'Follower 2').params.position as KeyedProperty).keys;
  expect(keys.find((k) => k.frame === 75)?.value).toEqual([340, 90]);
  await page.keyboard.press('Control+z');
  expect((await places(page, server, 75))['Follower 2']).toEqual([340, 90]);
  expect((await places(page, server, 75)).Lead).toEqual([340, 40]);
});

test('what reads across the border of a nest keeps its motion', async ({ page, server }) => {
  await openStrip(page, server, 'Border');
  await choose(page, 'Follower 1');
  await open(page, 'position');
  await type(page, 'position', 'lag({Lead / Position}, 1) + [0, 50]');
  // Escape gives up what was typed, and then leaves: the keys are the editor's again.
  const stored = await field(page, 'position').innerText();
  await field(page, 'position').fill('12 ');
  await givenUp(page, 'position', stored);
  await page.keyboard.press('Escape');
  await expect(field(page, 'position')).toBeHidden();
  await page.keyboard.press('End');
  await expect(page.getByTestId('picture')).not.toHaveAttribute('data-frame', '0');
  await page
    .getByRole('group', { name: 'Layer Lead', exact: true })
    .click({ button: 'right', position: { x: 90, y: 12 } });
  await page.getByRole('menuitem', { name: 'Nest in a scene of their own' }).click();
  await expect(page.getByText('A formula that reads across the nest’s border became keyframes.')).toBeVisible();
  expect((await places(page, server, 75))['Follower 1']).toEqual([340, 90]);
  await page.keyboard.press('Control+z');
  expect(named(await sceneOf(page, server), 'Follower 1').formulas?.position?.on).toBe(true);
});

test('copies keep their links: with the controller to its copy, alone to the original, elsewhere by name', async ({
  page,
  server,
}) => {
  await openStrip(page, server, 'Copies');
  await choose(page, 'Follower 1');
  await open(page, 'opacity');
  await type(page, 'opacity', '{Rig / Delay}');
  await page.keyboard.press('Escape');
  await choose(page, 'Follower 1', 'Rig');
  await page.keyboard.press('Control+d');
  const textOf = (scene: Scene, name: string) => named<Layer>(scene, name).formulas?.opacity?.text;
  const twice = await sceneOf(page, server);
  const copy = Object.values(twice.layers).find((l) => l.kind === 'controller' && l.id !== 'rig') as ControllerLayer;
  const second = Object.values(twice.layers).find((l) => l.name === 'Follower 4') as DrawingLayer;
  expect(second.formulas?.opacity?.text).toBe(`{@${copy.id}/${copy.panel[0]}/value}`);
  await choose(page, 'Follower 1');
  await page.keyboard.press('Control+d');
  expect(textOf(await sceneOf(page, server), 'Follower 5')).toBe('{@rig/delay/value}');

  // In another scene there is no Rig: that is said, and the formula keeps the name.
  await choose(page, 'Follower 1');
  await page.keyboard.press('Control+c');
  await page.getByRole('button', { name: 'New scene' }).click();
  await page.getByRole('button', { name: 'Add the scene' }).click();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('Not linked, since it is not in this scene: “Rig / Delay”.')).toBeVisible();
  const project = await saved(page, server);
  const other = project.scenes[project.order[1] as string] as Scene;
  expect(textOf(other, 'Follower 1')).toBe('{Rig / Delay}');
});

test('a formula comes to the same in Node and in the browser, to the last bits', async ({ page }) => {
  const entry = `
    import { compileScene } from '@kite/core/scene/compile';
    import { NO_LIBRARY } from '@kite/core/scene/program';
    globalThis.values = (scene, refs, frames) => {
      const { wiring } = compileScene(scene, NO_LIBRARY);
      return refs.map((ref) => frames.map((frame) => wiring.sampler(ref).at(frame)));
    };`;
  const bundle = await build({
    stdin: { contents: entry, resolveDir: import.meta.dirname },
    bundle: true,
    write: false,
    format: 'iife',
    platform: 'browser',
  });
  const project = demoProject();
  const scene = Object.values(project.scenes).find((s) => s.name === 'Next stop strip') as Scene;
  const texts = [
    'sin(time * 100) * 50 + cos(frame) ^ 3',
    'spring(cycle(time, 1), 4, 30%) * 100 + exp(-time)',
    'drift(1.7, 40, 3) + random(order) * 10',
    'wave(0.7, 80, 33) + tan(time * 9) + sqrt(time)',
    'angle(lag({Lead bar / Position}, 0.137) - [3, 4]) + length({Lead bar / Position}) ^ 1.3',
    'mix(3, 40, ease(pingpong(time, 1), "back")) + atan2(time, 2)',
  ];
  const lead = Object.values(scene.layers).find((l) => l.name === 'Lead bar') as Layer;
  const extra = texts.map((_, i) => newDrawing(scene, `x${i}`, `Extra ${i}`, []));
  const layers = Object.fromEntries(
    extra.map((layer, i) => [
      layer.id,
      {
        ...layer,
        formulas: {
          rotation: {
            text: (texts[i] as string).replaceAll('{Lead bar / Position}', `{@${lead.id}/position}`),
            on: true,
          },
        },
      },
    ]),
  );
  const whole: Scene = {
    ...scene,
    layers: { ...scene.layers, ...layers },
    order: [...scene.order, ...Object.keys(layers)],
  };
  const refs = [
    ...Object.values(whole.layers).map((l) => ({ layer: l.id, key: 'position' })),
    ...extra.map((l) => ({ layer: l.id, key: 'rotation' })),
  ];
  const frames = Array.from({ length: 150 }, (_, i) => i);
  const { wiring } = compileScene(whole, NO_LIBRARY);
  expect(wiring.problems).toEqual([]);
  const here = refs.map((ref) => frames.map((frame) => wiring.sampler(ref)?.at(frame)));
  await page.goto('about:blank');
  await page.addScriptTag({ content: bundle.outputFiles[0]?.text ?? '' });
  const there = await page.evaluate(
    ([of, at, when]) => (globalThis as unknown as { values: (...a: unknown[]) => unknown }).values(of, at, when),
    [whole, refs, frames] as const,
  );
  const [a, b] = [here, there].map((values) => (values as unknown[]).flat(3) as number[]);
  expect(b?.length).toBe(a?.length);
  const off = Math.max(...(a ?? []).map((x, i) => Math.abs(x - (b?.[i] ?? NaN)) / Math.max(1, Math.abs(x))));
  expect(off).toBeLessThan(1e-9);
});

test('what follows by a formula goes along while its lead is dragged', async ({ page, server }) => {
  const follower = {
    ...discLayer('b', 'Follower', [0, 0], '#2EC4B6'),
    formulas: { position: { text: '{@a/position} + [100, 60]', on: true } },
  };
  // Far enough behind the others that most of the picture is kept meanwhile.
  const still = Array.from({ length: 8 }, (_, i) => discLayer(`s${i}`, `Still ${i}`, [20 + i * 40, 220]));
  await openMade(page, server, 'Follow', [discLayer('a', 'Lead', [60, 60]), follower, ...still]);
  const at = await onScene(page, 400, 240);
  await expect.poll(() => pixel(page, at(160, 120))).toEqual([0x2e, 0xc4, 0xb6]);
  await page.mouse.move(at(60, 60).x, at(60, 60).y);
  await page.mouse.down();
  await page.mouse.move(at(100, 60).x, at(100, 60).y, { steps: 6 });
  await page.mouse.move(at(140, 60).x, at(140, 60).y, { steps: 6 });
  // The button is still held.
  await expect.poll(() => pixel(page, at(240, 120))).toEqual([0x2e, 0xc4, 0xb6]);
  await expect.poll(() => pixel(page, at(160, 120))).toEqual([0x10, 0x13, 0x2e]);
  await page.mouse.up();
});
