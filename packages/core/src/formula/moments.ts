/** Values of properties by their frames, for what reads them at many moments. */
import { lastMade } from '../document/remembered';
import type { Param } from '../document/params';
import type { Point, Value } from '../document/types';
import type { Sampler } from '../motion/sampler';

/** Moments that are kept of each property: a power of two. */
const KEPT = 512;

/** Where a moment is kept: whole frames one after another, others in between. */
const slotOf = (frame: number): number => (Number.isInteger(frame) ? frame : Math.floor(frame * 977)) & (KEPT - 1);

/** Numbers of a slot: its frame, what it cost, and its value where that is a number or a point. */
const WIDTH = 4;
const [COST, X, Y] = [1, 2, 3] as const;

/**
 * The moments that were worked out last: a new one takes the place of an older one. All of a slot lies together: a long chain looks at
 * one slot of very many moments.
 */
export class Moments {
  private readonly numbers = new Float64Array(KEPT * WIDTH).fill(NaN);
  private readonly values: Value[] = [];
  private readonly problems = new Map<number, string>();

  constructor(private readonly kind: Param['kind']) {}

  /** Where a frame is kept; -1 where it is not. */
  find(frame: number): number {
    const at = slotOf(frame) * WIDTH;
    return this.numbers[at] === frame ? at : -1;
  }

  valueAt(at: number): Value {
    if (this.kind === 'number') return this.numbers[at + X] as number;
    if (this.kind === 'point') return [this.numbers[at + X] as number, this.numbers[at + Y] as number];
    return this.values[at / WIDTH] as Value;
  }
  costAt(at: number): number {
    return this.numbers[at + COST] as number;
  }
  /** What went wrong at a frame that is kept. */
  problemAt(frame: number): string | null {
    return this.problems.get(slotOf(frame)) ?? null;
  }

  keep(frame: number, value: Value, cost: number, problem: string | null): void {
    const slot = slotOf(frame);
    const at = slot * WIDTH;
    this.numbers[at] = frame;
    this.numbers[at + COST] = cost;
    if (this.kind === 'number') this.numbers[at + X] = value as number;
    else if (this.kind === 'point') {
      // One by one: this is done for every moment of every formula.
      this.numbers[at + X] = (value as Point)[0];
      this.numbers[at + Y] = (value as Point)[1];
    } else this.values[slot] = value;
    if (problem !== null) this.problems.set(slot, problem);
    else if (this.problems.size > 0) this.problems.delete(slot);
  }
}

const withMoments = lastMade<Sampler, Sampler>();

/** A sampler that keeps its moments: a lead is asked for the same ones by each of its followers. */
export const remembering = (kind: Param['kind'], sampler: Sampler): Sampler => {
  if (sampler.constant || sampler.perCopy) return sampler;
  return withMoments(sampler, [kind], () => {
    let moments: Moments | null = null;
    const at = (frame: number): Value => {
      moments ??= new Moments(kind);
      const kept = moments.find(frame);
      if (kept >= 0) return moments.valueAt(kept);
      const value = sampler.at(frame);
      moments.keep(frame, value, 1, null);
      return value;
    };
    return { ...sampler, at };
  });
};
