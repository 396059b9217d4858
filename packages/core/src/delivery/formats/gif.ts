import { choice, color, number, text } from '../../document/params';
import type { Rate } from '../../document/types';
import { framesPerSecond } from '../../time/rate';
import { isOpaque } from '../opaque';
import { budget, hold, plays, stays } from '../params';
import { formatKind, type Lighter } from '../types';

/** GIF delays are whole hundredths of a second, and players slow down what is under two of them. */
const FASTEST: Rate = { num: 50, den: 1 };

const SINGLE_HUNDREDTHS =
  'Pictures stay for hundredths of a second, exactly; one of a single hundredth is left out, since players cannot show it.';

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
        { value: 'own', label: 'Colours of its own' },
      ],
      'global',
    ),
    inks: text('Its colours', '', { most: 2_100, lines: 'one', form: 'colors', when: ['palette', 'own'] }),
    colors: number('Colours', 256, { min: 2, max: 256, whole: true, when: ['palette', 'global', 'local'] }),
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
    stays,
    budget: budget('Weight at most', 0),
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
    // What stays for some hundredths of a second does so exactly; each by itself is for the encoder to join.
    const isExact = framesPerSecond(wanted) === 100;
    const rate = tooFast && !isExact ? FASTEST : wanted;
    const notes = tooFast
      ? [isExact ? SINGLE_HUNDREDTHS : 'GIF players cannot show more than 50 frames a second: made at 50.']
      : [];
    if ((100 * rate.den) % rate.num !== 0) {
      notes.push(
        'GIF delays are whole hundredths of a second, so this rate cannot be exact frame by frame; delays alternate and the whole length is right.',
      );
    }
    return { rate, notes };
  },
  check: (_plan, { palette, inks }) => {
    if (palette === 'own' && inks === '')
      throw new RangeError('A palette of its own has to have colours: type some, or take the swatches');
  },
  lighter: ({ colors, dither, palette }, { rate }) => lighterGifs(palette === 'own' ? null : colors, dither, rate),
  shownAs: 'image',
});

/** Fewer colours first, which are hardly seen; then no dithering, fewer frames, and a smaller picture. */
const lighterGifs = (colors: number | null, dither: string, rate: Rate): readonly Lighter[] => {
  const fewer = [128, 64, 32, 16].filter((n) => colors !== null && n < colors);
  const least = fewer.at(-1) ?? colors;
  const inks: Lighter['settings'] = least === null ? {} : { colors: least };
  const named = least === null ? '' : `${least} colours, `;
  const plain: Lighter['settings'] = { ...inks, dither: 'none' };
  const slower = (times: number) => ({ num: rate.num, den: rate.den * times });
  const fps = (times: number) => `${(framesPerSecond(rate) / times).toFixed(1).replace('.0', '')} frames a second`;
  return [
    ...fewer.map((n) => ({ says: `${n} colours`, settings: { colors: n } })),
    ...(dither === 'none' ? [] : [{ says: `${named}no dithering`, settings: plain }]),
    { says: `${named}no dithering, ${fps(2)}`, settings: { ...plain, rate: slower(2) } },
    { says: `${named}no dithering, ${fps(2)}, at 75 %`, settings: { ...plain, rate: slower(2), scale: 0.75 } },
    { says: `${named}no dithering, ${fps(2)}, at 50 %`, settings: { ...plain, rate: slower(2), scale: 0.5 } },
    { says: `${named}no dithering, ${fps(3)}, at 33 %`, settings: { ...plain, rate: slower(3), scale: 0.33 } },
  ];
};

/** The delay of each GIF frame in hundredths: their sum is the exact length, rounded once, and `more` seconds for each. */
export const gifDelays = (count: number, rate: Rate, more: readonly number[] = []): number[] => {
  const until = (n: number) => Math.round((n * 100 * rate.den) / rate.num);
  return Array.from({ length: count }, (_, i) => until(i + 1) - until(i) + Math.round((more[i] ?? 0) * 100));
};
