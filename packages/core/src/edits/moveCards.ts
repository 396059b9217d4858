/** The cards that moves make on layers: trims by which they draw outlines, and a wipe by which they slide out from behind an edge. */
import { type MakeId, newItem } from '../document/make';
import type { AppliedMove } from '../document/moves';
import type { DrawingLayer, Id, Layer } from '../document/types';
import { cardsOfMove } from '../moves/write';
import { wipe } from '../recipe/covers/wipe';
import { group } from '../recipe/groups/group';
import { stroke } from '../recipe/paints/stroke';
import { trim } from '../recipe/steps/trim';
import type { DrawingDraft, LayerDraft } from './find';
import { addCards, attach, detach, listOf } from './recipe';

/** Where strokes begin in a recipe: the first one of each list of cards that has some. */
const firstStrokes = (
  layer: DrawingDraft | DrawingLayer,
  holder: Id | null = null,
): { holder: Id | null; at: number }[] => {
  const list = listOf(layer, holder);
  const own = list.findIndex((id) => layer.items[id]?.kind === stroke.kind && layer.items[id].on);
  const inside = list.filter((id) => layer.items[id]?.kind === group.kind && layer.items[id].on);
  return [...(own < 0 ? [] : [{ holder, at: own }]), ...inside.flatMap((id) => firstStrokes(layer, id))];
};

/** Whether a layer has strokes that a move may draw. */
export const hasStrokes = (layer: Layer | undefined): boolean =>
  layer?.kind === 'drawing' && firstStrokes(layer).length > 0;

/** Puts a trim before the strokes of each list of cards that has some: fills above them stay whole. */
export const addTrims = (layer: DrawingDraft, name: string, makeId: MakeId): Id[] =>
  firstStrokes(layer).map(({ holder, at }) => {
    const card = { ...newItem(makeId(), trim.kind), name };
    addCards(layer, [card]);
    attach(layer, card.id, holder, at);
    return card.id;
  });

/** The way of a wipe that shows what comes from there. */
export const wayFrom = (angle: number): number => angle + (angle > 0 ? -180 : 180);

/** Puts a wipe at the end of a recipe, by which all of it slides out from behind its edge. */
export const addWipe = (layer: DrawingDraft, name: string, angle: number, makeId: MakeId): Id => {
  const card = { ...newItem(makeId(), wipe.kind, { style: 'slide', shown: 1, angle: wayFrom(angle) }), name };
  addCards(layer, [card]);
  const end = layer.recipe.length;
  attach(layer, card.id, null, end);
  return card.id;
};

/** Takes the cards of a move out of its layer, those that are there still. */
export const removeCards = (layer: LayerDraft, applied: AppliedMove): void => {
  if (layer.kind !== 'drawing') return;
  for (const { id } of cardsOfMove(applied).filter((card) => layer.items[card.id])) {
    detach(layer, id);
    delete layer.items[id];
  }
};
