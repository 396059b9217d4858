/** SVG import against Chromium: both draw the same files, and the pixels are compared. */
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { imported } from '@kite/render/test/imported';
import { expect, type Page, test } from '@playwright/test';
import { DRAWINGS } from './support/drawings';

const require = createRequire(import.meta.url);
const SIZE = 192;

/** Every so manieth file of a folder of a package. */
const filesOf = (pack: string, folder: string, every: number): string[] => {
  const root = join(dirname(require.resolve(`${pack}/package.json`)), folder);
  return readdirSync(root)
    .filter((name) => name.endsWith('.svg'))
    .sort()
    .filter((_, i) => i % every === 0)
    .map((name) => join(root, name));
};

/** What Chromium makes of it. */
const original = async (page: Page, source: string, width: number, height: number): Promise<Uint8ClampedArray> => {
  const url = await page.evaluate(
    async ([text, w, h]) => {
      const image = new Image();
      image.src = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
      await image.decode();
      const canvas = document.createElement('canvas');
      canvas.width = w;
      canvas.height = h;
      const context = canvas.getContext('2d')!;
      context.fillStyle = '#fff';
      context.fillRect(0, 0, w, h);
      context.drawImage(image, 0, 0, w, h);
      return canvas.toDataURL();
    },
    [source, width, height] as const,
  );
  const image = await loadImage(Buffer.from(url.split(',')[1] as string, 'base64'));
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, width, height).data;
};

/** A difference that is seen: more than antialiasing makes of an edge that lies a fifth of a pixel off. */
const VISIBLE = 56;

const differing = (a: Uint8ClampedArray, b: Uint8ClampedArray): number => {
  let count = 0;
  for (let i = 0; i < a.length; i += 4) {
    const most = Math.max(...[0, 1, 2].map((c) => Math.abs(a[i + c]! - b[i + c]!)));
    if (most > VISIBLE) count++;
  }
  return count / (a.length / 4);
};

/** A size of its own, so that Chromium draws it as large as we do. */
const sized = (source: string, width: number, height: number): string =>
  source.replace(
    /<svg\b([^>]*)>/,
    (_, rest: string) => `<svg${rest.replace(/\s(width|height)="[^"]*"/g, '')} width="${width}" height="${height}">`,
  );

const facesOf = (): string =>
  [600, 700, 800]
    .map((weight) => {
      const file = readFileSync(require.resolve(`@fontsource/inter/files/inter-latin-${weight}-normal.woff2`));
      return `@font-face{font-family:Inter;font-weight:${weight};src:url(data:font/woff2;base64,${file.toString('base64')})}`;
    })
    .join('');
/** The application's font goes into what Chromium is given. */
const withFont = (source: string): string =>
  source.includes('<text') ? source.replace(/(<svg\b[^>]*>)/, `$1<style>${facesOf()}</style>`) : source;

test('drawings of icon and flag sets look as Chromium draws them', async ({ page }) => {
  test.setTimeout(180_000);
  const files = [...filesOf('lucide-static', 'icons', 14), ...filesOf('flag-icons', 'flags/4x3', 2)];
  expect(files.length).toBeGreaterThanOrEqual(200);
  const wrong: string[] = [];
  for (const file of files) {
    const source = readFileSync(file, 'utf8');
    const ours = await imported(source, SIZE);
    const theirs = await original(page, sized(source, ours.width, ours.height), ours.width, ours.height);
    const share = differing(ours.pixels, theirs);
    if (share > 0.01)
      wrong.push(
        `${file.split('/').at(-1)}: ${(share * 100).toFixed(1)} % differ; ${ours.notes.join(', ') || 'no notes'}`,
      );
  }
  test.info().annotations.push({ type: 'differing', description: wrong.join('\n') });
  console.log(`${files.length} drawings, ${wrong.length} differ visibly\n${wrong.join('\n')}`);
  expect(wrong.length).toBeLessThanOrEqual(files.length * 0.05);
});

test('what the import keeps looks as Chromium draws it', async ({ page }) => {
  const wrong: string[] = [];
  for (const [name, source] of Object.entries(DRAWINGS)) {
    const ours = await imported(source, SIZE);
    const drawn = sized(withFont(source), ours.width, ours.height);
    const theirs = await original(page, drawn, ours.width, ours.height);
    const share = differing(ours.pixels, theirs);
    // Letters are fitted to the pixels' rows there.
    const most = source.includes('<text') ? 0.015 : 0.004;
    if (share > most || ours.notes.length > 0)
      wrong.push(`${name}: ${(share * 100).toFixed(2)} % differ; ${ours.notes.join(', ')}`);
  }
  expect(wrong).toEqual([]);
});
