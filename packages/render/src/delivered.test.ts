/** Files of the formats that keep transparency, and of those for other programs, read back and compared with the frames. */
import { execFileSync } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Scene } from '@kite/core/document/types';
import { path as ffprobePath } from '@ffprobe-installer/ffprobe';
import { createCanvas, Image, ImageData } from '@napi-rs/canvas';
import { strFromU8, unzipSync } from 'fflate';
import omggif from 'omggif';
import { describe, expect, it } from 'vitest';
import { pngsOf, type SheetJson } from './encoders/frames';
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
  it('in PNGs that are told apart wherever a pipe cuts them', async () => {
    const own = wanted(scene)
      .slice(0, 3)
      .map((pixels) => {
        const canvas = createCanvas(W, H);
        canvas.getContext('2d').putImageData(new ImageData(pixels, W, H), 0, 0);
        return canvas.toBuffer('image/png');
      });
    const all = Buffer.concat(own);
    for (const size of [1, 7, own[0]!.length - 5, own[0]!.length, all.length]) {
      const cut = Array.from({ length: Math.ceil(all.length / size) }, (_, i) =>
        all.subarray(i * size, (i + 1) * size),
      );
      const found: string[] = [];
      for await (const png of pngsOf(Readable.from(cut))) found.push(png.toString('base64'));
      expect(found).toEqual(own.map((png) => png.toString('base64')));
    }
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
  it('on a sheet, with nothing where there are no frames left', async () => {
    const { bytes } = await render(scene, { format: 'sheet', columns: 5 });
    const entries = unzipSync(bytes);
    const json = JSON.parse(strFromU8(entries['sheet.json'] as Uint8Array)) as SheetJson;
    const all = picture(entries[json.image] as Uint8Array);
    const rest = json.frames.length % 5;
    expect(rest).toBeGreaterThan(0);
    const right = Array.from({ length: H }, (_, row) =>
      all.subarray(((json.height - H + row) * json.width + rest * W) * 4, (json.height - H + row + 1) * json.width * 4),
    );
    expect(right.every((pixels) => pixels.every((value) => value === 0))).toBe(true);
  });
});

it('where nothing shows through, PNGs have no alpha and what was drawn, exactly', async () => {
  const scene = crossing('#F4EFE6');
  const drawn = wanted(scene);
  const same = (got: readonly ArrayLike<number>[]) =>
    expect(got.map((pixels) => Uint8ClampedArray.from(pixels))).toEqual(drawn);
  same(raw((await render(scene, { format: 'mov', codec: 'png' })).file));
  const entries = Object.values(unzipSync((await render(scene, { format: 'frames' })).bytes));
  // W3C PNG, 11.2.1: the type of colour stands at byte 25, and 2 is truecolour without alpha.
  expect(entries.map((png) => png[25])).toEqual(Array(COUNT).fill(2));
  same(entries.map(picture));
});

describe('what ffprobe says of the file', () => {
  // Install scripts may be switched off; the package's own would only set this bit.
  chmodSync(ffprobePath, 0o755);
  const ENTRIES = 'stream=codec_name,profile,width,height,pix_fmt,avg_frame_rate,nb_read_frames:stream_tags=alpha_mode';
  const probed = (file: string): Record<string, unknown> => {
    const args = ['-loglevel', 'error', '-count_frames', '-show_entries', ENTRIES, '-of', 'json', file];
    const { streams } = JSON.parse(execFileSync(ffprobePath, args, { encoding: 'utf8' })) as {
      streams: Record<string, unknown>[];
    };
    expect(streams).toHaveLength(1);
    return streams[0] as Record<string, unknown>;
  };
  it.each([
    [null, { format: 'mov', codec: 'prores' }, { codec_name: 'prores', profile: '4444', pix_fmt: 'yuva444p12le' }],
    ['#FFFFFF', { format: 'mov', codec: 'prores' }, { codec_name: 'prores', profile: '4444', pix_fmt: 'yuv444p12le' }],
    [null, { format: 'mov', codec: 'png' }, { codec_name: 'png', pix_fmt: 'rgba' }],
    ['#FFFFFF', { format: 'mov', codec: 'png' }, { codec_name: 'png', pix_fmt: 'rgb24' }],
    [null, { format: 'webm' }, { codec_name: 'vp9', tags: { alpha_mode: '1' } }],
    ['#FFFFFF', { format: 'webm' }, { codec_name: 'vp9', pix_fmt: 'yuv420p' }],
    ['#FFFFFF', { format: 'apng' }, { codec_name: 'apng', pix_fmt: 'rgba' }],
    [null, { format: 'gif' }, { codec_name: 'gif', pix_fmt: 'bgra' }],
    [null, { format: 'mp4' }, { codec_name: 'h264', pix_fmt: 'yuv420p' }],
  ] as const)('on %s: %o', async (background, settings, wanted) => {
    const { format } = settings;
    const { file } = await render(crossing(background), settings);
    // H.264 whose colours have half the size has an even number of rows and columns.
    const even = format === 'mp4' ? 1 : 0;
    const size = { width: W + even, height: H + even };
    expect(probed(file)).toMatchObject({ ...wanted, ...size, avg_frame_rate: '25/1', nb_read_frames: `${COUNT}` });
    if (format === 'webm' && background) expect(probed(file)).not.toHaveProperty('tags.alpha_mode');
  });
});

it('an MP4 with colours at full size keeps a coloured line of one pixel', async () => {
  const size = { width: 40, height: 20, rate: { num: 25, den: 1 }, length: 2, background: '#000000' };
  const lines = newDrawing(newScene('s', 'Lines', size), 'l', 'Line', [
    newItem('r', 'rectangle', { width: 1, height: 20 }),
    newItem('f', 'fill', { color: '#FF0000' }),
  ]);
  const scene: Scene = {
    ...newScene('s', 'Lines', size),
    layers: { l: { ...lines, params: { position: { value: [20.5, 10] } } } },
    order: ['l'],
  };
  const redOf = async (colors: 'half' | 'full') => {
    const { file, result } = await render(scene, { format: 'mp4', quality: 'best', colors });
    const how = ['-vf', 'scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int'];
    const args = ['-loglevel', 'error', '-i', file, ...how, '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'];
    const pixels = execFileSync(ffmpegPath(), args);
    expect(result.notes.length).toBe(colors === 'full' ? 1 : 0);
    return [...pixels.subarray((10 * 40 + 20) * 4, (10 * 40 + 20) * 4 + 3)] as [number, number, number];
  };
  const [full, half] = [await redOf('full'), await redOf('half')];
  expect(full[0]).toBeGreaterThan(235);
  expect(Math.max(full[1], full[2])).toBeLessThan(24);
  // At half the size the line is paler: what the choice is for.
  expect(half[0] - Math.max(half[1], half[2])).toBeLessThan(full[0] - Math.max(full[1], full[2]) - 40);
});

it('a render that was asked for when its format had fewer settings is made with the others as they are by default', async () => {
  const settings = {
    format: 'gif',
    scale: 1,
    rate: null,
    from: 0,
    to: COUNT,
    palette: 'global',
    dither: 'none',
    loop: 0,
  };
  const out = join(folder, 'older.gif');
  await renderScene({ scene: crossing(null), stock: EMPTY_STOCK, settings: settings as never, out });
  const reader = new omggif.GifReader(new Uint8Array(readFileSync(out)));
  expect([reader.numFrames(), reader.frameInfo(COUNT - 1).delay]).toEqual([COUNT, 4]);
});

describe('where there is no transparency', () => {
  it('a JPEG is drawn on black, and says so', async () => {
    const scene = crossing(null);
    const { bytes, result } = await render(scene, { format: 'jpeg', frame: 2, quality: 'best' });
    expect([...bytes.subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
    expect(result.notes).toEqual(['Drawn on black: there is no transparency in JPEG.']);
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
    expect(dark.result.notes).toEqual(['Drawn on black: there is no transparency in Frames.']);
  });
  it('a sheet that would be too large is refused before anything is drawn', async () => {
    const long = { ...crossing(null), width: 4000, height: 4000, length: 30 };
    await expect(render(long, { format: 'sheet' })).rejects.toThrow(
      /make a sheet of \d+ × \d+ pixels; the most is 8192/,
    );
  });
});

describe('a GIF of what fades', () => {
  const scene = crossing(null);
  const middleOf = (i: number) => Math.round(15 + (50 * i) / (COUNT - 1));
  /** Frames as RGBA, by a reader that is not ours. */
  const read = (bytes: Uint8Array) => {
    const reader = new omggif.GifReader(bytes);
    const frames = Array.from({ length: reader.numFrames() }, (_, i) => {
      const pixels = new Uint8Array(W * H * 4);
      reader.decodeAndBlitFrameRGBA(i, pixels);
      return pixels;
    });
    return { frames, delays: frames.map((_, i) => reader.frameInfo(i).delay) };
  };
  const at = (pixels: Uint8Array, x: number, y: number) => [...pixels.subarray((y * W + x) * 4, (y * W + x) * 4 + 4)];

  it('is mixed with its ground, and is clear where nothing is', async () => {
    const { bytes, result } = await render(scene, { format: 'gif', edge: 'mixed', ground: '#F2E9DC', dither: 'none' });
    const { frames } = read(bytes);
    for (const [i, alpha] of [
      [0, 1],
      [5, 0.4],
    ] as const) {
      const [r, g, b, a] = at(frames[i] as Uint8Array, middleOf(i), 20) as [number, number, number, number];
      const mix = (v: number, under: number) => v * alpha + under * (1 - alpha);
      expect(a).toBe(255);
      [r - mix(0x2e, 0xf2), g - mix(0xc4, 0xe9), b - mix(0xb6, 0xdc)].forEach((off) =>
        expect(Math.abs(off)).toBeLessThan(4),
      );
      expect(at(frames[i] as Uint8Array, 2, 2)[3]).toBe(0);
    }
    expect(result.notes.join()).toContain('mixed with #F2E9DC');
  });
  it('shows as many pixels as it is strong, dithered', async () => {
    const { frames } = read((await render(scene, { format: 'gif', edge: 'dithered' })).bytes);
    const covered = frames.map((pixels) => pixels.filter((v, k) => k % 4 === 3 && v === 255).length);
    covered.forEach((n, i) => {
      const alpha = 1 - (0.6 * i) / (COUNT - 1);
      expect(Math.abs(n / (Math.PI * 144) - alpha)).toBeLessThan(0.04);
    });
  });
  it('is hard, or stands on its ground, where that is wanted; and its last picture stays', async () => {
    const hard = read((await render(scene, { format: 'gif', edge: 'hard', hold: 1.5 })).bytes);
    // 0.52 shows, 0.4 doesn't.
    expect([4, 5].map((i) => at(hard.frames[i] as Uint8Array, middleOf(i), 20)[3])).toEqual([255, 0]);
    expect(hard.delays).toEqual([4, 4, 4, 4, 4, 154]);
    const { frames } = read((await render(scene, { format: 'gif', edge: 'none', ground: '#1B1F4B' })).bytes);
    expect(at(frames[0] as Uint8Array, 2, 2)).toEqual([0x1b, 0x1f, 0x4b, 255]);
  });
  it('as an animated PNG and a WebP stays too', async () => {
    const { file } = await render(scene, { format: 'apng', hold: 0.2 });
    expect(raw(file, ['-f', 'apng'])).toHaveLength(COUNT + 5);
    const { bytes } = await render(scene, { format: 'webp', lossless: true, hold: 0.2 });
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    let all = 0;
    for (let p = 12; p < bytes.length; p += 8 + ((view.getUint32(p + 4, true) + 1) & ~1)) {
      if (strFromU8(bytes.subarray(p, p + 4)) !== 'ANMF') continue;
      all += view.getUint32(p + 20, true) & 0xffffff;
    }
    expect(all).toBe((COUNT + 5) * 40);
  });
});

describe('a GIF', () => {
  const gifOf = (bytes: Uint8Array) => new omggif.GifReader(Buffer.from(bytes));
  const delaysOf = (reader: InstanceType<typeof omggif.GifReader>) =>
    Array.from({ length: reader.numFrames() }, (_, i) => reader.frameInfo(i).delay);

  it('lets any frame stay as long as is wanted, as do the others that move', async () => {
    // 25 a second are 4 hundredths each.
    const { bytes } = await render(crossing('#FFFFFF'), { format: 'gif', stays: '2: 0.5, 4: 1', hold: 2 });
    expect(delaysOf(gifOf(bytes))).toEqual([4, 4, 54, 4, 104, 204]);
    const { file } = await render(crossing('#FFFFFF'), { format: 'apng', stays: '2: 0.2' });
    // Five frames more.
    expect(raw(file)).toHaveLength(COUNT + 5);
  });
  it('has as many colours as are wanted, or those that are', async () => {
    const colorsOf = (bytes: Uint8Array): Set<string> => {
      const reader = gifOf(bytes);
      const pixels = new Uint8Array(W * H * 4);
      const seen = new Set<string>();
      for (let i = 0; i < reader.numFrames(); i++) {
        reader.decodeAndBlitFrameRGBA(i, pixels);
        for (let p = 0; p < pixels.length; p += 4) seen.add(Buffer.from(pixels.subarray(p, p + 3)).toString('hex'));
      }
      return seen;
    };
    const all = await render(crossing('#FFFFFF'), { format: 'gif', dither: 'none' });
    const few = await render(crossing('#FFFFFF'), { format: 'gif', dither: 'none', colors: 4 });
    expect(colorsOf(all.bytes).size).toBeGreaterThan(8);
    expect(colorsOf(few.bytes).size).toBeLessThanOrEqual(4);
    expect(few.bytes.length).toBeLessThan(all.bytes.length);
    const own = await render(crossing('#FFFFFF'), { format: 'gif', palette: 'own', inks: '#2EC4B6 #FFFFFF #10132E' });
    expect([...colorsOf(own.bytes)].filter((color) => !['2ec4b6', 'ffffff', '10132e'].includes(color))).toEqual([]);
    await expect(render(crossing('#FFFFFF'), { format: 'gif', palette: 'own' })).rejects.toThrow('has to have colours');
  });
  it('meets its budget by the best that does, and says by what; or says that nothing does', async () => {
    const scene = { ...crossing('#FFFFFF'), length: COUNT };
    const whole = await render(scene, { format: 'gif' });
    const budget = Math.floor((whole.bytes.length * 0.8) / 1024);
    const met = await render(scene, { format: 'gif', budget });
    expect(met.bytes.length).toBeLessThanOrEqual(budget * 1024);
    expect(met.result.bytes).toBe(met.bytes.length);
    expect(met.result.notes.join()).toMatch(/^Made lighter, from \d+ KB to \d+ KB: .+\.$/);
    expect((await render(scene, { format: 'gif', budget: 10_000 })).bytes).toEqual(whole.bytes);
  });
});

describe('an MP4', () => {
  const noisy = (): Scene => {
    const scene = newScene('s', 'Noise', {
      width: 320,
      height: 240,
      rate: { num: 25, den: 1 },
      length: 50,
      background: '#FFFFFF',
    });
    const layer = newDrawing(scene, 'l', 'Grain', [
      newItem('r', 'rectangle', { width: 320, height: 240 }),
      newItem('f', 'fill', { color: '#2EC4B6' }),
      newItem('g', 'grain', { strength: 0.6, moving: true }),
    ]);
    return { ...scene, layers: { l: layer }, order: ['l'] };
  };
  it('meets a weight, and a bit rate', async () => {
    const whole = await render(noisy(), { format: 'mp4' });
    const budget = Math.floor(whole.bytes.length / 4 / 1024);
    const met = await render(noisy(), { format: 'mp4', budget });
    expect(met.bytes.length).toBeLessThanOrEqual(budget * 1024);
    expect(met.bytes.length).toBeGreaterThan(budget * 1024 * 0.4);
    const rated = await render(noisy(), { format: 'mp4', bitrate: 400 });
    // Two seconds of 400 kbit/s are 100 kB.
    expect(rated.bytes.length).toBeGreaterThan(60_000);
    expect(rated.bytes.length).toBeLessThan(150_000);
  });
  it('says what cannot be met', async () => {
    const { result } = await render(noisy(), { format: 'mp4', budget: 1 });
    expect(result.notes.at(-1)).toBe('It could not be brought under 1 KB.');
  });
});
