/** Pictures that are mapped as wholes: drawn as they are, then looked up pixel by pixel. */
import type { Point } from '../document/types';
import { type Box, cornersOf, intersection, overlaps } from '../geometry/bounds';
import {
  applyHomography,
  beforeEye,
  composed,
  flatHomography,
  type Homography,
  invertedHomography,
  matrixNear,
} from '../geometry/homography';
import { inverted, type Matrix, multiply, longestOf } from '../geometry/matrix';
import { type Bend, bentThrough, isWarp, matrixOfBend, triangleTo, trianglesOf, type Warp } from '../geometry/warp';
import { mapPixels, type MappedTriangle, mapTriangles, type Pixels } from '../picture/mapped';
import { boxOfMarks } from '../recipe/marks';
import type { Mark } from '../recipe/types';
import { pixelsRead } from './change';
import type { Surface } from './surface';
import { type Target, targetOf } from './target';

/** Pixels that a picture is drawn with before it is mapped, at the most. */
const MOST_PIXELS = 8_000_000;
/** Nothing stands in these pixels around it, so that its edges are soft. */
const MARGIN = 2;

/** What of a picture comes to lie within these pixels, in its own; null for nothing. */
const seenPart = (back: Homography, box: Box, pixels: Box): Box | null => {
  // Seen from where it comes to lie, the weight is one over that of the map: all of it is before the eye where it is positive.
  const corners = cornersOf(pixels);
  if (!corners.every(([x, y]) => back[6] * x + back[7] * y + back[8] > 1e-6)) return box;
  const there = corners.map((at) => applyHomography(back, at));
  const xs = there.map(([x]) => x);
  const ys = there.map(([, y]) => y);
  return intersection(box, {
    left: Math.min(...xs) - 1,
    top: Math.min(...ys) - 1,
    right: Math.max(...xs) + 1,
    bottom: Math.max(...ys) + 1,
  });
};

/** A bend as it is drawn on a target, and what it takes. */
interface Laid {
  /** The part of the picture that is drawn, in the pixels of its marks. */
  readonly box: Box;
  /** How many of the target's pixels one of these is at the most. */
  readonly scale: number;
  /** Lays what was drawn, `view` from the marks' pixels to its own, on these pixels of the target. */
  readonly lay: (drawn: Pixels, view: Matrix, to: Pixels) => void;
  /** As near as a matrix comes to it. */
  readonly near: Matrix;
}

const middleOf = ({ left, top, right, bottom }: Box): Point => [(left + right) / 2, (top + bottom) / 2];

const laidFlat = (view: Matrix, bend: Homography, whole: Box, pixels: Box): Laid | null => {
  const h = composed(flatHomography(view), bend);
  const back = invertedHomography(h);
  const box = back && seenPart(back, whole, pixels);
  const corners = box ? beforeEye(h, cornersOf(box)) : [];
  if (!back || !box || corners.length < 3) return null;
  return {
    box,
    scale: Math.max(...corners.map((at) => longestOf(matrixNear(h, at)))),
    near: matrixNear(h, middleOf(box)),
    lay: (drawn, own, to) => {
      const from = flatHomography([1, 0, 0, 1, pixels.left, pixels.top]);
      mapPixels(drawn, composed(flatHomography(own), composed(back, from)), to);
    },
  };
};

const laidWarped = (view: Matrix, bend: Warp, whole: Box, pixels: Box): Laid | null => {
  const here = bentThrough(
    [view[0], view[1], view[2], view[3], view[4] - pixels.left, view[5] - pixels.top],
    bend,
  ) as Warp;
  const shown = { left: 0, top: 0, right: pixels.right - pixels.left, bottom: pixels.bottom - pixels.top };
  const triangles: MappedTriangle[] = [];
  let scale = 0;
  for (const { from, to } of trianglesOf(here)) {
    const [[ax, ay], [bx, by], [cx, cy]] = to;
    const around = {
      left: Math.min(ax, bx, cx),
      top: Math.min(ay, by, cy),
      right: Math.max(ax, bx, cx),
      bottom: Math.max(ay, by, cy),
    };
    const back = overlaps(around, shown) ? triangleTo(to, from) : null;
    const there = back && inverted(back);
    if (!there) continue;
    scale = Math.max(scale, longestOf(there));
    triangles.push({ corners: to, back });
  }
  if (triangles.length === 0) return null;
  return {
    box: whole,
    scale,
    near: multiply([1, 0, 0, 1, pixels.left, pixels.top], matrixOfBend(here, middleOf(whole))),
    lay: (drawn, own, to) =>
      mapTriangles(
        drawn,
        triangles.map(({ corners, back }) => ({ corners, back: multiply(own, back) })),
        to,
      ),
  };
};

/** The picture of marks as it is bent, in these pixels of the target, on a surface of its own; null where nothing is seen. */
export const drawnBent = (
  target: Target,
  marks: readonly Mark[],
  bend: Bend,
  pixels: Box,
  drawMarks: (target: Target, marks: readonly Mark[]) => void,
): Surface | null => {
  const { pool } = target.tools;
  const whole = boxOfMarks(marks);
  const laid =
    whole && (isWarp(bend) ? laidWarped(target.view, bend, whole, pixels) : laidFlat(target.view, bend, whole, pixels));
  if (!laid) return null;
  const { box } = laid;
  const [across, down] = [box.right - box.left, box.bottom - box.top];
  const scale = Math.min(laid.scale, Math.sqrt(MOST_PIXELS / Math.max(1e-6, across * down)));
  const [width, height] = [across, down].map((side) => Math.ceil(side * scale) + 2 * MARGIN) as [number, number];
  if (!Number.isFinite(width * height) || width * height > 2 * MOST_PIXELS) return null;
  const plain = pool.take(width, height);
  const view = [scale, 0, 0, scale, MARGIN - box.left * scale, MARGIN - box.top * scale] as const;
  drawMarks(targetOf(plain, width, height, view, target.tools), marks);
  const size = { width: pixels.right - pixels.left, height: pixels.bottom - pixels.top };
  const surface = pool.take(size.width, size.height);
  const read = pixelsRead(plain.context, width, height);
  if (read) {
    const image = surface.context.createImageData(size.width, size.height);
    laid.lay({ width, height, data: read.data }, view, { ...size, data: image.data });
    surface.context.putImageData(image, 0, 0);
  } else {
    // A page may not read its pixels: it is laid as nearly as a canvas lays it.
    const placed = multiply([1, 0, 0, 1, -pixels.left, -pixels.top], laid.near);
    Object.assign(surface.context, { globalAlpha: 1, globalCompositeOperation: 'source-over' });
    surface.context.setTransform(
      ...multiply(placed, [1 / scale, 0, 0, 1 / scale, box.left - MARGIN / scale, box.top - MARGIN / scale]),
    );
    surface.context.drawImage(plain.image, 0, 0, width, height, 0, 0, width, height);
  }
  pool.give(plain);
  return surface;
};
