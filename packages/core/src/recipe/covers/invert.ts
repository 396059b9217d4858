import { percent } from '../../document/params';
import { tableOf, throughTables } from '../../picture/pixels';
import { shortPercent } from '../types';
import { effect, tablesInSvg } from './effect';

/** Filter Effects Module Level 1, 8.1: invert(). */
export const invert = effect({
  kind: 'invert',
  label: 'Invert',
  params: { strength: percent('Strength', 1) },
  summary: (v) => shortPercent(v.strength),
  effect: ({ strength }) => {
    if (strength <= 0) return null;
    const table = tableOf((x) => strength + x * (1 - 2 * strength));
    return {
      reach: 0,
      filter: () => `invert(${strength})`,
      colors: (data) => throughTables(data, [table, table, table]),
      svg: () => tablesInSvg([table, table, table]),
    };
  },
});
