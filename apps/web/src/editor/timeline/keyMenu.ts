import { isApart, type PropertyRef } from '@kite/core/document/types';
import { paramAt, propertyAt, sameRef } from '@kite/core/properties/find';
import { removeAnimation, setApart } from '@kite/core/edits/properties';
import type { MenuEntry } from '../../ui/Menu';
import { copySelection, pasteCopied } from '../clipboard';
import { deleteSelection } from '../commands';
import { repeatFirst, reverseSelection, smoothSelection } from '../keying';
import type { Editor } from '../store/editor';

/** What can be done to the selected keyframes, and to the property whose ribbon was pressed. */
export const keyMenu = (editor: Editor, ref: PropertyRef): (MenuEntry | null)[] => {
  const { keys } = editor.state.selection;
  const here = keys.some((c) => sameRef(c.ref, ref));
  const { part: _part, ...whole } = ref;
  const param = paramAt(editor.state.doc, whole);
  const apart = isApart(propertyAt(editor.state.doc, whole));
  return [
    { label: 'Copy keyframes', shortcut: 'Ctrl+C', disabled: !here, onSelect: () => copySelection(editor) },
    { label: 'Paste at the playhead', shortcut: 'Ctrl+V', onSelect: () => pasteCopied(editor) },
    { label: 'Reverse', disabled: !here, onSelect: () => reverseSelection(editor) },
    { label: 'First keys again at the end', disabled: !here, onSelect: () => repeatFirst(editor) },
    { label: 'Delete keyframes', danger: true, disabled: !here, onSelect: () => deleteSelection(editor) },
    null,
    ...(ref.key === 'position' && !apart
      ? [
          { label: 'Smooth path through these', disabled: !here, onSelect: () => smoothSelection(editor, true) },
          { label: 'Straight path through these', disabled: !here, onSelect: () => smoothSelection(editor, false) },
        ]
      : []),
    ...(param?.kind === 'point'
      ? [
          {
            label: apart ? 'Bring x and y together' : 'Take x and y apart',
            onSelect: () => editor.edit(setApart(whole, !apart)),
          },
        ]
      : []),
    {
      label: 'Remove all keyframes here',
      danger: true,
      onSelect: () => editor.edit(removeAnimation(ref, editor.state.frame)),
    },
  ];
};
