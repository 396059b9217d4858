import type { PathValue, Vertex } from '@kite/core/document/types';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';

/** The outline with its vertices the other way round: trims then draw it from the other end. */
const reversed = ({ closed, vertices }: PathValue): PathValue => {
  const back = vertices.toReversed().map(([x, y, ix, iy, ox, oy]): Vertex => [x, y, ox, oy, ix, iy]);
  // A closed outline keeps its first vertex.
  return { closed, vertices: closed && back.length > 0 ? [back.at(-1) as Vertex, ...back.slice(0, -1)] : back };
};

export const PathField = ({ value, onChange }: { value: PathValue; onChange: (value: PathValue) => void }) => {
  const [open, setOpen] = useState(false);
  const move = (i: number, axis: 0 | 1, to: number) => {
    const vertices = value.vertices.map((v, k): Vertex => (k === i ? (v.with(axis, to) as unknown as Vertex) : v));
    onChange({ ...value, vertices });
  };
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={value.closed}
            onChange={(event) => onChange({ ...value, closed: event.target.checked })}
          />
          Closed
        </label>
        <Button className="ml-auto !h-6 !px-2 text-sm" onClick={() => onChange(reversed(value))}>
          Reverse
        </Button>
        <Button className="!h-6 !px-2 text-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
          {value.vertices.length} vertices
        </Button>
      </div>
      {open && (
        <ol className="flex max-h-40 flex-col gap-1 overflow-y-auto pr-1">
          {value.vertices.map((v, i) => (
            <li key={i} className="grid grid-cols-[20px_1fr_1fr] items-center gap-1">
              <span className="tabular text-xs text-ink-2">{i + 1}</span>
              <NumberField label={`Vertex ${i + 1} x`} value={v[0]} onChange={(x) => move(i, 0, x)} />
              <NumberField label={`Vertex ${i + 1} y`} value={v[1]} onChange={(y) => move(i, 1, y)} />
            </li>
          ))}
        </ol>
      )}
    </div>
  );
};
