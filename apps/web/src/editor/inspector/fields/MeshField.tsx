import { MOST_MESH, plainMesh } from '@kite/core/document/params';
import type { MeshValue } from '@kite/core/document/types';
import { resampled } from '@kite/core/geometry/mesh';
import { Button } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';

const COUNTS = [
  { key: 'columns', label: 'Columns' },
  { key: 'rows', label: 'Rows' },
] as const;

interface MeshFieldProps {
  value: MeshValue;
  onChange: (mesh: MeshValue) => void;
  onStart: () => void;
  onEnd: () => void;
}

/** The columns and rows of a mesh: more or fewer leave it bent as it is. Its points are dragged on the canvas. */
export const MeshField = ({ value, onChange, ...gesture }: MeshFieldProps) => {
  const set = (count: Partial<Pick<MeshValue, 'columns' | 'rows'>>) => {
    const { columns, rows } = { ...value, ...count };
    onChange(resampled(value, columns, rows));
  };
  const isPlain = value.ways.every((way) => way === 0);
  return (
    <span className="flex min-w-0 items-center gap-1.5">
      {COUNTS.map(({ key, label }) => (
        <NumberField
          key={key}
          label={label}
          before={<span className="text-xs text-ink-2">{label[0]?.toLowerCase()}</span>}
          value={value[key]}
          min={1}
          max={MOST_MESH}
          decimals={0}
          onChange={(n) => set({ [key]: Math.round(n) })}
          {...gesture}
        />
      ))}
      <Button
        disabled={isPlain}
        title="Puts every point back"
        onClick={() => onChange(plainMesh(value.columns, value.rows))}
      >
        Flat
      </Button>
    </span>
  );
};
