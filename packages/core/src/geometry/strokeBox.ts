/** How far strokes reach. */
import { lastMade } from '../document/remembered';
import type { Point } from '../document/types';
import { type Box, boxOfParts, Extent } from './bounds';
import { IDENTITY, type Matrix } from './matrix';
import { cubicCount, isLine, type Outline } from './outline';

export interface Pen {
  readonly width: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
  readonly dashes: readonly number[];
}

/** The direction of the way between two points of an outline, of length 1; null where they are one. */
const direction = (p: Float64Array, from: number, to: number): Point | null => {
  const [dx, dy] = [p[to]! - p[from]!, p[to + 1]! - p[from + 1]!];
  const length = Math.hypot(dx, dy);
  return length > 1e-9 ? [dx / length, dy / length] : null;
};
const startOf = (p: Float64Array, k: number): Point | null =>
  direction(p, k, k + 2) ?? direction(p, k, k + 4) ?? direction(p, k, k + 6);
const endOf = (p: Float64Array, k: number): Point | null =>
  direction(p, k + 4, k + 6) ?? direction(p, k + 2, k + 6) ?? direction(p, k, k + 6);

/** The tip of the mitre of a corner, from its point, for a pen that reaches 1 to each side; null for one beyond the limit. */
const mitreTip = ([ax, ay]: Point, [bx, by]: Point, limit: number): Point | null => {
  // The ratio of a mitre is 1 / sin(half of the corner's angle); SVG 2, 13.5.6.
  const along = 1 + ax * bx + ay * by;
  if (along < 1e-9 || Math.sqrt(2 / along) > limit) return null;
  // Outside is to the left of a way that turns to the right.
  const out = ax * by - ay * bx > 0 ? 1 : -1;
  return [(out * (ay + by)) / along, (-out * (ax + bx)) / along];
};

const extentOf = (outline: Outline, pen: Pen, m: Matrix): Box => {
  const { points: p, closed } = outline;
  const { cap, join } = pen;
  const half = pen.width / 2;
  const count = cubicCount(outline);
  const extent = new Extent(m);
  // A square cap reaches furthest at its corners, and may lie in any direction where a dash ends on a curve.
  const capReach = half * (cap === 'square' ? Math.SQRT2 : cap === 'round' ? 1 : 0);
  const isDashed = pen.dashes.length > 0;
  if (count === 0) extent.point(p[0]!, p[1]!, capReach);

  for (let i = 0; i < count; i++) {
    const k = i * 6;
    const line = isLine(p, i) ? startOf(p, k) : null;
    if (!line) extent.cubic(p, k, Math.max(half, isDashed ? capReach : 0));
    else {
      const [nx, ny] = [line[1] * half, -line[0] * half];
      for (const at of [k, k + 6]) {
        extent.point(p[at]! + nx, p[at + 1]! + ny);
        extent.point(p[at]! - nx, p[at + 1]! - ny);
      }
    }
    // How it begins, and how it goes on.
    if (isDashed || (!closed && i === 0)) extent.point(p[k]!, p[k + 1]!, capReach);
    if (isDashed || (!closed && i === count - 1)) extent.point(p[k + 6]!, p[k + 7]!, capReach);
    if (!closed && i === count - 1) break;
    const next = ((i + 1) % count) * 6;
    const [before, after] = [endOf(p, k), startOf(p, next)];
    if (join === 'round') extent.point(p[next]!, p[next + 1]!, half);
    if (join !== 'miter') continue;
    // What is left of a curve between dashes may begin in another direction, and have a mitre where all of it has none.
    if (isDashed && !(line && isLine(p, next / 6))) extent.point(p[next]!, p[next + 1]!, half * pen.miterLimit);
    const tip = before && after && mitreTip(before, after, pen.miterLimit);
    if (tip) extent.point(p[next]! + tip[0] * half, p[next + 1]! + tip[1] * half);
  }
  return extent.box;
};

const ownExtent = lastMade<Outline, Box>();
const ownBox = (outline: Outline, pen: Pen): Box => {
  const by = [pen.width, pen.cap, pen.join, pen.miterLimit, pen.dashes.length > 0];
  return ownExtent(outline, by, () => extentOf(outline, pen, IDENTITY));
};

/**
 * The box of outlines drawn by a pen, through a matrix: nothing is outside of it; null for none. It is tight but for curves that
 * begin or end flat and for square caps that slant, where it may be wider by 0.7 of the pen's width, and for what gaps between
 * dashes leave out.
 */
export const boxOfStroke = (m: Matrix, outlines: readonly Outline[], pen: Pen): Box | null =>
  boxOfParts(
    m,
    outlines,
    (outline) => ownBox(outline, pen),
    (outline) => extentOf(outline, pen, m),
  );
