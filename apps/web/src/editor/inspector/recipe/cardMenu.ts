import { together } from '@kite/core/document/patches';
import type { DrawingLayer, Id, Item } from '@kite/core/document/types';
import { effectsIn } from '@kite/core/edits/effects';
import { turnIntoPath } from '@kite/core/edits/paths';
import { isUse } from '@kite/core/edits/masks';
import { addItem, groupOf, listOf, moveItem, removeItem } from '@kite/core/edits/recipe';
import { REVEAL_NAME } from '@kite/core/edits/reveal';
import { isEffect } from '@kite/core/recipe/shown';
import { kindOf } from '@kite/core/recipe/table';
import { holdsCards } from '@kite/core/recipe/types';
import type { MenuEntry } from '../../../ui/Menu';
import { pinMenu } from '../../commands/joints';
import { copyCards, hasCopiedCards, pasteCopiedCards } from '../../commands/cards';
import { removePartAsking } from '../../commands/formulas';
import { newCard } from '../../commands/layers';
import { freeCard } from '../../commands/masks';
import { entryOf, SPLITS } from '../../commands/table';
import { type Editor, makeId } from '../../store/editor';

/** What can be done to a card, which stands at an index of a group or of the recipe. */
export const cardMenu = (
  editor: Editor,
  layer: DrawingLayer,
  item: Item,
  group: Id | null,
  index: number,
): (MenuEntry | null)[] => {
  const ref = { scene: editor.scene.id, layer: layer.id, item: item.id };
  const kind = kindOf(item.kind);
  const list = listOf(layer, group);
  const previous = layer.items[list[index - 1] ?? ''];
  const effects = effectsIn(layer, list);
  const wrap = () => {
    const [box] = newCard('group');
    editor.edit(together('Group cards', [addItem(ref.scene, layer.id, box, group, index), moveItem(ref, box.id, 0)]));
  };
  return [
    { label: 'Move up', disabled: index === 0, onSelect: () => editor.edit(moveItem(ref, group, index - 1)) },
    {
      label: 'Move down',
      disabled: index === list.length - 1,
      onSelect: () => editor.edit(moveItem(ref, group, index + 1)),
    },
    {
      label: 'Into the group above',
      disabled: !previous?.children || !holdsCards(kindOf(previous.kind)),
      onSelect: () => previous && editor.edit(moveItem(ref, previous.id, previous.children?.length ?? 0)),
    },
    {
      label: 'Out of its group',
      disabled: group === null,
      onSelect: () => {
        if (group === null) return;
        const outer = groupOf(layer.items, group);
        editor.edit(moveItem(ref, outer, listOf(layer, outer).indexOf(group) + 1));
      },
    },
    { label: 'Put in a new group', onSelect: wrap },
    { label: 'Copy', onSelect: () => copyCards(layer, [item.id]) },
    ...(isEffect(kind) && effects.length > 1
      ? [{ label: `Copy all ${effects.length} effects`, onSelect: () => copyCards(layer, effects) }]
      : []),
    {
      label: 'Paste below it',
      disabled: !hasCopiedCards(),
      onSelect: () => pasteCopiedCards(editor, layer.id, group, index + 1),
    },
    ...(item.kind === 'text' ? SPLITS.map((name) => entryOf(editor, name)) : []),
    {
      label: 'Turn into a path',
      disabled: !('outlines' in kind) || item.kind === 'path',
      onSelect: () => editor.edit(turnIntoPath(ref, editor.state.frame, editor.ownProgram, makeId)),
    },
    ...(item.name === REVEAL_NAME
      ? [{ label: 'Write on otherwise …', onSelect: () => editor.set({ revealing: [layer.id] }) }]
      : []),
    ...(isUse(item.kind) ? [{ label: 'Make a layer of it', onSelect: () => freeCard(editor, layer, item.id) }] : []),
    ...(item.kind === 'pin' ? pinMenu(editor, layer.id, item.id) : []),
    null,
    { label: 'Delete', danger: true, onSelect: () => removePartAsking(editor, ref.layer, ref.item, removeItem(ref)) },
  ];
};
