import type { Param } from '../../document/params';
import type { ValueKind, ValueTypes } from '../../document/types';

export type ParamOf<K extends ValueKind> = Extract<Param, { kind: K }>;

/** More of something than a value may hold. */
export interface Excess {
  readonly owner: string;
  readonly most: number;
  readonly what: string;
}

/** A kind of value that parameters have: what fits them, what lies between two, how it is told. */
export interface Kind<K extends ValueKind, P = ParamOf<K>, V = ValueTypes[K]> {
  readonly kind: K;
  /** What a value must be, as messages and docs have it. */
  readonly wanted: (param: P) => string;
  readonly is: (param: P, value: unknown) => boolean;
  /** A value within the parameter's limits: the same where it is, the nearest where there is one, else the default. */
  readonly fitted: (param: P, value: V) => V;
  /** What a value holds too many of: that has no nearest. Missing where it holds nothing of the kind. */
  readonly excess?: (value: V) => Excess | null;
  /**
   * Brings what a formula gives, or an ease carries beyond its keyframes, within limits; null for what it cannot take.
   * Made once for each property. Missing where all that comes fits.
   */
  readonly accept?: (param: P) => (value: V) => V | null;
  /** Between two keyframes, `t` from 0 to 1 and beyond. */
  readonly mix: (from: V, to: V, t: number) => V;
  /** `value` moved by the way from `from` to `to`; missing for what cannot be added up. */
  readonly moved?: (value: V, from: V, to: V) => V;
  /** Numbers that stand for it as heights along time; missing for what has none. */
  readonly heights?: (value: V) => readonly number[];
  /** The colour that stands for it along time; missing for what has none. */
  readonly color?: (value: V) => string;
  /** In a few letters. */
  readonly says: (param: P, value: V) => string;
}

/** What lies between two values of which there is nothing between. */
export const step = <V>(from: V, to: V, t: number): V => (t < 1 ? from : to);

export const lerp = (a: number, b: number, t: number): number => a + (b - a) * t;

/** A number as it is told. */
export const short = (n: number): string => String(Math.round(n * 10) / 10);
