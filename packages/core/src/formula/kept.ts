/** Formulas at work, taken over from the scene before an edit where their inputs are what they were. */
import { remembered, sameThings } from '../document/remembered';
import type { Formula } from '../document/types';
import type { Computed } from './computed';

interface Kept {
  readonly inputs: readonly unknown[];
  readonly computed: Computed;
}
const keptOf = remembered<Formula, Map<string, Kept>>(() => new Map());

/** Copies of a layer share its formulas: what is kept for those that are gone is let go beyond so many. */
const MOST_KEPT = 4_000;

/** What `make` gave for the same formula, under the same name, from the same inputs; made anew where they are others. */
export const keptOr = (formula: Formula, name: string, inputs: readonly unknown[], make: () => Computed): Computed => {
  const kept = keptOf(formula);
  const known = kept.get(name);
  if (known && sameThings(known.inputs, inputs)) return known.computed;
  const computed = make();
  if (kept.size > MOST_KEPT) kept.clear();
  kept.set(name, { inputs, computed });
  return computed;
};
