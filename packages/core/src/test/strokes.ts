/** Strokes for tests. */
import type { BrushStroke } from '../document/types';

/** A level stroke through the origin, unless it is wanted otherwise. */
export const testStroke = (more: Partial<BrushStroke> = {}): BrushStroke => ({
  points: [-50, 0, 0.5, 50, 0, 0.5],
  color: '#FFB23E',
  size: 10,
  tip: 'round',
  thins: 0,
  taper: 0,
  erases: false,
  ...more,
});
