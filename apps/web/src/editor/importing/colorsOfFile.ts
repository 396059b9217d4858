/** The colours that a file gives: a palette, a drawing, or a picture. */
import { sizeAt } from '@kite/core/geometry/size';
import { colorsOfPixels, type NamedColor, readPalette } from '@kite/core/interchange/palette';

/** Of a picture so many colours are taken, and so many pixels of its longer side are looked at. */
const MOST_COLORS = 8;
const SIDE = 240;

/** @throws Error where the file has no colours, or cannot be read. */
export const colorsOfFile = async (file: File): Promise<readonly NamedColor[]> => {
  if (!file.type.startsWith('image/') || file.type === 'image/svg+xml') return readPalette(await file.text());
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error('This picture cannot be read');
  });
  const { width, height } = sizeAt(bitmap, Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height)));
  const context = new OffscreenCanvas(width, height).getContext('2d') as OffscreenCanvasRenderingContext2D;
  // No new colours between those that are there.
  context.imageSmoothingEnabled = false;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const colors = colorsOfPixels(context.getImageData(0, 0, width, height).data, MOST_COLORS);
  if (colors.length === 0) throw new Error('Nothing of this picture is opaque');
  return colors;
};
