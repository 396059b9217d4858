/** What a formula gives, as keyframes. */
import type { Param } from '../document/params';
import type { Keyframe, Point, Value } from '../document/types';
import { keptFrames } from '../motion/bake';
import type { Sampler } from '../motion/sampler';

const asNumbers = (param: Param, value: Value): readonly number[] | null =>
  param.kind === 'number' ? [value as number] : param.kind === 'point' ? (value as Point) : null;

/**
 * Keyframes of a property from one whole frame to another, both included: at every frame, or of numbers and points as few
 * as stay within a tolerance at every whole frame. Other kinds have one wherever they change, and hold between.
 */
export const bakedFormula = (
  param: Param,
  sampler: Sampler,
  from: number,
  to: number,
  tolerance: number | null,
): Keyframe[] => {
  if (sampler.constant) return [{ frame: from, value: sampler.at(from), ease: { kind: 'linear' } }];
  const values = Array.from({ length: to - from + 1 }, (_, i) => sampler.at(from + i));
  const numbers = values.map((v) => asNumbers(param, v));
  const moving = numbers.every((n) => n !== null);
  if (tolerance === null || moving) {
    const frames = tolerance !== null && moving ? keptFrames(numbers, tolerance) : values.map((_, i) => i);
    return frames.map((i) => ({ frame: from + i, value: values[i] as Value, ease: { kind: 'linear' } }));
  }
  const texts = values.map((v) => JSON.stringify(v));
  return values.flatMap((value, i): Keyframe[] =>
    i === 0 || texts[i] !== texts[i - 1] ? [{ frame: from + i, value, ease: { kind: 'hold' } }] : [],
  );
};
