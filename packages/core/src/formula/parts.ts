/** Compiled pieces of a formula: what they give, and what they are worked out from. */
import type { Ease, Point, Value } from '../document/types';
import type { Copy, Cost, Sampler } from '../motion/sampler';
import { FormulaError, NUMBER, sizeOf, type Span, type Type, vector } from './types';

/** One evaluation of a formula at one frame. */
export interface Scope {
  frame: number;
  copy: Copy | null;
  /** Moments that it has read so far: the dearest of those at its own frame, and the sum of those at others. */
  here: number;
  elsewhere: number;
}

export interface Part {
  readonly type: Type;
  /** Whether it gives the same at every frame and in every copy. */
  readonly constant: boolean;
  readonly run: (s: Scope) => Value;
  /** Of a reference, what it reads. */
  readonly reads?: Sampler;
}

/** What a reference leads to. */
export interface Read {
  readonly sampler: Sampler;
  /** The same for reading at other moments. */
  readonly moments: Sampler;
  readonly type: Type;
}

/** What can be read at moments, and says what the last one took. */
export interface Readable<T> {
  readonly at: (frame: number) => T;
  readonly cost?: Cost;
}

/** What a formula is compiled for. */
export interface Setting {
  readonly type: Type;
  readonly fps: number;
  readonly width: number;
  readonly height: number;
  /** The layer's rank in its set, 0 without one, and how many the set has. */
  readonly order: number;
  readonly count: number;
  /** Whether it stands on a card, which a repeater below may copy. */
  readonly inRecipe: boolean;
  /** The property as its keyframes have it. */
  readonly base: Sampler;
  /** Frames of its keyframes in rising order. */
  readonly keyFrames: readonly number[];
  /** What a reference leads to; why it leads nowhere. */
  readonly property: (path: string, part: 0 | 1 | 2 | null) => Read | string;
  readonly ease: (path: string) => Ease | string;
  /** The size in pixels of the text that a reference leads to, at a frame. */
  readonly textSize: (path: string) => Readable<readonly [number, number]> | string;
  /** The point that a reference leads to, in the pixels of the formula’s own property. */
  readonly carried: (path: string) => (Readable<Point> & { readonly constant: boolean }) | string;
}

/** The most moments that a value may be worked out from: a bound that is the same on every machine. */
export const MOST_MOMENTS = 10_000;

/** Thrown and caught within one evaluation. */
export const EXHAUSTED = new Error('a formula reads too many moments');

/** The moments that what was asked last was worked out from. */
export const costOf = ({ cost }: Pick<Readable<unknown>, 'cost'>): number => (cost ? cost.moments : 1);

/** Reads something at the formula's own frame. */
export const readHere = <T>(s: Scope, of: Readable<T>): T => {
  const value = of.at(s.frame);
  s.here = Math.max(s.here, costOf(of));
  return value;
};

export const readAt = (s: Scope, sampler: Sampler, frame: number): Value => {
  const value = sampler.at(frame);
  s.elsewhere += costOf(sampler);
  if (s.elsewhere > MOST_MOMENTS) throw EXHAUSTED;
  return value;
};

/** A frame within a millionth of a whole one is that one: seconds times frames a second are seldom exact. */
export const wholeNear = (frame: number): number => {
  const whole = Math.round(frame);
  return Math.abs(frame - whole) < 1e-6 ? whole : frame;
};

export const newScope = (frame: number, copy: Copy | null): Scope => ({ frame, copy, here: 0, elsewhere: 0 });
const NOWHEN = newScope(0, null);

/** A part of parts: one whose parts are all constant is worked out once. */
export const made = (type: Type, of: readonly Part[], run: Part['run']): Part => {
  if (!of.every((p) => p.constant)) return { type, constant: false, run };
  return constant(type, run(NOWHEN));
};

export const constant = (type: Type, value: Value): Part => ({ type, constant: true, run: () => value });

export const asNumber = (p: Part): ((s: Scope) => number) => p.run as (s: Scope) => number;
export const asVector = (p: Part): ((s: Scope) => readonly number[]) => p.run as (s: Scope) => readonly number[];

export const isNumeric = ({ type }: Part): boolean => type.kind === 'number' || type.kind === 'vector';

/** The type of numbers and vectors worked on together, element by element; null where they do not fit. */
export const joint = (parts: readonly Part[]): Type | null => {
  let type: Type = NUMBER;
  for (const part of parts) {
    if (!isNumeric(part)) return null;
    if (part.type.kind !== 'vector') continue;
    const { size } = part.type;
    const before = sizeOf(type);
    if (before !== null && before !== size && before !== 0 && size !== 0) return null;
    if (before === null || before === 0) type = vector(size);
  }
  return type;
};

/** A number as a vector of that in each element; a vector as it is. */
export const widened = (part: Part, type: Type): Part => {
  const size = sizeOf(type);
  if (size === null || part.type.kind !== 'number') return part;
  const n = asNumber(part);
  return made(type, [part], (s) => Array.from({ length: Math.max(size, 1) }, () => n(s)) as unknown as Value);
};

type Operation = (...values: number[]) => number;

/** A function of numbers over numbers and vectors: with a vector among them it works element by element. */
export const elementwise = (parts: readonly Part[], at: Span, what: string, operation: Operation): Part => {
  const type = joint(parts);
  if (!type) throw new FormulaError(`${what} takes numbers, or vectors of one size.`, at);
  const size = sizeOf(type);
  const [a, b] = parts as [Part, Part?];
  if (size === null) {
    const p = asNumber(a);
    if (!b) return made(type, parts, (s) => operation(p(s)));
    const q = asNumber(b);
    if (parts.length === 2) return made(type, parts, (s) => operation(p(s), q(s)));
    return made(type, parts, (s) => operation(...parts.map((part) => asNumber(part)(s))));
  }
  const element = (value: Value, i: number) =>
    typeof value === 'number' ? value : ((value as readonly number[])[i] as number);
  if (size === 2 && parts.length === 2 && b) {
    return made(type, parts, (s) => {
      const [p, q] = [a.run(s), b.run(s)];
      return [operation(element(p, 0), element(q, 0)), operation(element(p, 1), element(q, 1))] as Value;
    });
  }
  return made(type, parts, (s) => {
    const values = parts.map((part) => part.run(s));
    const lengths = values.flatMap((v) => (typeof v === 'number' ? [] : [(v as readonly number[]).length]));
    const length = Math.min(...lengths);
    return Array.from({ length }, (_, i) => operation(...values.map((v) => element(v, i)))) as unknown as Value;
  });
};
