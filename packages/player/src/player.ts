/**
 * The runtime of a delivered banner: plays one scene with the engine that edits and renders it.
 *
 * `index.html#frame=N` shows that frame and stands still. Pauses while the page is hidden or the banner out of view; whoever
 * wants less motion is shown the end picture.
 */
import type { Assets, Scene } from '@kite/core/document/types';
import { filling } from '@kite/core/paint/canvas';
import { repainting } from '@kite/core/paint/repaint';
import type { Pictures } from '@kite/core/paint/target';
import { pictureKey } from '@kite/core/picture/key';
import { type RecordedFonts, replayed } from '@kite/core/type/recorded';
import { SurfacePool, type Surface, surfaceOver } from '@kite/core/paint/surface';
import { compileScene } from '@kite/core/scene/compile';
import { type Area, layAreas } from './areas';
import { leadsTo } from './leads';
import { Clock, momentAt, type Played } from './schedule';

interface Banner extends Played {
  scene: Scene;
  assets: Assets;
  fonts: RecordedFonts;
  /** Files beside the page, by what they show. */
  pictures: { [key: string]: string };
  width: number;
  height: number;
  areas: readonly Area[];
  replay: boolean;
  close: boolean;
}

declare global {
  var kiteBanner: Banner;
}

/** A small round button over the banner. */
const button = (label: string, sign: string, place: string, press: () => void): HTMLButtonElement => {
  const element = document.createElement('button');
  element.type = 'button';
  element.ariaLabel = element.title = label;
  element.textContent = sign;
  element.style.cssText = place;
  element.addEventListener('click', press);
  return element;
};

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
  const repaint = repainting(context, tools);
  // Without areas nothing that lays them is there.
  const follow = banner.areas.length > 0 ? layAreas(banner.areas, program, width / scene.width, stage) : undefined;
  const show = (frame: number) => {
    const list = program.at(frame);
    repaint(list, filling(list, width, height));
    follow?.(frame);
  };
  const link = stage.querySelector('#click');
  link?.replaceChildren(canvas);
  if (banner.close) stage.append(button('Close', '×', 'top:4px', () => stage.remove()));
  const still = /^#frame=(\d+)$/.exec(location.hash);
  if (still) {
    show(Number(still[1]));
  } else if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
    show(momentAt({ ...banner, loop: 1 }, scene.rate, Infinity).frame);
  } else {
    let clock = new Clock();
    let shown = from;
    let ended = false;
    let asked = 0;
    const goOn = () => {
      asked = requestAnimationFrame(tick);
    };
    const tick = (now: number) => {
      const { frame, over } = momentAt(banner, scene.rate, clock.at(now));
      if (frame !== shown) show(frame);
      shown = frame;
      ended = over;
      if (!over) goOn();
      else if (banner.replay) stage.append(again);
    };
    const again = button('Play again', '↻', 'bottom:4px', () => {
      again.remove();
      clock = new Clock();
      goOn();
    });
    // Out of view it does nothing, and goes on where it was; a hidden page asks for no pictures by itself.
    new IntersectionObserver((entries) => {
      cancelAnimationFrame(asked);
      clock.rest();
      if (!ended && entries.at(-1)?.isIntersecting !== false) goOn();
    }).observe(stage);
    show(from);
    goOn();
  }
};

const stage = document.getElementById('kite');
if (stage) {
  const whole = stage.querySelector<HTMLElement>('#click');
  if (whole) leadsTo(whole, 'clickTag');
  // Where scripts or canvases fail, the fallback image stays. The page around it comes first.
  const begin = () => void start(window.kiteBanner, stage);
  if (document.readyState === 'complete') begin();
  else window.addEventListener('load', begin);
}
