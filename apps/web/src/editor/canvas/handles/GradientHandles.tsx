import { tenthsOf } from '@kite/core/document/fitting';
import { frameOfCard, type Stage } from '../stage';
import type { Gradient, Point } from '@kite/core/document/types';
import { applyThrough } from '@kite/core/geometry/through';
import { gradientAt } from '@kite/core/motion/gradients';
import { MOST_STOPS } from '@kite/core/document/params';
import { kindOf } from '@kite/core/recipe/table';
import type { PointerEvent } from 'react';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';

/** The line of an open paint's gradient: its ends and stops are dragged, a double click on the line adds a stop. */
export const GradientHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s) }));
  const card = editedCard(editor, view);
  if (!card || kindOf(card.item.kind).role !== 'paint' || card.values.style === 'solid') return null;
  const { from, to, gradient } = card.values as { from: Point; to: Point; gradient: Gradient };
  const [a, b] = [applyThrough(card.toArea, from), applyThrough(card.toArea, to)];
  const shareOf = (p: Point): number => {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const share = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1);
    return Math.round(Math.min(1, Math.max(0, share)) * 1000) / 1000;
  };

  const drag = (event: PointerEvent, move: (p: Point) => void) =>
    editGesture(editor, event, { move: ({ event: now }) => move(pointOf(now)) });
  const onEnd = (key: 'from' | 'to') => (event: PointerEvent) =>
    drag(event, (p) => writeValues(editor, [[card.ref(key), tenthsOf(card.fromArea(p))]], 'Move a gradient'));
  const onStop = (i: number) => (event: PointerEvent) =>
    drag(event, (p) => {
      const stops = gradient.stops.map((s, k) => (k === i ? { ...s, at: shareOf(p) } : s));
      writeValues(editor, [[card.ref('gradient'), { stops: stops.sort((x, y) => x.at - y.at) }]], 'Move a stop');
    });
  const onLine = (event: { clientX: number; clientY: number; stopPropagation: () => void }) => {
    event.stopPropagation();
    if (gradient.stops.length >= MOST_STOPS) return;
    const at = shareOf(pointOf(event));
    const stops = [...gradient.stops, { at, color: gradientAt(gradient, at) }].sort((x, y) => x.at - y.at);
    writeValues(editor, [[card.ref('gradient'), { stops }]], 'Add a stop');
  };
  const end = (key: 'from' | 'to', [x, y]: Point) => (
    <circle
      data-testid={`gradient-${key}`}
      cx={x}
      cy={y}
      r={7}
      fill="none"
      stroke="var(--paper)"
      strokeWidth={3}
      style={{ pointerEvents: 'all', cursor: 'move', paintOrder: 'stroke' }}
      onPointerDown={onEnd(key)}
    />
  );
  return (
    <g>
      <path d={`M${a.join()}L${b.join()}`} stroke="var(--ink)" strokeWidth={3} />
      <path
        d={`M${a.join()}L${b.join()}`}
        stroke="var(--paper)"
        strokeWidth={1.5}
        style={{ pointerEvents: 'stroke', cursor: 'copy' }}
        onPointerDown={(event) => event.stopPropagation()}
        onDoubleClick={onLine}
      />
      {end('from', a)}
      {end('to', b)}
      {gradient.stops.map((stop, i) => (
        <circle
          key={i}
          data-testid="gradient-stop"
          cx={a[0] + (b[0] - a[0]) * stop.at}
          cy={a[1] + (b[1] - a[1]) * stop.at}
          r={4.5}
          fill={stop.color}
          stroke="var(--ink)"
          strokeWidth={1.5}
          style={{ pointerEvents: stop.at > 0.02 && stop.at < 0.98 ? 'all' : 'none', cursor: 'ew-resize' }}
          onPointerDown={onStop(i)}
        />
      ))}
    </g>
  );
};
