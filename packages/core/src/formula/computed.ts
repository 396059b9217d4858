/** A formula at work: a sampler like that of keyframes, with an answer for what goes wrong. */
import type { Param } from '../document/params';
import { thousands } from '../document/text';
import type { Value } from '../document/types';
import { headingOf } from '../motion/heading';
import { acceptor } from '../motion/kinds/table';
import type { Copy, Sampler } from '../motion/sampler';
import { Moments } from './moments';
import { EXHAUSTED, MOST_MOMENTS, newScope, type Part } from './parts';
import type { FormulaError } from './types';

/** A property whose formula is at work, or is not, and why. */
export interface Computed extends Sampler {
  /** What keeps the whole formula from working: the property has its keyframes' values. */
  readonly error: FormulaError | null;
  /** What went wrong at a frame alone. */
  readonly problemAt: (frame: number) => string | null;
  /** Whether each copy of a repeater has a value of its own. */
  readonly perCopy: boolean;
  /** How many formulas stand behind each other up to this one. */
  readonly depth: number;
}

const TOO_MANY = `reads more than ${thousands(MOST_MOMENTS)} moments for one value`;

const wanted = (param: Param): string => {
  if (param.kind === 'choice') return `one of ${param.choices.map((c) => `"${c.value}"`).join(', ')}`;
  if (param.kind === 'text') return `at most ${param.most} characters`;
  return 'numbers';
};

const shown = (value: Value): string =>
  typeof value === 'string'
    ? `“${value.slice(0, 30)}”`
    : Array.isArray(value)
      ? `[${value.join(', ')}]`
      : String(value);

/** A property whose formula cannot work: its keyframes, with what is wrong. */
export const failing = (base: Sampler, error: FormulaError): Computed => ({
  at: (frame) => base.at(frame),
  constant: base.constant,
  heading: base.heading,
  error,
  problemAt: () => null,
  perCopy: false,
  depth: 0,
});

/** The formula as a sampler. Values are kept by frame, so that a chain of followers costs what it is long. */
export const working = (param: Param, base: Sampler, part: Part, depth: number, perCopy: boolean): Computed => {
  // What reads no other formula is as quickly worked out as looked up: of that the last moment is kept alone.
  let lastFrame = NaN;
  let lastValue: Value = 0;
  let lastCost = 1;
  let moments: Moments | null = null;
  /** What the value that was asked last took. */
  const cost = { moments: 1 };
  let problem: string | null = null;
  const accept = acceptor(param);
  // One for all its evaluations: none of them lies within another, since nothing reads itself.
  const scope = newScope(0, null);

  /** The value at a frame; what it took stands in `cost`, what went wrong in `problem`. */
  const work = (frame: number, copy: Copy | null): Value => {
    scope.frame = frame;
    scope.copy = copy;
    scope.here = 0;
    scope.elsewhere = 0;
    problem = null;
    try {
      const value = part.run(scope);
      const moments = 1 + scope.here + scope.elsewhere;
      cost.moments = moments;
      if (moments > MOST_MOMENTS) throw EXHAUSTED;
      const fit = accept(value);
      if (fit !== null) return fit;
      problem = `gives ${shown(value)}, wanted ${wanted(param)}`;
    } catch (error) {
      if (error !== EXHAUSTED) throw error;
      cost.moments = MOST_MOMENTS;
      problem = TOO_MANY;
    }
    return base.at(frame);
  };
  const lastAt = (frame: number): Value => {
    if (lastFrame !== frame) {
      lastValue = work(frame, null);
      lastFrame = frame;
      lastCost = cost.moments;
    }
    cost.moments = lastCost;
    return lastValue;
  };
  const keptAt = (frame: number): Value => {
    moments ??= new Moments(param.kind);
    const slot = moments.find(frame);
    if (slot >= 0) {
      cost.moments = moments.costAt(slot);
      return moments.valueAt(slot);
    }
    const value = work(frame, null);
    moments.keep(frame, value, cost.moments, problem);
    return value;
  };
  const valueAt = depth > 1 ? keptAt : lastAt;
  const rest = { error: null, perCopy, depth, cost };
  if (part.constant) {
    const value = work(0, null);
    const wrong = problem;
    return { ...rest, at: () => value, constant: true, heading: () => null, problemAt: () => wrong };
  }
  const at = (frame: number, copy?: Copy): Value => (perCopy && copy ? work(frame, copy) : valueAt(frame));
  return {
    ...rest,
    at,
    constant: false,
    heading: param.kind === 'point' ? headingOf(at) : () => null,
    problemAt: (frame) => {
      valueAt(frame);
      return depth > 1 ? (moments?.problemAt(frame) ?? null) : problem;
    },
  };
};
