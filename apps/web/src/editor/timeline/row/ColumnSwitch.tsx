import type { Id, Layer } from '@kite/core/document/types';
import type { PointerEvent, ReactNode } from 'react';
import { followPointer } from '../../../ui/drag';
import { useEditor } from '../../store/context';
import { rowButton } from '../scale';

interface ColumnSwitchProps {
  layer: Layer;
  on: boolean;
  /** What a press does, before the layer's name. */
  label: string;
  /** The layers that a press in this row is for. */
  chosen: () => readonly Id[];
  /** Gives layers what this one gets. */
  set: (ids: readonly Id[]) => void;
  icon: ReactNode;
}

/** The layer whose row is at a height of the page, in the column of an element. */
const layerBeside = (column: Element, y: number): Id | null => {
  const { left, right } = column.getBoundingClientRect();
  const row = document.elementFromPoint((left + right) / 2, y)?.closest('[data-layer]');
  return row?.getAttribute('data-layer') ?? null;
};

/** Hands the rows that a drag up or down a column passes to what is to be done with them, with those chosen to begin with. */
export const useColumnDrag = (chosen: () => readonly Id[], set: (ids: readonly Id[]) => void) => {
  const editor = useEditor();
  return (event: PointerEvent<HTMLButtonElement>) => {
    event.stopPropagation();
    if (event.button !== 0) return;
    const column = event.currentTarget;
    const touched = new Set(chosen());
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ event: now }) => {
        const passed = layerBeside(column, now.clientY);
        if (passed !== null) touched.add(passed);
        set([...touched]);
      },
      onEnd: (_, moved) => moved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
};

/** Switches something of a layer, or of all that are selected with it; dragged up or down the column also of those it passes. */
export const ColumnSwitch = ({ layer, on, label, chosen, set, icon }: ColumnSwitchProps) => (
  <button
    type="button"
    aria-label={`${label} ${layer.name}`}
    aria-pressed={on}
    title={`${label}; drag up or down for more`}
    className={`${rowButton} touch-none ${on ? 'text-kite' : 'text-ink-2'}`}
    onPointerDown={useColumnDrag(chosen, set)}
    onClick={() => set(chosen())}
  >
    {icon}
  </button>
);
