/** Evaluates and draws frames away from the page. Keeps its own document, changed by the same patches. */
import { applyPatches, type Patch } from '@kite/core/document/patches';
import type { Id, Point, Project } from '@kite/core/document/types';
import type { Matrix } from '@kite/core/geometry/matrix';
import { paint, type Tools } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { compileScene, type Problem } from '@kite/core/scene/compile';
import { GesturePainter } from './gesture';
import { BrowserMaterials } from './materials';
import { offscreenSurface } from './surface';

export type PreviewRequest =
  | { readonly kind: 'open'; readonly doc: Project }
  /** `patches` on the kept document: for good, or to look at while a gesture lasts. */
  | { readonly kind: 'commit' | 'try'; readonly patches: readonly Patch[] }
  | {
      readonly kind: 'draw';
      readonly id: number;
      readonly scene: Id;
      readonly frame: number;
      readonly width: number;
      readonly height: number;
      readonly view: Matrix;
      /** Where the picture goes on the page; comes back with it. */
      readonly at: readonly [x: number, y: number];
      /** Layers shown alone; none shows all. */
      readonly solo: readonly Id[];
    }
  /** The colour of the scene's pixel at a point. */
  | { readonly kind: 'sample'; readonly scene: Id; readonly frame: number; readonly point: Point };

/** `#RRGGBB`, or with alpha where the scene is not opaque there. */
export interface SampleReply {
  readonly sampled: string;
}

export interface PreviewReply {
  readonly at: readonly [x: number, y: number];
  readonly id: number;
  readonly frame: number;
  readonly bitmap: ImageBitmap | null;
  readonly problems: readonly Problem[];
  readonly ms: number;
}

const materials = new BrowserMaterials();
const tools: Tools = { pool: new SurfacePool(offscreenSurface), pictures: materials.pictures };
const gestures = new GesturePainter(tools);
const canvas = new OffscreenCanvas(1, 1);
const context = canvas.getContext('2d') as unknown as Context2D;
let kept: Project | null = null;
let shown: Project | null = null;

const draw = (request: Extract<PreviewRequest, { kind: 'draw' }>): PreviewReply => {
  const { id, frame, width, height, view, at } = request;
  const scene = shown?.scenes[request.scene];
  if (!shown || !scene || width < 1 || height < 1) return { id, frame, at, bitmap: null, problems: [], ms: 0 };
  const start = performance.now();
  const library = materials.library(shown.assets);
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const target = { width, height, view };
  const alone = request.solo.length > 0 ? new Set(request.solo) : null;
  const before = shown === kept || alone ? undefined : kept?.scenes[request.scene];
  let list = before ? gestures.draw(context, before, scene, library, frame, target) : null;
  if (!list) {
    list = compileScene(scene, library).at(frame, alone ? (id) => alone.has(id) : undefined);
    paint(context, list, target, tools);
  }
  const bitmap = canvas.transferToImageBitmap();
  return { id, frame, at, bitmap, problems: list.problems, ms: performance.now() - start };
};

const hex = (n: number) => n.toString(16).padStart(2, '0');

const sample = ({ scene: id, frame, point: [x, y] }: Extract<PreviewRequest, { kind: 'sample' }>): SampleReply => {
  const scene = shown?.scenes[id];
  const pixel = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true });
  if (!shown || !scene || !pixel) return { sampled: '#000000' };
  const target = { width: 1, height: 1, view: [1, 0, 0, 1, -Math.floor(x), -Math.floor(y)] as const };
  const list = compileScene(scene, materials.library(shown.assets)).at(frame);
  paint(pixel as unknown as Context2D, list, target, tools);
  const [r = 0, g = 0, b = 0, a = 0] = pixel.getImageData(0, 0, 1, 1).data;
  return { sampled: `#${hex(r)}${hex(g)}${hex(b)}${a < 255 ? hex(a) : ''}`.toUpperCase() };
};

/** A picture is drawn with all its fonts and pictures, never with some of them. */
const settled = async (id: Id): Promise<void> => {
  const scene = shown?.scenes[id];
  if (!shown || !scene) return;
  const { assets } = shown;
  await (materials.fontsReady(scene, assets) ?? null);
  await (materials.picturesReady(scene, assets) ?? null);
};

self.onmessage = ({ data }: MessageEvent<PreviewRequest>) => {
  switch (data.kind) {
    case 'open':
      kept = shown = data.doc;
      gestures.forget();
      break;
    case 'commit':
      if (kept) kept = shown = applyPatches(kept, data.patches);
      gestures.forget();
      break;
    case 'try':
      if (kept) shown = applyPatches(kept, data.patches);
      break;
    case 'sample':
      self.postMessage(sample(data));
      break;
    case 'draw':
      void settled(data.scene).then(() => {
        const reply = draw(data);
        self.postMessage(reply, { transfer: reply.bitmap ? [reply.bitmap] : [] });
      });
      break;
  }
};
