import type { Id } from '@kite/core/document/types';
import { cutByShapes, cutIntoPanes, PANE_LIMITS, type Panes as PanesOf } from '@kite/core/edits/panes';
import { readersOf } from '@kite/core/scene/follows';
import { type FormEvent, useState } from 'react';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { askingFirst } from './formulas';

const LABELS = { rows: 'Rows', columns: 'Columns', gap: 'Gap' } as const satisfies Record<keyof PanesOf, string>;

type By = 'grid' | 'shapes';
const GRID_FIELDS = { grid: ['rows', 'columns', 'gap'], shapes: [] } as const satisfies Record<
  By,
  readonly (keyof PanesOf)[]
>;

const WAYS: readonly { value: By; label: string }[] = [
  { value: 'grid', label: 'Rows and columns' },
  { value: 'shapes', label: 'Shapes of a layer' },
];

/** Into how many panes a layer is cut, or by which layer's shapes. */
export const PanesDialog = () => {
  const layer = useSlice((s) => s.paning);
  return layer === null ? null : <Panes layer={layer} />;
};

const Panes = ({ layer }: { layer: Id }) => {
  const editor = useEditor();
  const { scene, program, state } = editor;
  // A layer that is selected too is meant to cut it.
  const other = state.selection.layers.find((id) => id !== layer && scene.layers[id]?.kind === 'drawing');
  const [by, setBy] = useState<By>(other === undefined ? 'grid' : 'shapes');
  const [shaper, setShaper] = useState<Id>(other ?? '');
  const [panes, setPanes] = useState<PanesOf>({ rows: 2, columns: 3, gap: 0 });
  const close = () => editor.set({ paning: null });
  const cut = (event: FormEvent) => {
    event.preventDefault();
    const before = new Set(scene.order);
    const edit =
      by === 'grid'
        ? cutIntoPanes(program, layer, panes, state.frame, makeId)
        : cutByShapes(program, layer, shaper, state.frame, makeId);
    // What cannot be cut so is told, and can be put right.
    if (!askingFirst(editor, edit, readersOf(scene, [layer]))) return;
    close();
    const made = editor.scene.order.filter((id) => !before.has(id));
    if (made.length > 0) editor.select({ layers: made });
  };
  const shapers = scene.order.filter((id) => id !== layer && scene.layers[id]?.kind === 'drawing');
  return (
    <Dialog open onClose={close} title={`Cut “${scene.layers[layer]?.name}” into panes`} width={340}>
      <form className="flex flex-col gap-2" onSubmit={cut}>
        <Segments label="Cut by" value={by} options={WAYS} onChange={setBy} />
        {by === 'shapes' && (
          <label className="grid grid-cols-[1fr_180px] items-center text-ink-2">
            Layer
            <Select
              aria-label="Layer whose shapes cut"
              value={shaper}
              options={[
                ...(shaper === '' ? [{ value: '', label: 'Choose …' }] : []),
                ...shapers.map((id) => ({ value: id, label: scene.layers[id]?.name ?? id })),
              ]}
              onChange={setShaper}
            />
          </label>
        )}
        {GRID_FIELDS[by].map((key) => (
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
          {by === 'grid'
            ? 'Each pane is a layer of its own, named by row and column. '
            : 'Each shape, as each copy of a repeater, makes a pane: a layer of its own. The layer whose shapes they are is switched off. '}
          All show the same source: a picture that is swapped later changes in all of them.
        </p>
        <div className="mt-1 flex justify-end gap-2">
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" look="primary" disabled={by === 'shapes' && shaper === ''}>
            Cut
          </Button>
        </div>
      </form>
    </Dialog>
  );
};
