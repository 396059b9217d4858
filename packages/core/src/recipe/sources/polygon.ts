import { degrees, number, point, px } from '../../document/params';
import type { Point } from '../../document/types';
import { turn } from '../../geometry/matrix';
import { polygon as through } from '../../geometry/outline';
import { short, source } from '../types';

/** The point at an angle clockwise from the top. */
export const onCircle = (centre: Point, radius: number, angle: number): Point => {
  const [cos, sin] = turn(angle);
  return [centre[0] + radius * sin, centre[1] - radius * cos];
};

export const polygon = source({
  kind: 'polygon',
  label: 'Polygon',
  params: {
    sides: number('Sides', 6, { min: 3, max: 200, step: 0.1 }),
    radius: px('Radius', 100, { min: 0 }),
    rotation: degrees('Turn', 0),
    centre: point('Centre', [0, 0]),
  },
  summary: (v) => `${Math.round(v.sides)} sides, radius ${short(v.radius)}`,
  outlines: ({ sides, radius, rotation, centre }) => {
    const count = Math.round(sides);
    return [through(Array.from({ length: count }, (_, i) => onCircle(centre, radius, rotation + (i * 360) / count)))];
  },
});
