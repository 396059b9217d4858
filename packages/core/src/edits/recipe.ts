/** Edits to the cards of a drawing. A place is a group (null for the top level) and an index in it. */
import { LIMITS } from '../document/limits';
import type { Edit } from '../document/patches';
import type { DrawingLayer, Id, Item } from '../document/types';
import { type DrawingDraft, drawingIn, type ItemDraft, itemIn, NotFound } from './find';

export interface CardRef {
  readonly scene: Id;
  readonly layer: Id;
  readonly item: Id;
}

/** The cards of a group, or at the top of a recipe, in order. */
export const listOf = (layer: DrawingDraft | DrawingLayer, group: Id | null): readonly Id[] => {
  if (group === null) return layer.recipe;
  const holder = layer.items[group];
  if (!holder) throw new NotFound('card', group);
  return holder.children ?? [];
};

const setList = (layer: DrawingDraft, group: Id | null, ids: Id[]): void => {
  if (group !== null) itemIn(layer, group).children = ids;
  else layer.recipe = ids;
};

/** The group that a card stands in; null at the top level. */
export const groupOf = (items: { readonly [id: Id]: Pick<Item, 'children'> }, id: Id): Id | null =>
  Object.keys(items).find((other) => items[other]?.children?.includes(id)) ?? null;

/** The cards that stand above one in its list. */
export const cardsAbove = (layer: DrawingDraft | DrawingLayer, id: Id): readonly Id[] => {
  const list = listOf(layer, groupOf(layer.items, id));
  return list.slice(0, list.indexOf(id));
};

/** A card with all that stands in it. */
export const within = (items: { readonly [id: Id]: Item }, id: Id): Item[] => {
  const item = items[id];
  return item ? [item, ...(item.children ?? []).flatMap((child) => within(items, child))] : [];
};

/** A drawing without some cards and all that is in them. */
export const withoutCards = (layer: DrawingLayer, gone: ReadonlySet<Id>): DrawingLayer => {
  const all = new Set([...gone].flatMap((id) => within(layer.items, id)).map(({ id }) => id));
  const left = (list: readonly Id[]) => list.filter((id) => !all.has(id));
  const items = Object.values(layer.items).filter(({ id }) => !all.has(id));
  return {
    ...layer,
    items: Object.fromEntries(
      items.map((item) => [item.id, item.children ? { ...item, children: left(item.children) } : item]),
    ),
    recipe: left(layer.recipe),
  };
};

export const detach = (layer: DrawingDraft, id: Id): void => {
  const group = groupOf(layer.items, id);
  setList(
    layer,
    group,
    listOf(layer, group).filter((other) => other !== id),
  );
};

export const attach = (layer: DrawingDraft, id: Id, group: Id | null, index: number): void => {
  const list = listOf(layer, group);
  setList(layer, group, [...list.slice(0, index), id, ...list.slice(index)]);
};

/** Puts cards into a layer that are to stand in one of its lists; RangeError where it has no room for them. */
export const addCards = (layer: DrawingDraft, cards: readonly Item[]): void => {
  if (Object.keys(layer.items).length + cards.length > LIMITS.items) {
    throw new RangeError(`“${layer.name}” would have more than ${LIMITS.items} cards`);
  }
  for (const card of cards) layer.items[card.id] = card as ItemDraft;
};

/** A card put in a place, with all that stands in it. */
export const addItem = (
  scene: Id,
  layerId: Id,
  item: Item,
  group: Id | null = null,
  index = Number.MAX_SAFE_INTEGER,
  inside: readonly Item[] = [],
): Edit => ({
  label: 'Add a card',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    addCards(layer, [item, ...inside]);
    attach(layer, item.id, group, index);
  },
});

/** With all that stands in it. */
export const removeItem = ({ scene, layer: layerId, item }: CardRef): Edit => ({
  label: 'Delete a card',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    itemIn(layer, item);
    detach(layer, item);
    const drop = (id: Id): void => {
      layer.items[id]?.children?.forEach(drop);
      delete layer.items[id];
    };
    drop(item);
  },
});

/** `index` counts in the new list without the card. */
export const moveItem = ({ scene, layer: layerId, item }: CardRef, group: Id | null, index: number): Edit => ({
  label: 'Reorder cards',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    itemIn(layer, item);
    for (let at = group; at !== null; at = groupOf(layer.items, at)) {
      if (at === item) throw new RangeError('a group cannot stand in itself');
    }
    detach(layer, item);
    attach(layer, item, group, index);
  },
});

export const setItem = (
  { scene, layer, item }: CardRef,
  fields: { readonly on?: boolean; readonly name?: string },
): Edit => ({
  label: fields.name === undefined ? 'Switch a card' : 'Rename a card',
  change: (draft) => {
    Object.assign(itemIn(drawingIn(draft, scene, layer), item), fields);
  },
});
