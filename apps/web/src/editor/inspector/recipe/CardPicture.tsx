import type { Assets, DrawingLayer, Id } from '@kite/core/document/types';
import { type Box, grown, outlineBox, union } from '@kite/core/geometry/bounds';
import { IDENTITY, type Matrix } from '@kite/core/geometry/matrix';
import { paint } from '@kite/core/paint/canvas';
import { type Context2D, SurfacePool } from '@kite/core/paint/surface';
import type { Rgb } from '@kite/core/picture/pixels';
import { bareSupplies, compileRecipe } from '@kite/core/recipe/evaluate';
import { newRoom, workOfMarks } from '@kite/core/recipe/room';
import { markBox, markThrough } from '@kite/core/recipe/marks';
import type { Flow, Mark } from '@kite/core/recipe/types';
import type { Fonts } from '@kite/core/type/types';
import { useEffect, useRef, useState } from 'react';
import { useTheme } from '../../../app/theme';
import { pagePictures } from '../../../preview/pagePictures';
import { offscreenSurface } from '../../../preview/surface';

const pool = new SurfacePool(offscreenSurface, true);

/** Of a small picture: see recipe/room. */
const MOST_WORK = 30_000;

/** What differs by less than this from what it stands on, in each of red, green and blue, of 255, is not seen. */
const LEAST_DIFFERENCE = 32;

const WHITE: Rgb = [255, 255, 255];

/** What an element stands on. */
const groundOf = ({ parentElement: below }: Element): Rgb => {
  if (!below) return WHITE;
  const parts = /^rgb\((\d+), (\d+), (\d+)\)$/.exec(getComputedStyle(below).backgroundColor);
  return parts ? [Number(parts[1]), Number(parts[2]), Number(parts[3])] : groundOf(below);
};

/** Whether what is drawn is, on the whole, of the colour that it stands on. */
const isLost = (drawn: Uint8ClampedArray, [red, green, blue]: Rgb): boolean => {
  let [difference, opacity] = [0, 0];
  for (let i = 0; i < drawn.length; i += 4) {
    const [r, g, b, alpha] = [drawn[i]!, drawn[i + 1]!, drawn[i + 2]!, drawn[i + 3]!];
    difference += alpha * Math.max(Math.abs(r - red), Math.abs(g - green), Math.abs(b - blue));
    opacity += alpha;
  }
  return difference < LEAST_DIFFERENCE * opacity;
};

/** Outlines that nothing paints yet are shown as thin lines. */
const marksOf = (flow: Flow, scale: number, ink: string): readonly Mark[] =>
  flow.marks.length > 0
    ? flow.marks
    : flow.shapes.map(({ outlines, alpha }) => ({
        op: 'stroke',
        outlines,
        matrix: IDENTITY,
        ink: { style: 'solid', color: ink },
        alpha,
        width: 1.5 / scale,
        cap: 'round',
        join: 'round',
        miterLimit: 4,
        dashes: [],
        dashOffset: 0,
      }));

interface CardPictureProps {
  flow: () => Flow;
  /** What the flow is made from: while these are the same, so is the picture. As many each time. */
  from: readonly unknown[];
  width: number;
  height: number;
}

/** What cards of no layer give. */
export const bareFlow = (ids: readonly Id[], items: DrawingLayer['items'], fonts?: Fonts, assets?: Assets): Flow =>
  compileRecipe(ids, items, bareSupplies(fonts, assets)).at(0, newRoom());

/** What a run of cards gives, as a small drawing. */
export const CardPicture = ({ flow: flowNow, from, width, height }: CardPictureProps) => {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [came, setCame] = useState(0);
  const theme = useTheme((s) => s.theme);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && setSeen(true));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    if (!seen) return;
    const context = canvas.current?.getContext('2d', { willReadFrequently: true });
    if (!context) return;
    const ratio = window.devicePixelRatio;
    const target = { width: width * ratio, height: height * ratio };
    context.clearRect(0, 0, target.width, target.height);
    const flow = flowNow();
    // The page waits for it: what is too intricate for a small picture has none.
    if (workOfMarks(flow.marks) > MOST_WORK) return;
    let box: Box | null = null;
    for (const { outlines } of flow.shapes) for (const outline of outlines) box = union(box, outlineBox(outline));
    for (const mark of flow.marks) box = union(box, markBox(mark));
    if (!box) return;
    const padded = grown(box, 1);
    const [w, h] = [padded.right - padded.left, padded.bottom - padded.top];
    const scale = Math.min((target.width - 8) / w, (target.height - 8) / h);
    // The picture as a scene of its own, moved to start at its corner.
    const view: Matrix = [scale, 0, 0, scale, (target.width - w * scale) / 2, (target.height - h * scale) / 2];
    const ink = getComputedStyle(context.canvas).getPropertyValue('--ink').trim();
    const shift: Matrix = [1, 0, 0, 1, -padded.left, -padded.top];
    const moved = marksOf(flow, scale, ink).map((mark) => markThrough(shift, mark));
    const list = { width: w, height: h, background: null, marks: moved, problems: [], work: 0 };
    const pictures = pagePictures(() => setCame((n) => n + 1));
    paint(context as unknown as Context2D, list, { ...target, view }, { pool, pictures });
    const { data } = context.getImageData(0, 0, context.canvas.width, context.canvas.height);
    if (!isLost(data, groundOf(context.canvas))) return;
    context.globalCompositeOperation = 'destination-over';
    context.fillStyle = ink;
    context.fillRect(0, 0, target.width, target.height);
    context.globalCompositeOperation = 'source-over';
    // The flow is the same as long as what it is made from is.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [seen, came, width, height, theme, ...from]);
  const ratio = window.devicePixelRatio;
  return <canvas ref={canvas} aria-hidden width={width * ratio} height={height * ratio} style={{ width, height }} />;
};
