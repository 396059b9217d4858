/** Where painting goes to. */
import type { CutOut, PictureAsset } from '../document/types';
import type { Box } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import type { Mark } from '../recipe/types';
import type { Context2D, Surface, SurfacePool } from './surface';

/** Pictures that have been read, as what drawImage takes; null for one that is not here (yet). */
export interface Pictures {
  readonly get: (asset: PictureAsset, cut: CutOut | null) => unknown;
}
export const NO_PICTURES: Pictures = { get: () => null };

/** What painting needs besides a target. */
export interface Tools {
  readonly pool: SurfacePool;
  readonly pictures: Pictures;
}

export interface Target {
  readonly context: Context2D;
  /** The pixels that may be drawn to. */
  readonly clip: Box;
  /** Those of them that no clip of the context's own cuts. */
  readonly open: Box;
  /** From the scene's pixels to the target's. */
  readonly view: Matrix;
  readonly tools: Tools;
}

/** All of a surface without clips, as a target. */
export const targetOf = (
  { context }: Pick<Surface, 'context'>,
  width: number,
  height: number,
  view: Matrix,
  tools: Tools,
): Target => {
  const clip = { left: 0, top: 0, right: width, bottom: height };
  return { context, clip, open: clip, view, tools };
};

/** How marks are drawn: handed to what is drawn by marks in turn. */
export type DrawMarks = (target: Target, marks: readonly Mark[]) => void;
