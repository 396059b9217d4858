/** Where a card stands in its layer, through the groups with a place around it. */
import { FLAT_PLACE } from '../document/params';
import type { DrawingLayer, Id, Item } from '../document/types';
import { IDENTITY, type Matrix, multiply, placed } from '../geometry/matrix';
import { type Computing, reader } from '../motion/reader';
import { MOST_DEPTH } from './card';

/** The groups with a place that a card stands in, innermost first. */
export const groupsOf = (items: DrawingLayer['items'], id: Id): readonly Item[] => {
  const found: Item[] = [];
  for (let at: Id | undefined = id, depth = 0; at !== undefined && depth <= MOST_DEPTH; depth++) {
    const inner: Id = at;
    at = Object.keys(items).find((other) => items[other]?.children?.includes(inner));
    const group = at === undefined ? undefined : items[at];
    if (group?.kind === 'group') found.push(group);
  }
  return found;
};

/** From the pixels of a card's outlines to its layer's, through the groups it stands in, at each frame. */
export const placeOfCard = (
  items: DrawingLayer['items'],
  id: Id,
  computing: (item: Id) => Computing | undefined = () => undefined,
): { readonly still: boolean; readonly at: (frame: number) => Matrix } => {
  const places = groupsOf(items, id).map((group) => reader(FLAT_PLACE, group.params, computing(group.id)));
  return {
    still: places.every(({ constant }) => constant),
    at: (frame) => places.reduce<Matrix>((inner, place) => multiply(placed(place.at(frame)), inner), IDENTITY),
  };
};
