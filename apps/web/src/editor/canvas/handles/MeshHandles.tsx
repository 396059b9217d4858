import { tenths } from '@kite/core/document/fitting';
import type { Values } from '@kite/core/document/params';
import type { MeshValue, Point } from '@kite/core/document/types';
import { cardsAbove } from '@kite/core/edits/recipe';
import type { Box } from '@kite/core/geometry/bounds';
import { wayAt, wayOf, withWay } from '@kite/core/geometry/mesh';
import { applyThrough } from '@kite/core/geometry/through';
import { type AREA, boxOfArea } from '@kite/core/recipe/covers/area';
import { mesh } from '@kite/core/recipe/covers/mesh';
import { boxOfMarks } from '@kite/core/recipe/marks';
import type { PointerEvent } from 'react';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import { Snapping } from '../snapping';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';
import { type EditedCard, editedCard } from './editedCard';
import { editGesture } from './editGesture';

/** Straight lines that stand for one edge of a cell. */
const STEPS = 12;

/** The box of what an open mesh bends, in the card's pixels; null where nothing is above it. */
const boxAbove = (editor: Editor, card: EditedCard): Box | null => {
  const { layer, item } = card;
  const { marks } = editor.program.flowAt(layer.id, cardsAbove(layer, item.id), editor.state.frame);
  return boxOfArea(boxOfMarks(marks, false), card.values as unknown as Values<typeof AREA>);
};

/** The points of an open mesh, each dragged by itself, with the edges between them. */
export const MeshHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const card = editedCard(editor, view);
  if (card?.item.kind !== mesh.kind) return null;
  const box = boxAbove(editor, card);
  if (!box) return null;
  const value = card.values.points as MeshValue;
  const smooth = card.values.smooth as number;
  const { columns, rows } = value;
  const placeOf = (u: number, v: number): Point => [
    box.left + (box.right - box.left) * u,
    box.top + (box.bottom - box.top) * v,
  ];
  /** Where what lies at shares of the box is bent to, in the area. */
  const bent = (u: number, v: number): Point => {
    const [[x, y], [dx, dy]] = [placeOf(u, v), wayAt(value, smooth, u, v)];
    return applyThrough(card.toArea, [x + dx, y + dy]);
  };
  const line = (count: number, at: (share: number) => Point): string =>
    `M${Array.from({ length: count * STEPS + 1 }, (_, i) => at(i / (count * STEPS)).join()).join('L')}`;
  const lines = [
    ...Array.from({ length: rows + 1 }, (_, row) => line(columns, (u) => bent(u, row / rows))),
    ...Array.from({ length: columns + 1 }, (_, column) => line(rows, (v) => bent(column / columns, v))),
  ];

  const onPoint = (column: number, row: number) => (event: PointerEvent) => {
    const ref = card.ref('points');
    const writes = writesAt(editor.state, [ref]);
    const snapping = new Snapping(editor, [ref.layer], view.zoom);
    const [x, y] = placeOf(column / columns, row / rows);
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const to = card.fromScene(snapping.point(toScene(view, pointOf(now)), now));
        const way: Point = [tenths(to[0] - x), tenths(to[1] - y)];
        writeValues(editor, [[ref, withWay(value, column, row, way)]], 'Move a point of a mesh');
        const text = `${way.join(', ')}${writes ? ` · ${WRITES[writes].short}` : ''}`;
        editor.set({ readout: { at: pointOf(now), text } });
      },
    });
  };

  return (
    <g>
      <path d={lines.join('')} fill="none" stroke="var(--tail)" strokeWidth={1.25} data-testid="mesh-lines" />
      {Array.from({ length: (columns + 1) * (rows + 1) }, (_, i) => {
        const column = i % (columns + 1);
        const row = (i - column) / (columns + 1);
        const [x, y] = bent(column / columns, row / rows);
        const moved = wayOf(value, column, row).some((way) => way !== 0);
        return (
          <circle
            key={i}
            data-testid={`mesh-${column}-${row}`}
            cx={x}
            cy={y}
            r={5}
            fill={moved ? 'var(--tail)' : 'var(--paper)'}
            stroke="var(--tail)"
            strokeWidth={1.75}
            style={{ pointerEvents: 'all', cursor: 'move' }}
            onPointerDown={onPoint(column, row)}
          >
            <title>{`Column ${column + 1}, row ${row + 1}: drag; Ctrl does not snap`}</title>
          </circle>
        );
      })}
    </g>
  );
};
