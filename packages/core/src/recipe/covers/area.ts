/** The box that a cover stretches or bends: that of what is above it, or one of its own. */
import { choice, type Params, point, px, type Values } from '../../document/params';
import type { Box } from '../../geometry/bounds';

/** What a cover is of. */
export const AREA = {
  from: choice(
    'Of',
    [
      { value: 'own', label: 'What is above' },
      { value: 'area', label: 'An area' },
    ],
    'own',
  ),
  middle: point('Middle', [0, 0], { when: ['from', 'area'] }),
  width: px('Width', 200, { min: 0.01, max: 100_000, when: ['from', 'area'], beside: 'height' }),
  height: px('Height', 120, { min: 0.01, max: 100_000, when: ['from', 'area'] }),
} satisfies Params;

/** The box, by the values of these and the box of what is above; null for nothing, or one without a width or a height. */
export const boxOfArea = (own: Box | null, { from, middle, width, height }: Values<typeof AREA>): Box | null => {
  const [[x, y], w, h] = [middle, width / 2, height / 2];
  const box = from === 'own' ? own : { left: x - w, top: y - h, right: x + w, bottom: y + h };
  return box && box.right - box.left >= 1e-6 && box.bottom - box.top >= 1e-6 ? box : null;
};
