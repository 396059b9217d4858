/** What tests of building ask of a scene, of its layers and of its pixels. */
import type { DrawingLayer, Layer, Scene } from '@kite/core/document/types';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { saved } from './editor';
import type { Server } from './server';

export const sceneOf = async (page: Page, server: Server): Promise<Scene> => {
  const project = await saved(page, server);
  return project.scenes[project.order[0] as string] as Scene;
};
export const inOrder = (scene: Scene): Layer[] => scene.order.map((id) => scene.layers[id] as Layer);
export const named = <L extends Layer = DrawingLayer>(scene: Scene, name: string): L =>
  inOrder(scene).find((l) => l.name === name) as L;
export const valueOf = (layer: Layer, key: string) => (layer.params[key] as { value: unknown }).value;
export const itemOf = (layer: DrawingLayer, kind: string) => Object.values(layer.items).find((i) => i.kind === kind)!;

/** A disc of a colour on a flat ground, as a PNG. */
export const disc = (color: string, ground = '#F0F0EC', width = 60, height = 40): Buffer => {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = ground;
  context.fillRect(0, 0, width, height);
  context.fillStyle = color;
  context.beginPath();
  context.arc(width / 2, height / 2, height * 0.4, 0, 7);
  context.fill();
  return canvas.toBuffer('image/png');
};

/** The colour of a pixel of the scene, as the canvas shows it. */
export const pixel = async (page: Page, at: { x: number; y: number }): Promise<number[]> => {
  const picture = await page.screenshot({ clip: { x: Math.floor(at.x), y: Math.floor(at.y), width: 1, height: 1 } });
  const canvas = createCanvas(1, 1);
  const context = canvas.getContext('2d');
  context.drawImage(await loadImage(picture), 0, 0);
  return [...context.getImageData(0, 0, 1, 1).data.slice(0, 3)];
};

/** How red pixels of the canvas are, 0 to 255. */
export const redsOf = (page: Page, places: readonly { x: number; y: number }[]): Promise<(number | undefined)[]> =>
  Promise.all(places.map(async (place) => (await pixel(page, place))[0]));

export const importFiles = async (page: Page, files: { name: string; mimeType: string; buffer: Buffer }[]) => {
  if ((await page.getByTestId('import-files').count()) === 0) {
    await page.getByRole('button', { name: 'Pictures and fonts' }).click();
  }
  await page.getByTestId('import-files').setInputFiles(files);
};

export const pixelsOf = async (png: Buffer): Promise<Uint8ClampedArray> => {
  const image = await loadImage(png);
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
};
export const differing = (a: Uint8ClampedArray, b: Uint8ClampedArray): number => {
  let count = 0;
  for (let i = 0; i < a.length; i += 4) if (Math.abs(a[i]! - b[i]!) > 40) count++;
  return count / (a.length / 4);
};
