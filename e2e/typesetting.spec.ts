/** Text in many scripts, set as Chromium sets it. */
import { faceOf } from '@kite/core/type/harfbuzz';
import { layoutText } from '@kite/core/type/layout';
import { SHIPPED } from '@kite/core/type/shipped';
import { applicationFont } from '@kite/render/fonts';
import { expect, test } from './support/test';

const TEXTS = [
  'The night-tram from Quay Street stops at 2:40, 3:10 & 4.55 – every night, well-lit and half-empty.',
  'Nacht-Straßenbahn: 50% Rabatt (nur heute) — auch am Nordplatz „bis 5“ und an der Alten-Werft-Brücke!',
  'Ночной трамвай идёт до Северной площади — каждые полчаса, всю ночь.',
  'חשמלית הלילה יוצאת בשעה 02:40 מרחוב הנמל, כל לילה (גם בשבת) עד הבוקר.',
  'ترام الليل ينطلق الساعة 02:40 من شارع الميناء كل ليلة حتى الصباح.',
  'The sign says שלום לכולם (welcome) and then ليلة سعيدة 24/7, as it always did.',
  'לילה 3 Quay Street 12-14 טוב',
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
          const { left, top } = range.getBoundingClientRect();
          return { left, line: Math.floor((top + 60) / 120) };
        });
        box.remove();
        return places;
      },
      [text, rubik.subsets.map((_, i) => i), WIDTH] as const,
    );
    const { glyphs } = layoutText(face, {
      text,
      letters: 'as-typed',
      size: 100,
      tracking: 0,
      leading: 1.2,
      align: 'left',
      wrap: WIDTH,
      pairs: '',
      features: '',
    });
    for (const [i, letter] of [...text].entries()) {
      const own = glyphs.filter(({ from, to }) => from === i && to === i + 1);
      // A space at a line's end is nowhere, and marks and joined letters have no place of their own.
      if (/\s/.test(letter) || own.length === 0) continue;
      const place = `${text}: “${letter}” at ${i}`;
      expect(own[0]!.line, place).toBe(theirs[i]!.line);
      const left = Math.min(...own.map(({ x }) => x)) + WIDTH / 2;
      // Chromium does not kern between scripts.
      expect(Math.abs(left - theirs[i]!.left), place).toBeLessThan(10);
    }
  }
});
