import type { DrawingLayer, Id, SavedEffects } from '@kite/core/document/types';
import { putEffects } from '@kite/core/edits/effects';
import { listOf } from '@kite/core/edits/recipe';
import { isEffect } from '@kite/core/recipe/shown';
import { KINDS } from '@kite/core/recipe/table';
import { Plus } from 'lucide-react';
import { Menu, type MenuEntry } from '../../../ui/Menu';
import { addCardTo, hasCopiedCards, pasteCopiedCards } from '../../commands/cards';
import { useEditor, useSlice } from '../../store/context';
import { makeId } from '../../store/editor';
import { EffectsStrip } from './EffectsStrip';

/** In the order of their columns. */
const ROLES = ['source', 'step', 'paint', 'cover', 'group'] as const;

/** What is put among the cards of a drawing, or of a group: cards by name, effects by their pictures. */
export const AddCard = ({ layer, group }: { layer: DrawingLayer; group: Id | null }) => {
  const editor = useEditor();
  const list = listOf(layer, group);
  const open = useSlice((s) => s.selection.card);
  const above = open !== null && list.includes(open) ? list.slice(0, list.indexOf(open) + 1) : list;
  const add = (kind: string) => addCardTo(editor, layer, kind, group);
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
