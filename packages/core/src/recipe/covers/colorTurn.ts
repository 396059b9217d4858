import { degrees, number, percent, switchParam } from '../../document/params';
import {
  type ColorMatrix,
  hueMatrix,
  colorfulnessMatrix,
  type Table,
  tableOf,
  throughMatrix,
  throughTables,
} from '../../picture/pixels';
import { type Effect, short, shortPercent } from '../types';
import { effect, filterOf, tablesInSvg } from './effect';
import { brightnessTo } from './tint';

/** The colour of a hue (CSS Color Module Level 4, 7.1, hsl()); hue in degrees, the rest 0..1. */
const colorOfHue = (hue: number, strength: number, lightness: number): string => {
  const reach = strength * Math.min(lightness, 1 - lightness);
  const channel = (n: number) => {
    const k = (((n + hue / 30) % 12) + 12) % 12;
    const value = lightness - reach * Math.max(-1, Math.min(k - 3, 9 - k, 1));
    return Math.round(value * 255)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${channel(0)}${channel(8)}${channel(4)}`;
};

/** Towards white above 0, towards black below. */
const lighter = (by: number, x: number): number => (by > 0 ? x + (1 - x) * by : x * (1 + by));

const matrixInSvg = (m: ColorMatrix): string => {
  const rows = [0, 3, 6].map((i) => `${m.slice(i, i + 3).join(' ')} 0 0`);
  return `<feColorMatrix values="${rows.join(' ')} 0 0 0 1 0"/>`;
};

const turned = (hue: number, strength: number, light: number): Effect => {
  const matrices = [hueMatrix(hue), colorfulnessMatrix(strength)];
  const table: Table = tableOf((x) => lighter(light, x));
  return {
    reach: 0,
    // Lighter is what no filter of the platform's does.
    ...(light <= 0 && {
      filter: () => filterOf(['hue-rotate', hue, 0, 'deg'], ['saturate', strength, 1], ['brightness', 1 + light, 1]),
    }),
    colors: (data) => {
      for (const m of matrices) throughMatrix(data, m);
      return throughTables(data, [table, table, table]);
    },
    svg: () => matrices.map(matrixInSvg).join('') + tablesInSvg([table, table, table]),
  };
};

/** Hues turned round, colours stronger or weaker, lighter or darker; or all of them in one hue. */
export const colorTurn = effect({
  kind: 'colorturn',
  label: 'Colour turn',
  params: {
    hue: degrees('Hue', 0),
    strength: percent('Strength', 1, { max: 4 }),
    light: number('Lighter', 0, { unit: 'percent', min: -1, max: 1, step: 0.01 }),
    one: switchParam('One hue', false),
  },
  example: { hue: 120 },
  summary: (v) => `${short(v.hue)}°, ${shortPercent(v.strength)}${v.one ? ', one hue' : ''}`,
  effect: ({ hue, strength, light, one }) => {
    if (one) return brightnessTo((y) => colorOfHue(hue, Math.min(1, strength), lighter(light, y)), 1);
    return hue === 0 && strength === 1 && light === 0 ? null : turned(hue, strength, light);
  },
});
