import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { FormatSettings, RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Property, Scene, Value } from '@kite/core/document/types';
import omggif from 'omggif';
import { describe, expect, it } from 'vitest';
import { Cancelled, RenderFailure } from './failure';
import { ffmpegPath } from './ffmpeg';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, NO_MATERIALS } from './materials';
import { renderScene } from './render';

const folder = mkdtempSync(join(tmpdir(), 'kite-render-'));
const linear = { kind: 'linear' } as const;

/** A square of 20 pixels that crosses the scene from left to right. */
const crossing = (background: string | null, fields: Partial<Scene> = {}): Scene => {
  const scene = {
    ...newScene('s', 'Crossing', { width: 80, height: 40, rate: { num: 25, den: 1 }, length: 10, background }),
    ...fields,
  };
  const layer = newDrawing(scene, 'l', 'Square', [
    newItem('r', 'rectangle', { width: 20, height: 20 }),
    newItem('f', 'fill', { color: '#2EC4B6' }),
  ]);
  const position: Property = {
    keys: [
      { frame: 0, value: [10, 20], ease: linear },
      { frame: 6, value: [70, 20], ease: linear },
    ],
  };
  const moving = { ...layer, params: { position } };
  return { ...scene, layers: { l: moving }, order: ['l'] };
};

const pixelsOf = (scene: Scene, frame: number) => {
  const drawer = frameDrawer(scene, NO_MATERIALS, {
    width: scene.width,
    height: scene.height,
    drawn: scene,
    under: null,
  });
  drawer.draw(frame);
  const pixels = drawer.pixels();
  return (x: number, y: number) => [...pixels.slice((y * scene.width + x) * 4, (y * scene.width + x) * 4 + 4)];
};

const still = (
  items: readonly { kind: string; values: { [key: string]: Value } }[],
  params: { [key: string]: Value } = {},
): Scene => {
  const scene = newScene('s', 'Still', {
    width: 40,
    height: 40,
    rate: { num: 25, den: 1 },
    length: 1,
    background: '#000000',
  });
  const layer = newDrawing(
    scene,
    'l',
    'Layer',
    items.map((i, n) => newItem(`i${n}`, i.kind, i.values)),
  );
  const own = Object.fromEntries(Object.entries(params).map(([k, value]) => [k, { value }]));
  return { ...scene, layers: { l: { ...layer, params: { ...layer.params, ...own } } }, order: ['l'] };
};
const square = { kind: 'rectangle', values: { width: 30, height: 30 } };

describe('drawing', () => {
  it('puts exact colours where the document says, at whole and half frames', () => {
    const at = pixelsOf(crossing('#1B1F4B'), 3);
    expect([at(40, 20), at(5, 5)]).toEqual([
      [0x2e, 0xc4, 0xb6, 255],
      [0x1b, 0x1f, 0x4b, 255],
    ]);
    expect(pixelsOf(crossing('#1B1F4B'), 0.5)(22, 20)).toEqual([0x2e, 0xc4, 0xb6, 255]);
  });
  it('fades a fill and a stroke of one layer as one picture: no seam where they overlap', () => {
    const scene = still(
      [
        square,
        { kind: 'fill', values: { color: '#FFFFFF' } },
        { kind: 'stroke', values: { color: '#FFFFFF', width: 6 } },
      ],
      { opacity: 0.5 },
    );
    const at = pixelsOf(scene, 0);
    // In the middle, and where the stroke lies over the fill.
    expect([at(20, 20)[0], at(7, 20)[0]]).toEqual([128, 128]);
  });
  it('blends as the Compositing standard says: multiply is the product, screen its complement', () => {
    const over = (blend: 'multiply' | 'screen') => {
      const scene = still([square, { kind: 'fill', values: { color: '#808080' } }]);
      const layer = { ...(scene.layers.l as NonNullable<typeof scene.layers.l>), blend };
      return pixelsOf({ ...scene, background: '#804020', layers: { l: layer } }, 0)(20, 20).slice(0, 3);
    };
    const product = [0x80, 0x40, 0x20].map((v) => (v * 0x80) / 255);
    const complement = [0x80, 0x40, 0x20].map((v) => v + 0x80 - (v * 0x80) / 255);
    over('multiply').forEach((v, i) => expect(Math.abs(v - (product[i] as number))).toBeLessThanOrEqual(1));
    over('screen').forEach((v, i) => expect(Math.abs(v - (complement[i] as number))).toBeLessThanOrEqual(1));
  });
  it('makes dots of dashes without length under round caps', () => {
    const scene = still([
      { kind: 'line', values: { from: [-20, 0], to: [20, 0] } },
      { kind: 'stroke', values: { color: '#FFFFFF', width: 6, dashes: [0, 10], cap: 'round' } },
    ]);
    const at = pixelsOf(scene, 0);
    expect([at(10, 20)[0], at(15, 20)[0], at(20, 20)[0]]).toEqual([255, 0, 255]);
  });
  it('runs a linear gradient from its first point to its second', () => {
    const gradient = {
      stops: [
        { at: 0, color: '#000000' },
        { at: 1, color: '#FFFFFF' },
      ],
    };
    const scene = still([square, { kind: 'fill', values: { style: 'linear', gradient, from: [-15, 0], to: [15, 0] } }]);
    const at = pixelsOf(scene, 0);
    expect(at(6, 20)[0]).toBeLessThan(20);
    expect(Math.abs((at(20, 20)[0] ?? 0) - 128)).toBeLessThanOrEqual(6);
    expect(at(33, 20)[0]).toBeGreaterThan(235);
  });
});

const render = async (scene: Scene, part: Partial<RenderSettings>) => {
  const settings = { ...defaultSettings(part.format ?? 'gif', scene), ...part } as RenderSettings;
  const out = join(folder, `out-${Math.random()}`);
  const result = await renderScene({ scene, stock: EMPTY_STOCK, settings, out });
  return { result, file: out, bytes: new Uint8Array(readFileSync(out)) };
};
/** What a GIF of 25 frames a second shows at one of them. */
const decoded = (bytes: Uint8Array, frame: number) => {
  const reader = new omggif.GifReader(bytes);
  const pixels = new Uint8Array(reader.width * reader.height * 4);
  for (let i = 0, at = 0; at <= 4 * frame; at += reader.frameInfo(i).delay, i++) {
    if (i > 0 && reader.frameInfo(i - 1).disposal === 2) pixels.fill(0);
    reader.decodeAndBlitFrameRGBA(i, pixels);
  }
  return (x: number, y: number) => [...pixels.slice((y * reader.width + x) * 4, (y * reader.width + x) * 4 + 4)];
};

describe('GIF', () => {
  const cases: readonly Partial<FormatSettings<'gif'>>[] = (['global', 'local'] as const).flatMap((palette) =>
    (['none', 'ordered', 'diffuse'] as const).map((dither) => ({ format: 'gif' as const, palette, dither })),
  );
  it.each(cases)('with $palette palettes and $dither dithering shows every frame in its colours', async (settings) => {
    const scene = crossing('#1B1F4B');
    const { bytes } = await render(scene, settings);
    for (const frame of [0, 3, 6, 9]) {
      const drawn = pixelsOf(scene, frame);
      const shown = decoded(bytes, frame);
      for (const [x, y] of [
        [5, 5],
        [10, 20],
        [40, 20],
        [70, 20],
      ] as const) {
        shown(x, y).forEach((v, c) => expect(Math.abs(v - (drawn(x, y)[c] as number))).toBeLessThanOrEqual(3));
      }
    }
  });
  it('crops frames to what changed', async () => {
    const { bytes } = await render(crossing('#1B1F4B'), { format: 'gif' });
    const reader = new omggif.GifReader(bytes);
    expect(reader.frameInfo(0)).toMatchObject({ x: 0, y: 0, width: 80, height: 40 });
    expect(reader.frameInfo(1)).toMatchObject({ x: 0, y: 10, width: 30, height: 20 });
    // Nothing moves after frame 6: that one stays.
    expect([reader.numFrames(), reader.frameInfo(6).delay]).toEqual([7, 16]);
  });
  it('of a transparent scene is transparent, and leaves no trace of earlier frames', async () => {
    const { bytes } = await render(crossing(null), { format: 'gif' });
    expect([decoded(bytes, 6)(10, 20)[3], decoded(bytes, 6)(70, 20)[3]]).toEqual([0, 255]);
  });
  it.each([
    [0, 0],
    [1, null],
    [4, 3],
  ])('played %d times has the loop count %d', async (loop, count) => {
    const { bytes } = await render(crossing('#1B1F4B'), { format: 'gif', loop });
    expect(new omggif.GifReader(bytes).loopCount()).toBe(count);
  });
});

describe('PNG', () => {
  it('keeps transparency', async () => {
    const { bytes } = await render(crossing(null), { format: 'png', frame: 3 });
    const image = await loadImage(Buffer.from(bytes));
    const context = createCanvas(80, 40).getContext('2d');
    context.drawImage(image, 0, 0);
    const { data } = context.getImageData(0, 0, 80, 40);
    expect([data[3], data[(20 * 80 + 40) * 4 + 3]]).toEqual([0, 255]);
  });
});

describe('a render', () => {
  it('tells its progress frame by frame', async () => {
    const seen: number[] = [];
    const scene = crossing('#1B1F4B');
    const settings = defaultSettings('mp4', scene);
    await renderScene({
      scene,
      stock: EMPTY_STOCK,
      settings,
      out: join(folder, 'p.mp4'),
      onProgress: ({ done }) => seen.push(done),
    });
    expect(seen).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
  });
  it('that is cancelled leaves nothing behind', async () => {
    const stop = new AbortController();
    const scene = crossing('#1B1F4B', { length: 2_000 });
    const out = join(folder, 'cancelled.mp4');
    const work = renderScene({
      stock: EMPTY_STOCK,
      scene,
      settings: defaultSettings('mp4', scene),
      out,
      signal: stop.signal,
      onProgress: ({ done }) => done === 3 && stop.abort(),
    });
    await expect(work).rejects.toBeInstanceOf(Cancelled);
    expect(readdirSync(folder).filter((name) => name.startsWith('cancelled'))).toEqual([]);
  });
  it('that fails says which scene, and why', async () => {
    const scene = crossing('#1B1F4B');
    const work = renderScene({
      scene,
      stock: EMPTY_STOCK,
      settings: defaultSettings('gif', scene),
      out: '/nowhere/at/all.gif',
    });
    await expect(work).rejects.toThrow(/^Scene "Crossing", frame 0: .*no such file/);
    const beyond = renderScene({
      scene,
      stock: EMPTY_STOCK,
      settings: { format: 'png', scale: 1, frame: 99 },
      out: join(folder, 'x.png'),
    });
    await expect(beyond).rejects.toThrow('Scene "Crossing": frame: got 99, the last is 9');
    await expect(beyond).rejects.toBeInstanceOf(RenderFailure);
  });
  it.each(['draft', 'best'] as const)('as WebM of %s quality keeps transparency, at any size', async (quality) => {
    const { file, result } = await render(crossing(null, { width: 81, height: 41 }), { format: 'webm', quality });
    expect([result.width, result.height, result.frames]).toEqual([81, 41, 10]);
    const raw = execFileSync(ffmpegPath(), [
      ...['-loglevel', 'error', '-c:v', 'libvpx-vp9', '-i', file],
      ...['-f', 'rawvideo', '-pix_fmt', 'rgba', '-'],
    ]);
    expect(raw.length).toBe(10 * 81 * 41 * 4);
    // At frame 3 the square stands about x = 40.
    const at = (x: number, y: number) => [...raw.subarray((3 * 41 + y) * 81 * 4 + x * 4).subarray(0, 4)];
    const [square, ground] = [at(40, 20), at(5, 5)];
    expect(ground[3]).toBeLessThan(8);
    expect(square[3]).toBeGreaterThan(247);
    // The colour that was drawn, #2EC4B6, as far as half the colour's resolution allows.
    [0x2e, 0xc4, 0xb6].forEach((channel, i) => expect(Math.abs(channel - square[i]!)).toBeLessThan(10));
  });
  it('of an odd size as video gains a line of background', async () => {
    const { result } = await render(crossing('#1B1F4B', { width: 81, height: 41 }), { format: 'mp4' });
    expect([result.width, result.height, result.notes.length]).toEqual([82, 42, 1]);
  });
});
