/** What scenes draw on, made ready for the server's canvas: fonts and pictures. */
import { readFile } from 'node:fs/promises';
import { cutPixels } from '@kite/core/picture/cut';
import type { Assets, CutOut, PictureAsset, Scene } from '@kite/core/document/types';
import { pictureKey } from '@kite/core/picture/key';
import { NO_PICTURES, type Pictures } from '@kite/core/paint/target';
import { type Library, NO_LIBRARY } from '@kite/core/scene/program';
import { assetsFor, assetsWithin, fontsOfScene } from '@kite/core/scene/whole';
import { FontShelf } from '@kite/core/type/shelf';
import { type Canvas, createCanvas, Image } from '@napi-rs/canvas';
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

/** The same, or what is in each file. */
export interface AtHand {
  readonly assets: Assets;
  readonly files: { readonly [sha: string]: string | Uint8Array };
}

/** All of these assets. */
export const stockOf = (assets: Assets, pathOf: (sha: string) => string): Stock => ({
  assets,
  files: Object.fromEntries(Object.values(assets).map(({ sha }) => [sha, pathOf(sha)])),
});
/** The assets that a scene shows or sets its text in. */
export const stockFor = (scene: Scene, assets: Assets, pathOf: (sha: string) => string): Stock =>
  stockOf(assetsWithin(scene, assets), pathOf);

/** Decoded pixels that are kept, of all pictures together: four bytes each. The one that is being drawn is always held. */
const KEPT_PIXELS = 80_000_000;

const cutOutOf = (image: Image | Canvas, asset: PictureAsset, cut: CutOut): Canvas => {
  const canvas = createCanvas(asset.width, asset.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  const pixels = context.getImageData(0, 0, asset.width, asset.height);
  cutPixels(pixels.data, asset.width, asset.height, cut);
  context.putImageData(pixels, 0, 0);
  return canvas;
};

interface Decoded {
  readonly picture: Image | Canvas;
  readonly size: number;
}

/** Lets go of pixels that lie outside of what JavaScript's memory is cleared by. */
const release = (picture: Image | Canvas): void => {
  if (picture instanceof Image) picture.src = Buffer.alloc(0);
  else picture.width = 0;
};

/**
 * Pictures decoded when they are drawn, from their files' bytes by SHA-256; those that were not drawn for long are let go:
 * what is given is to be used before another is asked for.
 */
const decoding = (files: ReadonlyMap<string, Buffer>, kept: number): Pictures => {
  // From the one that was drawn longest ago to the last.
  const decoded = new Map<string, Decoded>();
  let held = 0;
  const known = (key: string): Image | Canvas | null => {
    const found = decoded.get(key);
    if (!found) return null;
    decoded.delete(key);
    decoded.set(key, found);
    return found.picture;
  };
  const keep = <P extends Image | Canvas>(key: string, { width, height }: PictureAsset, picture: P): P => {
    const size = width * height;
    for (const [other, old] of decoded) {
      if (held + size <= kept) break;
      decoded.delete(other);
      held -= old.size;
      release(old.picture);
    }
    decoded.set(key, { picture, size });
    held += size;
    return picture;
  };
  const whole = (asset: PictureAsset): Image | Canvas | null => {
    const bytes = files.get(asset.sha);
    if (!bytes) return null;
    const ready = known(asset.sha);
    if (ready) return ready;
    const image = new Image();
    image.src = bytes;
    // What is no picture has no size.
    if (image.width < 1) return null;
    return keep(asset.sha, asset, image);
  };
  return {
    get: (asset, cut) => {
      if (!cut) return whole(asset);
      const key = pictureKey(asset, cut);
      const ready = known(key);
      if (ready) return ready;
      const image = whole(asset);
      return image && keep(key, asset, cutOutOf(image, asset, cut));
    },
  };
};

/** Reads all that a scene needs before its first frame. A file that cannot be read is left out, and named by the scene's problems. */
export const materialsFor = async (
  scene: Scene,
  { assets, files }: AtHand,
  keptPixels = KEPT_PIXELS,
): Promise<Materials> => {
  const bytesOf = async (sha: string) => {
    const file = files[sha] ?? '';
    return typeof file === 'string' ? readFile(file) : Buffer.from(file);
  };
  const shelf = new FontShelf(async (file) =>
    file.from === 'asset' ? [await bytesOf(file.sha)] : ((await applicationFont(file)) ?? []),
  );
  await shelf.fetch(fontsOfScene(scene), assets);
  const pictures = new Map<string, Buffer>();
  for (const asset of assetsFor(scene, assets)) {
    if (asset.kind !== 'picture' || pictures.has(asset.sha)) continue;
    try {
      pictures.set(asset.sha, await bytesOf(asset.sha));
    } catch {
      // Nothing is drawn for it.
    }
  }
  return { library: { assets, fonts: shelf.fonts(assets) }, pictures: decoding(pictures, keptPixels) };
};
