/** The parameters that fill and stroke share: what colour they draw with. */
import { choice, color, gradient, percent, point } from '../../document/params';
import { FIRST_COLORS } from '../../document/colors';
import type { Color, Gradient, Point } from '../../document/types';
import type { Ink } from '../types';

const GRADIENTS = ['linear', 'radial', 'angular'] as const;
/** Whether an ink runs from one place to another. */
export const isGradient = (style: unknown): boolean => (GRADIENTS as readonly unknown[]).includes(style);

export const INK = {
  style: choice(
    'Ink',
    [
      { value: 'solid', label: 'Solid' },
      { value: 'linear', label: 'Linear' },
      { value: 'radial', label: 'Radial' },
      { value: 'angular', label: 'Angular' },
      { value: 'each', label: 'Each its own' },
    ],
    'solid',
  ),
  color: color('Colour', FIRST_COLORS[0], { when: ['style', 'solid'] }),
  gradient: gradient(
    'Gradient',
    {
      stops: [
        { at: 0, color: FIRST_COLORS[0] },
        { at: 1, color: FIRST_COLORS[1] },
      ],
    },
    { when: ['style', ...GRADIENTS, 'each'] },
  ),
  from: point('From', [0, -100], { when: ['style', ...GRADIENTS] }),
  to: point('To', [0, 100], { when: ['style', ...GRADIENTS] }),
  grain: percent('Grain', 0, { when: ['style', ...GRADIENTS] }),
  opacity: percent('Opacity', 1),
} as const;

interface InkValues {
  style: 'solid' | 'linear' | 'radial' | 'angular' | 'each';
  color: Color;
  gradient: Gradient;
  from: Point;
  to: Point;
  grain: number;
}

/** Where each shape has its own colour, that is the one to draw with. A radial gradient has its centre at `from` and its edge at `to`; an angular one turns clockwise about `from`, starting towards `to`. */
export const inkOf = (v: InkValues): Ink =>
  v.style === 'solid' || v.style === 'each'
    ? { style: 'solid', color: v.color }
    : { style: v.style, gradient: v.gradient, from: v.from, to: v.to, grain: v.grain };

export const inkSummary = (v: InkValues): string =>
  v.style === 'solid'
    ? v.color.toUpperCase()
    : v.style === 'each'
      ? 'Each its own'
      : `${v.style[0]?.toUpperCase()}${v.style.slice(1)} gradient`;
