import type { Ease } from '../../document/types';
import { bezier } from './bezier';
import { bounce } from './bounce';
import { drawn } from './drawn';
import { hold } from './hold';
import { linear } from './linear';
import { spring } from './spring';
import { steps } from './steps';
import type { Curve } from './types';

export const EASES = { linear, hold, bezier, steps, spring, bounce, drawn };

const curves = new WeakMap<Ease, Curve>();

/** The curve of an ease, built once for each ease object. */
export const curveOf = (ease: Ease): Curve => {
  let curve = curves.get(ease);
  if (!curve) {
    // The table's key is the ease's kind, which TypeScript cannot follow through the look-up.
    curve = EASES[ease.kind].curve(ease as never);
    curves.set(ease, curve);
  }
  return curve;
};

/** Strength of an ease's ends, 0..1 each: the share of the span that the flat handle reaches. */
export interface Strength {
  readonly start: number;
  readonly end: number;
}

export const easeOfStrength = ({ start, end }: Strength): Ease =>
  start === 0 && end === 0 ? { kind: 'linear' } : { kind: 'bezier', x1: start, y1: 0, x2: 1 - end, y2: 1 };

/** The strengths that an ease shows; a handle that is not flat still has the reach it has. */
export const strengthOf = (ease: Ease): Strength =>
  ease.kind === 'bezier' ? { start: ease.x1, end: 1 - ease.x2 } : { start: 0, end: 0 };

/** What a new keyframe's span gets. */
export const SOFT: Ease = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 };
