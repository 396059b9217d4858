/**
 * What drawing a scene costs in pixels, counted in pixels of the scene: every mark covers so many, and groups that are
 * drawn by themselves need surfaces to hold them.
 */
import { type Box, intersection } from '../geometry/bounds';
import { markBox } from '../recipe/marks';
import type { Mark } from '../recipe/types';

/** Pixels that may be covered in one frame, each as often as it is covered. */
export const MOST_PIXELS = 4_000_000_000;
/** Pixels of surfaces that lie within each other at one time: four bytes each. */
export const MOST_HELD = 200_000_000;

/** What covering a pixel costs beside a plain fill. */
const WEIGHT = { fill: 1, stroke: 1, picture: 3, surface: 4 } as const;
const HEAVIEST = 4;

interface Tally {
  readonly marks: number;
  readonly depth: number;
}

const NONE: Tally = { marks: 0, depth: 0 };

/** Whether a group is drawn on a surface of its own. */
const hasSurface = (mark: Mark): boolean =>
  mark.op === 'group' && (mark.alpha < 1 || mark.blend !== 'normal' || mark.clip !== undefined);

const tally = (marks: readonly Mark[]): Tally =>
  marks.reduce<Tally>((sum, mark) => {
    const inner = mark.op === 'group' ? tally(mark.marks) : NONE;
    return {
      marks: sum.marks + 1 + inner.marks,
      depth: Math.max(sum.depth, inner.depth + (hasSurface(mark) ? 1 : 0)),
    };
  }, NONE);

const areaOf = (mark: Mark, scene: Box): number => {
  const box = markBox(mark);
  const seen = box && intersection(box, scene);
  return seen ? (seen.right - seen.left) * (seen.bottom - seen.top) : 0;
};

const weigh = (mark: Mark, scene: Box): { covered: number; held: number } => {
  const area = areaOf(mark, scene);
  if (mark.op !== 'group') return { covered: area * WEIGHT[mark.op], held: 0 };
  const own = hasSurface(mark) ? area : 0;
  let covered = own * WEIGHT.surface;
  let held = 0;
  for (const inner of mark.marks) {
    const weight = weigh(inner, scene);
    covered += weight.covered;
    held = Math.max(held, weight.held);
  }
  return { covered, held: held + own };
};

/** How many of the marks, from the first, one frame has room for: all of them, but in the largest of scenes. */
export const marksWithin = (marks: readonly Mark[], width: number, height: number): number => {
  const area = width * height;
  const { marks: count, depth } = tally(marks);
  // Even if each covered the whole scene: there is nothing to measure.
  if (count * HEAVIEST * area <= MOST_PIXELS && depth * area <= MOST_HELD) return marks.length;
  const scene: Box = { left: 0, top: 0, right: width, bottom: height };
  let covered = 0;
  for (const [i, mark] of marks.entries()) {
    const weight = weigh(mark, scene);
    covered += weight.covered;
    if (covered > MOST_PIXELS || weight.held > MOST_HELD) return i;
  }
  return marks.length;
};
