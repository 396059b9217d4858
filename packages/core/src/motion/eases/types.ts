import type { Ease } from '../../document/types';

export type { DrawnPoint } from '../../document/types';
export type StepsEase = Extract<Ease, { kind: 'steps' }>;
export type SpringEase = Extract<Ease, { kind: 'spring' }>;
export type BounceEase = Extract<Ease, { kind: 'bounce' }>;
export type DrawnEase = Extract<Ease, { kind: 'drawn' }>;

/** Progress through a span to progress of its value: 0 gives 0, 1 gives 1 (but for a hold, which waits). */
export type Curve = (t: number) => number;

export interface EaseKind<E extends Ease> {
  readonly kind: E['kind'];
  readonly label: string;
  readonly curve: (ease: E) => Curve;
}
