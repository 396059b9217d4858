import { remembered } from '../../document/remembered';
import { withFields } from '../../document/fitting';
import type { Ease } from '../../document/types';
import { bezier } from './bezier';
import { bounce } from './bounce';
import { drawn } from './drawn';
import { hold } from './hold';
import { linear } from './linear';
import { spring } from './spring';
import { steps } from './steps';
import type { Curve, EaseKind, Setting } from './types';

export const EASES = { linear, hold, bezier, steps, spring, bounce, drawn };

/** The kind of an ease. */
const kindOf = (ease: Ease): EaseKind<Ease> => EASES[ease.kind] as unknown as EaseKind<Ease>;

/** What an ease is made of, by key. */
export const settingsOf = (ease: Ease): Readonly<Record<string, Setting<unknown>>> => kindOf(ease).settings;

/** An ease within its limits: the same object where it is. */
export const fittedEase = (ease: Ease): Ease => {
  const given = ease as unknown as Readonly<Record<string, unknown>>;
  const fitting = Object.entries(settingsOf(ease)).map(([key, { fitted }]) => [key, fitted(given[key])] as const);
  return withFields(ease, Object.fromEntries(fitting));
};

/** The curve of an ease, built once for each ease object. */
export const curveOf = remembered((ease: Ease): Curve => kindOf(ease).curve(ease));

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

/** Points of a curve that has no form of its own backwards. */
const SAMPLES = 64;

/** The ease of a span that runs backwards: 1 − ease(1 − t). */
export const reversedEase = (ease: Ease): Ease => {
  const { reversed } = kindOf(ease);
  if (reversed) return reversed(ease);
  const curve = curveOf(ease);
  const points = Array.from({ length: SAMPLES - 1 }, (_, i) => {
    const x = (i + 1) / SAMPLES;
    return { x, y: 1 - curve(1 - x), corner: false };
  });
  return { kind: 'drawn', points };
};
