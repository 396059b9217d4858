/**
 * Strokes beyond what canvases can count. They stroke a curve by halving it until its error is below a quarter of a
 * pixel, in floats of 32 bits; from about two million pixels off, rounding alone is more than that, and each curve takes
 * as many halvings as there may be. (Measured: 4,000 curves took seven seconds.) There, curves are drawn as lines.
 */
import { boxThrough, type Box, grown, outlineBox, overlaps } from '../geometry/bounds';
import { cubicAt, linesFor } from '../geometry/flatten';
import type { Matrix } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';

const FAR = 2 ** 20;
const TOLERANCE = 0.1;
const MOST_LINES = { seen: 64, dashed: 8, unseen: 1 } as const;

/** How much the longer of a matrix's axes grows. */
const growth = (m: Matrix): number => Math.max(Math.hypot(m[0], m[1]), Math.hypot(m[2], m[3]));

/** Whether an outline reaches too far for its curves to be stroked as such. */
export const isFar = (outline: Outline, m: Matrix): boolean => {
  const { left, top, right, bottom } = outlineBox(outline);
  return Math.max(-left, -top, right, bottom) * growth(m) > FAR;
};

/** What of a target is seen, and how far a stroke reaches from its outline, in the outline's own pixels. */
export interface View {
  readonly matrix: Matrix;
  readonly clip: Box;
  readonly reach: number;
  readonly dashed: boolean;
}

/** The points to draw lines to in place of the cubic that starts at p[k]: one, where nothing of its stroke is seen. */
export const linesInstead = (p: Float64Array, k: number, { matrix, clip, reach, dashed }: View) => {
  const xs = [p[k]!, p[k + 2]!, p[k + 4]!, p[k + 6]!];
  const ys = [p[k + 1]!, p[k + 3]!, p[k + 5]!, p[k + 7]!];
  const box = { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  const seen = overlaps(boxThrough(matrix, grown(box, reach)), clip);
  // The dashes that are seen depend on the length of what is not.
  const most = MOST_LINES[seen ? 'seen' : dashed ? 'dashed' : 'unseen'];
  const lines = Math.min(most, linesFor(p, k, TOLERANCE / growth(matrix)));
  return Array.from({ length: lines }, (_, i) => cubicAt(p, k, (i + 1) / lines));
};
