import type { BrushStroke, Point } from '@kite/core/document/types';
import { strokesIn, strokesMoved } from '@kite/core/edits/strokes';
import { boxOfPoints } from '@kite/core/geometry/bounds';
import { applyThrough } from '@kite/core/geometry/through';
import { brush } from '@kite/core/recipe/sources/brush';
import { type PointerEvent, useEffect, useState } from 'react';
import { followPointer } from '../../../ui/drag';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { SELECTING } from '../../store/workspace';
import { editedCard } from '../handles/editedCard';
import { Hint } from '../looks/Hint';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';

/** Whether a point lies in a polygon, by how often a line from it crosses its sides. */
const isInside = (line: readonly Point[], [x, y]: Point): boolean => {
  let inside = false;
  line.forEach(([ax, ay], i) => {
    const [bx, by] = line[(i + 1) % line.length] as Point;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
};

const MARGIN = 8;

/** While strokes are taken by a line around them: those are dragged to another place, or deleted. */
export const Lasso = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { lassoing } = useSlice((s) => ({
    lassoing: s.mode.kind === 'lassoing',
    selection: s.selection,
    frame: frameOfCard(s),
    doc: s.doc,
  }));
  const [line, setLine] = useState<readonly Point[]>([]);
  const [taken, setTaken] = useState<readonly number[]>([]);
  const card = lassoing ? editedCard(editor, view) : null;
  const active = card?.item.kind === brush.kind ? card : null;
  const strokes = active ? (active.values.strokes as readonly BrushStroke[]) : [];
  const chosen = taken.filter((i) => i < strokes.length);

  useEffect(() => {
    if (!active) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') {
        setTaken([]);
        editor.set({ mode: SELECTING });
      } else if ((event.key === 'Delete' || event.key === 'Backspace') && chosen.length > 0) {
        writeValues(editor, [[active.ref('strokes'), strokes.filter((_, i) => !chosen.includes(i))]], 'Delete strokes');
        setTaken([]);
      } else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });
  if (!active) return null;

  const seen = chosen.flatMap((i) => {
    const { points } = strokes[i] as BrushStroke;
    return Array.from({ length: points.length / 3 }, (_, n) =>
      applyThrough(active.toArea, [points[3 * n]!, points[3 * n + 1]!]),
    );
  });
  const box = boxOfPoints(seen);
  const isOnTaken = ([x, y]: Point): boolean =>
    box !== null && x > box.left - MARGIN && x < box.right + MARGIN && y > box.top - MARGIN && y < box.bottom + MARGIN;

  const move = (event: PointerEvent) => {
    const from = active.fromScene(toScene(view, pointOf(event)));
    followPointer(event, {
      onStart: () => editor.begin('picture'),
      onMove: ({ event: now }) => {
        const to = active.fromScene(toScene(view, pointOf(now)));
        const moved = strokesMoved(strokes, chosen, [to[0] - from[0], to[1] - from[1]]);
        writeValues(editor, [[active.ref('strokes'), moved]], 'Move strokes');
      },
      onEnd: (_drag, hasMoved) => hasMoved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
  const draw = (event: PointerEvent) => {
    const drawn: Point[] = [pointOf(event)];
    followPointer(event, {
      onMove: ({ event: now }) => {
        drawn.push(pointOf(now));
        setLine([...drawn]);
      },
      onEnd: () => {
        setLine([]);
        setTaken(strokesIn(strokes, (at) => isInside(drawn, applyThrough(active.toArea, at))));
      },
      onCancel: () => setLine([]),
    });
  };
  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (isOnTaken(pointOf(event))) move(event);
    else draw(event);
  };
  return (
    <div data-testid="lasso" className="absolute inset-0 cursor-crosshair" onPointerDown={onPointerDown}>
      <Hint>
        {chosen.length > 0
          ? `${chosen.length} stroke${chosen.length === 1 ? '' : 's'}: drag, or Delete · Esc ends`
          : 'Draw around strokes · Esc ends'}
      </Hint>
      <svg className="pointer-events-none size-full" aria-hidden>
        {line.length > 1 && (
          <polygon
            points={line.map((p) => p.join()).join(' ')}
            fill="var(--sky)"
            fillOpacity={0.12}
            stroke="var(--sky)"
          />
        )}
        {box && (
          <rect
            data-testid="lasso-taken"
            x={box.left - MARGIN}
            y={box.top - MARGIN}
            width={box.right - box.left + 2 * MARGIN}
            height={box.bottom - box.top + 2 * MARGIN}
            fill="none"
            stroke="var(--sky)"
            strokeDasharray="4 3"
          />
        )}
      </svg>
    </div>
  );
};
