import { number, percent } from '../../document/params';
import { tableOf, throughTables } from '../../picture/pixels';
import { short, shortPercent } from '../types';
import { effect, tablesInSvg } from './effect';

/** Between two values from 0 to 1 everything is spread out, its middle bent, and put between two others. */
export const levels = effect({
  kind: 'levels',
  label: 'Levels',
  params: {
    black: percent('Black', 0),
    white: percent('White', 1),
    middle: number('Middle', 1, { min: 0.1, max: 10, step: 0.01 }),
    low: percent('Out from', 0),
    high: percent('Out to', 1),
  },
  example: { black: 0.2, middle: 0.6, high: 0.9 },
  summary: (v) => `${shortPercent(v.black)} to ${shortPercent(v.white)}, middle ${short(v.middle)}`,
  effect: ({ black, white, middle, low, high }) => {
    // Where black is white there is a step.
    const width = Math.max(1e-6, white - black);
    const table = tableOf((x) => low + (high - low) * Math.min(1, Math.max(0, (x - black) / width)) ** (1 / middle));
    return {
      reach: 0,
      colors: (data) => throughTables(data, [table, table, table]),
      svg: () => tablesInSvg([table, table, table]),
    };
  },
});
