/** A picture from a file as the tip of a brush. */
import { sizeAt } from '@kite/core/geometry/size';
import { toTip } from '@kite/core/picture/tip';

/** Pixels of its longer side: no stroke shows more of it. */
const SIDE = 512;

/** A PNG of what presses, and nothing around it. @throws Error where the file cannot be read, or nothing of it presses. */
export const tipOfFile = async (file: File): Promise<Blob> => {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error(`“${file.name}” cannot be read as a picture.`);
  });
  const { width, height } = sizeAt(bitmap, Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height)));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const image = context.getImageData(0, 0, width, height);
  const part = toTip(image.data, image.width);
  if (!part) throw new Error(`Nothing of “${file.name}” is dark or opaque: a tip needs something that presses.`);
  const tip = new OffscreenCanvas(part.width, part.height);
  (tip.getContext('2d') as OffscreenCanvasRenderingContext2D).putImageData(image, -part.x, -part.y);
  return tip.convertToBlob({ type: 'image/png' });
};
