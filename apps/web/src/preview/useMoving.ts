import type { Id, Project } from '@kite/core/document/types';
import { type Size, sizeAt } from '@kite/core/geometry/size';
import { framesPerSecond } from '@kite/core/time/rate';
import { useEffect, useRef } from 'react';
import { Preview } from './client';

/**
 * Shows a scene on a canvas, as large as it fits into a box in CSS pixels: as it plays, or one frame after the other as they are asked
 * for. The box is the same object from one call to the next.
 */
export const useMoving = (doc: Project | undefined, id: Id | undefined, box: Size, asked: number | null = null) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const shows = useRef<(frame: number) => void>(() => undefined);
  const stays = asked !== null;
  const scene = id === undefined ? undefined : doc?.scenes[id];
  const zoom = scene ? Math.min(box.width / scene.width, box.height / scene.height) : 0;
  useEffect(() => {
    if (!doc || !scene) return;
    const context = canvas.current?.getContext('bitmaprenderer');
    const preview = new Preview();
    preview.listen(({ bitmap, frame }) => {
      if (bitmap) {
        context?.transferFromImageBitmap(bitmap);
        if (canvas.current) canvas.current.dataset.drawn = String(frame);
      }
    });
    preview.onFailure = () => doc;
    preview.open(doc);
    const ratio = window.devicePixelRatio;
    const show = (frame: number) =>
      preview.draw({
        scene: scene.id,
        frame,
        ...sizeAt(scene, zoom * ratio),
        view: [zoom * ratio, 0, 0, zoom * ratio, 0, 0],
        shrink: 1,
        at: [0, 0],
        solo: [],
        onion: null,
        compare: null,
        lookedAt: null,
        around: null,
      });
    let request = 0;
    const start = performance.now();
    const tick = (now: number) => {
      show(Math.floor((Math.max(0, now - start) / 1000) * framesPerSecond(scene.rate)) % scene.length);
      request = requestAnimationFrame(tick);
    };
    shows.current = (frame) => void show(Math.min(frame, scene.length - 1));
    if (!stays) request = requestAnimationFrame(tick);
    return () => {
      shows.current = () => undefined;
      cancelAnimationFrame(request);
      preview.close();
    };
  }, [doc, scene, stays, zoom]);
  useEffect(() => {
    if (asked !== null) shows.current(asked);
  }, [doc, scene, asked, zoom]);
  const style = { width: (scene?.width ?? 0) * zoom, height: (scene?.height ?? 0) * zoom };
  return { canvas, style };
};
