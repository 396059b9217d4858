/** The picture that stands where a banner does not play. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Item, Scene } from '@kite/core/document/types';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';
import { fallbackPicture } from './encoders/bannerPictures';
import { frameDrawer } from './frames';
import { NO_MATERIALS } from './materials';

const SIZE = { width: 300, height: 250, rate: { num: 30, den: 1 }, length: 30 } as const;
const sceneOf = (background: string | null, items: readonly Item[]): Scene => {
  const empty = newScene('s', 'Lamp', { ...SIZE, background });
  const layer = newDrawing(empty, 'l', 'Lamp', items);
  return { ...empty, layers: { l: layer }, order: ['l'] };
};
const disc = newItem('e', 'ellipse', { width: 200, height: 200 });
const SOFT = [disc, newItem('f', 'fill', { color: '#FFB23E' }), newItem('b', 'blur', { amount: 30 })];
const FLAT = [newItem('r', 'rectangle', { width: 100, height: 80 }), newItem('f', 'fill', { color: '#FFB23E' })];

/** The fallback of a scene, and how far its pixels are from those of the scene, in the mean and at the most. */
const fallbackOf = async (scene: Scene) => {
  const drawer = frameDrawer(scene, NO_MATERIALS, { ...SIZE, drawn: SIZE, under: null });
  drawer.draw(0);
  const { name, bytes } = await fallbackPicture(scene, drawer.canvas);
  const context = createCanvas(SIZE.width, SIZE.height).getContext('2d');
  context.drawImage(await loadImage(Buffer.from(bytes)), 0, 0);
  const shown = context.getImageData(0, 0, SIZE.width, SIZE.height).data;
  const exact = drawer.canvas.getContext('2d').getImageData(0, 0, SIZE.width, SIZE.height).data;
  const off = exact.map((v, i) => Math.abs(v - (shown[i] as number)));
  const exactBytes = (await drawer.canvas.encode('png')).length;
  return { name, bytes, exactBytes, mean: off.reduce((a, b) => a + b, 0) / off.length, corner: shown[3] };
};

describe('a fallback picture', () => {
  it('of a scene that shows through is a PNG of few colours, see-through where the scene is', async () => {
    const { name, bytes, exactBytes, mean, corner } = await fallbackOf(sceneOf(null, SOFT));
    expect(name).toBe('fallback.png');
    // PNG, section 11.2.2: the colour type is byte 25, and 3 is a palette.
    expect(bytes[25]).toBe(3);
    expect(bytes.length).toBeLessThan(exactBytes / 2);
    expect(bytes.length).toBeLessThan(40_000);
    expect([mean < 2, corner]).toEqual([true, 0]);
  });
  it('of one that nothing shows through is whichever is lighter of a PNG and a JPEG', async () => {
    const soft = await fallbackOf(sceneOf('#1B1F4B', SOFT));
    const flat = await fallbackOf(sceneOf('#1B1F4B', FLAT));
    expect([soft.name, flat.name]).toEqual(['fallback.jpg', 'fallback.png']);
    expect(soft.bytes.length).toBeLessThan(soft.exactBytes);
    expect([soft.mean < 2, flat.mean]).toEqual([true, 0]);
  });
});
