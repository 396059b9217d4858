import bezierEasing from 'bezier-easing';
import { EASE_LIMITS } from '../../document/limits';
import { number } from '../../document/params';
import { type EaseKind, setting } from './types';

const [min, max] = EASE_LIMITS.y;
const x = (label: string, value: number) => setting<number>(number(label, value, { min: 0, max: 1 }));
const y = (label: string, value: number) => setting<number>(number(label, value, { min, max }));

/** CSS Easing Functions Level 1, section 2.2: cubic-bezier(). */
export const bezier: EaseKind<{ kind: 'bezier'; x1: number; y1: number; x2: number; y2: number }> = {
  kind: 'bezier',
  label: 'Curve',
  settings: { x1: x('x1', 0), y1: y('y1', 0), x2: x('x2', 1), y2: y('y2', 1) },
  curve: ({ x1, y1, x2, y2 }) => bezierEasing(x1, y1, x2, y2),
  reversed: ({ x1, y1, x2, y2 }) => ({ kind: 'bezier', x1: 1 - x2, y1: 1 - y2, x2: 1 - x1, y2: 1 - y1 }),
};
