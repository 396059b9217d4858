/** A text stays where it is while it is put in a box, or taken out of it. */
import type { Edit } from '@kite/core/document/patches';
import type { PropertyRef, Value } from '@kite/core/document/types';
import { framed } from '@kite/core/edits/framed';
import { setValue } from '@kite/core/edits/properties';
import { text as textKind, type TextValues } from '@kite/core/recipe/sources/text';
import type { Editor } from '../store/editor';

/** What goes along with texts that are framed otherwise: the box, and where it is. */
export const textsFramed = (editor: Editor, writes: readonly (readonly [ref: PropertyRef, value: Value])[]): Edit[] =>
  writes.flatMap(([ref, frame]) => {
    const layer = editor.state.doc.scenes[ref.scene]?.layers[ref.layer];
    if (layer?.kind !== 'drawing' || ref.item === undefined || ref.key !== 'frame') return [];
    if (layer.items[ref.item]?.kind !== textKind.kind) return [];
    const shown = editor.program.cardAt(ref.layer, ref.item, editor.state.frame);
    if (!shown) return [];
    const others = framed(shown.values as TextValues, frame as TextValues['frame'], editor.library.fonts);
    return Object.entries(others).map(([key, value]) => setValue({ ...ref, key }, value, editor.writing));
  });
