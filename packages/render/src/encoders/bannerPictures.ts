/** The pictures of a banner: as light as what is shown of them allows. */
import { readFile } from 'node:fs/promises';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { isOpaque } from '@kite/core/delivery/opaque';
import type { PictureAsset, Scene } from '@kite/core/document/types';
import type { PictureMark } from '@kite/core/recipe/types';
import { type Canvas, createCanvas, type Image } from '@napi-rs/canvas';
import upng from 'upng-js';
import type { Materials } from '../materials';
import type { EncodeJob } from './types';

export interface ShownPicture {
  readonly mark: PictureMark;
  /** The most pixels of the scene that one of its own is shown as wide or high. */
  readonly scale: number;
}
const EXTENSIONS = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp', 'image/gif': 'gif' } as const;

interface PictureFile {
  readonly bytes: Uint8Array;
  readonly extension: string;
}

/** Of the encoders of WebP and JPEG, 0 to 100. */
const QUALITY = 82;
/** Of a PNG that is reduced. */
const COLORS = 256;
/** What is shown nearly as large as it is stays as it is. */
const WORTH_IT = 0.9;

const asPng = async (canvas: Canvas): Promise<PictureFile> => ({
  bytes: new Uint8Array(await canvas.encode('png')),
  extension: 'png',
});
const asWebp = async (canvas: Canvas): Promise<PictureFile> => ({
  bytes: new Uint8Array(await canvas.encode('webp', QUALITY)),
  extension: 'webp',
});
const asJpeg = async (canvas: Canvas): Promise<PictureFile> => ({
  bytes: new Uint8Array(await canvas.encode('jpeg', QUALITY)),
  extension: 'jpg',
});
/** In a palette of 256 colours, which may be see-through. */
const asReducedPng = (canvas: Canvas): PictureFile => {
  const { width, height } = canvas;
  const { data } = canvas.getContext('2d').getImageData(0, 0, width, height);
  return { bytes: new Uint8Array(upng.encode([data.buffer as ArrayBuffer], width, height, COLORS)), extension: 'png' };
};
const least = (files: readonly PictureFile[]): PictureFile =>
  files.reduce((best, file) => (file.bytes.length < best.bytes.length ? file : best));

/** A picture with no more pixels than are shown of it, in whatever is lightest: itself, a WebP or a PNG. */
const lightest = async (
  own: PictureFile | null,
  image: Canvas | Image,
  { width, height }: PictureAsset,
  share: number,
): Promise<PictureFile> => {
  const [w, h] = [width, height].map((side) => Math.max(1, Math.ceil(side * Math.min(1, share)))) as [number, number];
  const canvas = createCanvas(w, h);
  const context = canvas.getContext('2d');
  context.imageSmoothingQuality = 'high';
  context.drawImage(image, 0, 0, w, h);
  return least([...(own && share >= WORTH_IT ? [own] : []), await asPng(canvas), await asWebp(canvas)]);
};

/**
 * The picture that stands where a banner does not play, in what every ad server takes for one and is lightest: a PNG, one of
 * fewer colours, or a JPEG where nothing shows through the scene.
 */
export const fallbackPicture = async (
  scene: Scene,
  canvas: Canvas,
): Promise<{ readonly name: string; readonly bytes: Uint8Array }> => {
  const whole = isOpaque(scene) ? [await asJpeg(canvas)] : [];
  const { bytes, extension } = least([await asPng(canvas), asReducedPng(canvas), ...whole]);
  return { name: `fallback.${extension}`, bytes };
};

/** The files of the pictures that are shown: as light as they can be, or as they were imported, or as a PNG where something is cut out. */
export const pictureFiles = async (
  shown: ReadonlyMap<string, ShownPicture>,
  { stock, settings, plan, scene }: EncodeJob<FormatSettings<'html5'>>,
  { pictures }: Materials,
) => {
  const names: { [key: string]: string } = {};
  const files: { [name: string]: Uint8Array } = {};
  for (const [key, { mark, scale }] of shown) {
    const { asset, cut } = mark;
    const whole = pictures.get(asset, cut) as Canvas | Image | null;
    const path = stock.files[asset.sha];
    const own =
      !cut && path !== undefined
        ? { bytes: new Uint8Array(await readFile(path)), extension: EXTENSIONS[asset.type] }
        : null;
    let file: PictureFile | null = own;
    if (whole && settings.pictures === 'reduced') {
      const share = (scale * plan.drawn.width * settings.density) / scene.width;
      file = await lightest(own, whole, asset, share);
    } else if (whole && cut) file = { bytes: new Uint8Array(await (whole as Canvas).encode('png')), extension: 'png' };
    if (!file) continue;
    const name = `picture-${Object.keys(names).length + 1}.${file.extension}`;
    files[name] = file.bytes;
    names[key] = name;
  }
  return { names, files };
};
