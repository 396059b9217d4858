/**
 * What one frame may cost, counted from the document alone, so that a picture is the same on every machine. The unit of
 * work is about one segment of an outline made and drawn; what is beyond is left out, and told.
 */
import { thousands } from '../document/text';
import type { Id } from '../document/types';
import type { Outline } from '../geometry/outline';
import { IDENTITY, type Matrix } from '../geometry/matrix';
import type { Through } from '../geometry/through';
import type { Cut, Flow, Mark } from './types';

/** The most shapes and marks that repeaters may make in one drawing in one frame. */
export const MOST_SHAPES = 20_000;
/** The most work in one drawing in one frame, and in a whole scene with all that it nests. */
export const MOST_WORK = 1_000_000;

/** Why something was left out. */
export type Shortage = 'copies' | 'work' | 'areas';

export const SHORTAGES: { readonly [S in Shortage]: string } = {
  copies: `makes more than ${thousands(MOST_SHAPES)} copies in one frame; the rest is left out`,
  work: 'is too intricate for one frame; the rest of it is left out',
  areas: 'has outlines too intricate to be combined or offset; they are left as they are',
};

/** What a recipe stands in, and may ask while it is evaluated. */
export interface Around {
  /**
   * What another layer shows at a frame, in the pixels of the recipe's own, and what that took; or why it shows nothing, as
   * what is said of a layer.
   */
  readonly picture: (layer: Id, frame: number) => Picture | string;
  /** What lies behind the recipe's layer at a frame, in its pixels. */
  readonly behind: (frame: number, background: boolean) => Picture;
  /** From the pixels of the recipe's layer at one frame to those at another. */
  readonly since: (then: number, now: number) => Through;
}
/** Marks, and what they took. */
export interface Picture {
  readonly marks: readonly Mark[];
  readonly work: number;
}
/** What is asked by recipes that stand in no scene. */
export const ALONE: Around = {
  picture: () => 'names a layer that is gone',
  behind: () => ({ marks: [], work: 0 }),
  since: () => IDENTITY,
};

/** What one evaluation of a recipe may still use. */
export interface Room {
  readonly around: Around;
  /** From the pixels of the group that is being evaluated to the recipe's. */
  place: Matrix;
  shapes: number;
  work: number;
  /** Set once something had to be left out. */
  short: Shortage | null;
  /** What cards found wrong, each once. */
  readonly told: string[];
}
export const newRoom = (around: Around = ALONE): Room => ({
  around,
  place: IDENTITY,
  shapes: MOST_SHAPES,
  work: MOST_WORK,
  short: null,
  told: [],
});

/** The most that is told of one recipe in one frame. */
export const MOST_TOLD = 20;

export const tell = ({ told }: Room, message: string): void => {
  if (told.length < MOST_TOLD && !told.includes(message)) told.push(message);
};

/** Whether something more was wanted than there is room for. */
export const isFull = ({ short }: Room): boolean => short === 'copies' || short === 'work';

/** Takes room for so many shapes; false where there is none left, for good. */
export const takeShapes = (room: Room, count: number): boolean => {
  if (isFull(room)) return false;
  if (count > room.shapes) {
    room.short = 'copies';
    return false;
  }
  room.shapes -= count;
  return true;
};

/** Takes room for so much work; false where there is none left, for good. */
export const takeWork = (room: Room, work: number): boolean => {
  if (room.short === 'work') return false;
  if (work > room.work) {
    room.short = 'work';
    return false;
  }
  room.work -= work;
  return true;
};

/** The most work with areas in one step: about a second. */
const MOST_WORK_WITH_AREAS = 250_000;

/** Takes room for work with areas; false where it is too much, and the areas are to be left as they are. */
export const takeAreas = (room: Room, work: number): boolean => {
  if (work <= MOST_WORK_WITH_AREAS && takeWork(room, work)) return true;
  room.short ??= 'areas';
  return false;
};

/** What an outline costs besides its segments. */
const PER_OUTLINE = 4;
const PER_MARK = 20;
/** A stroke has two sides and its joins. */
const PER_SEGMENT_OF_STROKE = 4;

export const workOf = (outlines: readonly Outline[]): number => {
  let work = 0;
  for (const { points } of outlines) work += PER_OUTLINE + points.length / 6;
  return Math.round(work);
};

/** What it costs to find out how intricate outlines are. */
export const workOfLooking = (outlines: readonly Outline[]): number => workOf(outlines) * 2;

/** The length of the lines between the ends of an outline's segments: near enough to count dashes by. */
const roughLength = ({ points: p }: Outline): number => {
  let length = 0;
  for (let k = 0; k + 7 < p.length; k += 6) length += Math.hypot(p[k + 6]! - p[k]!, p[k + 7]! - p[k + 1]!);
  return length;
};

const dashCount = (outlines: readonly Outline[], dashes: readonly number[]): number => {
  const pattern = dashes.reduce((sum, d) => sum + d, 0);
  if (dashes.length === 0 || pattern <= 0) return 0;
  return (outlines.reduce((sum, o) => sum + roughLength(o), 0) / pattern) * dashes.length;
};

const workOfCut = (cut: Cut): number => {
  if ('marks' in cut) return PER_MARK + workOfMarks(cut.marks);
  return PER_MARK + ('growth' in cut ? workOfMarks(cut.growth.through) : workOf(cut.outlines));
};

/** What a mark costs, with all that stands in it. */
export const workOfMark = (mark: Mark): number => {
  switch (mark.op) {
    case 'picture':
      return PER_MARK;
    case 'fill':
      return PER_MARK + workOf(mark.outlines);
    case 'stroke':
      return (
        PER_MARK + workOf(mark.outlines) * PER_SEGMENT_OF_STROKE + Math.ceil(dashCount(mark.outlines, mark.dashes))
      );
    case 'group':
      return (mark.cuts ?? []).reduce((sum, cut) => sum + workOfCut(cut), PER_MARK + workOfMarks(mark.marks));
  }
};

/** What marks cost, together. */
export const workOfMarks = (marks: readonly Mark[]): number => marks.reduce((sum, mark) => sum + workOfMark(mark), 0);

/** What a copy of a flow costs: one of nothing too, or nested copies of nothing would go on for ever. */
export const workOfCopy = ({ shapes, marks }: Flow): number =>
  shapes.reduce((sum, { outlines }) => sum + workOf(outlines), 1 + workOfMarks(marks));
