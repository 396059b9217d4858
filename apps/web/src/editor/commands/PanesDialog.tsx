import { cutIntoPanes, PANE_LIMITS, type Panes } from '@kite/core/edits/panes';
import { readersOf } from '@kite/core/scene/follows';
import { type FormEvent, useState } from 'react';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { NumberField } from '../../ui/NumberField';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { askingFirst } from './formulas';

const LABELS = { rows: 'Rows', columns: 'Columns', gap: 'Gap' } as const satisfies Record<keyof Panes, string>;

/** Into how many panes a layer is cut. */
export const PanesDialog = () => {
  const editor = useEditor();
  const layer = useSlice((s) => s.paning);
  const [panes, setPanes] = useState<Panes>({ rows: 2, columns: 3, gap: 0 });
  if (layer === null) return null;
  const close = () => editor.set({ paning: null });
  const cut = (event: FormEvent) => {
    event.preventDefault();
    const { scene, program, state } = editor;
    const before = new Set(scene.order);
    const edit = cutIntoPanes(program, layer, panes, state.frame, makeId);
    // What cannot be cut so is told, and can be put right.
    if (!askingFirst(editor, edit, readersOf(scene, [layer]))) return;
    close();
    const made = editor.scene.order.filter((id) => !before.has(id));
    if (made.length > 0) editor.select({ layers: made });
  };
  return (
    <Dialog open onClose={close} title={`Cut “${editor.scene.layers[layer]?.name}” into panes`} width={340}>
      <form className="flex flex-col gap-2" onSubmit={cut}>
        {(['rows', 'columns', 'gap'] as const).map((key) => (
          <label key={key} className="grid grid-cols-[1fr_120px] items-center text-ink-2">
            {LABELS[key]}
            <NumberField
              label={LABELS[key]}
              min={PANE_LIMITS[key][0]}
              max={PANE_LIMITS[key][1]}
              decimals={0}
              value={panes[key]}
              {...(key === 'gap' && { unit: 'px' })}
              onChange={(v) => setPanes((now) => ({ ...now, [key]: Math.round(v) }))}
            />
          </label>
        ))}
        <p className="text-sm text-ink-2">
          Each pane is a layer of its own, named by row and column. All show the same source: a picture that is swapped
          later changes in all of them.
        </p>
        <div className="mt-1 flex justify-end gap-2">
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" look="primary">
            Cut
          </Button>
        </div>
      </form>
    </Dialog>
  );
};
