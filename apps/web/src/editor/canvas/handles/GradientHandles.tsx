import { tenthsOf } from '@kite/core/document/fitting';
import { frameOfCard, type Stage } from '../stage';
import type { Gradient, Point } from '@kite/core/document/types';
import { applyThrough } from '@kite/core/geometry/through';
import { gradientAt } from '@kite/core/motion/gradients';
import { MOST_STOPS } from '@kite/core/document/params';
import { isGradient } from '@kite/core/recipe/paints/ink';
import { kindOf } from '@kite/core/recipe/table';
import type { PointerEvent } from 'react';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';
import { Grip } from './Grip';

/** Points round the edge of a radial gradient, so many of them, in the pixels of its card. */
const ROUND = 64;
const edgeOf = (from: Point, [toX, toY]: Point, breadth: number): readonly Point[] => {
  const [dx, dy] = [toX - from[0], toY - from[1]];
  return Array.from({ length: ROUND }, (_, i): Point => {
    const [along, across] = [Math.cos((i * 2 * Math.PI) / ROUND), breadth * Math.sin((i * 2 * Math.PI) / ROUND)];
    return [from[0] + dx * along - dy * across, from[1] + dy * along + dx * across];
  });
};

/**
 * The line of an open paint's gradient: its ends and stops are dragged, a double click on the line adds a stop. The edge of a
 * radial one is dragged at its side, to be wider or narrower across.
 */
export const GradientHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s) }));
  const card = editedCard(editor, view);
  if (!card || kindOf(card.item.kind).role !== 'paint' || !isGradient(card.values.style)) return null;
  const { from, to, gradient, style, breadth } = card.values as {
    from: Point;
    to: Point;
    gradient: Gradient;
    style: string;
    breadth?: number;
  };
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
  const onSide = (event: PointerEvent) =>
    drag(event, (p) => {
      // The edge goes through the pointer.
      const [x, y] = card.fromArea(p);
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const long = dx * dx + dy * dy || 1;
      const along = Math.min(0.98, Math.abs(((x - from[0]) * dx + (y - from[1]) * dy) / long));
      const across = Math.abs(((x - from[0]) * -dy + (y - from[1]) * dx) / long);
      const wide = Math.round((across / Math.sqrt(1 - along * along)) * 100) / 100;
      const share = Math.min(100, Math.max(0.01, wide));
      writeValues(editor, [[card.ref('breadth'), share]], 'Widen a gradient');
    });
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
  const edge = style === 'radial' ? edgeOf(from, to, breadth ?? 1).map((p) => applyThrough(card.toArea, p)) : [];
  // Between the handles of a shape that it is as large as.
  const side = edge[ROUND / 8];
  return (
    <g>
      {edge.length > 0 && (
        <path
          d={`M${edge.map((p) => p.join()).join('L')}Z`}
          fill="none"
          stroke="var(--paper)"
          strokeDasharray="2 4"
          style={{ pointerEvents: 'none' }}
        />
      )}
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
      {side && breadth !== undefined && (
        <Grip at={side} of="layer" cursor="move" testId="gradient-side" onPointerDown={onSide} />
      )}
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
