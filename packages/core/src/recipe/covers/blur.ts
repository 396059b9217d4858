import { px } from '../../document/params';
import { blurPixels } from '../../picture/boxes';
import { effect } from '../effects';
import { short } from '../types';

/** A Gaussian blur: its amount is the deviation of the bell curve, as in CSS's blur(). */
export const blur = effect({
  kind: 'blur',
  label: 'Blur',
  params: { amount: px('Amount', 8, { min: 0, max: 500 }) },
  summary: (v) => `${short(v.amount)} px`,
  effect: ({ amount }) =>
    amount <= 0
      ? null
      : {
          reach: amount * 3,
          filter: (scale) => `blur(${(amount * scale).toFixed(3)}px)`,
          svg: (scale) => `<feGaussianBlur stdDeviation="${short(amount * scale)}"/>`,
          pixels: (data, width, height, scale) => blurPixels(data, width, height, amount * scale),
        },
});
