import { pin } from '@kite/core/recipe/covers/pin';
import { apply } from '@kite/core/geometry/matrix';
import type { Point } from '@kite/core/document/types';
import type { PointerEvent } from 'react';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { Snapping } from '../snapping';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';

const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;

const tidy = ([x, y]: Point): Point => [Math.round(x * 10) / 10, Math.round(y * 10) / 10];

/** The corners of an open corner pin: each is dragged by itself, and snaps to what layers snap to. */
export const PinHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const card = editedCard(editor, view);
  if (card?.item.kind !== pin.kind) return null;
  const corners = CORNERS.map((key) => ({ key, at: apply(card.toArea, card.values[key] as Point) }));

  const onCorner = (key: (typeof CORNERS)[number]) => (event: PointerEvent) => {
    const ref = card.ref(key);
    const writes = writesAt(editor.state, [ref]);
    const snapping = new Snapping(editor, [ref.layer], view.zoom);
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const at = snapping.point(toScene(view, pointOf(now)), now);
        const value = tidy(card.fromScene(at));
        writeValues(editor, [[ref, value]], 'Move a corner');
        editor.set({
          readout: { at: pointOf(now), text: `${value.join(', ')}${writes ? ` · ${WRITES[writes].short}` : ''}` },
        });
      },
    });
  };

  return (
    <g>
      <polygon
        points={corners.map(({ at }) => at.join()).join(' ')}
        fill="none"
        stroke="var(--tail)"
        strokeWidth={1.5}
      />
      {corners.map(({ key, at: [x, y] }) => (
        <circle
          key={key}
          data-testid={`pin-${key}`}
          cx={x}
          cy={y}
          r={6}
          fill="var(--paper)"
          stroke="var(--tail)"
          strokeWidth={2}
          style={{ pointerEvents: 'all', cursor: 'move' }}
          onPointerDown={onCorner(key)}
        >
          <title>{`${pin.params[key].label}: drag; Ctrl does not snap`}</title>
        </circle>
      ))}
    </g>
  );
};
