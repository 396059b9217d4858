/** Cards added; copied and pasted, kept in the browser, so that they can go to another layer, scene, project or tab. */
import { inkOn } from '@kite/core/document/colors';
import { newItem } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { DrawingLayer, Id, Item } from '@kite/core/document/types';
import { cardsAlone, pasteCards } from '@kite/core/edits/layers';
import { addItem, listOf } from '@kite/core/edits/recipe';
import { kindOf } from '@kite/core/recipe/table';
import type { Kind } from '@kite/core/recipe/types';
import { cardsBox } from '@kite/core/scene/bounds';
import { toast } from '../../ui/toast';
import { newCard } from './layers';
import { type Editor, makeId } from '../store/editor';

const CLIPBOARD = 'kite-copied-cards';

/** Copies a card, or with it the effects that stand in a row with it. */
export const copyCards = (layer: DrawingLayer, cards: readonly Id[]): void => {
  localStorage.setItem(CLIPBOARD, JSON.stringify(cardsAlone(layer, cards)));
  toast.info(cards.length === 1 ? 'The card is copied.' : `${cards.length} cards are copied.`);
};

/** Whether there is anything to paste. */
export const hasCopiedCards = (): boolean => localStorage.getItem(CLIPBOARD) !== null;

/** Puts what was copied last into a layer's recipe; the first of it is opened. */
export const pasteCopiedCards = (editor: Editor, layer: Id, group: Id | null, index: number): void => {
  let alone: DrawingLayer | null;
  try {
    alone = JSON.parse(localStorage.getItem(CLIPBOARD) ?? 'null') as DrawingLayer | null;
  } catch {
    toast.error('What was copied cannot be read.');
    return;
  }
  const before = editor.scene.layers[layer];
  if (!alone || before?.kind !== 'drawing') return;
  if (!editor.edit(pasteCards(editor.scene.id, layer, alone, group, index, makeId))) return;
  const now = editor.scene.layers[layer];
  const fresh = now?.kind === 'drawing' ? Object.keys(now.items).find((id) => !before.items[id]) : undefined;
  if (fresh !== undefined) editor.select({ layers: [layer], card: fresh });
};

/** Whether a card is to stand above the paints. */
const worksOnOutlines = (kind: Kind): boolean =>
  kind.role === 'source' || (kind.role === 'step' && !kind.onDrawn && !kind.repainted);

const isRepainted = (kind: Kind): boolean => kind.role === 'step' && !!kind.repainted;

/** Puts a new card among those of a drawing, or of a group in it, and opens it. */
export const addCardTo = (editor: Editor, layer: DrawingLayer, kind: string, group: Id | null): void => {
  const list = listOf(layer, group);
  const { card: open } = editor.state.selection;
  const below = open !== null && list.includes(open) ? list.indexOf(open) + 1 : list.length;
  const [item, ...inside] = newCard(kind, () =>
    cardsBox(editor.program, layer.id, list.slice(0, below), editor.state.frame),
  );
  const isPaint = (id: Id | undefined) => id !== undefined && kindOf(layer.items[id]?.kind ?? 'group').role === 'paint';
  const add = (card: Item, index: number, held: readonly Item[] = []) =>
    addItem(editor.scene.id, layer.id, card, group, index, held);
  if (isRepainted(kindOf(kind))) {
    // Below the paints of what it stands in the place of.
    const after = list.findIndex((id, i) => i >= below && !isPaint(id));
    const index = after < 0 ? list.length : after;
    const paint = newItem(makeId(), 'fill', { color: inkOn(editor.scene.background) });
    editor.edit(together('Add a card', [add(item, index, inside), add(paint, index + 1)]));
  } else {
    // Below the open card, else what gives or changes outlines goes above the first paint, and the rest at the end.
    const paints = list.findIndex(isPaint);
    const index = open === null && worksOnOutlines(kindOf(kind)) && paints >= 0 ? paints : below;
    editor.edit(add(item, index, inside));
  }
  editor.select({ layers: [layer.id], card: item.id });
};
