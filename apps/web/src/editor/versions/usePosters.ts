import { sameThings } from '@kite/core/document/remembered';
import type { Id, Project } from '@kite/core/document/types';
import { asVersion } from '@kite/core/edits/versions';
import { sizeAt } from '@kite/core/geometry/size';
import { wholeScene } from '@kite/core/scene/whole';
import { useEffect, useRef } from 'react';
import { Preview } from '../../preview/client';

/** Draws a scene as each version of a project has it, one after the other, onto canvases that are so tall in CSS pixels. */
export const usePosters = (doc: Project, sceneId: Id, height: number) => {
  const canvases = useRef(new Map<Id, HTMLCanvasElement>());
  const preview = useRef<Preview | null>(null);
  useEffect(() => {
    const own = new Preview();
    preview.current = own;
    return () => {
      preview.current = null;
      own.close();
    };
  }, []);
  /** What each canvas shows: a version that looks as it did is not drawn again. */
  const drawn = useRef(new WeakMap<HTMLCanvasElement, readonly unknown[]>());
  useEffect(() => {
    const scene = doc.scenes[sceneId];
    const own = preview.current;
    if (!scene || !own) return;
    let gone = false;
    const size = sizeAt(scene, (height / scene.height) * window.devicePixelRatio);
    const draw = async () => {
      for (const { id, values } of doc.versions.rows) {
        const canvas = canvases.current.get(id);
        const from = [wholeScene(scene, doc), doc.assets, doc.versions.columns, values];
        if (!canvas || sameThings(drawn.current.get(canvas) ?? [], from)) continue;
        own.open(asVersion(doc, id));
        const picture = await own.picture(sceneId, { what: 'poster' }, size.width, size.height);
        if (gone || !picture) return;
        Object.assign(canvas, size);
        canvas.getContext('2d')?.drawImage(picture, 0, 0);
        canvas.dataset.drawn = id;
        drawn.current.set(canvas, from);
      }
    };
    void draw();
    return () => {
      gone = true;
    };
  }, [doc, sceneId, height]);
  /** The canvas of a version, as it comes and goes. */
  return (version: Id) => (canvas: HTMLCanvasElement | null) => {
    if (canvas) canvases.current.set(version, canvas);
    else canvases.current.delete(version);
  };
};
