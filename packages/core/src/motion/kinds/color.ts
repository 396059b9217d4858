import { isColor } from '../../document/is';
import { mixColors } from '../color';
import type { Kind } from './types';

export const color: Kind<'color'> = {
  kind: 'color',
  wanted: () => 'a colour such as #1B1F4B or #1B1F4BCC',
  is: (_param, v) => isColor(v),
  fitted: (param, v) => (isColor(v) ? v : param.default),
  mix: (p, q, t) => mixColors(p, q, Math.min(1, Math.max(0, t))),
  color: (v) => v,
  says: (_param, v) => v.toUpperCase(),
};
