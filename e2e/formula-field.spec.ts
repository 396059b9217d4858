/** The field of a formula: what is typed in it, given up, and done while it is on its way. */
import { expect } from '@playwright/test';
import { goToFrame, holdBack, onScene, saved } from './support/editor';
import { field, givenUp, open, openStrip, places } from './support/formulas';
import { named, pixel, sceneOf } from './support/scene';
import { test } from './support/test';
import { choose } from './support/timeline';
test('a formula is seen as it is typed, as far as it works, and given up with Escape however long it has rested', async ({
  page,
  server,
}) => {
  await openStrip(page, server, 'Typed');
  const follower = async () => named(await sceneOf(page, server), 'Follower 1').formulas;
  await choose(page, 'Follower 1');
  await open(page, 'position');
  const formula = page.getByLabel('Formula of position', { exact: true });
  const at = await onScene(page, 400, 240);
  await goToFrame(page, 50);
  await open(page, 'position');
  await field(page, 'position').pressSequentially('{Lead / Position} + [-40, 120]');
  await expect(formula.getByRole('status')).toHaveText('300, 160');
  await expect.poll(() => pixel(page, at(300, 160))).not.toEqual([0x10, 0x13, 0x2e]);
  // It has rested, and is saved; what does not work is not written over it until it is entered.
  await saved(page, server);
  await field(page, 'position').pressSequentially(' * {Leader / Turn}');
  await expect(formula.getByRole('alert')).toContainText('There is no layer “Leader”.');
  expect((await follower())?.position?.text).toBe('{@a/position} + [-40, 120]');
  await page.reload();
  await expect(page.getByTestId('picture')).toHaveAttribute('data-frame', /./);
  expect((await places(page, server, 50))['Follower 1']).toEqual([300, 160]);

  await choose(page, 'Follower 1');
  await open(page, 'position');
  await field(page, 'position').press('End');
  await field(page, 'position').pressSequentially(' * 0');
  await expect(formula.getByRole('status')).toHaveText('40, 40');
  await saved(page, server);
  await field(page, 'position').pressSequentially('5');
  await givenUp(page, 'position', '{Lead / Position} + [-40, 120]');
  expect((await follower())?.position?.text).toBe('{@a/position} + [-40, 120]');
  // What is emptied and left is as it was.
  await field(page, 'position').fill('');
  await page.getByTestId('canvas').click({ position: { x: 5, y: 5 } });
  expect((await follower())?.position?.text).toBe('{@a/position} + [-40, 120]');
});

test('keys that are pressed while the field of a formula is on its way are for the formula', async ({
  page,
  server,
}) => {
  const letGo = await holdBack(page, '**/FormulaCode-*.js');
  await openStrip(page, server, 'Slow');
  await choose(page, 'Follower 1');
  await open(page, 'turn');
  await page.keyboard.type('abs(');
  await page.getByRole('button', { name: 'Close the formula' }).click();
  await open(page, 'turn');
  // It goes on at the end of what is there.
  await expect(field(page, 'turn')).toHaveValue('abs(');
  await page.keyboard.type('-40+{Rig / Del)');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.type('a');
  await expect(field(page, 'turn')).toHaveValue('abs(-40+{Rig / Dela)');
  letGo();
  // The caret is where it was, and what is typed in braces is completed as if it had been typed here.
  await page.getByRole('option', { name: 'Rig / Delay' }).click();
  await expect(page.locator('.cm-content')).toHaveText('abs(-40+{Rig / Delay})');
  await page.keyboard.press('End');
  await page.keyboard.type('+0.2');
  await expect(page.getByLabel('Formula of turn', { exact: true }).getByRole('status')).toContainText('40');
  expect(named(await sceneOf(page, server), 'Follower 1').formulas?.rotation?.text).toMatch(
    /^abs\(-40\+\{.+\}\)\+0\.2$/,
  );
});

test('ready formulas that are opened while the field is on its way stay open', async ({ page, server }) => {
  const letGo = await holdBack(page, '**/FormulaCode-*.js');
  await openStrip(page, server, 'Ready');
  await choose(page, 'Follower 1');
  await open(page, 'turn');
  await page.getByRole('button', { name: 'Ready formulas' }).click();
  await expect(page.getByRole('button', { name: /^Spin steadily/ })).toBeVisible();
  letGo();
  await expect(page.locator('.cm-content')).toBeVisible();
  await page.getByRole('button', { name: /^Spin steadily/ }).click();
  await expect(page.locator('.cm-content')).not.toHaveText('');
  // It is the field's turn again.
  await page.locator('.cm-content').click();
  await page.keyboard.press('End');
  await page.keyboard.type('+1');
  await expect(page.locator('.cm-content')).toHaveText(/\+1$/);
});

test('what is given up while the field of a formula is on its way leaves it as it was', async ({ page, server }) => {
  const letGo = await holdBack(page, '**/FormulaCode-*.js');
  await openStrip(page, server, 'Given up');
  await choose(page, 'Follower 1');
  await open(page, 'turn');
  await page.keyboard.type('{Follower 2 / Turn} + 1');
  // In one breath: whichever comes first, the field stands with what was there before.
  letGo();
  await page.keyboard.press('Escape');
  await expect(page.locator('.cm-content')).toBeFocused();
  await expect(page.locator('.cm-content')).toHaveText('');
  await page.keyboard.type('40');
  await page.keyboard.press('Enter');
  expect(named(await sceneOf(page, server), 'Follower 1').formulas?.rotation?.text).toBe('40');
});
