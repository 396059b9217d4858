import { color, percent } from '../../document/params';
import { shortPercent } from '../types';
import { effect } from './effect';
import { brightnessTo } from './tint';

/** One colour for what is darker than a brightness, another for the rest. */
export const threshold = effect({
  kind: 'threshold',
  label: 'Threshold',
  params: {
    at: percent('Brightness', 0.5),
    dark: color('Darker', '#000000'),
    light: color('Lighter', '#FFFFFF'),
  },
  summary: (v) => `at ${shortPercent(v.at)}`,
  effect: ({ at, dark, light }) => brightnessTo((y) => (y < at ? dark : light), 1),
});
