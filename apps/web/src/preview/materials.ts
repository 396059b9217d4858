/** Fonts and pictures in the browser, on the page or in a worker: fetched once each. */
import type { Assets, CutOut, PictureAsset, Scene } from '@kite/core/document/types';
import type { Pictures } from '@kite/core/paint/target';
import { cutPixels } from '@kite/core/picture/cut';
import { pictureKey } from '@kite/core/picture/key';
import { assetsFor, fontsOfScene } from '@kite/core/scene/whole';
import type { Library } from '@kite/core/scene/program';
import { type FontFile, FontShelf } from '@kite/core/type/shelf';
import { SHIPPED } from '@kite/core/type/shipped';

/** A file that is not kept yet is called by its own address. */
export const assetUrl = (sha: string): string => (sha.startsWith('data:') ? sha : `/api/assets/${sha}`);

const fetched = async (url: string): Promise<Uint8Array> => {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`${url}: ${response.status}`);
  return new Uint8Array(await response.arrayBuffer());
};

const subsetsOf = (id: string): readonly string[] => SHIPPED.find((family) => family.id === id)?.subsets ?? [];

export const fontUrls = (file: FontFile): string[] =>
  file.from === 'asset'
    ? [assetUrl(file.sha)]
    : subsetsOf(file.family).map(
        (_, part) => `/api/fonts/${file.family}/${file.weight}/${file.italic ? 'italic' : 'normal'}/${part}`,
      );

/** The most cut-outs that are kept: while a tolerance is dragged each move makes one. */
const MOST_CUTS = 12;

const cutOutOf = (image: ImageBitmap, asset: PictureAsset, cut: CutOut): OffscreenCanvas => {
  const canvas = new OffscreenCanvas(asset.width, asset.height);
  const context = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
  context.drawImage(image, 0, 0);
  const pixels = context.getImageData(0, 0, asset.width, asset.height);
  cutPixels(pixels.data, asset.width, asset.height, cut);
  context.putImageData(pixels, 0, 0);
  return canvas;
};

class PictureShelf {
  private readonly images = new Map<string, ImageBitmap | 'failed'>();
  private readonly fetching = new Map<string, Promise<void>>();
  private readonly cuts = new Map<string, OffscreenCanvas>();

  readonly pictures: Pictures = {
    get: (asset, cut) => {
      const image = this.images.get(asset.sha);
      if (!image || image === 'failed') return null;
      return cut ? this.cutOut(image, asset, cut) : image;
    },
  };

  private cutOut(image: ImageBitmap, asset: PictureAsset, cut: CutOut): OffscreenCanvas {
    const key = pictureKey(asset, cut);
    const made = this.cuts.get(key) ?? cutOutOf(image, asset, cut);
    // The one used last stands last, and the first goes.
    this.cuts.delete(key);
    this.cuts.set(key, made);
    if (this.cuts.size > MOST_CUTS) this.cuts.delete(this.cuts.keys().next().value as string);
    return made;
  }

  /** Resolves when the pictures that a scene shows are here, or have failed; null where there is nothing to wait for. */
  ready(scene: Scene, assets: Assets): Promise<unknown> | null {
    const waiting = assetsFor(scene, assets).flatMap((asset) =>
      asset.kind === 'picture' && !this.images.has(asset.sha) ? [this.fetch(asset.sha)] : [],
    );
    return waiting.length > 0 ? Promise.all(waiting) : null;
  }

  private fetch(sha: string): Promise<void> {
    let under = this.fetching.get(sha);
    if (!under) {
      under = fetched(assetUrl(sha))
        .then((bytes) => createImageBitmap(new Blob([bytes as BlobPart])))
        .then(
          (image) => void this.images.set(sha, image),
          () => void this.images.set(sha, 'failed'),
        )
        .finally(() => this.fetching.delete(sha));
      this.fetching.set(sha, under);
    }
    return under;
  }
}

export class BrowserMaterials {
  readonly fonts = new FontShelf((file) => Promise.all(fontUrls(file).map(fetched)));
  private readonly shelf = new PictureShelf();
  readonly pictures = this.shelf.pictures;
  private last: Library | null = null;

  /** The same object while fonts and assets stay the same. */
  library(assets: Assets): Library {
    const fonts = this.fonts.fonts(assets);
    if (this.last?.assets !== assets || this.last.fonts !== fonts) this.last = { assets, fonts };
    return this.last;
  }

  /** Waits for the fonts that a scene asks for; null where all are here or known to be missing. */
  fontsReady(scene: Scene, assets: Assets): Promise<boolean> | null {
    const { fonts } = this.library(assets);
    const missing = fontsOfScene(scene).filter((choice) => fonts.find(choice) === null);
    return missing.length > 0 ? this.fonts.fetch(missing, assets) : null;
  }

  picturesReady(scene: Scene, assets: Assets): Promise<unknown> | null {
    return this.shelf.ready(scene, assets);
  }
}
