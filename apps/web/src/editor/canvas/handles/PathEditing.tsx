import { tenths } from '@kite/core/document/fitting';
import { SELECTING } from '../../store/workspace';
import { frameOfCard, type Stage } from '../stage';
import type { PathValue, Point } from '@kite/core/document/types';
import { type Box, union } from '@kite/core/geometry/bounds';
import { applyThrough } from '@kite/core/geometry/through';
import { fractionsOf } from '@kite/core/geometry/snap';
import {
  type Handle,
  isCorner,
  isSmooth,
  movedVertices,
  nearestOnPath,
  withHandle,
  withInserted,
  withVertexKind,
} from '@kite/core/motion/paths';
import { type PointerEvent, useEffect } from 'react';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';
import { moveSelection } from './transforms';
import { removeVertices, reshape } from './vertices';
import { Snapping } from '../snapping';
import { toArea, toScene } from '../view';

/** The vertices of the open path card: dragged with their handles, added by a double click on the outline. */
export const PathEditing = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { chosen } = useSlice((s) => ({
    doc: s.doc,
    selection: s.selection,
    frame: frameOfCard(s),
    mode: s.mode,
    chosen: s.vertices,
  }));
  const card = editedCard(editor, view);
  const path = card?.item.kind === 'path' ? (card.values.path as PathValue) : null;
  const ref = card?.ref('path');

  useEffect(() => {
    if (!path || !ref) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.target instanceof Element && event.target.closest('input,textarea,select,[role=menu],[role=dialog]'))
        return;
      if ((event.key === 'Delete' || event.key === 'Backspace') && editor.state.vertices.length > 0) {
        event.preventDefault();
        event.stopImmediatePropagation();
        removeVertices(editor, ref, path);
      }
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });

  if (!card || !path || !ref || editor.state.mode !== SELECTING || path.vertices.length === 0) return null;
  const selected = new Set(chosen);
  const place = (x: number, y: number) => applyThrough(card.toArea, [x, y]);
  const write = (next: PathValue, label: string) => writeValues(editor, [[ref, next]], label);

  const onVertex = (i: number) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const now = event.shiftKey
      ? selected.has(i)
        ? chosen.filter((v) => v !== i)
        : [...chosen, i]
      : selected.has(i)
        ? chosen
        : [i];
    editor.set({ vertices: now });
    const moving = new Set(now);
    // A click on one of several takes it alone; a drag moves them all.
    let dragged = false;
    const start = card.fromArea(pointOf(event));
    let snapping: Snapping | null = null;
    editGesture(editor, event, {
      start: () => {
        dragged = true;
        // What stays of the path has edges, a middle, quarters and thirds.
        const stays = path.vertices.reduce<Box | null>((sum, [vx, vy], k) => {
          const [x, y] = toScene(view, place(vx, vy));
          return moving.has(k) ? sum : union(sum, { left: x, top: y, right: x, bottom: y });
        }, null);
        snapping = new Snapping(editor, editor.state.selection.layers, view.zoom, stays ? fractionsOf(stays) : []);
      },
      end: () => {
        if (!dragged && !event.shiftKey) editor.set({ vertices: [i] });
      },
      move: ({ event: at }) => {
        const to = toScene(view, pointOf(at));
        const [x, y] = card.fromArea(toArea(view, snapping ? snapping.point(to, at) : to));
        const way: Point = [tenths(x - start[0]), tenths(y - start[1])];
        const straight: Point = at.shiftKey ? (Math.abs(way[0]) > Math.abs(way[1]) ? [way[0], 0] : [0, way[1]]) : way;
        write(movedVertices(path, moving, straight), 'Move vertices');
      },
    });
  };

  /** Alt breaks the two handles of a vertex apart; Shift keeps them alike. */
  const onHandle = (i: number, handle: Handle) => (event: PointerEvent) => {
    const vertex = path.vertices[i];
    if (!vertex) return;
    const smooth = isSmooth(vertex);
    editGesture(editor, event, {
      move: ({ event: at }) => {
        const [x, y] = card.fromArea(pointOf(at));
        const offset: Point = [tenths(x - vertex[0]), tenths(y - vertex[1])];
        const other = at.altKey || !smooth ? 'stays' : at.shiftKey ? 'mirrors' : 'turns';
        write(withHandle(path, i, handle, offset, other), 'Move a handle');
      },
    });
  };

  const onKind = (i: number) => (event: { stopPropagation: () => void }) => {
    event.stopPropagation();
    const vertex = path.vertices[i];
    if (vertex) write(withVertexKind(path, new Set([i]), isCorner(vertex) ? 'smooth' : 'corner'), 'Change a vertex');
  };

  const onOutline = (event: { clientX: number; clientY: number; stopPropagation: () => void }) => {
    event.stopPropagation();
    const near = nearestOnPath(path, card.fromArea(pointOf(event)));
    if (!near) return;
    reshape(editor, ref, 'Add a vertex', (p) => withInserted(p, near.span, near.t));
    editor.set({ vertices: [near.span + 1] });
  };

  const d = path.vertices
    .map((v, i) => {
      const p = path.vertices[i - 1];
      return p
        ? `C${place(p[0] + p[4], p[1] + p[5]).join()} ${place(v[0] + v[2], v[1] + v[3]).join()} ${place(v[0], v[1]).join()}`
        : `M${place(v[0], v[1]).join()}`;
    })
    .join('');
  const [first, last] = [path.vertices[0]!, path.vertices.at(-1)!];
  const closing = path.closed
    ? `C${place(last[0] + last[4], last[1] + last[5]).join()} ${place(first[0] + first[2], first[1] + first[3]).join()} ${place(first[0], first[1]).join()}Z`
    : '';
  return (
    <g>
      <path
        data-testid="path-outline"
        d={d + closing}
        fill="none"
        stroke="transparent"
        // Eight pixels to either side; a press beside the shape leaves it open, and a drag moves it.
        strokeWidth={16}
        style={{ pointerEvents: 'stroke', cursor: 'copy' }}
        onPointerDown={(event) => event.button === 0 && moveSelection(editor, event, view.zoom, pointOf, 'alone')}
        onDoubleClick={onOutline}
      />
      <path d={d + closing} fill="none" stroke="var(--sky)" strokeWidth={1.5} />
      {path.vertices.map((v, i) => {
        const shows = selected.has(i) || selected.has(i - 1) || selected.has(i + 1) || path.vertices.length <= 8;
        if (!shows) return null;
        const at = place(v[0], v[1]);
        return (['in', 'out'] as const).map((handle) => {
          const [hx, hy] = handle === 'in' ? [v[2], v[3]] : [v[4], v[5]];
          if (hx === 0 && hy === 0) return null;
          const [x, y] = place(v[0] + hx, v[1] + hy);
          return (
            <g key={`${i}${handle}`}>
              <path d={`M${at.join()}L${x},${y}`} stroke="var(--sky)" />
              <circle
                data-testid={`vertex-${i}-${handle}`}
                cx={x}
                cy={y}
                r={4}
                fill="var(--sky)"
                style={{ pointerEvents: 'all', cursor: 'move' }}
                onPointerDown={onHandle(i, handle)}
              />
            </g>
          );
        });
      })}
      {path.vertices.map((v, i) => {
        const [x, y] = place(v[0], v[1]);
        const on = selected.has(i);
        return (
          <rect
            key={i}
            data-testid={`vertex-${i}`}
            x={x - 4.5}
            y={y - 4.5}
            width={9}
            height={9}
            rx={isCorner(v) ? 1 : 4.5}
            fill={on ? 'var(--kite)' : i === 0 ? 'var(--tail)' : 'var(--paper)'}
            stroke={on ? 'var(--kite)' : 'var(--sky)'}
            strokeWidth={1.5}
            style={{ pointerEvents: 'all', cursor: 'move' }}
            onPointerDown={onVertex(i)}
            onDoubleClick={onKind(i)}
          />
        );
      })}
    </g>
  );
};
