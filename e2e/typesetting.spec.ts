/** Text in many scripts, set as Chromium sets it. */
import { faceOf } from '@kite/core/type/harfbuzz';
import { PLAIN } from '@kite/core/test/fonts';
import { layoutText } from '@kite/core/type/layout';
import { SHIPPED } from '@kite/core/type/shipped';
import { applicationFont } from '@kite/render/fonts';
import type { DrawingLayer } from '@kite/core/document/types';
import { beginText, newProject, saved, setNumber } from './support/editor';
import { BLANK, openMade } from './support/made';
import { newDrawing, newItem } from '@kite/core/document/make';
import { inOrder, itemOf, sceneOf } from './support/scene';
import { expect, test } from './support/test';

const TEXTS = [
  'The night-tram from Quay Street stops at 2:40, 3:10 & 4.55 – every night, well-lit and half-empty.',
  'Nacht-Straßenbahn: 50% Rabatt (nur heute) — auch am Nordplatz „bis 5“ und an der Alten-Werft-Brücke!',
  'Ночной трамвай идёт до Северной площади — каждые полчаса, всю ночь.',
  'חשמלית הלילה יוצאת בשעה 02:40 מרחוב הנמל, כל לילה (גם בשבת) עד הבוקר.',
  'ترام الليل ينطلق الساعة 02:40 من شارع الميناء كل ليلة حتى الصباح.',
  'The sign says שלום לכולם (welcome) and then ليلة سعيدة 24/7, as it always did.',
  'לילה 3 Quay Street 12-14 טוב',
  'Die Nacht\u00adstraßen\u00adbahn\u00adhalte\u00adstelle an der Alten\u00adwerft\u00adbrücke',
];
const WIDTH = 900;

test('lines break, and letters stand, where Chromium has them, in scripts of both directions', async ({
  page,
  server,
}) => {
  const rubik = SHIPPED.find(({ id }) => id === 'rubik')!;
  const files = (await applicationFont({ from: 'application', family: 'rubik', weight: 400, italic: false }))!;
  const face = faceOf(files, 400);
  await page.goto(server.url);
  for (const text of TEXTS) {
    const theirs = await page.evaluate(
      async ([words, parts, width]) => {
        for (const part of parts) {
          const font = new FontFace(`part${part}`, `url(/api/fonts/rubik/400/normal/${part})`);
          document.fonts.add(await font.load());
        }
        const box = document.body.appendChild(document.createElement('div'));
        box.style.cssText = `position:absolute;left:0;top:0;width:${width}px;white-space:pre-wrap;unicode-bidi:plaintext;text-align:left;text-rendering:geometricPrecision;font:100px/120px ${parts.map((part) => `part${part}`).join()}`;
        box.textContent = words;
        const range = document.createRange();
        const places = [...words].map((_, i) => {
          range.setStart(box.firstChild!, i);
          range.setEnd(box.firstChild!, i + 1);
          // Of the first letter after a hyphen that is not written there is one for the hyphen, too.
          const { left, top } = [...range.getClientRects()].at(-1)!;
          return { left, line: Math.floor((top + 60) / 120) };
        });
        box.remove();
        return places;
      },
      [text, rubik.subsets.map((_, i) => i), WIDTH] as const,
    );
    const { glyphs } = layoutText(face, { ...PLAIN, text, wrap: WIDTH });
    for (const [i, letter] of [...text].entries()) {
      const own = glyphs.filter(({ from, to }) => from === i && to === i + 1);
      // A space at a line's end, or a soft hyphen, is nowhere, and marks and joined letters have no place of their own.
      if (/[\s\u00ad]/.test(letter) || own.length === 0) continue;
      const place = `${text}: “${letter}” at ${i}`;
      expect(own[0]!.line, place).toBe(theirs[i]!.line);
      const left = Math.min(...own.map(({ x }) => x)) + WIDTH / 2;
      // Chromium does not kern between scripts.
      expect(Math.abs(left - theirs[i]!.left), place).toBeLessThan(10);
    }
  }
});

test('a text shrinks to its box, takes features of its font, and says which letters that lacks', async ({
  page,
  server,
}) => {
  await newProject(page, server, 'Fitted', 'Medium rectangle');
  await beginText(page);
  await page.keyboard.type('Night Tram 1:11');
  await page.keyboard.press('Escape');
  await page.getByText('“Night Tram').click();
  await page.getByRole('radio', { name: 'In a box' }).click();
  await setNumber(page, 'Width', '120');
  await setNumber(page, 'Height', '30');
  await page.getByRole('radio', { name: 'Shrink' }).click();
  await page.getByRole('button', { name: 'Features', exact: true }).click();
  await page.getByRole('checkbox', { name: 'Digits of one width' }).check();
  await page.getByRole('checkbox', { name: 'Kerning' }).uncheck();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Features', exact: true })).toHaveText(
    'Digits of one width, No kerning',
  );
  const [layer] = inOrder((await saved(page, server)).scenes[(await sceneOf(page, server)).id]!) as [DrawingLayer];
  const card = itemOf(layer, 'text')!;
  expect(card.params.fit).toEqual({ value: 'shrink' });
  expect(card.params.features).toEqual({ value: 'tnum, -kern' });
  await expect(page.getByText(/has letters that/)).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Night 夜');
  await expect(page.getByText('“Night Tram 1:11” has letters that Inter 700 lacks: 夜')).toBeVisible();
});

test('a feature is put on in several texts at once, and each keeps its own', async ({ page, server }) => {
  const texts = ['Early', 'Late'].map((name, i) => {
    const id = name.toLowerCase();
    const own = newItem(`${id}t`, 'text', { text: name, size: 40, features: i === 0 ? 'frac' : '-kern' });
    return newDrawing(BLANK, id, name, [own, newItem(`${id}f`, 'fill')], { position: [200, 80 + 80 * i] });
  });
  await openMade(page, server, 'Features', texts);
  await page.getByTestId('layer-row').filter({ hasText: 'Early' }).click();
  await page
    .getByTestId('layer-row')
    .filter({ hasText: 'Late' })
    .click({ modifiers: ['Shift'] });
  await page.getByText('Text', { exact: true }).last().click();
  const features = page.getByRole('button', { name: 'Features', exact: true });
  await expect(features).toHaveText('mixed');
  await features.click();
  await expect(page.getByRole('checkbox', { name: 'Fractions' })).toBeChecked({ indeterminate: true });
  await page.getByRole('checkbox', { name: 'Digits of one width' }).check();
  await saved(page, server);
  const lists = inOrder(await sceneOf(page, server)).map(
    (layer) => itemOf(layer as DrawingLayer, 'text')!.params.features,
  );
  expect(lists).toEqual([{ value: 'frac, tnum' }, { value: '-kern, tnum' }]);
});
