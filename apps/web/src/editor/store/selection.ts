/** What is chosen, to be looked at or worked on. */
import { type Id, isKeyed, type Project, type Scene } from '@kite/core/document/types';
import type { KeyChoice } from '@kite/core/edits/keyframes';
import { propertyAt } from '@kite/core/properties/find';

/** Layers, or one card of the one selected layer, or keyframes of any of its properties. */
export interface Selection {
  readonly layers: readonly Id[];
  readonly card: Id | null;
  readonly keys: readonly KeyChoice[];
}
export const NOTHING: Selection = { layers: [], card: null, keys: [] };

export interface Choosing {
  readonly selection: Selection;
  /** The vertices of a path that are selected on the canvas. */
  readonly vertices: readonly number[];
  /** By layer, the card that was open when it was last the only one selected: it opens again with it. */
  readonly unfolded: ReadonlyMap<Id, Id>;
  /** Groups whose members have no rows. */
  readonly folded: ReadonlySet<Id>;
  /** Layers whose ribbons show. */
  readonly opened: ReadonlySet<Id>;
  /** Layers that are shown alone; none shows all. Not part of the document. */
  readonly solo: readonly Id[];
}
export const NOTHING_CHOSEN: Choosing = {
  selection: NOTHING,
  vertices: [],
  unfolded: new Map(),
  folded: new Set(),
  opened: new Set(),
  solo: [],
};

/** What is unfolded once this is chosen: a card stays so until it, or another of its layer, is closed or opened by hand. */
const unfoldedBy = (
  before: ReadonlyMap<Id, Id>,
  { layers: [layer] = [], card }: Partial<Selection>,
): ReadonlyMap<Id, Id> => {
  if (layer === undefined || card === undefined || before.get(layer) === (card ?? undefined)) return before;
  const after = new Map(before);
  if (card === null) after.delete(layer);
  else after.set(layer, card);
  return after;
};

/** What is chosen once this is. Vertices belong to the card that they were selected on. */
export const choosing = (
  { selection: before, unfolded }: Pick<Choosing, 'selection' | 'unfolded'>,
  part: Partial<Selection>,
): Partial<Choosing> => {
  const selection = { ...NOTHING, ...part };
  const same = selection.card === before.card && selection.layers[0] === before.layers[0];
  return { selection, unfolded: unfoldedBy(unfolded, part), ...(!same && { vertices: [] }) };
};

/** The selection without what is no longer there. */
export const stillThere = (selection: Selection, doc: Project, scene: Scene): Selection => {
  const layers = selection.layers.filter((id) => scene.layers[id]);
  const only = layers.length === 1 ? scene.layers[layers[0] as Id] : undefined;
  const card =
    only?.kind === 'drawing' && selection.card !== null && only.items[selection.card] ? selection.card : null;
  const keys = selection.keys.flatMap((choice) => {
    const property = propertyAt(doc, choice.ref);
    if (!isKeyed(property)) return [];
    const frames = choice.frames.filter((f) => property.keys.some((k) => k.frame === f));
    return frames.length > 0 ? [{ ref: choice.ref, frames }] : [];
  });
  return { layers, card, keys };
};

/** Those shown alone that are still there, and with them what has been made since: that is to be seen. */
export const stillAlone = (solo: readonly Id[], before: Scene, scene: Scene): readonly Id[] => {
  const there = solo.filter((id) => scene.layers[id]);
  const made = there.length > 0 ? scene.order.filter((id) => !before.layers[id]) : [];
  return made.length === 0 && there.length === solo.length ? solo : [...there, ...made];
};
