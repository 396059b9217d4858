/** What is in depth as it is seen from aside, drawn on the page. */
import { type Size, sizeAt } from '@kite/core/geometry/size';
import type { Mark } from '@kite/core/recipe/types';
import { paint } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import { markThrough } from '@kite/core/recipe/marks';
import { workOfMarks } from '@kite/core/recipe/room';
import { type RefObject, useEffect, useState } from 'react';
import { pagePictures } from '../../../preview/pagePictures';
import { offscreenSurface } from '../../../preview/surface';
import type { View } from '../../store/workspace';
import { viewMatrix } from '../view';

const pool = new SurfacePool(offscreenSurface);

/** The page waits for it: what takes more shows as frames alone. */
const MOST_WORK = 200_000;

/** Draws marks of the scene in a view of it; `from` is what they are made from, as many each time. */
export const useAsidePicture = (
  canvas: RefObject<HTMLCanvasElement | null>,
  marks: () => readonly Mark[],
  view: View,
  { width, height }: Size,
  from: readonly unknown[],
): void => {
  const [came, setCame] = useState(0);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width < 1 || height < 1) return;
    const ratio = window.devicePixelRatio;
    const size = sizeAt({ width, height }, ratio);
    Object.assign(context.canvas, size);
    const all = marks();
    if (workOfMarks(all) > MOST_WORK) return;
    // The view as a scene of its own, so that what lies beside the scene shows too.
    const moved = all.map((mark) => markThrough(viewMatrix(view), mark));
    const list = { width, height, background: null, marks: moved, problems: [], work: 0 };
    const pictures = pagePictures(() => setCame((n) => n + 1));
    paint(context as unknown as Context2D, list, { ...size, view: [ratio, 0, 0, ratio, 0, 0] }, { pool, pictures });
    // The marks are the same as long as what they are made from is.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [came, width, height, view.zoom, view.x, view.y, ...from]);
};
