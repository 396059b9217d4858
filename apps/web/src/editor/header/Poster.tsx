import { lastMade } from '@kite/core/document/remembered';
import type { Assets, Id, Scene } from '@kite/core/document/types';
import { sizeAt } from '@kite/core/geometry/size';
import { wholeScene } from '@kite/core/scene/whole';
import { useEffect, useMemo, useRef } from 'react';
import { useEditor, useSlice } from '../store/context';

const NARROWEST = 10;
/** A flat scene is drawn less tall than there is room, so that it is no wider than this, in CSS pixels. */
const MOST_DRAWN = 1_024;
/** So long a scene must be left alone until its poster is drawn again, in ms. */
const REST = 400;

type Pictures = Map<string, Promise<ImageBitmap | null>>;
/** What is asked for in several places is drawn once. */
const pictures = lastMade<Scene, Pictures>();

interface PosterProps {
  id: Id;
  /** The pose that is shown instead of the scene's own poster. */
  pose?: Id;
  /** In CSS pixels. */
  height: number;
  widest: number;
  className?: string;
}

/** A scene's poster, or one of its poses, as it was a moment ago. */
export const Poster = ({ id, pose, height: tall, widest, className = '' }: PosterProps) => {
  const editor = useEditor();
  const canvas = useRef<HTMLCanvasElement>(null);
  /** What the poster that shows was drawn from. */
  const drawn = useRef<{ readonly scene: Scene; readonly assets: Assets } | null>(null);
  const { width, height, background } = useSlice((s) => {
    // A card may be asked once more after its scene is gone.
    const { width = 1, height = 1, background = null } = s.doc.scenes[id] ?? {};
    return { width, height, background };
  });
  // The document at rest: what a gesture or playing goes through is not looked at.
  const doc = useSlice((s) => (s.playing || s.gesturing ? null : s.doc));
  // With those that it nests: another scene for every edit that can be seen in it.
  const scene = useMemo(() => {
    const own = doc?.scenes[id];
    return doc && own ? wholeScene(own, doc) : null;
  }, [doc, id]);
  const assets = doc?.assets;
  useEffect(() => {
    if (!scene || !assets || (drawn.current?.scene === scene && drawn.current.assets === assets)) return;
    let gone = false;
    const timer = setTimeout(() => {
      const ratio = window.devicePixelRatio;
      const scale = Math.min(tall / scene.height, MOST_DRAWN / scene.width);
      const { width, height } = sizeAt(scene, scale * ratio);
      const known = pictures(scene, [assets], (): Pictures => new Map());
      const key = `${pose ?? ''} ${width} ${height}`;
      const asked =
        known.get(key) ??
        editor.preview.picture(id, pose === undefined ? { what: 'poster' } : { what: 'pose', pose }, width, height);
      known.set(key, asked);
      void asked.then((poster) => {
        const element = canvas.current;
        if (!poster) known.delete(key);
        if (gone || !poster || !element) return;
        element.width = width;
        element.height = height;
        element.getContext('2d')?.drawImage(poster, 0, 0);
        element.dataset.drawn = pose ?? String(scene.poster);
        drawn.current = { scene, assets };
      });
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [editor, id, pose, scene, assets, tall]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className={`shrink-0 rounded-sm border border-line ${className}`}
      style={{
        height: tall,
        width: Math.min(widest, Math.max(NARROWEST, (tall * width) / height)),
        background: background ?? 'repeating-conic-gradient(#c8c8c4 0 25%, #efefec 0 50%) 0 0 / 8px 8px',
      }}
    />
  );
};
