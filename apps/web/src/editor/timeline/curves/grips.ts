/** Where the grips of handles stand, so that each can be seen and seized. */
import type { Point } from '@kite/core/document/types';

/** Between the middles of grips, and of beads, in pixels. */
export const APART = 12;

export interface Tip {
  /** Where the handle ends. */
  readonly tip: Point;
  /** The bead that it belongs to. */
  readonly bead: Point;
  /** Which way it points along time. */
  readonly way: 1 | -1;
}

const isNear = ([ax, ay]: Point, [bx, by]: Point): boolean => Math.hypot(ax - bx, ay - by) < APART - 1e-6;

/** Points by columns as wide as they are to be apart: what is near one is in its column or in those beside it. */
class Columns {
  private readonly columns = new Map<number, Point[]>();

  add(point: Point): void {
    const column = Math.floor(point[0] / APART);
    const there = this.columns.get(column);
    if (there) there.push(point);
    else this.columns.set(column, [point]);
  }

  /** Beside what is there: on its line where there is room, else above and below, ever further. */
  besides([x, y]: Point): Point {
    const column = Math.floor(x / APART);
    const around = [-1, 0, 1].flatMap((by) => this.columns.get(column + by) ?? []);
    for (let n = 0; ; n++) {
      for (const side of n === 0 ? [0] : [-1, 1]) {
        const at: Point = [x, y + side * n * APART];
        if (!around.some((other) => isNear(other, at))) return at;
      }
    }
  }
}

/**
 * A place for the grip of each handle, in pixels: at its tip, as long as no bead and no other grip is there. One of no length
 * stands beside its bead, on its side; of two at one place the later goes above or below.
 */
export const gripsOf = (tips: readonly Tip[], beads: readonly Point[]): readonly Point[] => {
  const taken = new Columns();
  for (const bead of beads) taken.add(bead);
  return tips.map(({ tip, bead, way }) => {
    const beside: Point = isNear(tip, bead) ? [bead[0] + way * APART, tip[1]] : tip;
    const grip = taken.besides(beside);
    taken.add(grip);
    return grip;
  });
};
