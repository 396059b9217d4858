import type { Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import type { MenuEntry } from '../../../ui/Menu';
import { hangFrom, selectTag, soloLayers } from '../../commands/arrange';
import { addTextOn, splitTextLayer, textOf } from '../../commands/layers';
import { maskChoice } from '../../commands/masks';
import { entryOf } from '../../commands/table';
import type { Editor } from '../../store/editor';

/** What can be done to a layer, and with it to all that are selected. */
export const layerMenu = (editor: Editor, layer: Layer, rename: () => void): (MenuEntry | null)[] => {
  const { id } = layer;
  if (!editor.state.selection.layers.includes(id)) editor.select({ layers: [id] });
  // The time of layers is meant, not that of their chosen keyframes.
  else editor.select({ layers: editor.state.selection.layers });
  const splits = (['letters', 'words', 'lines'] as const).map((by) => ({
    label: `Split into ${by}`,
    onSelect: () => splitTextLayer(editor, id, by),
  }));
  return [
    { label: 'Rename', onSelect: rename },
    entryOf(editor, 'duplicate', { label: 'Duplicate' }),
    entryOf(editor, 'group', { label: 'Group' }),
    entryOf(editor, 'makeSet', { disabled: editor.state.selection.layers.length < 2 }),
    entryOf(editor, 'nest'),
    {
      label: 'Cut into panes …',
      disabled: layer.kind !== 'drawing' || layer.locked,
      onSelect: () => editor.set({ paning: id }),
    },
    {
      label: 'Make a box, card, fan or stack …',
      disabled: layer.kind !== 'drawing' || layer.locked,
      onSelect: () => editor.set({ building: { layer: id } }),
    },
    {
      label: 'Put a text on it',
      disabled: layer.kind !== 'drawing' || layer.locked,
      onSelect: () => addTextOn(editor, id),
    },
    entryOf(editor, 'shots', { disabled: layer.kind !== 'drawing' || layer.locked }),
    entryOf(editor, 'shotsAtMarkers', {
      disabled: layer.kind !== 'drawing' || layer.locked || editor.scene.markers.length === 0,
    }),
    entryOf(editor, 'writeOn', { disabled: layer.kind !== 'drawing' || layer.locked }),
    entryOf(editor, 'motionBlur', { disabled: layer.kind !== 'drawing' || layer.locked }),
    entryOf(editor, 'useAsMask', { disabled: maskChoice(editor) === null }),
    entryOf(editor, 'useAsMatte', { disabled: editor.state.selection.layers.length < 2 }),
    entryOf(editor, 'ungroup'),
    entryOf(editor, 'join', { disabled: editor.state.selection.layers.length < 2 }),
    null,
    entryOf(editor, 'wholeFront'),
    entryOf(editor, 'wholeBack'),
    entryOf(editor, 'lockOthers'),
    null,
    entryOf(editor, 'split'),
    entryOf(editor, 'extend'),
    entryOf(editor, 'reverse'),
    entryOf(editor, 'selectKeys'),
    null,
    {
      label: editor.state.solo.includes(id) ? 'Show with the others' : 'Show alone',
      onSelect: () => soloLayers(editor, editor.state.selection.layers, !editor.state.solo.includes(id)),
    },
    {
      label: layer.tucked ? 'Bring back to the lists' : 'Tuck away',
      onSelect: () => editor.edit(setLayers(editor.scene.id, editor.state.selection.layers, { tucked: !layer.tucked })),
    },
    { label: 'Select all with this tag', onSelect: () => selectTag(editor, layer.tag) },
    {
      label: 'No parent',
      disabled: layer.parent === null,
      onSelect: () => hangFrom(editor, editor.state.selection.layers, null),
    },
    ...(textOf(layer) !== null ? [null, ...splits] : []),
    null,
    entryOf(editor, 'remove', { label: 'Delete', disabled: layer.locked }),
  ];
};
