/** Evaluates and draws frames away from the page. Keeps its own document, changed by the same patches. */
import { multiply } from '@kite/core/geometry/matrix';
import { lastMade } from '@kite/core/document/remembered';
import { applyPatches } from '@kite/core/document/patches';
import { type LookedAt, seenOtherwise } from '@kite/core/scene/otherwise';
import { turned } from '@kite/core/scene/turned';
import { isUnsettled, wholeScene } from '@kite/core/scene/whole';
import type { Id, Project, Scene } from '@kite/core/document/types';
import { filling, paint, paintOver } from '@kite/core/paint/canvas';
import { showsTheSame } from '@kite/core/paint/repaint';
import type { Tools } from '@kite/core/paint/target';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { inPose } from '@kite/core/moves/poses';
import { compileScene } from '@kite/core/scene/compile';
import type { DisplayList, Library, Program } from '@kite/core/scene/program';
import { FrameCache, type FrameRange, type Stamp } from './frameCache';
import { GesturePainter } from './gesture';
import { BrowserMaterials } from './materials';
import { paintCompared, paintFaintly, paintOnion } from './looks';
import type {
  CacheReply,
  FailureReply,
  Pictured,
  PictureReply,
  PreviewReply,
  PreviewRequest,
  ProofReply,
  SampleReply,
  Surroundings,
} from './messages';
import type { Proofing, ProofWish } from './proofing';
import { offscreenSurface } from './surface';

const materials = new BrowserMaterials();
const tools: Tools = { pool: new SurfacePool(offscreenSurface), pictures: materials.pictures };
const gestures = new GesturePainter(tools);
// Nothing is checked before the first picture stands.
let proofing: Proofing | null = null;
/** Rises with every wish: those before it are not wanted any more. */
let proofs = 0;
/** Bytes of kept frames. */
const BUDGET = 256 * 2 ** 20;
const cache = new FrameCache<ImageBitmap>(BUDGET);
let kinds: Stamp = [];
const canvas = new OffscreenCanvas(1, 1);
const context = canvas.getContext('2d') as unknown as Context2D;
let kept: Project | null = null;
let shown: Project | null = null;

const lastFrame = lastMade<Program, DisplayList>();
/** A whole frame. The one that was asked for last is given again: a view that moves changes nothing of it. */
const frameOf = (program: Program, frame: number): DisplayList => lastFrame(program, [frame], () => program.at(frame));

/** A scene with those that it nests. */
const sceneIn = (doc: Project | null, id: Id): Scene | null => {
  const scene = doc?.scenes[id];
  return doc && scene ? wholeScene(scene, doc) : null;
};

/** By scene and by what is looked at: the same object for the same, which frames are kept for. */
const seenLast = lastMade<Scene, Scene>();
const asLookedAt = (scene: Scene | null, how: LookedAt | null): Scene | null => {
  if (!scene || !how) return scene;
  return seenLast(scene, [how.how, ...how.layers], () => seenOtherwise(scene, how));
};

const tell = (cached: readonly FrameRange[]): void => self.postMessage({ cached } satisfies CacheReply);

/** What is behind a nest and what is in front of it, where that is there. */
const surroundings = ({ scene: id, layer, frame }: Surroundings, doc: Project) => {
  const scene = sceneIn(doc, id);
  if (!scene) return null;
  const program = compileScene(scene, materials.library(doc.assets));
  const infront = new Set(scene.order.slice(0, scene.order.indexOf(layer)));
  return {
    behind: program.at(frame, (own) => own !== layer && !infront.has(own)),
    infront: { ...program.at(frame, (own) => infront.has(own)), background: null },
  };
};

/** The last frame that was drawn of a document as it is kept, and what it shows. */
let last: { readonly stamp: Stamp; readonly frame: number; readonly list: DisplayList } | null = null;

/** The picture of the last frame, where it is kept and nothing has moved since. */
const standing = (stamp: Stamp, list: DisplayList): ImageBitmap | null =>
  last?.stamp === stamp && showsTheSame(last.list, list) ? cache.for(stamp).get(last.frame) : null;

const draw = (request: Extract<PreviewRequest, { kind: 'draw' }>): PreviewReply => {
  const { id, frame, at, shrink } = request;
  const [width, height] = [request.width, request.height].map((side) => Math.ceil(side / shrink)) as [number, number];
  const view = multiply([1 / shrink, 0, 0, 1 / shrink, 0, 0], request.view);
  const own = sceneIn(shown, request.scene);
  const scene = asLookedAt(own && turned(own, request.around?.settings ?? {}), request.lookedAt);
  const nothing = { id, frame, at, shrink, bitmap: null, problems: [], ms: 0 };
  if (!shown || !scene || width < 1 || height < 1) return nothing;
  const start = performance.now();
  const library = materials.library(shown.assets);
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const target = { width, height, view };
  const alone = request.solo.length > 0 ? new Set(request.solo) : null;
  const before =
    shown === kept || alone ? undefined : (asLookedAt(sceneIn(kept, request.scene), request.lookedAt) ?? undefined);
  const { onion, compare } = request;
  const program = compileScene(scene, library);
  const shows = alone ? (layer: Id) => alone.has(layer) : undefined;
  const around = request.around && surroundings(request.around, shown);
  if (onion || compare || around) {
    const list = program.at(frame, shows);
    if (around) {
      const { matrix } = request.around;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      paintFaintly(context, around.behind, matrix, target, tools);
      paintOver(context, list, target, tools);
      paintFaintly(context, around.infront, matrix, target, tools);
    } else paint(context, list, target, tools);
    if (onion) paintOnion(context, program, onion, target, tools);
    if (compare) paintCompared(context, program.at(compare.frame, shows), compare.split, target, tools);
    return {
      ...nothing,
      bitmap: canvas.transferToImageBitmap(),
      problems: list.problems,
      ms: performance.now() - start,
    };
  }
  const stamp = shown === kept ? stampOf([scene, library, width, height, view.join(), request.solo.join()]) : null;
  const ready = stamp && cache.for(stamp).get(frame);
  let list = before ? gestures.draw(context, before, scene, library, frame, target) : null;
  if (!list) {
    list = shows ? program.at(frame, shows) : frameOf(program, frame);
    const there = ready ?? (stamp && standing(stamp, list));
    if (there) {
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      context.drawImage(there, 0, 0);
    } else paint(context, list, target, tools);
    last = stamp && { stamp, frame, list };
  }
  const bitmap = canvas.transferToImageBitmap();
  if (!stamp) tell([]);
  else if (!ready) {
    void createImageBitmap(bitmap).then((copy) => {
      cache.put(stamp, frame, copy);
      tell(cache.ranges);
    });
  }
  return { ...nothing, bitmap, problems: list.problems, ms: performance.now() - start };
};

type PictureRequest = Extract<PreviewRequest, { kind: 'picture' }>;

/** The same list for the same things, so that a frame that comes late is known for what it was drawn from. */
const stampOf = (stamp: Stamp): Stamp => {
  if (stamp.length !== kinds.length || stamp.some((part, i) => part !== kinds[i])) kinds = stamp;
  return kinds;
};

const hex = (n: number) => n.toString(16).padStart(2, '0');

const sample = ({ scene: id, frame, point: [x, y] }: Extract<PreviewRequest, { kind: 'sample' }>): SampleReply => {
  const scene = sceneIn(shown, id);
  const pixel = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true });
  if (!shown || !scene || !pixel) return { sampled: '#000000' };
  const target = { width: 1, height: 1, view: [1, 0, 0, 1, -Math.floor(x), -Math.floor(y)] as const };
  const list = compileScene(scene, materials.library(shown.assets)).at(frame);
  paint(pixel as unknown as Context2D, list, target, tools);
  const [r = 0, g = 0, b = 0, a = 0] = pixel.getImageData(0, 0, 1, 1).data;
  return { sampled: `#${hex(r)}${hex(g)}${hex(b)}${a < 255 ? hex(a) : ''}`.toUpperCase() };
};

/** What is drawn for a picture of a scene; null for a pose that is gone. */
const pictured = (scene: Scene, of: Pictured, library: Library): DisplayList | null => {
  switch (of.what) {
    case 'poster':
      return compileScene(scene, library).at(scene.poster);
    case 'pose': {
      const pose = scene.poses?.kept.find(({ id }) => id === of.pose);
      return pose ? compileScene(inPose(scene, pose), library).at(pose.frame) : null;
    }
    case 'layers':
      return { ...compileScene(scene, library).at(of.frame, (id) => of.layers.includes(id)), background: null };
  }
};

const pictureOf = ({ scene: id, of, width, height }: PictureRequest): PictureReply => {
  const scene = sceneIn(kept, id);
  const list = kept && scene && pictured(scene, of, materials.library(kept.assets));
  if (!list) return { picture: null };
  const small = new OffscreenCanvas(width, height);
  paint(small.getContext('2d') as unknown as Context2D, list, filling(list, width, height), tools);
  return { picture: small.transferToImageBitmap() };
};

/** Pictures come in their order: each waits for the one before. */
let pictures: Promise<void> = Promise.resolve();

/** A picture is drawn with all its fonts and pictures, never with some of them. */
const settled = async (id: Id): Promise<void> => {
  const doc = shown;
  const scene = sceneIn(doc, id);
  if (!doc || !scene) return;
  await (materials.fontsReady(scene, doc.assets) ?? null);
  await (materials.picturesReady(scene, doc.assets) ?? null);
  if (!isUnsettled(scene)) return;
  // What a version leaves to its fonts, now that they are here.
  const { settledIn } = await import('@kite/core/edits/settling');
  if (shown === doc) kept = shown = settledIn(doc, id, materials.library(doc.assets));
};

/** Of the document as it is kept now: once that is another one, whoever asked asks again. */
const prove = async (wish: ProofWish): Promise<void> => {
  const [doc, own] = [kept, proofs];
  if (!doc) return;
  try {
    const part = await import('./proofing').catch(() => null);
    // The server is away: after the next change it is asked again.
    if (!part) return;
    proofing ??= new part.Proofing(materials, tools);
    const found = await proofing.of(doc, wish, () => own === proofs && doc === kept);
    if (found) self.postMessage({ found } satisfies ProofReply);
  } catch (error) {
    failed(error);
  }
};

const failed = (error: unknown): void => {
  const text = error instanceof Error ? error.message : String(error);
  self.postMessage({ failed: text } satisfies FailureReply);
};

const handle = (data: PreviewRequest): void => {
  switch (data.kind) {
    case 'open':
      kept = shown = JSON.parse(data.doc) as Project;
      gestures.forget();
      break;
    case 'commit':
      if (kept) kept = shown = applyPatches(kept, data.patches);
      gestures.forget();
      break;
    case 'try':
      if (kept) shown = applyPatches(kept, data.patches);
      break;
    case 'expect':
      settled(data.scene)
        .then(() => {
          const scene = sceneIn(kept, data.scene);
          if (kept && scene) frameOf(compileScene(scene, materials.library(kept.assets)), data.frame);
        })
        .catch(failed);
      break;
    case 'proof':
      proofs++;
      if (data.wish) void prove(data.wish);
      break;
    case 'sample':
      self.postMessage(sample(data));
      break;
    case 'picture':
      pictures = pictures
        .then(() => settled(data.scene))
        .then(() => {
          const reply = pictureOf(data);
          self.postMessage(reply, { transfer: reply.picture ? [reply.picture] : [] });
        })
        .catch(failed);
      break;
    case 'draw':
      settled(data.scene)
        .then(() => {
          const reply = draw(data);
          self.postMessage(reply, { transfer: reply.bitmap ? [reply.bitmap] : [] });
        })
        .catch(failed);
      break;
  }
};

self.onmessage = ({ data }: MessageEvent<PreviewRequest>) => {
  try {
    handle(data);
  } catch (error) {
    failed(error);
  }
};
