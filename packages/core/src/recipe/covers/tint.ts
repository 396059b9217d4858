import { choice, color, gradient, percent } from '../../document/params';
import type { Gradient } from '../../document/types';
import { gradientAt } from '../../motion/gradients';
import { LUMA, rgbOf, type Table, throughBrightness } from '../../picture/pixels';
import { type Effect, shortPercent } from '../types';
import { effect, tablesInSvg } from './effect';

/** A colour for each brightness from 0 to 255, by channel. */
const tablesOf = (colors: (brightness: number) => string): readonly [Table, Table, Table] => {
  const tables = [0, 1, 2].map(() => new Uint8ClampedArray(256)) as unknown as readonly [Table, Table, Table];
  for (let y = 0; y < 256; y++) rgbOf(colors(y / 255)).forEach((v, c) => ((tables[c] as Table)[y] = v));
  return tables;
};

/** Colours by how bright they are: `colors` of 0..1, `strength` of the way. */
export const brightnessTo = (colors: (brightness: number) => string, strength: number): Effect => {
  const tables = tablesOf(colors);
  const row = `${LUMA.join(' ')} 0 0`;
  return {
    reach: 0,
    colors: (data) => throughBrightness(data, tables, strength),
    svg: () =>
      `<feColorMatrix values="${row} ${row} ${row} 0 0 0 1 0"/>${tablesInSvg(tables)}` +
      `<feComposite in2="SourceGraphic" operator="arithmetic" k1="0" k2="${strength}" k3="${1 - strength}" k4="0"/>`,
  };
};

const COLORS = ['map', 'colors'] as const;

/** Dark and light mapped to two colours, or brightness to all of a gradient. */
export const tint = effect({
  kind: 'tint',
  label: 'Tint',
  params: {
    map: choice(
      'To',
      [
        { value: 'colors', label: 'Two colours' },
        { value: 'gradient', label: 'Gradient' },
      ],
      'colors',
    ),
    dark: color('Dark', '#1B2A41', { when: COLORS }),
    light: color('Light', '#F2E9DC', { when: COLORS }),
    gradient: gradient(
      'Gradient',
      {
        stops: [
          { at: 0, color: '#1B2A41' },
          { at: 0.5, color: '#C2714A' },
          { at: 1, color: '#F2E9DC' },
        ],
      },
      { when: ['map', 'gradient'] },
    ),
    strength: percent('Strength', 1),
  },
  summary: (v) =>
    `${v.map === 'gradient' ? `${v.gradient.stops.length} stops` : `${v.dark} to ${v.light}`}${v.strength < 1 ? `, ${shortPercent(v.strength)}` : ''}`,
  effect: ({ map, dark, light, gradient: stops, strength }) => {
    if (strength <= 0) return null;
    const two: Gradient = {
      stops: [
        { at: 0, color: dark },
        { at: 1, color: light },
      ],
    };
    return brightnessTo((y) => gradientAt(map === 'gradient' ? stops : two, y), strength);
  },
});
