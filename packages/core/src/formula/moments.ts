/** Values of properties by their frames, for what reads them at many moments. */
import { lastMade } from '../document/remembered';
import type { Param } from '../document/params';
import type { Point, Value } from '../document/types';
import type { Sampler } from '../motion/sampler';

/** Moments that are kept of each property: a power of two. */
const KEPT = 512;

/** Where a moment is kept: whole frames one after another, others in between. */
const slotOf = (frame: number): number => (Number.isInteger(frame) ? frame : Math.floor(frame * 977)) & (KEPT - 1);

/** Values by slot. Numbers lie in typed arrays: a long chain keeps very many. */
interface Shelf {
  readonly get: (slot: number) => Value;
  readonly set: (slot: number, value: Value) => void;
}
const shelfFor = (kind: Param['kind']): Shelf => {
  if (kind === 'number') {
    const values = new Float64Array(KEPT);
    return { get: (slot) => values[slot] as number, set: (slot, value) => (values[slot] = value as number) };
  }
  if (kind === 'point') {
    const [xs, ys] = [new Float64Array(KEPT), new Float64Array(KEPT)];
    return {
      get: (slot) => [xs[slot] as number, ys[slot] as number],
      set: (slot, value) => {
        // One by one: this is done for every moment of every formula.
        xs[slot] = (value as Point)[0];
        ys[slot] = (value as Point)[1];
      },
    };
  }
  const values: Value[] = [];
  return { get: (slot) => values[slot] as Value, set: (slot, value) => (values[slot] = value) };
};

/** The moments that were worked out last: a new one takes the place of an older one. */
export class Moments {
  private readonly frames = new Float64Array(KEPT).fill(NaN);
  private readonly costs = new Int32Array(KEPT);
  private readonly problems = new Map<number, string>();
  private readonly values: Shelf;

  constructor(kind: Param['kind']) {
    this.values = shelfFor(kind);
  }

  /** The slot of a frame that is kept; -1 where it is not. */
  find(frame: number): number {
    const slot = slotOf(frame);
    return this.frames[slot] === frame ? slot : -1;
  }

  valueAt(slot: number): Value {
    return this.values.get(slot);
  }
  costAt(slot: number): number {
    return this.costs[slot] as number;
  }
  /** What went wrong at a frame that is kept. */
  problemAt(frame: number): string | null {
    return this.problems.get(slotOf(frame)) ?? null;
  }

  keep(frame: number, value: Value, cost: number, problem: string | null): void {
    const slot = slotOf(frame);
    this.frames[slot] = frame;
    this.costs[slot] = cost;
    this.values.set(slot, value);
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
      const slot = moments.find(frame);
      if (slot >= 0) return moments.valueAt(slot);
      const value = sampler.at(frame);
      moments.keep(frame, value, 1, null);
      return value;
    };
    return { ...sampler, at };
  });
};
