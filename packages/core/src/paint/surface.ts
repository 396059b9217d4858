/**
 * The part of the Canvas 2D API that painting uses (HTML Living Standard, 4.12.5), so that core needs
 * no DOM: a browser's context, a worker's and the server's all fit.
 */
import type { PathSink } from '../geometry/trace';

export interface Gradient2D {
  addColorStop(at: number, color: string): void;
}

export interface Context2D extends PathSink {
  globalAlpha: number;
  imageSmoothingQuality: string;
  globalCompositeOperation: string;
  /** Missing where canvases have no filters. */
  filter?: string;
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  miterLimit: number;
  lineDashOffset: number;
  save(): void;
  restore(): void;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  beginPath(): void;
  rect(x: number, y: number, width: number, height: number): void;
  clip(): void;
  fill(rule?: 'nonzero' | 'evenodd'): void;
  stroke(): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  setLineDash(dashes: readonly number[]): void;
  createConicGradient(startAngle: number, x: number, y: number): Gradient2D;
  createPattern(image: unknown, repetition: string): unknown;
  getImageData(x: number, y: number, width: number, height: number): { readonly data: Uint8ClampedArray };
  createImageData(width: number, height: number): { readonly data: Uint8ClampedArray };
  putImageData(data: unknown, x: number, y: number): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): Gradient2D;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): Gradient2D;
  drawImage(image: unknown, x: number, y: number): void;
  drawImage(image: unknown, x: number, y: number, width: number, height: number): void;
  drawImage(
    image: unknown,
    sx: number,
    sy: number,
    sw: number,
    sh: number,
    x: number,
    y: number,
    width: number,
    height: number,
  ): void;
}

export interface Surface {
  width: number;
  height: number;
  readonly context: Context2D;
  /** What drawImage takes. */
  readonly image: unknown;
}

export type MakeSurface = (width: number, height: number) => Surface;

interface Resizable {
  width: number;
  height: number;
}

/** A surface over a canvas of any kind: sizes are the canvas's own. */
export const surfaceOver = (canvas: Resizable, context: unknown): Surface => ({
  context: context as Context2D,
  image: canvas,
  get width() {
    return canvas.width;
  },
  set width(value) {
    canvas.width = value;
  },
  get height() {
    return canvas.height;
  },
  set height(value) {
    canvas.height = value;
  },
});

/** Surfaces kept for use again: groups need one for as long as they are drawn. */
export class SurfacePool {
  private readonly free: Surface[] = [];

  /** `small` for pictures of the size of a thumb, in which nothing needs to be found more exactly than that shows. */
  constructor(
    readonly make: MakeSurface,
    readonly small = false,
  ) {}

  /** A surface that is clear in its first pixels, and is drawn to there alone. */
  take(width: number, height: number): Surface {
    // A part of a surface is enlarged a little otherwise than all of it: it is always a part that is drawn.
    const surface = this.free.pop() ?? this.make(width + 1, height + 1);
    const { context } = surface;
    if (surface.width <= width || surface.height <= height) {
      // Setting a size clears too.
      surface.width = Math.max(surface.width, width + 1);
      surface.height = Math.max(surface.height, height + 1);
    } else {
      context.setTransform(1, 0, 0, 1, 0, 0);
      // One more each way: enlarged to what is no whole pixels, it is looked at beyond its last.
      context.clearRect(0, 0, width + 1, height + 1);
    }
    // Edges that leave a surface are drawn a little otherwise than those that don't: what is drawn is not to depend on how large
    // one is that was used before.
    context.save();
    context.beginPath();
    context.rect(0, 0, width, height);
    context.clip();
    return surface;
  }

  give(surface: Surface): void {
    surface.context.restore();
    this.free.push(surface);
  }
}
