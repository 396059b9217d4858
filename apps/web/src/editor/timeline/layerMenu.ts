import type { Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import { setParent } from '@kite/core/edits/place';
import type { MenuEntry } from '../../ui/Menu';
import { groupSelection, selectTag, toggleSolo, ungroupSelection } from '../arrange';
import { duplicateLayers } from '../clipboard';
import { deleteSelection, splitTextLayer, textOf } from '../commands';
import { extendSelection, reverseSelection, selectAllKeys, splitAtPlayhead } from '../keying';
import { setOfSelection } from '../formula/commands';
import { nestSelection } from '../nesting';
import type { Editor } from '../store/editor';

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
    { label: 'Duplicate', shortcut: 'Ctrl+D', onSelect: () => duplicateLayers(editor) },
    { label: 'Group', shortcut: 'Ctrl+G', onSelect: () => groupSelection(editor) },
    { label: 'Make a set', disabled: editor.state.selection.layers.length < 2, onSelect: () => setOfSelection(editor) },
    { label: 'Nest in a scene of their own', onSelect: () => nestSelection(editor) },
    { label: 'Ungroup', shortcut: 'Ctrl+Shift+G', onSelect: () => ungroupSelection(editor) },
    null,
    { label: 'Split at the playhead', shortcut: '/', onSelect: () => splitAtPlayhead(editor) },
    { label: 'Extend to the scene’s end', onSelect: () => extendSelection(editor) },
    { label: 'Reverse the motion', onSelect: () => reverseSelection(editor) },
    { label: 'Select all keyframes', shortcut: 'Ctrl+Shift+A', onSelect: () => selectAllKeys(editor) },
    null,
    {
      label: editor.state.solo.includes(id) ? 'Show with the others' : 'Show alone',
      onSelect: () => toggleSolo(editor, id),
    },
    {
      label: layer.tucked ? 'Bring back to the lists' : 'Tuck away',
      onSelect: () => editor.edit(setLayers(editor.scene.id, editor.state.selection.layers, { tucked: !layer.tucked })),
    },
    { label: 'Select all with this tag', onSelect: () => selectTag(editor, layer.tag) },
    {
      label: 'No parent',
      disabled: layer.parent === null,
      onSelect: () => editor.edit(setParent(editor.scene.id, [id], null, editor.state.frame)),
    },
    ...(textOf(layer) !== null ? [null, ...splits] : []),
    null,
    { label: 'Delete', danger: true, disabled: layer.locked, onSelect: () => deleteSelection(editor) },
  ];
};
