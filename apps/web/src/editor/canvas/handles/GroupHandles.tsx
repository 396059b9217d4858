import { frameOfCard, type Stage } from '../stage';
import type { PLACE, Values } from '@kite/core/document/params';
import type { Point } from '@kite/core/document/types';
import { apply, inverted, placed } from '@kite/core/geometry/matrix';
import { applyThrough, throughBoth } from '@kite/core/geometry/through';
import { movePivot } from '@kite/core/edits/place';
import { cardsBox, cornersThrough } from '@kite/core/scene/bounds';
import type { PointerEvent } from 'react';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';
import { Grip } from './Grip';

const CORNERS: readonly Point[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];
const tidy = (n: number) => Math.round(n * 1000) / 1000 + 0;
const tidyPoint = ([x, y]: Point): Point => [tidy(x), tidy(y)];

/** The place of an open group card: what is moved and scaled here is the group within its layer, not the layer. */
export const GroupHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const card = editedCard(editor, view);
  if (card?.item.kind !== 'group') return null;
  const { layer } = card;
  const place = card.values as unknown as Values<typeof PLACE>;
  const own = cardsBox(editor.program, layer.id, card.item.children ?? [], editor.state.frame);
  if (!own) return null;
  const toArea = throughBoth(card.toArea, placed(place));
  const corner = ([x, y]: Point): Point => [x ? own.right : own.left, y ? own.bottom : own.top];

  const gesture = (event: PointerEvent, move: (p: Point) => void) =>
    editGesture(editor, event, { move: ({ event: now }) => move(pointOf(now)) });
  const onMove = (event: PointerEvent) => {
    const start = card.fromArea(pointOf(event));
    gesture(event, (p) => {
      const [x, y] = card.fromArea(p);
      const position = tidyPoint([
        Math.round(place.position[0] + x - start[0]),
        Math.round(place.position[1] + y - start[1]),
      ]);
      writeValues(editor, [[card.ref('position'), position]], 'Move a group');
      editor.set({ readout: { at: p, text: `group ${position[0]}, ${position[1]}` } });
    });
  };
  /** The far corner stays; the sides keep their ratio. */
  const onScale = (grip: Point) => (event: PointerEvent) => {
    const anchor = corner([1 - grip[0], 1 - grip[1]]);
    const back = inverted(placed(place));
    if (!back) return;
    const from = corner(grip);
    const length = Math.hypot(from[0] - anchor[0], from[1] - anchor[1]) || 1;
    gesture(event, (p) => {
      const [x, y] = apply(back, card.fromArea(p));
      const along = ((x - anchor[0]) * (from[0] - anchor[0]) + (y - anchor[1]) * (from[1] - anchor[1])) / length;
      const factor = Math.max(0.001, along / length);
      const scale = tidyPoint([place.scale[0] * factor, place.scale[1] * factor]);
      const [before, after] = [apply(placed(place), anchor), apply(placed({ ...place, scale }), anchor)];
      const position = tidyPoint([place.position[0] + before[0] - after[0], place.position[1] + before[1] - after[1]]);
      writeValues(
        editor,
        [
          [card.ref('scale'), scale],
          [card.ref('position'), position],
        ],
        'Scale a group',
      );
      editor.set({ readout: { at: p, text: `group ${Math.round(scale[0] * 100)} %` } });
    });
  };

  const onPivot = (event: PointerEvent) => {
    if (!event.altKey) {
      onMove(event);
      return;
    }
    const back = inverted(placed(place));
    if (!back) return;
    gesture(event, (p) => {
      const pivot = tidyPoint(apply(back, card.fromArea(p)));
      editor.edit(movePivot(editor.scene.id, layer.id, pivot, editor.state.frame, card.item.id));
    });
  };

  const points = cornersThrough(toArea, own)
    .map((p) => p.join(','))
    .join(' ');
  const [lx, ly] = applyThrough(toArea, corner([0, 0]));
  const [px, py] = applyThrough(toArea, place.pivot);
  const name = card.item.name ?? 'Group';
  return (
    <g>
      <polygon
        data-testid="group-box"
        points={points}
        fill="transparent"
        stroke="var(--tail)"
        strokeWidth={1.5}
        strokeDasharray="5 3"
        style={{ pointerEvents: 'all', cursor: 'move' }}
        onPointerDown={onMove}
      />
      {CORNERS.map((grip) => (
        <Grip
          key={grip.join()}
          at={applyThrough(toArea, corner(grip))}
          of="card"
          cursor={grip[0] === grip[1] ? 'nwse-resize' : 'nesw-resize'}
          testId={`group-${grip.join('/')}`}
          onPointerDown={onScale(grip)}
        />
      ))}
      <g
        data-testid="group-pivot"
        stroke="var(--tail)"
        fill="none"
        strokeWidth={1.5}
        style={{ pointerEvents: 'all', cursor: 'move' }}
        onPointerDown={onPivot}
      >
        <title>Drag moves the group, Alt-drag its pivot</title>
        <circle cx={px} cy={py} r={5} fill="transparent" />
        <path d={`M${px - 9} ${py}h18M${px} ${py - 9}v18`} />
      </g>
      <g transform={`translate(${lx} ${ly - 22})`} style={{ pointerEvents: 'none' }}>
        <rect width={(name.length + 21) * 6.2 + 12} height={18} rx={4} fill="var(--tail)" />
        <text x={6} y={13} fontSize={11} fill="var(--paper)">
          {name}: the group, not the layer
        </text>
      </g>
    </g>
  );
};
