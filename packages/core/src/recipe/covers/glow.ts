import { color, percent, px } from '../../document/params';
import { cover, short } from '../types';
import { aside, silhouette } from './shadow';

/** Light around what is above it. */
export const glow = cover({
  kind: 'glow',
  label: 'Glow',
  again: true,
  params: {
    color: color('Colour', '#FFE3A3'),
    size: px('Size', 24, { min: 0, max: 1_000 }),
    spread: percent('Spread', 0.3),
    strength: percent('Strength', 1),
  },
  summary: (v) => `${short(v.size)} px`,
  cover: (marks, { color: over, size, spread, strength }) => [
    aside(silhouette(marks, { over, softness: size, spread, strength })),
    ...marks,
  ],
});
