import { choice, number, px } from '../../document/params';
import type { Point } from '../../document/types';
import { along, arcLength } from '../../geometry/length';
import { smoothThrough, straightThrough } from '../../geometry/outline';
import { noiseOf } from '../noise';
import { short } from '../types';
import { shapeStep } from '../shapeStep';

const MOST_POINTS = 4_000;

/** Outlines through points of their own, each pushed about by seeded noise, which may drift as time goes on. */
export const roughen = shapeStep({
  kind: 'roughen',
  label: 'Roughen',
  params: {
    size: px('Size', 8, { min: 0, max: 2_000, step: 0.2 }),
    spacing: px('Spacing', 16, { min: 0.5, max: 2_000, step: 0.5 }),
    points: choice(
      'Points',
      [
        { value: 'smooth', label: 'Smooth' },
        { value: 'corner', label: 'Corners' },
      ],
      'smooth',
    ),
    change: number('Changes every', 0, { unit: 'frames', min: 0, max: 10_000, step: 0.5 }),
    seed: number('Seed', 1, { min: 0, max: 100_000 }),
  },
  summary: (v) => `${short(v.size)} px${v.change > 0 ? ', moving' : ''}`,
  byFrame: ({ size, change }) => size > 0 && change > 0,
  each: (outlines, { size, spacing, points, change, seed }, { frame, index }) => {
    if (size === 0) return outlines;
    const noise = noiseOf(seed);
    const time = change > 0 ? frame / change : 0;
    return outlines.map((outline, own) => {
      const total = arcLength(outline);
      const steps = Math.min(MOST_POINTS, Math.max(outline.closed ? 3 : 1, Math.round(total / spacing)));
      if (total < 1e-6) return outline;
      const moved: Point[] = Array.from({ length: outline.closed ? steps : steps + 1 }, (_, i) => {
        const { x, y } = along(outline, (i / steps) * total);
        // Noise is looked up far apart for each outline, and away from the origin, where it is 0.
        const at = [i * 0.9 + 31.7, (index * 17 + own) * 7.3 + 11.1] as const;
        return [x + size * noise(at[0], at[1], time + 3.3), y + size * noise(at[0], at[1] + 401.9, time + 3.3)];
      });
      return points === 'smooth' ? smoothThrough(moved, outline.closed) : straightThrough(moved, outline.closed);
    });
  },
});
