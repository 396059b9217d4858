/** Settings that several formats have. */
import { choice, number } from '../document/params';

export const plays = number('Plays', 0, { min: 0, max: 65_535, whole: true, hint: 'times; 0 is for ever' });

export const quality = choice(
  'Quality',
  [
    { value: 'draft', label: 'Draft, small' },
    { value: 'good', label: 'Good' },
    { value: 'best', label: 'Best, large' },
  ],
  'good',
);
