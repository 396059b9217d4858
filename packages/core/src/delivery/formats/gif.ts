import { choice, color } from '../../document/params';
import type { Rate } from '../../document/types';
import { framesPerSecond } from '../../time/rate';
import { isOpaque } from '../opaque';
import { hold, plays } from '../params';
import { formatKind } from '../types';

/** GIF delays are whole hundredths of a second, and players slow down what is under two of them. */
const FASTEST: Rate = { num: 50, den: 1 };

export const gif = formatKind({
  format: 'gif',
  label: 'Animated GIF',
  about: 'Plays where only pictures are allowed. At most 256 colours.',
  extension: 'gif',
  mime: 'image/gif',
  span: 'range',
  params: {
    palette: choice(
      'Palette',
      [
        { value: 'global', label: 'One for all' },
        { value: 'local', label: 'One for each frame' },
      ],
      'global',
    ),
    dither: choice(
      'Dithering',
      [
        { value: 'none', label: 'None' },
        { value: 'ordered', label: 'Ordered' },
        { value: 'diffuse', label: 'Diffused' },
      ],
      'diffuse',
    ),
    edge: choice(
      'See-through',
      [
        { value: 'mixed', label: 'Mixed with a colour' },
        { value: 'dithered', label: 'Dithered' },
        { value: 'hard', label: 'Hard edges' },
        { value: 'none', label: 'Not at all' },
      ],
      'mixed',
    ),
    ground: color('Ground', '#FFFFFF', { when: ['edge', 'mixed', 'none'] }),
    loop: plays,
    hold,
  },
  transparent: true,
  idle: (scene) => (isOpaque(scene) ? ['edge', 'ground'] : []),
  notes: (scene, { edge, ground }) => {
    if (isOpaque(scene)) return [];
    if (edge === 'mixed')
      return [
        `GIF pixels show or do not: soft edges and fades are mixed with ${ground}, and look right on that ground alone.`,
      ];
    if (edge === 'hard') return ['GIF pixels show or do not: soft edges become hard, and fades jump.'];
    return edge === 'none' ? [`Drawn on ${ground}.`] : [];
  },
  rateFor: (wanted) => {
    const tooFast = framesPerSecond(wanted) > framesPerSecond(FASTEST);
    const rate = tooFast ? FASTEST : wanted;
    const notes = tooFast ? ['GIF players cannot show more than 50 frames a second: made at 50.'] : [];
    if ((100 * rate.den) % rate.num !== 0) {
      notes.push(
        'GIF delays are whole hundredths of a second, so this rate cannot be exact frame by frame; delays alternate and the whole length is right.',
      );
    }
    return { rate, notes };
  },
  shownAs: 'image',
});

/** The delay of each GIF frame in hundredths; their sum is the exact length, rounded once, and `hold` seconds for the last. */
export const gifDelays = (count: number, rate: Rate, hold = 0): number[] => {
  const until = (n: number) => Math.round((n * 100 * rate.den) / rate.num);
  const longer = Math.round(hold * 100);
  return Array.from({ length: count }, (_, i) => until(i + 1) - until(i) + (i === count - 1 ? longer : 0));
};
