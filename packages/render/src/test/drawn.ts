/** Scenes drawn on the server's canvas for tests, with its filters or as in a browser that has none. */
import type { Scene } from '@kite/core/document/types';
import { filling, paint } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool, surfaceOver } from '@kite/core/paint/surface';
import { NO_PICTURES } from '@kite/core/paint/target';
import { compileScene } from '@kite/core/scene/compile';
import { type Library, NO_LIBRARY } from '@kite/core/scene/program';
import { createCanvas } from '@napi-rs/canvas';

const withoutFilters = (context: object): object =>
  new Proxy(context, {
    get: (target, key) => {
      if (key === 'filter') return undefined;
      const value: unknown = Reflect.get(target, key);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
    set: (target, key, value) => Reflect.set(target, key, value),
  });

export type Pixel = readonly [red: number, green: number, blue: number, alpha: number];
export interface Drawn {
  /** 0 to 255 each. */
  readonly at: (x: number, y: number) => Pixel;
  /** Of all pixels, in whole ones. */
  readonly alpha: number;
}

interface How {
  readonly filters?: boolean;
  readonly frame?: number;
  readonly library?: Library;
  /** What has been drawn with the same surfaces before. */
  readonly before?: readonly Scene[];
}

/** A scene without pictures, at its own size. */
export const drawn = (
  scene: Scene,
  { filters = true, frame = 0, library = NO_LIBRARY, before = [] }: How = {},
): Drawn => {
  const { width, height } = scene;
  const made = (w: number, h: number) => {
    const canvas = createCanvas(w, h);
    const context = canvas.getContext('2d');
    return surfaceOver(canvas, filters ? context : withoutFilters(context));
  };
  const context = createCanvas(width, height).getContext('2d');
  const tools = { pool: new SurfacePool(made), pictures: NO_PICTURES };
  for (const one of [...before, scene]) {
    const list = compileScene(one, library).at(frame);
    paint(context as unknown as Context2D, list, filling(list, width, height), tools);
  }
  const { data } = context.getImageData(0, 0, width, height);
  const at = (x: number, y: number) =>
    [...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)] as unknown as Pixel;
  let alpha = 0;
  for (let i = 3; i < data.length; i += 4) alpha += (data[i] as number) / 255;
  return { at, alpha };
};
