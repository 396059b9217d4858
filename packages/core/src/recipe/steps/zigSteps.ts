import { choice, px } from '../../document/params';
import type { Point } from '../../document/types';
import { along, arcLength } from '../../geometry/length';
import { smoothThrough, straightThrough } from '../../geometry/outline';
import { short } from '../types';
import { shapeStep } from '../shapeStep';

const MOST_STEPS = 4_000;

/** Steps to the left and to the right of the outline in turn, evenly spaced along it. */
export const zigSteps = shapeStep({
  kind: 'zigsteps',
  label: 'Zig-steps',
  params: {
    size: px('Size', 10, { min: -2_000, max: 2_000, step: 0.5 }),
    length: px('Step length', 24, { min: 0.5, max: 5_000, step: 0.5 }),
    points: choice(
      'Points',
      [
        { value: 'corner', label: 'Corners' },
        { value: 'smooth', label: 'Waves' },
      ],
      'corner',
    ),
  },
  summary: (v) => `${short(v.size)} px every ${short(v.length)}`,
  each: (outlines, { size, length, points }) => {
    if (size === 0) return outlines;
    return outlines.map((outline) => {
      const total = arcLength(outline);
      if (total < 1e-6) return outline;
      // A closed outline needs as many steps out as in.
      const wanted = Math.min(MOST_STEPS, Math.max(2, Math.round(total / length)));
      const steps = outline.closed ? wanted + (wanted % 2) : wanted;
      const moved: Point[] = Array.from({ length: outline.closed ? steps : steps + 1 }, (_, i) => {
        const { x, y, dx, dy } = along(outline, (i / steps) * total);
        const by = i % 2 === 0 ? size : -size;
        return [x + dy * by, y - dx * by];
      });
      return points === 'smooth' ? smoothThrough(moved, outline.closed) : straightThrough(moved, outline.closed);
    });
  },
});
