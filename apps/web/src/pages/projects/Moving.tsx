import { PROJECTS } from '@kite/api/projects';
import type { Project, Scene } from '@kite/core/document/types';
import { framesPerSecond } from '@kite/core/time/rate';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { ask } from '../../api/client';
import { Preview } from '../../preview/client';

const WIDTH = 280;
const HEIGHT = 158;

/**
 * Shows a project's first scene in a card: its poster, or the scene itself while `playing`. A card at
 * rest has no worker: there may be hundreds of cards.
 */
const useScene = (doc: Project | undefined, playing: boolean) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene: Scene | undefined = doc?.scenes[doc.order[0] ?? ''];
  useEffect(() => {
    if (!doc || !scene) return;
    const context = canvas.current?.getContext('bitmaprenderer');
    const preview = new Preview();
    preview.listen(({ bitmap, frame }) => {
      if (bitmap) {
        context?.transferFromImageBitmap(bitmap);
        if (canvas.current) canvas.current.dataset.drawn = String(frame);
      }
      if (!playing) preview.close();
    });
    preview.onFailure = () => doc;
    preview.open(doc);
    const ratio = window.devicePixelRatio;
    const zoom = Math.min(WIDTH / scene.width, HEIGHT / scene.height);
    const show = (frame: number) =>
      preview.draw({
        scene: scene.id,
        frame,
        width: Math.max(1, Math.round(scene.width * zoom * ratio)),
        height: Math.max(1, Math.round(scene.height * zoom * ratio)),
        view: [zoom * ratio, 0, 0, zoom * ratio, 0, 0],
        at: [0, 0],
        solo: [],
        onion: null,
        compare: null,
        uncut: null,
        around: null,
      });
    let request = 0;
    const start = performance.now();
    const tick = (now: number) => {
      show(Math.floor((Math.max(0, now - start) / 1000) * framesPerSecond(scene.rate)) % scene.length);
      request = requestAnimationFrame(tick);
    };
    if (playing) request = requestAnimationFrame(tick);
    else show(scene.poster);
    return () => {
      cancelAnimationFrame(request);
      preview.close();
    };
  }, [doc, scene, playing]);
  return { canvas, scene };
};

/** A project's first scene, which plays while it is pointed at or focused. */
export const Moving = ({ project, revision, playing }: { project: string; revision: string; playing: boolean }) => {
  const { data } = useQuery({
    queryKey: ['project', project, revision],
    queryFn: () => ask(PROJECTS.open, { id: project }),
    staleTime: Infinity,
  });
  const { canvas, scene } = useScene(data?.document, playing);
  const zoom = scene ? Math.min(WIDTH / scene.width, HEIGHT / scene.height) : 1;
  return (
    <div className="grid h-[158px] place-items-center overflow-hidden bg-surround">
      <canvas
        ref={canvas}
        aria-hidden
        style={scene ? { width: scene.width * zoom, height: scene.height * zoom } : { width: 0, height: 0 }}
      />
    </div>
  );
};
