import { number, percent, px, switchParam } from '../../document/params';
import { grained } from '../../picture/places';
import { shortPercent } from '../types';
import { effect } from './effect';

/** Specks that are lighter and darker than what they lie on; where they lie follows from the seed, which may be keyed to let them move. */
export const grain = effect({
  kind: 'grain',
  label: 'Grain',
  params: {
    strength: percent('Strength', 0.2),
    size: px('Size', 1, { min: 0.5, max: 100, step: 0.5 }),
    seed: number('Seed', 1, { min: 0, max: 100_000, whole: true }),
    moving: switchParam('Moving', false),
    colored: switchParam('In colours', false),
  },
  summary: (v) => `${shortPercent(v.strength)}${v.moving ? ', moving' : ''}`,
  effect: ({ strength, size, seed, moving, colored }, frame) =>
    strength <= 0
      ? null
      : {
          reach: 0,
          pixels: (data, width, height, { scale, origin }) => {
            const own = Math.round(seed) + (moving ? Math.floor(frame) * 7919 : 0);
            grained({ data, width, height }, { size: size * scale, strength, colored, seed: own }, origin);
          },
          svg: () => null,
        },
  byFrame: ({ moving }) => moving,
});
