/** How stored numbers are shown. */
import type { Unit } from '@kite/core/document/params';

export const UNITS = { '': undefined, px: 'px', deg: '°', percent: '%', frames: 'f' } as const;

/** What a stored number is multiplied by to be shown: percentages are kept as fractions. */
export const factorOf = (unit: Unit): number => (unit === 'percent' ? 100 : 1);
