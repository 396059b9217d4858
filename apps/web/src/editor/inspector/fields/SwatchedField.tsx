import { together } from '@kite/core/document/patches';
import type { ColorParam } from '@kite/core/document/params';
import { detachSwatches, swatchAt, takeSwatch } from '@kite/core/edits/swatches';
import { propertyAt } from '@kite/core/properties/find';
import { ColorField } from '../../../ui/ColorField';
import { useEditor, useSlice } from '../../store/context';
import { common, type FieldProps } from './props';

/** A colour, which may be taken from a swatch. */
export const SwatchedField = ({ param, values, refs, write, gesture }: FieldProps<ColorParam>) => {
  const editor = useEditor();
  const id = useSlice((s) => {
    const [first, ...others] = refs.map((ref) => swatchAt(propertyAt(s.doc, ref), s.frame));
    return others.every((other) => other === first) ? first : undefined;
  });
  const take = (swatch: string) => {
    const found = editor.state.doc.swatches.find((s) => s.id === swatch);
    if (!found) return;
    editor.edit(
      together(
        'Take a swatch',
        refs.map((ref) => takeSwatch(ref, found, editor.writing)),
      ),
    );
  };
  return (
    <ColorField
      label={param.label}
      value={common<string>(values)}
      onChange={write}
      link={{ id, take, detach: () => editor.edit(detachSwatches(refs)) }}
      {...gesture}
    />
  );
};
