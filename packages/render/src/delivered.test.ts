/** Files of the formats that keep transparency, and of those for other programs, read back and compared with the frames. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Scene } from '@kite/core/document/types';
import { createCanvas, Image } from '@napi-rs/canvas';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import type { SheetJson } from './encoders/frames';
import { ffmpegPath } from './ffmpeg';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, NO_MATERIALS } from './materials';
import { renderScene } from './render';

const [W, H, COUNT] = [81, 41, 6];
const linear = { kind: 'linear' } as const;

/** A disc that crosses a scene while it fades. */
const crossing = (background: string | null): Scene => {
  const size = { width: W, height: H, rate: { num: 25, den: 1 }, length: COUNT, background };
  const scene = newScene('s', 'Crossing', size);
  const disc = newDrawing(scene, 'l', 'Disc', [
    newItem('e', 'ellipse', { width: 24, height: 24 }),
    newItem('f', 'fill', { color: '#2EC4B6' }),
  ]);
  const keyed = <V>(a: V, b: V) => ({
    keys: [
      { frame: 0, value: a, ease: linear },
      { frame: COUNT - 1, value: b, ease: linear },
    ],
  });
  const params = { position: keyed([15, 20] as const, [65, 20] as const), opacity: keyed(1, 0.4) };
  return { ...scene, layers: { l: { ...disc, params } }, order: ['l'] };
};

const folder = mkdtempSync(join(tmpdir(), 'kite-delivered-'));
const render = async (scene: Scene, part: Partial<RenderSettings>) => {
  const settings = { ...defaultSettings(part.format ?? 'gif', scene), ...part } as RenderSettings;
  const out = join(folder, `out-${Math.random()}`);
  const result = await renderScene({ scene, stock: EMPTY_STOCK, settings, out });
  return { result, file: out, bytes: new Uint8Array(readFileSync(out)) };
};

/** The frames as they are drawn: RGBA, straight alpha. */
const wanted = (scene: Scene, under: string | null = null): Uint8ClampedArray[] => {
  const drawer = frameDrawer(scene, NO_MATERIALS, { width: W, height: H, drawn: scene, under });
  return Array.from({ length: COUNT }, (_, i) => {
    drawer.draw(i);
    return drawer.pixels().slice();
  });
};

const raw = (file: string, how: readonly string[] = [], after: readonly string[] = []): Uint8Array[] => {
  const args = ['-loglevel', 'error', ...how, '-i', file, ...after, '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'];
  const all = execFileSync(ffmpegPath(), args, { maxBuffer: 2 ** 28 });
  return Array.from({ length: all.length / (W * H * 4) }, (_, i) => all.subarray(i * W * H * 4, (i + 1) * W * H * 4));
};
const picture = (bytes: Uint8Array): Uint8ClampedArray => {
  const image = new Image();
  image.src = Buffer.from(bytes);
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
};

/** The most that a channel differs, each as strongly as it is seen. */
const farthest = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  expect(a.length).toBe(b.length);
  let most = 0;
  for (let i = 0; i < a.length; i += 4) {
    const [alpha, other] = [a[i + 3]! / 255, b[i + 3]! / 255];
    most = Math.max(most, Math.abs(a[i + 3]! - b[i + 3]!));
    for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(a[i + c]! * alpha - b[i + c]! * other));
  }
  return most;
};

describe('transparency is kept, frame by frame', () => {
  const scene = crossing(null);
  const frames = wanted(scene);
  const compare = (got: readonly ArrayLike<number>[], most: number) => {
    expect(got.length).toBe(COUNT);
    got.forEach((pixels, i) => expect(farthest(pixels, frames[i] as Uint8ClampedArray)).toBeLessThanOrEqual(most));
  };
  it('in a MOV of ProRes 4444, nearly, and tagged', async () => {
    const { file, bytes } = await render(scene, { format: 'mov', codec: 'prores' });
    // ISO/IEC 14496-12: the brand; the sample description is that of ProRes 4444.
    expect(strFromU8(bytes.subarray(4, 12))).toBe('ftypqt  ');
    expect(Buffer.from(bytes).includes('ap4h')).toBe(true);
    compare(raw(file, [], ['-vf', 'scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int']), 6);
  });
  it('in a MOV of PNGs and in an animated PNG, exactly', async () => {
    compare(raw((await render(scene, { format: 'mov', codec: 'png' })).file), 0);
    const { file, bytes } = await render(scene, { format: 'apng', loop: 3 });
    compare(raw(file, ['-f', 'apng']), 0);
    // PNG, third edition, 11.3.6.1: acTL has the number of frames and of plays.
    const control = Buffer.from(bytes).indexOf('acTL');
    const of = new DataView(bytes.buffer, bytes.byteOffset + control + 4, 8);
    expect([of.getUint32(0), of.getUint32(4)]).toEqual([COUNT, 3]);
  });
  it('in a WebP that moves, and in a still one', async () => {
    const { bytes } = await render(scene, { format: 'webp', lossless: true, loop: 2 });
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    const chunks = new Map<string, number[]>();
    for (let at = 12; at < bytes.length; at += 8 + ((view.getUint32(at + 4, true) + 1) & ~1)) {
      const name = strFromU8(bytes.subarray(at, at + 4));
      chunks.set(name, [...(chunks.get(name) ?? []), at + 8]);
    }
    // WebP container specification, 2.7: flags of VP8X, plays of ANIM, a frame and its milliseconds in each ANMF.
    expect(bytes[chunks.get('VP8X')![0]!]! & 0b10010).toBe(0b10010);
    expect(view.getUint16(chunks.get('ANIM')![0]! + 4, true)).toBe(2);
    expect(chunks.get('ANMF')!.map((at) => view.getUint32(at + 12, true) & 0xffffff)).toEqual(Array(COUNT).fill(40));
    expect(farthest(picture(bytes), frames[0] as Uint8ClampedArray)).toBeLessThanOrEqual(2);
    const one = await render(scene, { format: 'webp', from: 3, to: 4, quality: 'best' });
    expect(farthest(picture(one.bytes), frames[3] as Uint8ClampedArray)).toBeLessThanOrEqual(24);
  });
  it('in a sequence of PNGs, exactly, by names that sort', async () => {
    const { bytes } = await render(scene, { format: 'frames' });
    const entries = unzipSync(bytes);
    const names = Object.keys(entries);
    expect(names).toEqual([1, 2, 3, 4, 5, 6].map((i) => `frame-000${i}.png`));
    compare(
      names.map((name) => picture(entries[name] as Uint8Array)),
      0,
    );
  });
  it('on a sheet, exactly, where its JSON says', async () => {
    const { bytes } = await render(scene, { format: 'sheet', columns: 4 });
    const entries = unzipSync(bytes);
    const json = JSON.parse(strFromU8(entries['sheet.json'] as Uint8Array)) as SheetJson;
    expect(json).toMatchObject({ image: 'sheet.png', width: 4 * W, height: 2 * H, rate: '25', seconds: 0.04 });
    const all = picture(entries[json.image] as Uint8Array);
    const cut = json.frames.map(({ x, y, width, height }) => {
      const pixels = new Uint8ClampedArray(width * height * 4);
      for (let row = 0; row < height; row++) {
        const from = ((y + row) * json.width + x) * 4;
        pixels.set(all.subarray(from, from + width * 4), row * width * 4);
      }
      return pixels;
    });
    compare(cut, 0);
  });
});

describe('where there is no transparency', () => {
  it('a JPEG is drawn on black, and says so', async () => {
    const scene = crossing(null);
    const { bytes, result } = await render(scene, { format: 'jpeg', frame: 2, quality: 'best' });
    expect([...bytes.subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
    expect(result.notes).toEqual(['JPEG has no transparency: drawn on black.']);
    expect(farthest(picture(bytes), wanted(scene, '#000000')[2] as Uint8ClampedArray)).toBeLessThanOrEqual(48);
  });
  it('frames as JPEG are on the scene’s background', async () => {
    const scene = crossing('#1B1F4B');
    const { bytes, result } = await render(scene, { format: 'frames', as: 'jpeg' });
    const entries = unzipSync(bytes);
    expect([Object.keys(entries)[0], result.notes]).toEqual(['frame-0001.jpg', []]);
    const corner = [...picture(entries['frame-0006.jpg'] as Uint8Array).subarray(0, 3)];
    [0x1b, 0x1f, 0x4b].forEach((v, c) => expect(Math.abs(corner[c]! - v)).toBeLessThan(4));
    const dark = await render(crossing(null), { format: 'frames', as: 'jpeg' });
    expect(dark.result.notes).toEqual(['Frames has no transparency: drawn on black.']);
  });
  it('a sheet that would be too large is refused before anything is drawn', async () => {
    const long = { ...crossing(null), width: 4000, height: 4000, length: 30 };
    await expect(render(long, { format: 'sheet' })).rejects.toThrow(
      /make a sheet of \d+ × \d+ pixels; the most is 8192/,
    );
  });
});
