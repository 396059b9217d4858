import type { DrawingLayer, Id, SavedEffects } from '@kite/core/document/types';
import { putEffects } from '@kite/core/edits/effects';
import { addItem, listOf } from '@kite/core/edits/recipe';
import { cardsBox } from '@kite/core/scene/bounds';
import { isEffect } from '@kite/core/recipe/shown';
import { KINDS, kindOf } from '@kite/core/recipe/table';
import type { Kind } from '@kite/core/recipe/types';
import { Plus } from 'lucide-react';
import { Menu, type MenuEntry } from '../../../ui/Menu';
import { hasCopiedCards, pasteCopiedCards } from '../../commands/cards';
import { newCard } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { makeId } from '../../store/editor';
import { EffectsStrip } from './EffectsStrip';

/** In the order of their columns. */
const ROLES = ['source', 'step', 'paint', 'cover', 'group'] as const;

/** Whether a card is to stand above the paints. */
const worksOnOutlines = (kind: Kind): boolean => kind.role === 'source' || (kind.role === 'step' && !kind.onDrawn);

/** What is put among the cards of a drawing, or of a group: cards by name, effects by their pictures. */
export const AddCard = ({ layer, group }: { layer: DrawingLayer; group: Id | null }) => {
  const editor = useEditor();
  const list = listOf(layer, group);
  const open = useSlice((s) => s.selection.card);
  const above = open !== null && list.includes(open) ? list.slice(0, list.indexOf(open) + 1) : list;
  const add = (kind: string) => {
    const item = newCard(kind, () => cardsBox(editor.program, layer.id, above, editor.state.frame));
    // Below the open card, else what gives or changes outlines goes above the first paint, and the rest at the end.
    const paints = list.findIndex((id) => kindOf(layer.items[id]?.kind ?? 'group').role === 'paint');
    const after = open !== null && list.includes(open) ? list.indexOf(open) + 1 : list.length;
    const index = open === null && worksOnOutlines(kindOf(kind)) && paints >= 0 ? paints : after;
    editor.edit(addItem(editor.scene.id, layer.id, item, group, index));
    editor.select({ layers: [layer.id], card: item.id });
  };
  const where = open !== null && list.includes(open) ? list.indexOf(open) + 1 : list.length;
  const use = (saved: SavedEffects) => editor.edit(putEffects(editor.scene.id, layer, saved, group, where, makeId));
  const paste: (MenuEntry | null)[] = hasCopiedCards()
    ? [{ label: 'Paste what was copied', onSelect: () => pasteCopiedCards(editor, layer.id, group, where) }, null]
    : [];
  const kinds = ROLES.flatMap((role, i): (MenuEntry | null)[] => [
    ...(i > 0 ? [null] : []),
    ...[...KINDS.values()]
      .filter((k) => k.role === role && !isEffect(k))
      .map((k) => ({ label: k.label, onSelect: () => add(k.kind) })),
  ]);
  return (
    <div className="flex flex-wrap gap-x-1">
      <Menu
        align="start"
        columns={2}
        entries={[...paste, ...kinds]}
        trigger={
          <button
            type="button"
            className="flex h-7 items-center gap-1.5 rounded-md px-1.5 text-ink-2 hover:bg-paper-2 hover:text-ink"
          >
            <Plus size={14} /> {group === null ? 'Add a card' : 'Add a card to the group'}
          </button>
        }
      />
      <EffectsStrip
        label={group === null ? 'Add an effect' : 'Add an effect to the group'}
        layer={layer}
        cards={list}
        above={above}
        onAdd={add}
        onUse={use}
      />
    </div>
  );
};
