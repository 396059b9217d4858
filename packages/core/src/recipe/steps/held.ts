import { number } from '../../document/params';
import { short, step } from '../types';

/** Every so many frames a new picture, held until the next: what is above it, as it was then. */
export const held = step({
  kind: 'held',
  label: 'Held frames',
  params: { every: number('Every', 2, { unit: 'frames', min: 1, max: 1_000, whole: true }) },
  summary: (v) => `every ${short(v.every)} frames`,
  onDrawn: true,
  apply: (above, { every }) => {
    const length = Math.max(1, Math.round(every));
    return above.at(Math.floor(above.frame / length) * length);
  },
});
