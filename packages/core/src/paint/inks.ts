/** Inks as a canvas takes them. */
import type { Point } from '../document/types';
import type { GradientInk, Ink } from '../recipe/types';
import type { Context2D } from './surface';

const distance = (p: Point, q: Point) => Math.hypot(q[0] - p[0], q[1] - p[1]);

const emptyGradient = (context: Context2D, style: GradientInk['style'], from: Point, to: Point) => {
  switch (style) {
    case 'linear':
      return context.createLinearGradient(from[0], from[1], to[0], to[1]);
    case 'radial':
      return context.createRadialGradient(from[0], from[1], 0, from[0], from[1], distance(from, to));
    case 'angular':
      return context.createConicGradient(Math.atan2(to[1] - from[1], to[0] - from[0]), from[0], from[1]);
  }
};

/** What fills and strokes are drawn with. */
export const styleOf = (context: Context2D, ink: Ink): unknown => {
  if (ink.style === 'solid') return ink.color;
  const { from, to } = ink;
  const style = emptyGradient(context, ink.style, from, to);
  for (const stop of ink.gradient.stops) style.addColorStop(Math.min(1, Math.max(0, stop.at)), stop.color);
  return style;
};
