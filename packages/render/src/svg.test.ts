/** What stands in an SVG besides paths: files as they are, and what was drawn for it, each once. */
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Point, Property, Scene } from '@kite/core/document/types';
import { createCanvas, Image } from '@napi-rs/canvas';
import { expect, it } from 'vitest';
import { demoProject } from '@kite/demo/project';
import { wholeScene } from '@kite/core/scene/whole';
import { frameDrawer } from './frames';
import { EMPTY_STOCK, materialsFor, NO_MATERIALS, type Stock, stockOf } from './materials';
import { renderScene } from './render';
import { imported } from './test/imported';

const folder = mkdtempSync(join(tmpdir(), 'kite-svg-'));
const [W, H, COUNT] = [80, 40, 6];
const over = <V extends number | Point>(a: V, b: V): Property => ({
  keys: [
    { frame: 0, value: a, ease: { kind: 'linear' } },
    { frame: COUNT - 1, value: b, ease: { kind: 'linear' } },
  ],
});

const sceneOf = (items: readonly Item[], params: { readonly [key: string]: Property } = {}): Scene => {
  const size = { width: W, height: H, rate: { num: 25, den: 1 }, length: COUNT, background: null };
  const scene = newScene('s', 'Inside', size);
  const layer = newDrawing(scene, 'l', 'Layer', [...items]);
  return { ...scene, layers: { l: { ...layer, params: { ...layer.params, ...params } } }, order: ['l'] };
};
const clouds = (flow: Property): Scene => {
  const cover = newItem('c', 'clouds', { size: 20 });
  return sceneOf([
    newItem('r', 'rectangle', { width: 60, height: 20 }),
    newItem('f', 'fill'),
    { ...cover, params: { ...cover.params, flow } },
  ]);
};

/** The data addresses in a rendered file, and where the pictures there stand. */
const rendered = async (scene: Scene, part: Partial<RenderSettings>, stock: Stock = EMPTY_STOCK) => {
  const out = join(folder, `${Math.random()}.svg`);
  const settings = { ...defaultSettings(part.format ?? 'svg', scene), ...part } as RenderSettings;
  await renderScene({ scene, stock, settings, out });
  const text = readFileSync(out, 'utf8');
  const addresses = [...text.matchAll(/ href="data:([\w/]+);base64,([^"]*)"/g)];
  return {
    text,
    elements: text.match(/<image [^>]* href/g) ?? [],
    files: addresses.map(([, type = '', data = '']) => ({ type, bytes: Buffer.from(data, 'base64') })),
  };
};

it('a picture’s file is in it as it is, once, however many frames show it, and how often', async () => {
  const canvas = createCanvas(4, 4);
  canvas.getContext('2d').fillRect(0, 0, 2, 4);
  const bytes = canvas.toBuffer('image/png');
  const sha = createHash('sha256').update(bytes).digest('hex');
  const path = join(folder, 'ticket.png');
  writeFileSync(path, bytes);
  const asset = { id: 'a', kind: 'picture', name: 'Ticket', sha, type: 'image/png', width: 4, height: 4 } as const;
  const stock = stockOf({ a: { ...asset, bytes: bytes.length } }, () => path);
  const shown = newItem('p', 'picture', { asset: 'a' });
  const repeated = newItem('o', 'repeater', { copies: 3, position: [8, 0] });
  for (const [items, uses] of [
    [[shown], 1],
    [[shown, repeated], 3],
  ] as const) {
    const scene = sceneOf(items, { position: over([10, 20], [70, 20]) });
    for (const format of ['svg', 'animated-svg'] as const) {
      const { text, elements, files } = await rendered(scene, { format }, stock);
      expect([elements.length, text.match(/<use href="#picture1"/g)?.length ?? 0]).toEqual([1, uses]);
      expect(files).toEqual([{ type: 'image/png', bytes }]);
    }
  }
});

/** How far a picture is from a part of a frame, in levels. */
const farFrom = (scene: Scene, frame: number, bytes: Buffer): number => {
  const image = new Image();
  image.src = bytes;
  const context = createCanvas(60, 20).getContext('2d');
  context.drawImage(image, 0, 0);
  const drawer = frameDrawer(scene, NO_MATERIALS, { width: W, height: H, drawn: scene, under: null });
  drawer.draw(frame);
  const frameData = drawer.canvas.getContext('2d').getImageData(10, 10, 60, 20).data;
  const { data } = context.getImageData(0, 0, 60, 20);
  expect([image.width, image.height, Math.min(...data.filter((_, i) => i % 4 === 3))]).toEqual([60, 20, 255]);
  return data.reduce((most, v, i) => Math.max(most, Math.abs(v - (frameData[i] as number))), 0);
};

it('what is drawn for it is what a frame shows there: a PNG in a still, and in what moves WebP without loss', async () => {
  const scene = clouds(over(0, 90));
  const still = await rendered(scene, { format: 'svg', frame: 2 });
  expect(still.elements).toEqual(['<image x="10" y="10" width="60" height="20" preserveAspectRatio="none" href']);
  expect(still.files.map(({ type, bytes }) => [type, farFrom(scene, 2, bytes)])).toEqual([['image/png', 0]]);
  const moving = await rendered(scene, { format: 'animated-svg' });
  expect(moving.files.map(({ type, bytes }, i) => [type, farFrom(scene, i, bytes)])).toEqual(
    Array.from({ length: COUNT }, () => ['image/webp', 0]),
  );
});

it('what stands still is in it once', async () => {
  expect((await rendered(clouds({ value: 30 }), { format: 'animated-svg' })).files).toHaveLength(1);
});

it('each scene of the demo, delivered as an SVG and imported again, is the same picture', async () => {
  const project = demoProject();
  const scenes = Object.values(project.scenes).map((scene) => wholeScene(scene, project));
  expect(scenes).toHaveLength(14);
  for (const scene of scenes) {
    const scale = 240 / Math.max(scene.width, scene.height);
    const frame = Math.floor(scene.length / 2);
    const { text } = await rendered(scene, { format: 'svg', scale, frame });
    const { pixels, width, height, notes } = await imported(text, 240);
    expect(notes, scene.name).toEqual([]);
    const materials = await materialsFor(scene, { assets: {}, files: {} });
    const drawer = frameDrawer(scene, materials, { width, height, drawn: { width, height }, under: '#FFFFFF' });
    drawer.draw(frame);
    const before = drawer.pixels();
    const far = (i: number) => Math.max(...[0, 1, 2].map((c) => Math.abs(before[i + c]! - pixels[i + c]!)));
    const differing = Array.from({ length: width * height }, (_, i) => far(i * 4)).filter((level) => level > 40);
    expect(differing.length / (width * height), scene.name).toBeLessThan(0.001);
  }
});
