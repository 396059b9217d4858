import { isApart, type PropertyRef } from '@kite/core/document/types';
import { paramAt, propertyAt, sameRef } from '@kite/core/properties/find';
import { removeAnimation, setApart } from '@kite/core/edits/properties';
import type { MenuEntry } from '../../../ui/Menu';
import { entryOf } from '../../commands/table';
import type { Editor } from '../../store/editor';

/** What can be done to the selected keyframes, and to the property whose ribbon was pressed. */
export const keyMenu = (editor: Editor, ref: PropertyRef): (MenuEntry | null)[] => {
  const { keys } = editor.state.selection;
  const here = keys.some((c) => sameRef(c.ref, ref));
  const { part: _part, ...whole } = ref;
  const param = paramAt(editor.state.doc, whole);
  const apart = isApart(propertyAt(editor.state.doc, whole));
  return [
    entryOf(editor, 'copy', { label: 'Copy keyframes', disabled: !here }),
    entryOf(editor, 'paste'),
    entryOf(editor, 'reverse', { label: 'Reverse', disabled: !here }),
    entryOf(editor, 'repeatFirst', { disabled: !here }),
    entryOf(editor, 'remove', { label: 'Delete keyframes', disabled: !here }),
    null,
    ...(ref.key === 'position' && !apart
      ? [entryOf(editor, 'smooth', { disabled: !here }), entryOf(editor, 'straighten', { disabled: !here })]
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
