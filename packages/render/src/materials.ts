/** What scenes draw on, made ready for the server's canvas: fonts and pictures. */
import { readFile } from 'node:fs/promises';
import { cutPixels } from '@kite/core/picture/cut';
import type { Assets, CutOut, PictureAsset, Scene } from '@kite/core/document/types';
import { pictureKey } from '@kite/core/picture/key';
import { NO_PICTURES, type Pictures } from '@kite/core/paint/canvas';
import { type Library, NO_LIBRARY } from '@kite/core/scene/compile';
import { FontShelf } from '@kite/core/type/shelf';
import { allLayers } from '@kite/core/document/nest';
import { fontsOfScene } from '@kite/core/type/wanted';
import { type Canvas, createCanvas, type Image, loadImage } from '@napi-rs/canvas';
import { applicationFont } from './fonts';

/** Assets and where the files of each lie, by SHA-256. */
export interface Stock {
  readonly assets: Assets;
  readonly files: { readonly [sha: string]: string };
}
export const EMPTY_STOCK: Stock = { assets: {}, files: {} };

export interface Materials {
  readonly library: Library;
  readonly pictures: Pictures;
}
export const NO_MATERIALS: Materials = { library: NO_LIBRARY, pictures: NO_PICTURES };

/** The assets that a scene shows or sets its text in. */
export const stockFor = (scene: Scene, assets: Assets, pathOf: (sha: string) => string): Stock => {
  const shown = new Set(allLayers(scene).map((l) => (l.kind === 'picture' ? l.asset : null)));
  const families = new Set(fontsOfScene(scene).map((f) => f.family));
  const used = Object.values(assets).filter((a) => (a.kind === 'picture' ? shown.has(a.id) : families.has(a.family)));
  return {
    assets: Object.fromEntries(used.map((a) => [a.id, a])),
    files: Object.fromEntries(used.map((a) => [a.sha, pathOf(a.sha)])),
  };
};

const cutOutOf = (image: Image, asset: PictureAsset, cut: CutOut): Canvas => {
  const canvas = createCanvas(asset.width, asset.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  const pixels = context.getImageData(0, 0, asset.width, asset.height);
  cutPixels(pixels.data, asset.width, asset.height, cut);
  context.putImageData(pixels, 0, 0);
  return canvas;
};

/** Reads all that a scene needs before its first frame. A file that cannot be read is left out, and named by the scene's problems. */
export const materialsFor = async (scene: Scene, { assets, files }: Stock): Promise<Materials> => {
  const bytesOf = (sha: string) => readFile(files[sha] ?? '');
  const shelf = new FontShelf(async (file) =>
    file.from === 'asset' ? [await bytesOf(file.sha)] : ((await applicationFont(file)) ?? []),
  );
  await shelf.fetch(fontsOfScene(scene), assets);
  const images = new Map<string, Image>();
  const layers = allLayers(scene).filter((l) => l.kind === 'picture');
  for (const { asset: id } of layers) {
    const asset = assets[id];
    if (asset?.kind !== 'picture' || images.has(asset.sha)) continue;
    try {
      images.set(asset.sha, await loadImage(await bytesOf(asset.sha)));
    } catch {
      // Nothing is drawn for it.
    }
  }
  const cuts = new Map<string, Canvas>();
  const get: Pictures['get'] = (asset, cut) => {
    const image = images.get(asset.sha);
    if (!image || !cut) return image ?? null;
    const key = pictureKey(asset, cut);
    let canvas = cuts.get(key);
    if (!canvas) cuts.set(key, (canvas = cutOutOf(image, asset, cut)));
    return canvas;
  };
  return { library: { assets, fonts: shelf.fonts(assets) }, pictures: { get } };
};
