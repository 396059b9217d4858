/** Eases: CSS's forms against Chromium's own animations, and the card that shapes them. */
import type { DrawingLayer, Ease, KeyedProperty } from '@kite/core/document/types';
import { curveOf } from '@kite/core/motion/eases/table';
import { expect } from '@playwright/test';
import { drag, goToFrame, middle, newProject, onScene, saved, setNumber } from './support/editor';
import { test } from './support/test';

const CSS: readonly (readonly [string, Ease])[] = [
  ['linear', { kind: 'linear' }],
  ['ease', { kind: 'bezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 }],
  ['ease-in', { kind: 'bezier', x1: 0.42, y1: 0, x2: 1, y2: 1 }],
  ['ease-out', { kind: 'bezier', x1: 0, y1: 0, x2: 0.58, y2: 1 }],
  ['ease-in-out', { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 }],
  ['cubic-bezier(0.3, -0.6, 0.3, 1.8)', { kind: 'bezier', x1: 0.3, y1: -0.6, x2: 0.3, y2: 1.8 }],
  ['steps(5, jump-end)', { kind: 'steps', count: 5, jump: 'end' }],
  ['steps(5, jump-start)', { kind: 'steps', count: 5, jump: 'start' }],
  ['steps(5, jump-both)', { kind: 'steps', count: 5, jump: 'both' }],
  ['steps(5, jump-none)', { kind: 'steps', count: 5, jump: 'none' }],
];

test('CSS’s eases are what Chromium’s Web Animations make of them, at 1,000 points', async ({ page, server }) => {
  await page.goto(server.url);
  for (const [css, ease] of CSS) {
    const theirs = await page.evaluate((easing) => {
      const timing = { duration: 1_000, easing, fill: 'both' as const };
      const effect = new KeyframeEffect(document.createElement('div'), [{ opacity: 0 }, { opacity: 1 }], timing);
      const animation = new Animation(effect);
      animation.pause();
      return Array.from({ length: 1_000 }, (_, i) => {
        animation.currentTime = i + 0.5;
        return effect.getComputedTiming().progress ?? -1;
      });
    }, css);
    const curve = curveOf(ease);
    const off = Math.max(...theirs.map((value, i) => Math.abs(curve((i + 0.5) / 1_000) - value)));
    expect(off, css).toBeLessThan(1e-3);
  }
});

test('a ball with a drawn rebound; springs, bounces and steps by their numbers; an ease kept and used again', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Ball', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  await page.keyboard.press('e');
  await drag(page, at(130, 20), at(170, 60));
  await page.keyboard.press('a');
  await page.getByRole('button', { name: /^Position: Animate/ }).click();
  await goToFrame(page, 30);
  await setNumber(page, 'Position y', '220');
  await page.getByRole('button', { name: 'Open Ellipse' }).first().click();
  await page.getByTestId('bead').first().click();
  const keys = async () => {
    const project = await saved(page, server);
    const scene = project.scenes[project.order[0] as string]!;
    const layer = scene.layers[scene.order[0] as string] as DrawingLayer;
    return (layer.params.position as KeyedProperty).keys;
  };
  const ease = async () => (await keys())[0]!.ease;

  await page.getByRole('button', { name: 'Ease Spring' }).click();
  await setNumber(page, 'Bounces', '4');
  await setNumber(page, 'Damping', '30');
  expect(await ease()).toEqual({ kind: 'spring', bounces: 4, damping: 0.3 });
  await page.getByRole('button', { name: 'Ease Bounce' }).click();
  await setNumber(page, 'Height kept', '50');
  expect(await ease()).toEqual({ kind: 'bounce', bounces: 3, height: 0.5 });
  await page.getByRole('button', { name: 'Ease Steps' }).click();
  await page.getByLabel('Jumps').selectOption('both');
  expect(await ease()).toEqual({ kind: 'steps', count: 4, jump: 'both' });

  await page.getByRole('button', { name: 'Ease Drawn' }).click();
  await expect(page.getByTestId('ease-point')).toHaveCount(2);
  const plot = await page.getByRole('img', { name: 'Ease curve' }).boundingBox();
  if (!plot) throw new Error('no plot');
  await page.mouse.dblclick(plot.x + plot.width * 0.25, plot.y + plot.height * 0.5);
  await expect(page.getByTestId('ease-point')).toHaveCount(3);
  await page.getByTestId('ease-point').nth(1).dblclick();
  const drawn = await ease();
  expect(drawn.kind === 'drawn' && drawn.points.map((p) => p.corner)).toEqual([false, true, false]);
  await page
    .getByTestId('ease-point')
    .first()
    .click({ modifiers: ['Alt'] });
  await expect(page.getByTestId('ease-point')).toHaveCount(2);

  // The ball is where the drawn curve has it, frame by frame.
  const final = await ease();
  await goToFrame(page, 20);
  const y = Number(await page.getByLabel('Position y', { exact: true }).inputValue());
  expect(y).toBeCloseTo(40 + 180 * curveOf(final)(20 / 30), 1);

  await page.getByTestId('bead').first().click();
  await page.getByLabel('Name for this ease').fill('Settle');
  await page.getByLabel('Name for this ease').press('Enter');
  await page.getByRole('button', { name: 'Ease Linear' }).click();
  expect(await ease()).toEqual({ kind: 'linear' });
  await page.getByRole('button', { name: 'Ease Settle' }).click();
  expect(await ease()).toEqual(final);
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: 'Ease Hold' }).click();
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  expect(await ease()).toEqual(final);
});

test('layers staggered from the centre, live, in one step of history', async ({ page, server }) => {
  await newProject(page, server, 'Stagger', 'Medium rectangle');
  const at = await onScene(page, 300, 250);
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press('r');
    await drag(page, at(20 + i * 52, 90), at(50 + i * 52, 150));
  }
  await page.keyboard.press('Control+a');
  await setNumber(page, 'Stagger step', '6');
  const starts = async () => {
    const project = await saved(page, server);
    const scene = project.scenes[project.order[0] as string]!;
    return scene.order.map((id) => scene.layers[id]!.from);
  };
  expect(await starts()).toEqual([0, 6, 12, 18, 24]);
  await page.getByRole('region', { name: 'Stagger' }).getByLabel('Order').selectOption('centre');
  expect(await starts()).toEqual([12, 6, 0, 6, 12]);
  await setNumber(page, 'Stagger step', '3');
  expect(await starts()).toEqual([6, 3, 0, 3, 6]);
  const step = await middle(page.getByLabel('Stagger step', { exact: true }));
  await drag(page, step, { x: step.x + 40, y: step.y });
  expect(await starts()).toEqual([14, 7, 0, 7, 14]);
  await page.keyboard.press('Escape');
  for (let n = 0; n < 4; n++) await page.keyboard.press('Control+z');
  expect(await starts()).toEqual([0, 0, 0, 0, 0]);
});
