/** Frames of a scene as pixels, on the server's canvas. */
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { isOpaque } from '@kite/core/delivery/opaque';
import type { RenderPlan } from '@kite/core/delivery/types';
import type { Color, Scene } from '@kite/core/document/types';
import { repainting } from '@kite/core/paint/repaint';
import { type Context2D, type MakeSurface, SurfacePool, surfaceOver } from '@kite/core/paint/surface';
import { compileScene } from '@kite/core/scene/compile';
import type { Materials } from './materials';

export const surface: MakeSurface = (width, height) => {
  const canvas = createCanvas(width, height);
  return surfaceOver(canvas, canvas.getContext('2d'));
};

export interface FrameSize extends Pick<RenderPlan, 'width' | 'height' | 'drawn'> {
  /** Drawn under a transparent scene, and where the file is larger than the scene. */
  readonly under: Color | null;
}

export interface FrameDrawer {
  readonly canvas: Canvas;
  /** Draws a frame, whole or not, onto the canvas. */
  readonly draw: (frame: number) => void;
  /** The canvas's pixels: RGBA, straight alpha, rows from the top. */
  readonly pixels: () => Uint8ClampedArray;
}

export const frameDrawer = (scene: Scene, { library, pictures }: Materials, size: FrameSize): FrameDrawer => {
  const canvas = createCanvas(size.width, size.height);
  const native = canvas.getContext('2d');
  const context = native as unknown as Context2D;
  const tools = { pool: new SurfacePool(surface), pictures };
  const program = compileScene(scene, library);
  const repaint = repainting(context, tools);
  const view = [size.drawn.width / scene.width, 0, 0, size.drawn.height / scene.height, 0, 0] as const;
  const opaque = size.under !== null || isOpaque(scene);
  return {
    canvas,
    draw: (frame) => {
      const painted = repaint(program.at(frame), { width: size.width, height: size.height, view });
      if (!painted || size.under === null) return;
      native.globalCompositeOperation = 'destination-over';
      native.fillStyle = size.under;
      native.fillRect(0, 0, size.width, size.height);
      native.globalCompositeOperation = 'source-over';
    },
    pixels: () => {
      // Opaque pixels are the same premultiplied and straight, and raw ones come sooner.
      if (opaque) {
        const raw = canvas.data();
        return new Uint8ClampedArray(raw.buffer, raw.byteOffset, raw.byteLength);
      }
      return native.getImageData(0, 0, size.width, size.height).data;
    },
  };
};
