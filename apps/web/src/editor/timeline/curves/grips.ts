/** Where the grips of handles stand, so that each can be seen and seized. */
import type { Point } from '@kite/core/document/types';

/** Between the middles of grips, and of beads, in pixels. */
const APART = 12;

export interface Tip {
  /** Where the handle ends. */
  readonly tip: Point;
  /** The bead that it belongs to. */
  readonly bead: Point;
  /** Which way it points along time. */
  readonly way: 1 | -1;
}

const isNear = ([ax, ay]: Point, [bx, by]: Point): boolean => Math.hypot(ax - bx, ay - by) < APART - 1e-6;

/** Beside what is there already: on its line where there is room, else above and below, ever further. */
const besides = ([x, y]: Point, taken: readonly Point[]): Point => {
  for (let n = 0; ; n++) {
    for (const side of n === 0 ? [0] : [-1, 1]) {
      const at: Point = [x, y + side * n * APART];
      if (!taken.some((other) => isNear(other, at))) return at;
    }
  }
};

/**
 * A place for the grip of each handle, in pixels: at its tip, as long as no bead and no other grip is there. One of no length
 * stands beside its bead, on its side; of two at one place the later goes above or below.
 */
export const gripsOf = (tips: readonly Tip[], beads: readonly Point[]): readonly Point[] => {
  const taken: Point[] = [...beads];
  return tips.map(({ tip, bead, way }) => {
    const beside: Point = isNear(tip, bead) ? [bead[0] + way * APART, tip[1]] : tip;
    const grip = besides(beside, taken);
    taken.push(grip);
    return grip;
  });
};
