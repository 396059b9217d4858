import { px } from '../../document/params';
import { inSquares } from '../../picture/places';
import { short } from '../types';
import { effect } from './effect';

/** Squares, each in the mean colour of what it covers. */
export const pixelate = effect({
  kind: 'pixelate',
  label: 'Squares',
  params: { side: px('Side', 16, { min: 1, max: 1_000 }) },
  summary: (v) => `${short(v.side)} px`,
  effect: ({ side }) =>
    side <= 1
      ? null
      : {
          reach: side,
          pixels: (data, width, height, { scale, origin }) => inSquares({ data, width, height }, side * scale, origin),
          svg: () => null,
        },
});
