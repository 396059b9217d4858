/** What the recipes of several drawings have in common. */
import type { DrawingLayer, Id } from '../document/types';
import { kindOf } from './table';

/** Cards of one kind that stand for each other: one of each of the layers, in their order. */
export interface CommonCard {
  readonly kind: string;
  /** Which of its kind it is in each of them, from 0. */
  readonly nth: number;
  readonly cards: readonly { readonly layer: Id; readonly item: Id }[];
}

/** A drawing's cards in the order in which they work, those in groups after their group; by kind and which of it they are. */
const cardsOf = ({ items, recipe }: DrawingLayer): ReadonlyMap<string, { kind: string; nth: number; item: Id }> => {
  const counts = new Map<string, number>();
  const cards = new Map<string, { kind: string; nth: number; item: Id }>();
  const walk = (ids: readonly Id[]): void => {
    for (const id of ids) {
      const item = items[id];
      if (!item || kindOf(item.kind).role === 'setting') continue;
      const nth = counts.get(item.kind) ?? 0;
      counts.set(item.kind, nth + 1);
      cards.set(`${item.kind} ${nth}`, { kind: item.kind, nth, item: id });
      walk(item.children ?? []);
    }
  };
  walk(recipe);
  return cards;
};

/** The cards that all of some drawings have: the first fill of each, the second, and so on, in the order of the first drawing. */
export const commonCards = (layers: readonly DrawingLayer[]): readonly CommonCard[] => {
  const each = layers.map((layer) => ({ layer: layer.id, cards: cardsOf(layer) }));
  return [...(each[0]?.cards ?? [])].flatMap(([name, { kind, nth }]): CommonCard[] => {
    const cards = each.flatMap(({ layer, cards: own }) => {
      const card = own.get(name);
      return card ? [{ layer, item: card.item }] : [];
    });
    return cards.length === layers.length ? [{ kind, nth, cards }] : [];
  });
};
