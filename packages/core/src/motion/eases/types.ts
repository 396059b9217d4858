import type { Param } from '../../document/params';
import type { Ease } from '../../document/types';
import { kindOfValue } from '../kinds/table';

export type { DrawnPoint } from '../../document/types';
export type StepsEase = Extract<Ease, { kind: 'steps' }>;
export type SpringEase = Extract<Ease, { kind: 'spring' }>;
export type BounceEase = Extract<Ease, { kind: 'bounce' }>;
export type DrawnEase = Extract<Ease, { kind: 'drawn' }>;

/** Progress through a span to progress of its value: 0 gives 0, 1 gives 1 (but for a hold, which waits). */
export type Curve = (t: number) => number;

/** One of the values that an ease is made of. */
export interface Setting<V = never> {
  /** As messages and docs have it. */
  readonly wanted: string;
  readonly is: (value: unknown) => boolean;
  /** The nearest within limits; the same where it is. */
  readonly fitted: (value: V) => V;
  /** Its description, where it has a field. */
  readonly param?: Param;
}

export const setting = <V extends number | string>(param: Param): Setting<V> => {
  const { wanted, is, fitted } = kindOfValue(param.kind);
  return {
    param,
    wanted: wanted(param),
    is: (value) => is(param, value),
    fitted: (value) => fitted(param, value) as V,
  };
};

export interface EaseKind<E extends Ease> {
  readonly kind: E['kind'];
  readonly label: string;
  readonly settings: { readonly [K in Exclude<keyof E, 'kind'>]: Setting<E[K]> };
  readonly curve: (ease: E) => Curve;
  /** Where the curve has corners or jumps, in rising order, 0 < x < 1; missing for a smooth one. */
  readonly corners?: (ease: E) => readonly number[];
  /** The ease of a span that runs backwards: 1 − ease(1 − t). Missing for a curve that has no form of its own backwards. */
  readonly reversed?: (ease: E) => Ease;
}
