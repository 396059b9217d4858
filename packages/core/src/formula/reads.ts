/** What a formula reads: the one place where its references lead somewhere. */
import type { Formula, Scene } from '../document/types';
import { factsOf } from './facts';
import { awayOf, referenceOf, type Target } from './refs';

export interface Lead {
  readonly to: Target;
  /** Of a vector: one part of it alone. */
  readonly part: 0 | 1 | null;
}

/** The properties that a formula of `here` reads, by their ids or by their names. What leads nowhere is left out. */
export const leadsOfFormula = (formula: Formula, scene: Scene, here: Parameters<typeof referenceOf>[2]): Lead[] =>
  factsOf(formula).reads.flatMap(({ path, part }) => {
    const to = referenceOf(path, scene, here);
    if (typeof to === 'string' || to.kind !== 'property') return [];
    if (part !== 2) return [{ to: to.to, part }];
    const away = awayOf(to.to);
    return away ? [{ to: away, part: null }] : [];
  });
