import { degrees, number, point, px } from '../../document/params';
import { polygon as through } from '../../geometry/outline';
import { short, source } from '../types';
import { onCircle } from './polygon';

/** Tips and notches in turn, the first tip at the top. */
export const star = source({
  kind: 'star',
  label: 'Star',
  params: {
    points: number('Points', 5, { min: 2, max: 200, step: 0.1 }),
    outer: px('Outer', 100, { min: 0 }),
    inner: px('Inner', 45, { min: 0 }),
    rotation: degrees('Turn', 0),
    centre: point('Centre', [0, 0]),
  },
  summary: (v) => `${Math.round(v.points)} points, ${short(v.outer)} / ${short(v.inner)}`,
  outlines: ({ points, outer, inner, rotation, centre }) => {
    const count = Math.round(points) * 2;
    return [
      through(
        Array.from({ length: count }, (_, i) =>
          onCircle(centre, i % 2 === 0 ? outer : inner, rotation + (i * 360) / count),
        ),
      ),
    ];
  },
});
