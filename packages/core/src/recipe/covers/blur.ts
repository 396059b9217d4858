import { px } from '../../document/params';
import { blurPixels } from '../../picture/boxes';
import { effect } from './effect';
import { type Effect, short } from '../types';

/** By a bell curve of this deviation, in pixels; null for none. */
export const blurBy = (deviation: number): Effect | null =>
  deviation <= 0
    ? null
    : {
        reach: deviation * 3,
        filter: (scale) => `blur(${(deviation * scale).toFixed(3)}px)`,
        svg: (scale) => `<feGaussianBlur stdDeviation="${short(deviation * scale)}"/>`,
        pixels: (data, width, height, scale) => blurPixels(data, width, height, deviation * scale),
      };

/** A Gaussian blur: its amount is the deviation of the bell curve, as in CSS's blur(). */
export const blur = effect({
  kind: 'blur',
  label: 'Blur',
  params: { amount: px('Amount', 8, { min: 0, max: 500 }) },
  summary: (v) => `${short(v.amount)} px`,
  effect: ({ amount }) => blurBy(amount),
});
