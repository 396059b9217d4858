/** Cards copied and pasted: kept in the browser, so that they can go to another layer, scene, project or tab. */
import type { DrawingLayer, Id } from '@kite/core/document/types';
import { cardsAlone, pasteCards } from '@kite/core/edits/layers';
import { toast } from 'sonner';
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
