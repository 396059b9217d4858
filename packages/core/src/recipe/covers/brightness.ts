import { percent } from '../../document/params';
import { tableOf, throughTables } from '../../picture/pixels';
import { type Effect, shortPercent } from '../types';
import { effect, filterOf } from './effect';

const clamp = (x: number) => Math.min(1, Math.max(0, x));
const linear = (slope: number, intercept: number): string =>
  `<feComponentTransfer>${['R', 'G', 'B'].map((c) => `<feFunc${c} type="linear" slope="${slope}" intercept="${intercept}"/>`).join('')}</feComponentTransfer>`;

/** Filter Effects Module Level 1, 8.1: brightness() and then contrast(). */
export const brightnessBy = (b: number, c = 1): Effect => {
  const table = tableOf((x) => clamp(clamp(x * b) * c + 0.5 - 0.5 * c));
  return {
    reach: 0,
    filter: () => filterOf(['brightness', b, 1], ['contrast', c, 1]),
    colors: (data) => throughTables(data, [table, table, table]),
    svg: () => linear(b, 0) + linear(c, 0.5 - 0.5 * c),
  };
};

export const brightness = effect({
  kind: 'brightness',
  label: 'Brightness and contrast',
  params: {
    brightness: percent('Brightness', 1, { max: 4 }),
    contrast: percent('Contrast', 1, { max: 4 }),
  },
  example: { brightness: 0.8, contrast: 1.6 },
  summary: (v) => `${shortPercent(v.brightness)}, ${shortPercent(v.contrast)}`,
  effect: (v) => (v.brightness === 1 && v.contrast === 1 ? null : brightnessBy(v.brightness, v.contrast)),
});
