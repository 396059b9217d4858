import { choice, number, percent } from '../../document/params';
import { scaling } from '../../geometry/matrix';
import { throughBoth } from '../../geometry/through';
import { marksThrough } from '../marksThrough';
import { faded } from '../marks';
import { workOfMarks } from '../room';
import { type Mark, short, step } from '../types';

/** Earlier pictures of one thing. */
export const MOST_EARLIER = 200;

/** What is above it as it was some frames ago, and where its layer was then: once or several times, behind it or in front. */
export const trail = step({
  kind: 'trail',
  label: 'Trail',
  params: {
    count: number('Earlier pictures', 5, { min: 0, max: MOST_EARLIER, whole: true }),
    every: number('Apart', 2, { unit: 'frames', min: 0.1, max: 1_000, step: 0.1 }),
    opacity: percent('Fade to', 0),
    scale: percent('Scale to', 1, { max: 10 }),
    order: choice(
      'Earlier ones',
      [
        { value: 'behind', label: 'Behind' },
        { value: 'in-front', label: 'In front' },
      ],
      'behind',
    ),
  },
  summary: (v) => `${short(v.count)} at ${short(v.every)} frames`,
  // It shows how its layer moves.
  byFrame: () => true,
  onDrawn: true,
  example: { every: 1 },
  apply: (above, { count, every, opacity, scale, order }) => {
    const now = above.at(above.frame);
    const earlier: Mark[][] = [];
    const steps = Math.round(count);
    for (let i = 1; i <= steps; i++) {
      const then = above.frame - i * every;
      const { marks } = above.at(then);
      if (!above.take(marks.length, 1 + workOfMarks(marks))) break;
      const share = i / (steps + 1);
      const size = 1 + (scale - 1) * share;
      const m = throughBoth(above.since(then), scaling(size));
      earlier.push([...faded(marksThrough(m, marks), 1 + (opacity - 1) * share)]);
    }
    // The earliest lies farthest from what is there now.
    const marks = order === 'behind' ? [...earlier.reverse().flat(), ...now.marks] : [...now.marks, ...earlier.flat()];
    return { ...now, marks };
  },
});
