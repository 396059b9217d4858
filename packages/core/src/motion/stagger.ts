/** How far each of several things is shifted in time so that they come one after another. */
import type { Point } from '../document/types';
import { seeded } from '../document/random';

export const STAGGER_ORDERS = ['list', 'reversed', 'centre', 'edges', 'across', 'down', 'random'] as const;
export type StaggerOrder = (typeof STAGGER_ORDERS)[number];

export interface Stagger {
  /** Frames from one to the next; negative ones bring later ones earlier. */
  readonly step: number;
  readonly order: StaggerOrder;
  /** Whether the gaps are alike, or each is larger or smaller than the one before. */
  readonly gaps: 'even' | 'growing' | 'shrinking';
  readonly seed: number;
}

/** Each thing's turn: 0 for the first. Things may share one, as the two that are as far from the centre. */
export const turnsOf = (places: readonly Point[], order: StaggerOrder, seed: number): number[] => {
  const count = places.length;
  const middle = (count - 1) / 2;
  const sorted = (by: (i: number) => number): number[] => {
    const turns: number[] = places.map(() => 0);
    const list = places.map((_, i) => i).sort((a, b) => by(a) - by(b) || a - b);
    for (const [turn, i] of list.entries()) turns[i] = turn;
    return turns;
  };
  switch (order) {
    case 'list':
      return places.map((_, i) => i);
    case 'reversed':
      return places.map((_, i) => count - 1 - i);
    case 'centre':
      return places.map((_, i) => Math.floor(Math.abs(i - middle) + 1e-9));
    case 'edges':
      return places.map((_, i) => Math.floor(middle + 1e-9) - Math.floor(Math.abs(i - middle) + 1e-9));
    case 'across':
      return sorted((i) => places[i]?.[0] ?? 0);
    case 'down':
      return sorted((i) => places[i]?.[1] ?? 0);
    case 'random': {
      const random = seeded(seed);
      const keys = places.map(() => random());
      return sorted((i) => keys[i] ?? 0);
    }
  }
};

/** The shift of each thing in whole frames, for things at these places, in the order of the list. The whole takes as long whatever its gaps. */
export const staggerOffsets = (places: readonly Point[], { step, order, gaps, seed }: Stagger): number[] => {
  const turns = turnsOf(places, order, seed);
  const last = Math.max(0, ...turns);
  return turns.map((turn) => {
    const t = last > 0 ? turn / last : 0;
    const share = gaps === 'even' ? t : gaps === 'growing' ? t * t : 1 - (1 - t) ** 2;
    return Math.round(share * last * step) + 0;
  });
};
