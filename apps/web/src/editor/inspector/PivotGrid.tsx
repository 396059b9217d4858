import type { Id, Point } from '@kite/core/document/types';
import { movePivot } from '@kite/core/edits/place';
import type { Box } from '@kite/core/geometry/bounds';
import { useEditor } from '../store/context';
import { NAME_AND_FIELD } from './row';

const ROWS = ['top', 'middle', 'bottom'] as const;
const COLUMNS = ['left', 'centre', 'right'] as const;

interface PivotGridProps {
  layer: Id;
  /** The group among its cards whose pivot it is. */
  group?: Id;
  /** Of what has the pivot, in its own pixels. */
  boxOf: () => Box | null;
}

/** The pivot put on the middle of the artwork, or on a corner or an edge of it; the picture stays. */
export const PivotGrid = ({ layer, group, boxOf }: PivotGridProps) => {
  const editor = useEditor();
  const put = (column: number, row: number) => {
    const box = boxOf();
    if (!box) return;
    const pivot: Point = [
      box.left + ((box.right - box.left) * column) / 2,
      box.top + ((box.bottom - box.top) * row) / 2,
    ];
    const tidy = pivot.map((v) => Math.round(v * 100) / 100) as unknown as Point;
    editor.edit(movePivot(editor.scene.id, layer, tidy, editor.state.frame, group));
  };
  return (
    <div className={NAME_AND_FIELD}>
      <span className="pl-5 text-ink-2">Pivot on</span>
      <span role="group" aria-label="Pivot on" className="grid w-[66px] grid-cols-3 rounded-md border border-line">
        {ROWS.flatMap((row, y) =>
          COLUMNS.map((column, x) => (
            <button
              key={row + column}
              type="button"
              aria-label={`Pivot on ${row} ${column}`}
              title={`${row} ${column}`}
              onClick={() => put(x, y)}
              className="grid h-3.5 place-items-center rounded-sm hover:bg-sky-2"
            >
              <span className="size-1 rounded-full bg-ink-2" />
            </button>
          )),
        )}
      </span>
    </div>
  );
};
