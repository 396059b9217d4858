/** Settings that several formats have. */
import { choice, number, text } from '../document/params';

export const plays = number('Plays', 0, { min: 0, max: 65_535, whole: true, hint: 'times; 0 is for ever' });

/** Of what plays over and over. */
export const hold = number('Last stays', 0, {
  min: 0,
  max: 60,
  step: 0.1,
  hint: 'seconds longer, before it plays again',
});

/** Frames of the scene that stay longer than the others. */
export const stays = text('Frames that stay', '', {
  most: 500,
  lines: 'one',
  form: 'stays',
  hint: 'frame: seconds, of the scene',
});

/** What a file may weigh. */
export const budget = (label: string, kilobytes: number) =>
  number(label, kilobytes, { min: 0, max: 1_000_000, whole: true, hint: 'KB; 0 is as much as it takes' });

export const quality = choice(
  'Quality',
  [
    { value: 'draft', label: 'Draft, small' },
    { value: 'good', label: 'Good' },
    { value: 'best', label: 'Best, large' },
  ],
  'good',
);
