/**
 * What drawing a scene costs in pixels, counted in pixels of the scene: every mark covers so many, groups that are
 * drawn by themselves need surfaces to hold them, and pictures have to be decoded, each once.
 */
import { FAR } from '../document/params';
import { type Box, intersection } from '../geometry/bounds';
import { isGrained, markBox } from '../recipe/marks';
import { pictureKey } from '../picture/key';
import type { Cut, Mark, PictureMark } from '../recipe/types';

/** Pixels that may be covered in one frame, each as often as it is covered. */
export const MOST_PIXELS = 4_000_000_000;
/** Pixels of surfaces that lie within each other at one time: four bytes each. */
export const MOST_HELD = 200_000_000;

/** What covering a pixel costs beside a plain fill. */
const WEIGHT = { fill: 1, stroke: 1, picture: 3, surface: 4, decoding: 4, effect: 20 } as const;

interface Tally {
  /** What covering a pixel by all of them costs. */
  readonly weight: number;
  readonly depth: number;
  /** Pixels of pictures, each as often as it is drawn. */
  readonly decoded: number;
}

const NONE: Tally = { weight: 0, depth: 0, decoded: 0 };

const pixelsOf = ({ asset }: PictureMark): number => asset.width * asset.height;

/** The cuts of a group, each of which may be drawn on a surface of its own. */
const cutsOf = (mark: Mark): readonly Cut[] => (mark.op === 'group' && mark.cuts) || [];
/** Marks that others are cut by. */
const marksOfCuts = (mark: Mark): readonly Mark[] => cutsOf(mark).flatMap((cut) => ('marks' in cut ? cut.marks : []));
/** Surfaces that cuts need beside the picture: for the area so far, for one more, and for its soft edge. */
const heldByCuts = (mark: Mark): number => (cutsOf(mark).some(isSoft) ? 3 : cutsOf(mark).length > 1 ? 1 : 0);
const isSoft = (cut: Cut): boolean => cut.inverted || !('outlines' in cut) || cut.feather > 0;
/** Whether its area is found pixel by pixel. */
const isMade = (cut: Cut): boolean => 'growth' in cut || ('feather' in cut && cut.feather > 0);

/** Whether a mark is drawn on a surface of its own. */
const hasSurface = (mark: Mark): boolean =>
  mark.op === 'group'
    ? mark.alpha < 1 || mark.blend !== 'normal' || Boolean(mark.cuts ?? mark.effect ?? mark.bend)
    : 'ink' in mark && isGrained(mark.ink);

/** What it costs for each pixel that it covers, besides what stands in it. */
const weightOf = (mark: Mark): number => {
  // Noise is laid over all pixels, which are read to see through them.
  if (mark.op !== 'group') return WEIGHT[mark.op] + (hasSurface(mark) ? WEIGHT.effect : 0);
  if (!hasSurface(mark)) return 0;
  const effects = (mark.effect || mark.bend ? 1 : 0) + cutsOf(mark).filter(isMade).length;
  return WEIGHT.surface * (1 + cutsOf(mark).length) + WEIGHT.effect * effects;
};

const tally = (marks: readonly Mark[]): Tally =>
  marks.reduce<Tally>((sum, mark) => {
    const inner = mark.op === 'group' ? tally(mark.cuts ? [...mark.marks, ...marksOfCuts(mark)] : mark.marks) : NONE;
    return {
      weight: sum.weight + weightOf(mark) + inner.weight,
      depth: Math.max(sum.depth, inner.depth + (hasSurface(mark) ? 1 : 0) + heldByCuts(mark)),
      decoded: sum.decoded + inner.decoded + (mark.op === 'picture' ? pixelsOf(mark) : 0),
    };
  }, NONE);

const EVERYWHERE: Box = { left: -FAR, top: -FAR, right: FAR, bottom: FAR };

const areaOf = (mark: Mark, scene: Box): number => {
  const box = markBox(mark);
  const seen = box && intersection(box, scene);
  return seen ? (seen.right - seen.left) * (seen.bottom - seen.top) : 0;
};

/** What a mark covers and holds, and decodes besides what `decoded` names already. */
const weigh = (mark: Mark, scene: Box, decoded: Set<string>): { covered: number; held: number } => {
  const area = areaOf(mark, scene);
  if (mark.op !== 'group') {
    let covered = area * weightOf(mark);
    const key = mark.op === 'picture' && pictureKey(mark.asset, mark.cut);
    if (key && !decoded.has(key)) {
      decoded.add(key);
      covered += pixelsOf(mark) * WEIGHT.decoding;
    }
    return { covered, held: hasSurface(mark) ? area : 0 };
  }
  const own = hasSurface(mark) ? area : 0;
  // What is mapped is drawn in pixels of its own, wherever it comes to lie.
  const inside = mark.bend ? EVERYWHERE : scene;
  let covered = own * weightOf(mark);
  let held = own * heldByCuts(mark);
  const add = (inner: Mark, beside: number): void => {
    const weight = weigh(inner, inside, decoded);
    covered += weight.covered;
    held = Math.max(held, beside + weight.held);
  };
  for (const inner of mark.marks) add(inner, 0);
  for (const inner of marksOfCuts(mark)) add(inner, own * heldByCuts(mark));
  return { covered, held: held + own };
};

/** How many of the marks, from the first, one frame has room for: all of them, but in the largest of scenes. */
export const marksWithin = (marks: readonly Mark[], width: number, height: number): number => {
  const area = width * height;
  const { weight, depth, decoded } = tally(marks);
  // Even if each covered the whole scene: there is nothing to measure.
  const most = weight * area + decoded * WEIGHT.decoding;
  if (most <= MOST_PIXELS && depth * area <= MOST_HELD) return marks.length;
  const scene: Box = { left: 0, top: 0, right: width, bottom: height };
  const seen = new Set<string>();
  let covered = 0;
  for (const [i, mark] of marks.entries()) {
    const weight = weigh(mark, scene, seen);
    covered += weight.covered;
    if (covered > MOST_PIXELS || weight.held > MOST_HELD) return i;
  }
  return marks.length;
};
