import { tenths } from '@kite/core/document/fitting';
import { SELECTING } from '../../store/workspace';
import type { Stage } from '../stage';
import type { Id, PathValue, Point, PropertyRef, Vertex } from '@kite/core/document/types';
import { vertexReversed, vertexThrough } from '@kite/core/motion/paths';
import { inverted, type Matrix } from '@kite/core/geometry/matrix';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { followPointer } from '../../../ui/drag';
import { addShape } from '../../commands/layers';
import { useEditor } from '../../store/context';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { isComputed } from '../../formula/useComputed';
import { reshape } from '../handles/vertices';
import { toArea, toScene } from '../view';

const CLOSE_WITHIN = 8;

/** An end of an open path, with the path as it is drawn on from there, in the scene's pixels. */
interface OpenEnd {
  readonly ref: PropertyRef;
  readonly end: 'first' | 'last';
  readonly count: number;
  readonly vertices: readonly Vertex[];
  /** From the scene's pixels to the path's. */
  readonly back: Matrix;
}

/** The end of one of the selected layer's open paths that is under a point of the area. */
const openEndAt = (editor: Editor, view: View, at: Point): OpenEnd | null => {
  const { scene, state } = editor;
  const layer = state.selection.layers.length === 1 ? scene.layers[state.selection.layers[0] as Id] : undefined;
  if (layer?.kind !== 'drawing' || layer.locked) return null;
  for (const item of Object.values(layer.items)) {
    if (item.kind !== 'path') continue;
    const ref = { scene: scene.id, layer: layer.id, item: item.id, key: 'path' };
    // What a formula draws is not drawn on by hand.
    if (isComputed(state, ref)) continue;
    const shown = editor.program.cardAt(layer.id, item.id, state.frame);
    const back = shown && inverted(shown.matrix);
    if (!back) continue;
    const path = shown.values.path as PathValue;
    if (path.closed || path.vertices.length < 2) continue;
    const vertices = path.vertices.map((v) => vertexThrough(shown.matrix, v));
    for (const end of ['last', 'first'] as const) {
      const v = (end === 'last' ? vertices.at(-1) : vertices[0]) as Vertex;
      const [x, y] = toArea(view, [v[0], v[1]]);
      if (Math.hypot(x - at[0], y - at[1]) > CLOSE_WITHIN) continue;
      const drawn = end === 'last' ? vertices : vertices.toReversed().map(vertexReversed);
      return { ref, end, count: vertices.length, vertices: drawn, back };
    }
  }
  return null;
};

/** Adds vertices at an end of a path, at every keyframe alike. */
const carryOn = (editor: Editor, { ref, end, back }: OpenEnd, added: readonly Vertex[], closed: boolean): void => {
  const own = added.map((v) => vertexThrough(back, v).map(tenths) as unknown as Vertex);
  reshape(editor, ref, closed ? 'Close a path' : 'Draw a path on', (path) => ({
    closed,
    vertices: end === 'last' ? [...path.vertices, ...own] : [...own.toReversed().map(vertexReversed), ...path.vertices],
  }));
  editor.select({ layers: [ref.layer], card: ref.item ?? null });
};

/** The path tool: click for corners, drag for curves; the first vertex closes it, Enter or a double click ends it. */
export const DrawPath = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const [vertices, setVertices] = useState<readonly Vertex[]>([]);
  const [pointer, setPointer] = useState<Point | null>(null);
  const area = useRef<HTMLDivElement>(null);
  /** The open path that is being drawn on. */
  const continued = useRef<OpenEnd | null>(null);

  const finish = (all: readonly Vertex[], closed: boolean) => {
    setVertices([]);
    const from = continued.current;
    continued.current = null;
    if (from) {
      if (all.length > from.count || closed) carryOn(editor, from, all.slice(from.count), closed);
      editor.set({ mode: SELECTING, drawsAs: null });
      return;
    }
    if (all.length >= 2) {
      const xs = all.map((v) => v[0]);
      const ys = all.map((v) => v[1]);
      // The layer stands in the middle of its vertices, so that it turns about its middle.
      const at: Point = [
        Math.round((Math.min(...xs) + Math.max(...xs)) / 2),
        Math.round((Math.min(...ys) + Math.max(...ys)) / 2),
      ];
      const own = all.map((v) => [tenths(v[0] - at[0]), tenths(v[1] - at[1]), v[2], v[3], v[4], v[5]] as const);
      addShape(editor, 'path', 'Path', { path: { closed, vertices: own } }, at);
    }
    editor.set({ mode: SELECTING, drawsAs: null });
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Enter') finish(vertices, false);
      else if (event.key === 'Escape') {
        continued.current = null;
        finish([], false);
      } else if (event.key === 'Backspace') setVertices(vertices.slice(0, -1));
      else return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  });

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const at = pointOf(event);
    const first = vertices[0];
    if (first && vertices.length >= 2) {
      const [fx, fy] = toArea(view, [first[0], first[1]]);
      if (Math.hypot(at[0] - fx, at[1] - fy) < CLOSE_WITHIN) {
        finish(vertices, true);
        return;
      }
    }
    if (vertices.length === 0 && editor.state.drawsAs !== 'mask') {
      const end = openEndAt(editor, view, at);
      if (end) {
        continued.current = end;
        setVertices(end.vertices);
        return;
      }
    }
    const [x, y] = toScene(view, at).map(tenths) as unknown as Point;
    const before = vertices;
    setVertices([...before, [x, y, 0, 0, 0, 0]]);
    followPointer(event, {
      onMove: ({ dx, dy }) => {
        const [hx, hy] = [tenths(dx / view.zoom), tenths(dy / view.zoom)];
        setVertices([...before, [x, y, -hx, -hy, hx, hy]]);
      },
    });
  };

  const place = (x: number, y: number) => toArea(view, [x, y]).join(' ');
  const d = vertices
    .map((v, i) => {
      const p = vertices[i - 1];
      return p
        ? `C${place(p[0] + p[4], p[1] + p[5])} ${place(v[0] + v[2], v[1] + v[3])} ${place(v[0], v[1])}`
        : `M${place(v[0], v[1])}`;
    })
    .join('');
  const last = vertices.at(-1);

  return (
    <div
      ref={area}
      className="absolute inset-0 cursor-crosshair"
      onPointerDown={onPointerDown}
      onPointerMove={(event) => setPointer(pointOf(event))}
      onDoubleClick={() => finish(vertices.slice(0, -1), false)}
    >
      <svg className="size-full" aria-hidden>
        <path d={d} fill="none" stroke="var(--sky)" strokeWidth={2} />
        {last && pointer && (
          <path d={`M${place(last[0], last[1])}L${pointer.join(' ')}`} stroke="var(--sky)" strokeDasharray="3 3" />
        )}
        {vertices.map((v, i) => {
          const [x, y] = toArea(view, [v[0], v[1]]);
          return (
            <circle
              key={i}
              cx={x}
              cy={y}
              r={i === 0 ? 5 : 3.5}
              fill="var(--paper)"
              stroke="var(--sky)"
              strokeWidth={1.5}
            />
          );
        })}
      </svg>
      <p className="pointer-events-none absolute top-2 left-1/2 -translate-x-1/2 rounded-md bg-ink px-3 py-1 text-sm text-paper">
        Click for corners, drag for curves · an end of the selected path goes on from there · Enter ends · Esc gives up
      </p>
    </div>
  );
};
