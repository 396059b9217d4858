/** The parameters that fill and stroke share: what colour they draw with. */
import { choice, color, gradient, percent, point } from '../../document/params';
import type { Color, Gradient, Point } from '../../document/types';
import type { Ink } from '../types';

export const INK = {
  style: choice(
    'Ink',
    [
      { value: 'solid', label: 'Solid' },
      { value: 'linear', label: 'Linear' },
      { value: 'radial', label: 'Radial' },
    ],
    'solid',
  ),
  color: color('Colour', '#2EC4B6', { when: ['style', 'solid'] }),
  gradient: gradient(
    'Gradient',
    {
      stops: [
        { at: 0, color: '#FFB23E' },
        { at: 1, color: '#FF5D5D' },
      ],
    },
    { when: ['style', 'linear', 'radial'] },
  ),
  from: point('From', [0, -100], { when: ['style', 'linear', 'radial'] }),
  to: point('To', [0, 100], { when: ['style', 'linear', 'radial'] }),
  opacity: percent('Opacity', 1),
} as const;

interface InkValues {
  style: 'solid' | 'linear' | 'radial';
  color: Color;
  gradient: Gradient;
  from: Point;
  to: Point;
}

/** A radial gradient has its centre at `from` and its edge at `to`. */
export const inkOf = (v: InkValues): Ink =>
  v.style === 'solid'
    ? { style: 'solid', color: v.color }
    : { style: v.style, gradient: v.gradient, from: v.from, to: v.to };

export const inkSummary = (v: InkValues): string =>
  v.style === 'solid' ? v.color.toUpperCase() : v.style === 'linear' ? 'Linear gradient' : 'Radial gradient';
