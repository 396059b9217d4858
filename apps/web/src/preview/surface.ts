import { type Surface, surfaceOver } from '@kite/core/paint/surface';

export const offscreenSurface = (width: number, height: number): Surface => {
  const canvas = new OffscreenCanvas(width, height);
  return surfaceOver(canvas, canvas.getContext('2d'));
};
