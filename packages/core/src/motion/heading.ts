import type { Point, Value } from '../document/types';

/** Frames over which a direction is measured. */
const ASIDE = 0.05;

/** The direction in which a point goes where it has no path to ask: from where it was to where it will be, in degrees. */
export const headingOf =
  (at: (frame: number) => Value) =>
  (frame: number): number | null => {
    const [p, q] = [at(frame - ASIDE) as Point, at(frame + ASIDE) as Point];
    const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
    return Math.hypot(dx, dy) < 1e-9 ? null : (Math.atan2(dy, dx) * 180) / Math.PI;
  };
