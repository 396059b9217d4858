import type { BrushStroke, Point } from '@kite/core/document/types';
import { strokeAt, strokePoint, strokesIn, strokesMoved, withStrokePoint } from '@kite/core/edits/strokes';
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
/** Pixels on the screen that a press may be beside a stroke, and the points that are shown at the most. */
const [SLACK, MOST_DOTS] = [4, 400];
/** How much harder or lighter a press of a bracket makes a point. */
const PRESSED = 0.1;

/** While strokes are taken, by a press or a line around them: those are dragged to another place, or deleted, and so are their points. */
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
  const [dot, setDot] = useState<{ readonly stroke: number; readonly n: number } | null>(null);
  const chosen = taken.filter((i) => i < strokes.length);
  const dots = chosen.flatMap((i) => {
    const stroke = strokes[i] as BrushStroke;
    return Array.from({ length: stroke.points.length / 3 }, (_, n) => ({ stroke: i, n, at: strokePoint(stroke, n) }));
  });
  const own = dot && dots.find(({ stroke, n }) => stroke === dot.stroke && n === dot.n);

  const write = (next: readonly BrushStroke[], label: string) =>
    active && writeValues(editor, [[active.ref('strokes'), next]], label);

  useEffect(() => {
    if (!active) return;
    const onKey = (event: KeyboardEvent) => {
      const isDelete = event.key === 'Delete' || event.key === 'Backspace';
      if (event.key === 'Escape') {
        setTaken([]);
        setDot(null);
        editor.set({ mode: SELECTING });
      } else if (own && isDelete) {
        write(withStrokePoint(strokes, own.stroke, own.n, null), 'Delete a point of a stroke');
        setDot(null);
      } else if (own && (event.key === '[' || event.key === ']')) {
        const [x, y, pressure] = own.at;
        const pressed = pressure + (event.key === ']' ? PRESSED : -PRESSED);
        write(withStrokePoint(strokes, own.stroke, own.n, [x, y, pressed]), 'Press a stroke otherwise');
      } else if (isDelete && chosen.length > 0) {
        write(
          strokes.filter((_, i) => !chosen.includes(i)),
          'Delete strokes',
        );
        setTaken([]);
      } else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });
  if (!active) return null;

  const placed = dots.map((one) => ({ ...one, seen: applyThrough(active.toArea, [one.at[0], one.at[1]]) }));
  const box = boxOfPoints(placed.map(({ seen }) => seen));
  const showsDots = placed.length <= MOST_DOTS;
  const isOnTaken = ([x, y]: Point): boolean =>
    box !== null && x > box.left - MARGIN && x < box.right + MARGIN && y > box.top - MARGIN && y < box.bottom + MARGIN;

  /** Drags what is taken: `moved` gives the strokes after so long a way, in their own pixels. */
  const move = (event: PointerEvent, label: string, moved: (by: Point) => readonly BrushStroke[]) => {
    const from = active.fromScene(toScene(view, pointOf(event)));
    followPointer(event, {
      onStart: () => editor.begin('picture'),
      onMove: ({ event: now }) => {
        const to = active.fromScene(toScene(view, pointOf(now)));
        write(moved([to[0] - from[0], to[1] - from[1]]), label);
      },
      onEnd: (_drag, hasMoved) => hasMoved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
  const draw = (event: PointerEvent) => {
    const start = pointOf(event);
    const drawn: Point[] = [start];
    followPointer(event, {
      onMove: ({ event: now }) => {
        drawn.push(pointOf(now));
        setLine([...drawn]);
      },
      onEnd: (_drag, hasMoved) => {
        setLine([]);
        if (!hasMoved) {
          const at = active.fromScene(toScene(view, start));
          const beside = active.fromScene(toScene(view, [start[0] + SLACK, start[1]]));
          const pressed = strokeAt(strokes, at, Math.hypot(beside[0] - at[0], beside[1] - at[1]));
          setTaken(pressed < 0 ? [] : [pressed]);
        } else setTaken(strokesIn(strokes, (at) => isInside(drawn, applyThrough(active.toArea, at))));
      },
      onCancel: () => setLine([]),
    });
  };
  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const at = pointOf(event);
    const pressed = placed.find(({ seen }) => Math.hypot(seen[0] - at[0], seen[1] - at[1]) <= SLACK + 2);
    setDot(pressed && showsDots ? pressed : null);
    if (pressed && showsDots) {
      const [x, y, pressure] = pressed.at;
      move(event, 'Move a point of a stroke', ([dx, dy]) =>
        withStrokePoint(strokes, pressed.stroke, pressed.n, [x + dx, y + dy, pressure]),
      );
    } else if (isOnTaken(at)) move(event, 'Move strokes', (by) => strokesMoved(strokes, chosen, by));
    else draw(event);
  };
  return (
    <div data-testid="lasso" className="absolute inset-0 cursor-crosshair" onPointerDown={onPointerDown}>
      <Hint>
        {chosen.length > 0
          ? own
            ? 'A point: drag, [ or ] for how hard it is pressed, or Delete · Esc ends'
            : `${chosen.length} stroke${chosen.length === 1 ? '' : 's'}: drag, also by a point, or Delete · Esc ends`
          : 'Press a stroke, or draw around some · Esc ends'}
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
        {showsDots &&
          placed.map(({ stroke, n, seen: [x, y] }) => (
            <circle
              key={`${stroke} ${n}`}
              data-testid="stroke-point"
              cx={x}
              cy={y}
              r={own?.stroke === stroke && own.n === n ? 5 : 3.5}
              fill={own?.stroke === stroke && own.n === n ? 'var(--sky)' : 'var(--paper)'}
              stroke="var(--sky)"
            />
          ))}
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
