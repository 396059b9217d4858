/** In which order the parts of something have their turns, as parameters. */
import { choice, number } from '../document/params';

export const order = choice(
  'Order',
  [
    { value: 'list', label: 'Forward' },
    { value: 'reversed', label: 'Backward' },
    { value: 'centre', label: 'From the middle' },
    { value: 'edges', label: 'From the ends' },
    { value: 'random', label: 'At random' },
  ],
  'list',
);
export const seed = number('Seed', 1, { min: 0, max: 100_000, whole: true, when: ['order', 'random'] });
/** Frames from one turn to the next; of fewer than none the last comes first. */
export const framesApart = (frames: number) =>
  number('Apart', frames, { unit: 'frames', min: -1_000, max: 1_000, step: 0.1, still: true });
