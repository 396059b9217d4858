import { choice } from '../../document/params';
import type { Rate } from '../../document/types';
import { framesPerSecond } from '../../time/rate';
import { plays } from '../params';
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
    loop: plays,
  },
  transparent: true,
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

/** The delay of each GIF frame in hundredths; their sum is the exact length, rounded once. */
export const gifDelays = (count: number, rate: Rate): number[] => {
  const until = (n: number) => Math.round((n * 100 * rate.den) / rate.num);
  return Array.from({ length: count }, (_, i) => until(i + 1) - until(i));
};
