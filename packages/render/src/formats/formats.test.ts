/** Archives of every format there has been, as they were written then: they open, and their frames have the same pixels. */
import { readFileSync } from 'node:fs';
import { FORMAT_VERSION } from '@kite/core/document/make';
import { createCanvas, Image } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';
import { sheetOf } from './sheet';

const file = (name: string) => readFileSync(new URL(name, import.meta.url));

/** How far any channel of a machine's pixels may be from another's. */
const NEAR = 2;

describe('archives of older formats', () => {
  const formats = Array.from({ length: FORMAT_VERSION - 1 }, (_, i) => i + 1);
  it.each(formats)('format %i shows what it showed', async (format) => {
    const sheet = await sheetOf(new Uint8Array(file(`format-${format}.kite`)));
    const image = new Image();
    image.src = file(`format-${format}.png`);
    expect([sheet.width, sheet.height]).toEqual([image.width, image.height]);
    const kept = createCanvas(image.width, image.height);
    kept.getContext('2d').drawImage(image, 0, 0);
    const [now, then] = [sheet.data(), kept.data()];
    let furthest = 0;
    for (let i = 0; i < then.length; i++) furthest = Math.max(furthest, Math.abs(then[i]! - now[i]!));
    expect(furthest).toBeLessThanOrEqual(NEAR);
  });
});
