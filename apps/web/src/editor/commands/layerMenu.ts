import type { Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import type { MenuEntry } from '../../ui/Menu';
import { hangFrom, selectTag, soloLayers } from './arrange';
import { textOf } from './layers';
import { maskChoice, pathChoice } from './masks';
import { type CommandName, entryOf, SPLITS } from './table';
import type { Editor } from '../store/editor';

/** What can be done to a layer, and with it to all that are selected; `rename` begins to type its name, where it stands. */
export const layerMenu = (editor: Editor, layer: Layer, rename?: () => void): (MenuEntry | null)[] => {
  const { id } = layer;
  if (!editor.state.selection.layers.includes(id)) editor.select({ layers: [id] });
  // The time of layers is meant, not that of their chosen keyframes.
  else editor.select({ layers: editor.state.selection.layers });
  const closed = layer.kind !== 'drawing' || layer.locked;
  /** What is done to this one alone, whatever else is selected. */
  const alone = (name: CommandName, own?: Parameters<typeof entryOf>[2]): MenuEntry => {
    const entry = entryOf(editor, name, own);
    const onSelect = () => {
      editor.select({ layers: [id] });
      entry.onSelect();
    };
    return { ...entry, onSelect };
  };
  return [
    ...(rename ? [{ label: 'Rename', onSelect: rename }] : []),
    entryOf(editor, 'duplicate', { label: 'Duplicate' }),
    entryOf(editor, 'group', { label: 'Group' }),
    entryOf(editor, 'makeSet', { disabled: editor.state.selection.layers.length < 2 }),
    entryOf(editor, 'nest'),
    alone('cutPanes', { disabled: closed }),
    alone('makeSolid', { disabled: closed }),
    alone('putText', { disabled: closed }),
    entryOf(editor, 'shots', { disabled: closed }),
    entryOf(editor, 'shotsAtMarkers', {
      disabled: closed || editor.scene.markers.length === 0,
    }),
    entryOf(editor, 'writeOn', { disabled: closed }),
    entryOf(editor, 'motionBlur', { disabled: closed }),
    entryOf(editor, 'useAsMask', { disabled: maskChoice(editor) === null }),
    entryOf(editor, 'layAlong', { disabled: pathChoice(editor) === null }),
    entryOf(editor, 'useAsMatte', { disabled: editor.state.selection.layers.length < 2 }),
    entryOf(editor, 'ungroup'),
    entryOf(editor, 'join', { disabled: editor.state.selection.layers.length < 2 }),
    null,
    entryOf(editor, 'flipAcross', { disabled: layer.locked }),
    entryOf(editor, 'flipDown', { disabled: layer.locked }),
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
    ...(textOf(layer) !== null ? [null, ...SPLITS.map((name) => alone(name))] : []),
    null,
    entryOf(editor, 'remove', { label: 'Delete', disabled: layer.locked }),
  ];
};
