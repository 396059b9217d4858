import { together } from '@kite/core/document/patches';
import { pathOf } from '@kite/core/formula/refs';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { useEditor, useSlice } from '../store/context';
import { baking, targetOf } from '../commands/formulas';

/** Before something goes that formulas read: they can be baked first. */
export const RemovingDialog = () => {
  const editor = useEditor();
  const removing = useSlice((s) => s.removing);
  if (!removing) return null;
  const { edit, readers, cut } = removing;
  const close = () => editor.set({ removing: null });
  const names = [
    ...readers.map(({ by }) => pathOf(targetOf(by), editor.scene) ?? by.key),
    ...cut.map(({ name }) => `“${name}” is cut by it`),
  ];
  const reads = `${readers.length} formula${readers.length === 1 ? ' reads' : 's read'} what is to go`;
  const cuts = `${cut.length} layer${cut.length === 1 ? ' is' : 's are'} cut by what is to go`;
  const bake = () => {
    const edits = readers.flatMap(({ by }) => baking(editor, by, null) ?? []);
    editor.edit(together(edit.label, [...edits, edit]));
    close();
  };
  return (
    <Dialog
      open
      onClose={close}
      title={readers.length > 0 ? reads : cuts}
      about={[
        readers.length > 0 && 'Without it formulas cannot work, and the keyframes under them play.',
        cut.length > 0 && 'What it cut shows whole.',
      ]
        .filter(Boolean)
        .join(' ')}
      width={440}
    >
      <ul className="mb-4 max-h-40 list-disc overflow-y-auto pl-5">
        {names.slice(0, 20).map((name) => (
          <li key={name}>{name}</li>
        ))}
        {names.length > 20 && <li>and {names.length - 20} more</li>}
      </ul>
      <div className="flex justify-end gap-2">
        <Button onClick={close}>Cancel</Button>
        <Button
          look="danger"
          onClick={() => {
            editor.edit(edit);
            close();
          }}
        >
          Delete all the same
        </Button>
        {readers.length > 0 && (
          <Button look="primary" onClick={bake}>
            Bake them, then delete
          </Button>
        )}
      </div>
    </Dialog>
  );
};
