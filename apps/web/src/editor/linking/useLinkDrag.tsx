import { type PointerEvent, type ReactNode, useState } from 'react';
import { createPortal } from 'react-dom';
import { followPointer } from '../../ui/drag';
import { useEditor } from '../store/context';
import { type Under, underPoint } from './under';

type Line = readonly [x1: number, y1: number, x2: number, y2: number];

/** Dragging a link from a button: what it does on the way, and the line to the pointer. Dropped on nothing it gives null. */
export const useLinkDrag = (
  onDrop: (found: Under | null, at: readonly [x: number, y: number]) => void,
): { readonly onPointerDown: (event: PointerEvent<HTMLElement>) => void; readonly line: ReactNode } => {
  const editor = useEditor();
  const [line, setLine] = useState<Line | null>(null);
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    followPointer(event, {
      onMove: ({ event: now }) => setLine([x, y, now.clientX, now.clientY]),
      onEnd: ({ event: now }, moved) => {
        setLine(null);
        if (moved) onDrop(underPoint(editor, now.clientX, now.clientY), [now.clientX, now.clientY]);
      },
      onCancel: () => setLine(null),
    });
  };
  const drawn =
    line &&
    createPortal(
      <svg aria-hidden className="pointer-events-none fixed inset-0 z-50 h-full w-full">
        <path d={`M${line[0]} ${line[1]}L${line[2]} ${line[3]}`} stroke="var(--tail)" strokeWidth={2} />
        <circle cx={line[2]} cy={line[3]} r={4} fill="var(--tail)" />
      </svg>,
      document.body,
    );
  return { onPointerDown, line: drawn };
};
