/** Real fonts and real pictures on the server's canvas. */
import { createHash } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newDrawing, newItem, newPicture, newScene } from '@kite/core/document/make';
import type { CutOut, Layer, PictureAsset, Scene, Value } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { faceOf, readFont } from '@kite/core/type/harfbuzz';
import { PLAIN } from '@kite/core/test/fonts';
import { layoutText } from '@kite/core/type/layout';
import { createCanvas } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';
import { applicationFont } from './fonts';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, materialsFor, type Stock } from './materials';
import { renderScene } from './render';
import { toOpenType } from './woff';

const filesOf = async (family: string, weight: number) =>
  (await applicationFont({ from: 'application', family, weight, italic: false })) as Uint8Array[];
const face = async (family: string, weight = 400) => faceOf(await filesOf(family, weight), weight);

describe('a face', () => {
  it('kerns', async () => {
    const inter = await face('inter');
    const width = (text: string) => layoutText(inter, { ...PLAIN, text }).lines[0]!.right;
    expect(width('AV')).toBeLessThan(width('A') + width('V') - 1);
  });
  it('joins letters where the font does, and not when they are spaced out', async () => {
    const lora = await face('lora');
    const count = (tracking: number) => layoutText(lora, { ...PLAIN, text: 'ffi', tracking }).glyphs.length;
    expect(count(0)).toBeLessThan(count(10));
  });
  it('takes letters of the other subset, and keeps a mark with its letter', async () => {
    const inter = await face('inter');
    // ő is of the second subset; no letter falls back on the box for missing ones (glyph 0).
    const glyphs = inter.shape('Tramő', '');
    expect(glyphs.every((g) => g.id % (1 << 20) !== 0)).toBe(true);
    expect(inter.outlines(glyphs.at(-1)!.id).length).toBeGreaterThan(0);
  });
  it('has digits of one width where that is asked for, whether the font has them or not', async () => {
    for (const family of ['inter', 'oswald', 'anton']) {
      const own = await face(family, 400);
      const widths = (features: string) =>
        new Set(
          [...'0123456789'].map((digit) => layoutText(own, { ...PLAIN, text: digit, features }).glyphs[0]!.advance),
        );
      expect(widths('tnum').size, family).toBe(1);
      expect(widths('').size, family).toBeGreaterThan(1);
      // They stand in the middle of their width, and what is no digit is as it was.
      const [one, letter] = layoutText(own, { ...PLAIN, text: '1A', features: 'tnum' }).glyphs;
      expect(letter!.x).toBeCloseTo(one!.from + [...widths('tnum')][0]!, 6);
    }
  });
  it('joins no letters where that is put off', async () => {
    const count = async (features: string) =>
      layoutText(await face('lora'), { ...PLAIN, text: 'ffi', features }).glyphs;
    expect(await count('-liga')).toHaveLength(3);
    expect((await count('')).length).toBeLessThan(3);
  });
  it('tells which letters it lacks, among them none that nobody sees', async () => {
    const { facts } = await face('anton');
    expect(facts?.lacks('Ночь 夜 Night\u00ad\ufe0f\u200d')).toEqual(['Н', 'о', 'ч', 'ь', '夜']);
    expect((await face('oswald')).facts?.lacks('Ночь, Đêm')).toEqual([]);
  });
  it('joins Arabic letters, and mirrors brackets in what runs to the left', async () => {
    const rubik = await face('rubik');
    const glyphOf = (text: string, i = 0) => rubik.shape(text, '').find(({ cluster }) => cluster === i)?.id;
    // An initial beh is not the one that stands alone.
    expect(glyphOf('بب')).not.toBe(glyphOf('ب'));
    expect(glyphOf('א(ב', 1)).not.toBe(glyphOf('a(b', 1));
  });
  it('has outlines within its ascent and descent', async () => {
    const { metrics, shape, outlines } = await face('unbounded', 700);
    for (const { id } of shape('Hg', '')) {
      for (const { points } of outlines(id)) {
        for (let k = 1; k < points.length; k += 2) {
          expect(points[k]).toBeGreaterThan(-metrics.ascent - 0.2);
          expect(points[k]).toBeLessThan(metrics.descent + 0.2);
        }
      }
    }
    expect(metrics.capHeight).toBeGreaterThan(0.5);
  });
  it('says what it is', async () => {
    expect(readFont((await filesOf('zilla-slab', 600))[0]!)).toMatchObject({
      family: 'Zilla Slab',
      weight: 600,
      weights: null,
    });
  });
  it('is not made of what is no font', async () => {
    expect(() => readFont(new Uint8Array(64))).toThrow(RangeError);
    await expect(toOpenType(new Uint8Array([1, 2, 3, 4, 5]))).rejects.toThrow('not a TTF, OTF, WOFF or WOFF2');
  });
});

const empty = newScene('s', 'Scene', {
  width: 120,
  height: 80,
  rate: { num: 25, den: 1 },
  length: 10,
  background: '#000000',
});
const sceneOf = (...layers: Layer[]): Scene => ({
  ...empty,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});
const words = (values: { [key: string]: Value }) =>
  newDrawing(empty, 'w', 'Words', [
    newItem('t', 'text', { size: 30, text: 'Tram', ...values }),
    newItem('f', 'fill', { color: '#FFFFFF' }),
  ]);
const drawn = async (scene: Scene, stock: Stock = EMPTY_STOCK) => {
  const materials = await materialsFor(scene, stock);
  const drawer = frameDrawer(scene, materials, { width: 120, height: 80, drawn: scene, under: null });
  drawer.draw(0);
  const { problems } = compileScene(scene, materials.library).at(0);
  return { pixels: drawer.pixels(), problems };
};
const lit = (pixels: Uint8ClampedArray) => pixels.reduce((n, v, i) => n + (i % 4 === 0 && v > 128 ? 1 : 0), 0);

describe('text', () => {
  it('is drawn in its font, heavier where it is bolder', async () => {
    const light = lit((await drawn(sceneOf(words({ font: { family: 'Inter', weight: 200, italic: false } })))).pixels);
    const black = lit((await drawn(sceneOf(words({ font: { family: 'Inter', weight: 900, italic: false } })))).pixels);
    expect(light).toBeGreaterThan(50);
    expect(black).toBeGreaterThan(light * 1.5);
  });
  it('says which letters its font has not, in all that it says and as it says them', async () => {
    const told = async (params: Parameters<typeof words>[0]) =>
      (await drawn(sceneOf(words({ font: { family: 'Anton', weight: 400, italic: false }, ...params })))).problems.map(
        ({ message }) => message,
      );
    expect(await told({ text: 'Night' })).toEqual([]);
    expect(await told({ text: 'Night 夜' })).toEqual(['has letters that Anton 400 lacks: 夜']);
    expect(await told({ text: 'абвгдежзик', letters: 'upper' })).toEqual([
      'has letters that Anton 400 lacks: А Б В Г Д Е Ж З …',
    ]);
  });
  it('in a font that is nowhere is drawn in one that stands in, and says so', async () => {
    const { pixels, problems } = await drawn(sceneOf(words({ font: { family: 'Gone', weight: 400, italic: false } })));
    expect(lit(pixels)).toBeGreaterThan(50);
    expect(problems[0]?.message).toContain('asks for the font Gone 400, which is not here; Inter 400 stands in for it');
  });
});

describe('pictures', () => {
  const folder = mkdtempSync(join(tmpdir(), 'kite-pictures-'));
  const sha = 'a1'.repeat(32);
  const asset: PictureAsset = {
    id: 'p',
    name: 'Lamp',
    sha,
    bytes: 1,
    kind: 'picture',
    type: 'image/png',
    width: 40,
    height: 20,
  };
  const canvas = createCanvas(40, 20);
  const context = canvas.getContext('2d');
  context.fillStyle = '#FF0000';
  context.fillRect(0, 0, 40, 20);
  context.fillStyle = '#FFFFFF';
  context.fillRect(20, 0, 20, 20);
  writeFileSync(join(folder, sha), canvas.toBuffer('image/png'));
  const stock: Stock = { assets: { p: asset }, files: { [sha]: join(folder, sha) } };
  const layer = newPicture(empty, 'l', 'Lamp', 'p');
  const cutBy = (cut: CutOut) => newDrawing(empty, 'm', 'Cut', [newItem('c', 'picture', { asset: 'p', cut })]);
  const at = (pixels: Uint8ClampedArray, x: number, y: number) => [
    ...pixels.slice((y * 120 + x) * 4, (y * 120 + x) * 4 + 3),
  ];

  it('stand with their middle at their layer’s place', async () => {
    const { pixels } = await drawn(sceneOf(layer), stock);
    expect([at(pixels, 45, 35), at(pixels, 75, 45), at(pixels, 38, 40)]).toEqual([
      [255, 0, 0],
      [255, 255, 255],
      [0, 0, 0],
    ]);
  });
  it('are cut out of their background', async () => {
    const cut = { seeds: [{ x: 30, y: 5, tolerance: 0.1 }], grow: 0, soften: 0, strokes: [] };
    const { pixels } = await drawn(sceneOf(cutBy(cut)), stock);
    expect([at(pixels, 45, 35), at(pixels, 75, 45)]).toEqual([
      [255, 0, 0],
      [0, 0, 0],
    ]);
  });
  it('are decoded again where there is no room to keep them', async () => {
    const cut = { seeds: [{ x: 30, y: 5, tolerance: 0.1 }], grow: 0, soften: 0, strokes: [] };
    const scene = sceneOf(layer, cutBy(cut));
    const picture = async (kept?: number) => {
      const drawer = frameDrawer(scene, await materialsFor(scene, stock, kept), {
        width: 120,
        height: 80,
        drawn: { width: 120, height: 80 },
        under: null,
      });
      return [0, 1, 2].map((frame) => {
        drawer.draw(frame);
        return createHash('sha256').update(drawer.pixels()).digest('hex');
      });
    };
    expect(await picture(1)).toEqual(await picture());
  });
  it('whose file is gone, or is none, leave the render standing, and are named by it', async () => {
    const out = join(folder, 'out.png');
    const scene = sceneOf(layer);
    const broken = join(folder, 'broken');
    writeFileSync(broken, 'no picture');
    for (const file of ['/nowhere', broken]) {
      const without = { ...stock, files: { [sha]: file } };
      const result = await renderScene({ scene, stock: without, settings: { format: 'png', scale: 1, frame: 0 }, out });
      expect(result.notes, file).toEqual(['Layer "Lamp" shows a picture whose file cannot be read.']);
    }
  });
});
