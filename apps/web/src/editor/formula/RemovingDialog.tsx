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
  const { edit, readers } = removing;
  const close = () => editor.set({ removing: null });
  const names = readers.map(({ by }) => pathOf(targetOf(by), editor.scene) ?? by.key);
  const bake = () => {
    const edits = readers.flatMap(({ by }) => baking(editor, by, null) ?? []);
    editor.edit(together(edit.label, [...edits, edit]));
    close();
  };
  return (
    <Dialog
      open
      onClose={close}
      title={`${names.length} formula${names.length === 1 ? ' reads' : 's read'} what is to go`}
      about="Without it they cannot work, and the keyframes under them play."
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
        <Button look="primary" onClick={bake}>
          Bake them, then delete
        </Button>
      </div>
    </Dialog>
  );
};
