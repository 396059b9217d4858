/** A formula at work: a sampler like that of keyframes, with an answer for what goes wrong. */
import type { Param } from '../document/params';
import type { Value } from '../document/types';
import type { Copy, Sampler } from '../motion/sampler';
import { EXHAUSTED, meter, MOST_MOMENTS, newScope, type Part } from './parts';
import type { FormulaError } from './types';

/** Frames whose values are kept, for what reads a property at many moments. */
const MOST_KEPT = 2_048;

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

interface Moment {
  readonly value: Value;
  readonly cost: number;
  readonly problem: string | null;
}

const TOO_MANY = `reads more than ${MOST_MOMENTS.toLocaleString('en')} moments for one value`;

const clamped = (x: unknown, min: number, max: number): number | null =>
  Number.isFinite(x) ? Math.min(max, Math.max(min, x as number)) : null;

/** The value as the property takes it, brought within its limits; null where it takes none like it. */
const accepted = (param: Param, value: Value): Value | null => {
  switch (param.kind) {
    case 'number':
      return clamped(value, param.min, param.max);
    case 'point': {
      const [x, y] = (value as readonly number[]).map((v) => clamped(v, -param.limit, param.limit));
      return typeof x === 'number' && typeof y === 'number' ? [x, y] : null;
    }
    case 'numbers': {
      const list = (value as readonly number[]).slice(0, param.most).map((v) => clamped(v, param.min, param.max));
      return list.every((v) => v !== null) ? list : null;
    }
    case 'choice':
      return param.choices.some((c) => c.value === value) ? value : null;
    case 'text': {
      const text = value as string;
      return text.length > param.most ? null : param.lines === 'one' ? text.replace(/\s*\n\s*/g, ' ') : text;
    }
    default:
      return value;
  }
};

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

/** Points and angles that move by formula have the direction that they have within a twentieth of a frame. */
const ASIDE = 0.05;

const headingOf = (at: Sampler['at']) => (frame: number) => {
  const [p, q] = [at(frame - ASIDE), at(frame + ASIDE)] as unknown as [readonly number[], readonly number[]];
  const [dx, dy] = [(q[0] ?? 0) - (p[0] ?? 0), (q[1] ?? 0) - (p[1] ?? 0)];
  return Math.hypot(dx, dy) < 1e-9 ? null : (Math.atan2(dy, dx) * 180) / Math.PI;
};

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
  const kept = new Map<number, Moment>();

  const work = (frame: number, copy: Copy | null): Moment => {
    const scope = newScope(frame, copy);
    try {
      const value = part.run(scope);
      const cost = 1 + scope.here + scope.elsewhere;
      if (cost > MOST_MOMENTS) throw EXHAUSTED;
      const fit = accepted(param, value);
      if (fit !== null) return { value: fit, cost, problem: null };
      return { value: base.at(frame), cost, problem: `gives ${shown(value)}, wanted ${wanted(param)}` };
    } catch (error) {
      if (error !== EXHAUSTED) throw error;
      return { value: base.at(frame), cost: MOST_MOMENTS, problem: TOO_MANY };
    }
  };
  const momentAt = (frame: number): Moment => {
    let moment = kept.get(frame);
    if (!moment) {
      moment = work(frame, null);
      if (kept.size >= MOST_KEPT) kept.clear();
      kept.set(frame, moment);
    }
    return moment;
  };
  const rest = { error: null, perCopy, depth };
  if (part.constant) {
    const only = work(0, null);
    return { ...rest, at: () => only.value, constant: true, heading: () => null, problemAt: () => only.problem };
  }
  const at = (frame: number, copy?: Copy): Value => {
    if (perCopy && copy) return work(frame, copy).value;
    const moment = momentAt(frame);
    meter.last = moment.cost;
    return moment.value;
  };
  return {
    ...rest,
    at,
    constant: false,
    heading: param.kind === 'point' ? headingOf(at) : () => null,
    problemAt: (frame) => momentAt(frame).problem,
  };
};
