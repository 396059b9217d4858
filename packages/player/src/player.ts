/**
 * The runtime of a delivered banner: plays one scene with the engine that edits and renders it.
 *
 * `index.html#frame=N` shows that frame and stands still. Pauses while the page is hidden or the banner out of view; whoever
 * wants less motion is shown the end picture.
 */
import type { Assets, Scene } from '@kite/core/document/types';
import { filling, paint } from '@kite/core/paint/canvas';
import type { Pictures } from '@kite/core/paint/target';
import { pictureKey } from '@kite/core/picture/key';
import { type RecordedFonts, replayed } from '@kite/core/type/recorded';
import { SurfacePool, type Surface, surfaceOver } from '@kite/core/paint/surface';
import { compileScene } from '@kite/core/scene/compile';
import { Clock, momentAt, type Played } from './schedule';

interface Banner extends Played {
  scene: Scene;
  assets: Assets;
  fonts: RecordedFonts;
  /** Files beside the page, by what they show. */
  pictures: { [key: string]: string };
  width: number;
  height: number;
}

declare global {
  var kiteBanner: Banner;
  var clickTag: string;
}

const newCanvas = (width: number, height: number): HTMLCanvasElement => {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  return canvas;
};
const surfaceOf = (canvas: HTMLCanvasElement): Surface => surfaceOver(canvas, canvas.getContext('2d'));

/** All the pictures, read; one that fails is left out. */
const readPictures = async (names: Banner['pictures']): Promise<Pictures> => {
  const images = new Map<string, HTMLImageElement>();
  await Promise.all(
    Object.entries(names).map(async ([key, name]) => {
      const image = new Image();
      image.src = name;
      await image.decode().then(
        () => images.set(key, image),
        () => undefined,
      );
    }),
  );
  return { get: (asset, cut) => images.get(pictureKey(asset, cut)) ?? null };
};

const start = async (banner: Banner, stage: HTMLElement): Promise<void> => {
  const { scene, width, height, from } = banner;
  const canvas = newCanvas(width, height);
  const { context } = surfaceOf(canvas);
  const pool = new SurfacePool((w, h) => surfaceOf(newCanvas(w, h)));
  const tools = { pool, pictures: await readPictures(banner.pictures) };
  const program = compileScene(scene, { assets: banner.assets, fonts: replayed(banner.fonts) });
  const show = (frame: number) => {
    const list = program.at(frame);
    paint(context, list, filling(list, width, height), tools);
  };
  const still = /^#frame=(\d+)$/.exec(location.hash);
  if (still) {
    show(Number(still[1]));
  } else if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
    show(momentAt({ ...banner, loop: 1 }, scene.rate, Infinity).frame);
  } else {
    const clock = new Clock();
    let seen = true;
    new IntersectionObserver((entries) => {
      seen = entries.at(-1)?.isIntersecting ?? seen;
    }).observe(stage);
    let shown = from;
    // A hidden page asks for no pictures, and one that is out of view goes on where it was.
    const tick = (now: number) => {
      const { frame, over } = momentAt(banner, scene.rate, clock.at(now, seen));
      if (frame !== shown) show(frame);
      shown = frame;
      if (!over) requestAnimationFrame(tick);
    };
    show(from);
    requestAnimationFrame(tick);
  }
  stage.replaceChildren(canvas);
};

const stage = document.getElementById('kite');
if (stage) {
  stage.addEventListener('click', (event) => {
    event.preventDefault();
    if (window.clickTag) window.open(window.clickTag, '_blank', 'noopener');
  });
  // Where scripts or canvases fail, the fallback image stays.
  void start(window.kiteBanner, stage);
}
