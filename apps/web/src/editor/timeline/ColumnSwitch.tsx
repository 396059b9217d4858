import type { Id, Layer } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import type { PointerEvent, ReactNode } from 'react';
import { followPointer } from '../../ui/drag';
import { useEditor } from '../store/context';
import { rowButton } from './scale';

interface ColumnSwitchProps {
  layer: Layer;
  field: 'hidden' | 'locked';
  /** What a press does. */
  label: string;
  /** The layers that a press in this row is for. */
  chosen: () => readonly Id[];
  icon: ReactNode;
}

/** The layer whose row is at a height of the page, in the column of an element. */
const layerBeside = (column: Element, y: number): Id | null => {
  const { left, right } = column.getBoundingClientRect();
  const row = document.elementFromPoint((left + right) / 2, y)?.closest('[data-layer]');
  return row?.getAttribute('data-layer') ?? null;
};

/** Hides or locks a layer, or all that are selected with it; dragged up or down the column also those it passes. */
export const ColumnSwitch = ({ layer, field, label, chosen, icon }: ColumnSwitchProps) => {
  const editor = useEditor();
  const on = layer[field];
  const set = (ids: Iterable<Id>) => editor.edit(setLayers(editor.scene.id, [...ids], { [field]: !on }));
  const onPointerDown = (event: PointerEvent<HTMLButtonElement>) => {
    event.stopPropagation();
    if (event.button !== 0) return;
    const column = event.currentTarget;
    const touched = new Set(chosen());
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ event: now }) => {
        const passed = layerBeside(column, now.clientY);
        if (passed !== null) touched.add(passed);
        set(touched);
      },
      onEnd: (_, moved) => moved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
  return (
    <button
      type="button"
      aria-label={`${label} ${layer.name}`}
      aria-pressed={on}
      className={`${rowButton} ${on ? 'text-kite' : 'text-ink-2'}`}
      onPointerDown={onPointerDown}
      onClick={() => set(chosen())}
    >
      {icon}
    </button>
  );
};
