/** Edits to effects: those that a project keeps under names, and those of a kind in a whole scene. */
import { type MakeId, newItem } from '../document/make';
import { type Edit, together } from '../document/patches';
import type { DrawingLayer, Id, PropertyRef, SavedEffects, Scene } from '../document/types';
import { isEffect } from '../recipe/shown';
import { kindOf } from '../recipe/table';
import { drawingIn, itemIn, type SceneDraft, sceneIn } from './find';
import { pasteCards } from './layers';
import { addItem } from './recipe';

/** The effects of a list of a layer's cards, in their order. */
export const effectsIn = ({ items }: DrawingLayer, cards: readonly Id[]): Id[] =>
  cards.filter((id) => items[id] && isEffect(kindOf(items[id].kind)));

/** Keeps cards of a layer; those that are no effects are left out. */
export const keepEffects = (id: Id, name: string, layer: DrawingLayer, cards: readonly Id[]): Edit => ({
  label: `Keep the effects ${name}`,
  change: (draft) => {
    const kept = effectsIn(layer, cards).flatMap((card) => layer.items[card] ?? []);
    const saved: SavedEffects = { id, name, layer: layer.id, cards: kept };
    draft.effects = [...draft.effects, saved] as typeof draft.effects;
  },
});

export const forgetEffects = (id: Id): Edit => ({
  label: 'Forget effects',
  change: (draft) => {
    draft.effects = draft.effects.filter((e) => e.id !== id);
  },
});

/** Puts copies of kept effects into a recipe, from an index of a group on. */
export const putEffects = (
  sceneId: Id,
  layer: DrawingLayer,
  saved: SavedEffects,
  group: Id | null,
  index: number,
  makeId: MakeId,
): Edit => {
  // Their formulas call the layer they stand in by the id of the one they were kept from.
  const items = Object.fromEntries(saved.cards.map((card) => [card.id, card]));
  const alone = { ...layer, id: saved.layer, items, recipe: saved.cards.map(({ id }) => id) };
  return together(saved.name, [pasteCards(sceneId, layer.id, alone, group, index, makeId)]);
};

/** Where the cards of a kind stand in a scene, front to back. */
export const cardsOfKind = (
  scene: Scene | SceneDraft,
  kind: string,
): Required<Pick<PropertyRef, 'scene' | 'layer' | 'item'>>[] =>
  scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    const items = layer?.kind === 'drawing' ? Object.values(layer.items) : [];
    return items.filter((item) => item.kind === kind).map((item) => ({ scene: scene.id, layer: id, item: item.id }));
  });

/** Switches all cards of a kind in a scene. */
export const switchCards = (sceneId: Id, kind: string, on: boolean): Edit => ({
  label: `${kindOf(kind).label} ${on ? 'on' : 'off'} in the whole scene`,
  change: (draft) => {
    for (const { layer, item } of cardsOfKind(sceneIn(draft, sceneId), kind)) {
      itemIn(drawingIn(draft, sceneId, layer), item).on = on;
    }
  },
});

/** Gives each of some layers a card of a kind at the end of its recipe, switched on; those that have one keep it. */
export const giveCards = (sceneId: Id, layers: readonly Id[], kind: string, makeId: MakeId): Edit => ({
  label: kindOf(kind).label,
  change: (draft) => {
    for (const id of layers) {
      const layer = drawingIn(draft, sceneId, id);
      const own = Object.values(layer.items).filter((item) => item.kind === kind);
      for (const item of own) item.on = true;
      const last = layer.recipe.length;
      if (own.length === 0) addItem(sceneId, id, newItem(makeId(), kind), null, last).change(draft);
    }
  },
});
