import type { Point, Vertex } from '@kite/core/document/types';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { followPointer } from '../../ui/drag';
import { addShape } from '../commands';
import { useEditor } from '../store/context';
import type { View } from '../store/state';
import { toArea, toScene } from './view';

interface DrawPathProps {
  view: View;
  pointOf: (event: { clientX: number; clientY: number }) => Point;
}

const CLOSE_WITHIN = 8;
const round = (n: number) => Math.round(n * 10) / 10;

/** The path tool: click for corners, drag for curves; the first vertex closes it, Enter or a double click ends it. */
export const DrawPath = ({ view, pointOf }: DrawPathProps) => {
  const editor = useEditor();
  const [vertices, setVertices] = useState<readonly Vertex[]>([]);
  const [pointer, setPointer] = useState<Point | null>(null);
  const area = useRef<HTMLDivElement>(null);

  const finish = (all: readonly Vertex[], closed: boolean) => {
    setVertices([]);
    if (all.length >= 2) {
      const xs = all.map((v) => v[0]);
      const ys = all.map((v) => v[1]);
      // The layer stands in the middle of its vertices, so that it turns about its middle.
      const at: Point = [
        Math.round((Math.min(...xs) + Math.max(...xs)) / 2),
        Math.round((Math.min(...ys) + Math.max(...ys)) / 2),
      ];
      const own = all.map((v) => [round(v[0] - at[0]), round(v[1] - at[1]), v[2], v[3], v[4], v[5]] as const);
      addShape(editor, 'path', 'Path', { path: { closed, vertices: own } }, at);
    }
    editor.set({ tool: 'select' });
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Enter') finish(vertices, false);
      else if (event.key === 'Escape') finish([], false);
      else if (event.key === 'Backspace') setVertices(vertices.slice(0, -1));
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
    const [x, y] = toScene(view, at).map(round) as unknown as Point;
    const before = vertices;
    setVertices([...before, [x, y, 0, 0, 0, 0]]);
    followPointer(event, {
      onMove: ({ dx, dy }) => {
        const [hx, hy] = [round(dx / view.zoom), round(dy / view.zoom)];
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
        Click for corners, drag for curves · first vertex closes · Enter ends · Esc gives up
      </p>
    </div>
  );
};
