import { choice, layer, percent, switchParam } from '../../document/params';
import { grouped } from '../marks';
import { cover } from '../types';
import { byBrightness } from './lightness';

/** What another layer of the scene shows cuts what is drawn above: where that is, or where it is bright, this shows. */
export const matte = cover({
  kind: 'matte',
  label: 'Matte',
  params: {
    layer: layer('Layer'),
    by: choice(
      'Cuts by',
      [
        { value: 'alpha', label: 'What it covers' },
        { value: 'brightness', label: 'How bright it is' },
      ],
      'alpha',
    ),
    inverted: switchParam('Inverted', false),
    strength: percent('Strength', 1),
  },
  summary: ({ layer: by, inverted }, nameOf) =>
    by === '' ? 'No layer yet' : `${inverted ? 'Outside' : 'Inside'} “${nameOf(by)}”`,
  cover: (marks, { layer: by, by: how, inverted, strength }, { shown }) => {
    const picture = by === '' ? null : shown(by);
    if (!picture) return marks;
    const cutting = how === 'brightness' ? byBrightness(picture) : picture;
    return [grouped(marks, { cuts: [{ marks: cutting, mode: 'show', inverted, strength }] })];
  },
});
