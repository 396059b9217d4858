/** Chance that repeats from run to run: everything follows from a seed. */
import { seeded } from '../document/random';

export class Chance {
  /** 0 up to but not including 1. */
  readonly next: () => number;

  constructor(seed: number) {
    this.next = seeded(seed);
  }

  between(min: number, max: number): number {
    return min + this.next() * (max - min);
  }

  /** A whole number, both ends included. */
  whole(min: number, max: number): number {
    return Math.floor(this.between(min, max + 1));
  }

  /** Whether something of this likelihood happens. */
  happens(likelihood: number): boolean {
    return this.next() < likelihood;
  }

  one<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)] as T;
  }

  /** Some of a list, in its order, each once. */
  some<T>(list: readonly T[]): T[] {
    return list.filter(() => this.happens(0.5));
  }

  times<T>(least: number, most: number, make: (i: number) => T): T[] {
    return Array.from({ length: this.whole(least, most) }, (_, i) => make(i));
  }
}
