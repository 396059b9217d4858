import bezierEasing from 'bezier-easing';
import type { EaseKind } from './types';

/** CSS Easing Functions Level 1, section 2.2: cubic-bezier(). */
export const bezier: EaseKind<{ kind: 'bezier'; x1: number; y1: number; x2: number; y2: number }> = {
  kind: 'bezier',
  label: 'Curve',
  curve: ({ x1, y1, x2, y2 }) => bezierEasing(x1, y1, x2, y2),
};
