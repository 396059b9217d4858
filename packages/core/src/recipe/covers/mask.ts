import { choice, percent, px, switchParam } from '../../document/params';
import { areaCut, grouped } from '../marks';
import { grownOutlines } from '../steps/offset';
import { cover, type Cut, type GroupMark, type Mark } from '../types';
import { byBrightness } from './lightness';

const SAYS = {
  add: 'Shows what is inside',
  hide: 'Hides what is inside',
  show: 'Only what is inside, too',
  exclude: 'Hides where areas meet',
} as const;

/** The picture as the mask above has cut it: it is cut on by the same areas. */
const alreadyCut = ([first]: readonly Mark[]): GroupMark | null =>
  first?.op === 'group' && first.cuts && !first.effect ? first : null;

/**
 * Outlines of its own, or what its own cards draw, show or hide parts of what is drawn above it in its group; the outlines above
 * go on as they are. Masks right below each other make one area.
 */
export const mask = cover({
  kind: 'mask',
  label: 'Mask',
  params: {
    mode: choice(
      'Mask',
      [
        { value: 'add', label: 'Adds' },
        { value: 'hide', label: 'Takes away' },
        { value: 'show', label: 'Intersects' },
        { value: 'exclude', label: 'Excludes' },
      ],
      'add',
    ),
    by: choice(
      'Cuts by',
      [
        { value: 'outlines', label: 'Outlines' },
        { value: 'drawn', label: 'What is drawn' },
        { value: 'brightness', label: 'How bright it is' },
      ],
      'outlines',
    ),
    inverted: switchParam('Inverted', false),
    feather: px('Feather', 0, { min: 0, max: 1_000, step: 0.5, when: ['by', 'outlines'] }),
    grow: px('Grow', 0, { min: -5_000, max: 5_000, step: 0.5, when: ['by', 'outlines'] }),
    strength: percent('Strength', 1),
    crisp: switchParam('Edges between pixels', false, { when: ['by', 'outlines'] }),
  },
  holds: true,
  summary: ({ mode, inverted }) => SAYS[mode].replace('inside', inverted ? 'outside' : 'inside'),
  cover: (marks, { mode, by, inverted, feather, grow, strength, crisp }, { own, goesOn, room }) => {
    if (strength <= 0 && mode === 'hide') return marks;
    const before = goesOn ? alreadyCut(marks) : null;
    const joined = (cut: Cut) =>
      before ? [{ ...before, cuts: [...(before.cuts ?? []), cut] }] : [grouped(marks, { cuts: [cut] })];
    if (by !== 'outlines') {
      return joined({ marks: by === 'brightness' ? byBrightness(own.marks) : own.marks, mode, inverted, strength });
    }
    const outlines = own.shapes.flatMap((s) => s.outlines);
    const grown = grownOutlines(outlines, grow, 'round', 4, room);
    return joined(areaCut(grown, { mode, inverted, feather, strength, crisp }));
  },
});
