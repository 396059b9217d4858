import type { PathValue, PropertyRef, Vertex } from '@kite/core/document/types';
import { reversedPath, startingAt, withVertexKind } from '@kite/core/motion/paths';
import { useState } from 'react';
import { Button } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { removeVertices, reshape } from '../../canvas/handles/vertices';
import { useEditor, useSlice } from '../../store/context';

interface PathFieldProps {
  refTo: PropertyRef;
  value: PathValue;
  onChange: (value: PathValue) => void;
}

/** What is done to the vertices selected on the canvas, and each vertex's numbers. */
export const PathField = ({ refTo, value, onChange }: PathFieldProps) => {
  const editor = useEditor();
  const vertices = useSlice((s) => s.vertices);
  const [open, setOpen] = useState(false);
  const chosen = new Set(vertices.filter((i) => i < value.vertices.length));
  const move = (i: number, axis: 0 | 1, to: number) => {
    const next = value.vertices.map((v, k): Vertex => (k === i ? (v.with(axis, to) as unknown as Vertex) : v));
    onChange({ ...value, vertices: next });
  };
  const small = '!h-6 !px-2 text-sm';
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-center gap-1.5">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={value.closed}
            onChange={(event) => {
              const closed = event.target.checked;
              reshape(editor, refTo, closed ? 'Close a path' : 'Open a path', (p) => ({ ...p, closed }));
            }}
          />
          Closed
        </label>
        <Button className={`ml-auto ${small}`} onClick={() => reshape(editor, refTo, 'Reverse a path', reversedPath)}>
          Reverse
        </Button>
        <Button className={small} aria-expanded={open} onClick={() => setOpen(!open)}>
          {value.vertices.length} vertices
        </Button>
      </div>
      <div className="flex flex-wrap gap-1">
        {(['corner', 'smooth'] as const).map((kind) => (
          <Button
            key={kind}
            className={small}
            disabled={chosen.size === 0}
            onClick={() => onChange(withVertexKind(value, chosen, kind))}
          >
            {kind === 'corner' ? 'Corner' : 'Smooth'}
          </Button>
        ))}
        <Button
          className={small}
          disabled={chosen.size !== 1 || !value.closed}
          onClick={() => {
            const [first = 0] = chosen;
            reshape(editor, refTo, 'Choose the first vertex', (p) => startingAt(p, first));
            editor.set({ vertices: [0] });
          }}
        >
          First
        </Button>
        <Button
          className={small}
          disabled={chosen.size === 0 || value.vertices.length - chosen.size < 2}
          onClick={() => removeVertices(editor, refTo, value)}
        >
          Remove
        </Button>
      </div>
      {chosen.size === 0 && !open && (
        <p className="text-sm text-ink-2">
          Drag vertices on the canvas; double-click the outline to add one, a vertex to make it smooth or a corner.
        </p>
      )}
      {open && (
        <ol className="flex max-h-40 flex-col gap-1 overflow-y-auto pr-1">
          {value.vertices.map((v, i) => (
            <li key={i} className="grid grid-cols-[20px_1fr_1fr] items-center gap-1">
              <span className={`tabular text-xs ${chosen.has(i) ? 'font-semibold text-kite' : 'text-ink-2'}`}>
                {i + 1}
              </span>
              <NumberField label={`Vertex ${i + 1} x`} value={v[0]} onChange={(x) => move(i, 0, x)} />
              <NumberField label={`Vertex ${i + 1} y`} value={v[1]} onChange={(y) => move(i, 1, y)} />
            </li>
          ))}
        </ol>
      )}
    </div>
  );
};
