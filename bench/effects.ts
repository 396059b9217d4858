/** What effects, mattes and feathered masks cost over a frame of 1920 × 1080, beside the platform's own filters in the same run. */
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { DrawingLayer, Id, Item, Point, Scene, Value } from '@kite/core/document/types';
import { filling, paint } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool, surfaceOver } from '@kite/core/paint/surface';
import { NO_PICTURES } from '@kite/core/paint/target';
import { compileScene } from '@kite/core/scene/compile';
import { type Library, NO_LIBRARY } from '@kite/core/scene/program';
import { type ComingParts, grown, grownTo } from '@kite/core/picture/growth';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { median } from './median';

const SIZE = { width: 1920, height: 1080, rate: { num: 30, den: 1 }, length: 30, background: null };
const EMPTY = newScene('s', 'Effects', SIZE);
const TURNS = 9;

const round = (v: number): number => Number(v.toFixed(2));

/** A context that has no filters, as those of some browsers. */
const withoutFilters = (context: object): object =>
  new Proxy(context, {
    get: (target, key) => {
      const value: unknown = key === 'filter' ? undefined : Reflect.get(target, key);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
    set: (target, key, value) => Reflect.set(target, key, value),
  });

/** Milliseconds of a frame, its pixels drawn. */
const drawing = (scene: Scene, library: Library, filters: boolean): number => {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const made = (w: number, h: number) => {
    const own = createCanvas(w, h);
    return surfaceOver(own, filters ? own.getContext('2d') : withoutFilters(own.getContext('2d')));
  };
  const tools = { pool: new SurfacePool(made), pictures: NO_PICTURES };
  const program = compileScene(scene, library);
  const context = canvas.getContext('2d') as unknown as Context2D;
  const times = Array.from({ length: TURNS + 2 }, () => {
    const start = performance.now();
    const list = program.at(0);
    paint(context, list, filling(list, SIZE.width, SIZE.height), tools);
    // What is drawn late is drawn by now.
    canvas.getContext('2d').getImageData(0, 0, 1, 1);
    return performance.now() - start;
  });
  return median(times.slice(2));
};

const sceneOf = (...layers: DrawingLayer[]): Scene => ({
  ...EMPTY,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});

/** A ground of colours over the whole frame, with a disc. */
const ground = (...cards: readonly Item[]): Scene => {
  const gradient = {
    stops: [
      { at: 0, color: '#1B1F4B' },
      { at: 1, color: '#2EC4B6' },
    ],
  };
  const disc = [newItem('e', 'ellipse', { width: 700, height: 700 }), newItem('ef', 'fill', { color: '#FFB23E' })];
  const items = [
    newItem('r', 'rectangle', { width: 1920, height: 1080 }),
    newItem('f', 'fill', { style: 'linear', gradient, from: [-900, 0], to: [900, 0] }),
    { ...newItem('g', 'group'), children: disc.map(({ id }) => id) },
    ...disc,
    ...cards,
  ];
  return sceneOf(newDrawing(EMPTY, 'l', 'Ground', items));
};

/** The platform's own filter over a frame. */
const platform = (filter: string): number => {
  const [from, to] = [createCanvas(1920, 1080), createCanvas(1920, 1080)] as [Canvas, Canvas];
  const pen = from.getContext('2d');
  pen.fillStyle = '#2EC4B6';
  pen.fillRect(0, 0, 1920, 1080);
  const context = to.getContext('2d');
  const times = Array.from({ length: TURNS + 2 }, () => {
    const start = performance.now();
    context.clearRect(0, 0, 1920, 1080);
    context.filter = filter;
    context.drawImage(from, 0, 0);
    context.filter = 'none';
    context.getImageData(0, 0, 1, 1);
    return performance.now() - start;
  });
  return median(times.slice(2));
};

type Values = { readonly [key: string]: Value };
/** Each beside the platform's filter that does the same, where there is one. */
const COMPARED: readonly (readonly [kind: string, values: Values, filter: string])[] = [
  ['blur', { amount: 20 }, 'blur(20px)'],
  ['shadow', { distance: 12, softness: 40 }, 'drop-shadow(8px 8px 20px #000)'],
  ['glow', { size: 40, spread: 0 }, 'drop-shadow(0 0 20px #fff)'],
];
const COLORS: readonly (readonly [kind: string, values: Values])[] = [
  ['flood', { strength: 0.5 }],
  ['tint', {}],
  ['levels', { black: 0.1 }],
  ['brightness', { contrast: 1.2 }],
  ['colorturn', { hue: 40 }],
  ['invert', {}],
  ['threshold', {}],
];
const PLACES: readonly (readonly [kind: string, values: Values])[] = [
  ['outline', { width: 8 }],
  ['grain', {}],
  ['pixelate', { side: 16 }],
  ['clouds', {}],
  ['pattern', { angle: 20 }],
  ['warp', {}],
];

/** A letter of 600 px, cut. */
const letter = (...cards: readonly Item[]): DrawingLayer => {
  const font = { family: 'Inter', weight: 800, italic: false };
  return newDrawing(EMPTY, 'q', 'Letter', [
    newItem('t', 'text', { text: 'Q', size: 600, font }),
    newItem('tf', 'fill', { color: '#FFB23E' }),
    ...cards,
  ]);
};

const GROWN_SIDE = 1000;
/** Milliseconds in which a growth through a disc of 1000 × 1000 cells is found, once, and in which a frame of it is. */
const growing = (): { found: number; frame: number } => {
  const alpha = Uint8Array.from({ length: GROWN_SIDE ** 2 }, (_, i) => {
    const [x, y] = [i % GROWN_SIDE, Math.floor(i / GROWN_SIDE)];
    return Math.hypot(x - GROWN_SIDE / 2, y - GROWN_SIDE / 2) < GROWN_SIDE / 2 - 4 ? 255 : 0;
  });
  const grid = { width: GROWN_SIDE, height: GROWN_SIDE, alpha, scale: 1, place: (at: Point) => at };
  const growth = { value: { points: [], strokes: [] }, gap: 0, tip: 0, backwards: false };
  const timed = (run: () => void): number => {
    const times = Array.from({ length: TURNS }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    });
    return median(times.slice(2));
  };
  const result = grown(grid, growth);
  const pixels = new Uint32Array(GROWN_SIDE ** 2);
  let coming: ComingParts | undefined;
  return {
    found: timed(() => grown(grid, growth)),
    frame:
      timed(() => {
        for (let n = 1; n <= 20; n++) coming = grownTo(result, n / 20, 4, pixels, coming);
      }) / 20,
  };
};

/** As in a thread that hands its pictures over: from then on every look into a buffer asks whether it is still there. */
const handOver = (): void => void structuredClone(null, { transfer: [new ArrayBuffer(1)] });

export const measureEffects = async (): Promise<{ effects: Record<string, number | Record<string, number>> }> => {
  handOver();
  const plain = { filters: drawing(ground(), NO_LIBRARY, true), kernels: drawing(ground(), NO_LIBRARY, false) };
  const cost = (kind: string, values: Values, filters: boolean) =>
    Math.max(
      0,
      drawing(ground(newItem('x', kind, values)), NO_LIBRARY, filters) - (filters ? plain.filters : plain.kernels),
    );
  const [toFilter, kernelToFilter] = [{}, {}] as [Record<string, number>, Record<string, number>];
  for (const [kind, values, filter] of COMPARED) {
    const own = platform(filter);
    toFilter[kind] = round(cost(kind, values, true) / own);
    kernelToFilter[kind] = round(cost(kind, values, false) / own);
  }
  const named = (list: typeof COLORS) =>
    Object.fromEntries(list.map(([kind, values]) => [kind, round(cost(kind, values, true))]));

  const bare = sceneOf(letter());
  const { library } = await materialsFor(bare, EMPTY_STOCK);
  const cut = (by: Id) => newItem('m', 'matte', { layer: by });
  const disc = newDrawing(EMPTY, 'd', 'Disc', [
    newItem('de', 'ellipse', { width: 500, height: 500 }),
    newItem('df', 'fill'),
  ]);
  const mask: Item = { ...newItem('m', 'mask', { feather: 20 }), children: ['me'] };
  const masked = letter(mask, newItem('me', 'ellipse', { width: 500, height: 500 }));
  const alone = drawing(bare, library, true);
  const { found, frame } = growing();
  return {
    effects: {
      toFilter,
      kernelToFilter,
      colorMs: named(COLORS),
      placeMs: named(PLACES),
      matteMs: round(drawing(sceneOf({ ...disc, hidden: true }, letter(cut('d'))), library, true) - alone),
      growthMs: { found: round(found), frame: round(frame) },
      growMs: round(drawing(sceneOf(letter(newItem('g', 'grow'))), library, true) - alone),
      featherMs: round(drawing(sceneOf(masked), library, true) - alone),
    },
  };
};
