import { number, px } from '../../document/params';
import { warped } from '../../picture/places';
import { short } from '../types';
import { effect } from './effect';

/** Pushed about by smooth noise: small waves ripple, large ones warp. Its phase is keyed to let it flow. */
export const warp = effect({
  kind: 'warp',
  label: 'Ripple and warp',
  params: {
    amount: px('Amount', 12, { min: 0, max: 1_000 }),
    size: px('Waves', 60, { min: 2, max: 5_000 }),
    phase: number('Phase', 0, { min: -10_000, max: 10_000, step: 0.01 }),
    seed: number('Seed', 1, { min: 0, max: 100_000, whole: true }),
  },
  summary: (v) => `${short(v.amount)} px, waves of ${short(v.size)} px`,
  effect: ({ amount, size, phase, seed }) =>
    amount <= 0
      ? null
      : {
          reach: amount,
          pixels: (data, width, height, { scale, origin }) =>
            warped(
              { data, width, height },
              { size: size * scale, amount: amount * scale, phase, seed: Math.round(seed) },
              origin,
            ),
          svg: () => null,
        },
});
