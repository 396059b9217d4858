import { type PointerEvent, useMemo } from 'react';
import { choiceAt, type KeyChoice, reachOf, stretchedTo, stretchKeys } from '@kite/core/edits/keyframes';
import { followPointer } from '../../ui/drag';
import { useEditor, useSlice } from '../store/context';
import type { TimelineRow } from './rows';
import { refKey } from '@kite/core/properties/find';
import { NAMES_WIDTH, ROW, type TimeScale } from './scale';
import { snapFrames, snappedBy } from './snapFrames';

/** Around the selected beads once they lie on several frames: its edges stretch them in proportion. */
export const StretchFrame = ({ rows, scale }: { rows: readonly TimelineRow[]; scale: TimeScale }) => {
  const editor = useEditor();
  const keys = useSlice((s) => s.selection.keys);
  const around = useMemo(() => frameAround(rows, keys), [rows, keys]);
  if (!around) return null;
  const { first, last, top, bottom } = around;

  const onEdge = (edge: number, fixed: number) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const choices = editor.state.selection.keys;
    const { layers } = editor.state.selection;
    const targets = snapFrames(editor, choices);
    const way = Math.sign(edge - fixed);
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx, event: now }) => {
        const { by, at: snapped } = snappedBy([edge], scale.frames(dx), targets, scale, now.ctrlKey);
        // The edges never pass each other: keyframes would fall together.
        const to = way > 0 ? Math.max(edge + by, fixed + 1) : Math.max(0, Math.min(edge + by, fixed - 1));
        editor.edit(stretchKeys(choices, fixed, edge, to));
        editor.select({ layers, keys: choiceAt(choices, stretchedTo(fixed, edge, to)) });
        editor.set({ snappedFrame: snapped });
      },
      onEnd: (_drag, moved) => {
        editor.set({ snappedFrame: null });
        if (moved) editor.end();
      },
      onCancel: () => {
        editor.set({ snappedFrame: null });
        editor.abandon();
        editor.select({ layers, keys: choices });
      },
    });
  };
  const edges = [
    { name: 'start', frame: first, fixed: last, left: scale.x(first) - 14 },
    { name: 'end', frame: last, fixed: first, left: scale.x(last) + 8 },
  ];
  return (
    <div
      className="pointer-events-none absolute right-0 overflow-hidden"
      style={{ left: NAMES_WIDTH, top, height: bottom - top }}
    >
      <div
        className="absolute inset-y-0 border-y border-sky/60 bg-sky/5"
        style={{ left: scale.x(first) - 11, width: scale.x(last) - scale.x(first) + 22 }}
      />
      {edges.map(({ name, frame, fixed, left }) => (
        <div
          key={name}
          role="slider"
          aria-label={`Stretch from the ${name}`}
          aria-valuenow={frame}
          data-testid={`stretch-${name}`}
          title="Drag to stretch what is selected, all keyframes in proportion"
          className="pointer-events-auto absolute inset-y-0 w-1.5 cursor-ew-resize rounded-sm bg-sky"
          style={{ left }}
          onPointerDown={onEdge(frame, fixed)}
        />
      ))}
    </div>
  );
};

/** The first and last frame of a choice, and the rows that it reaches over, in pixels; null where it is on one frame. */
const frameAround = (rows: readonly TimelineRow[], keys: readonly KeyChoice[]) => {
  if (keys.length === 0) return null;
  const [first, last] = reachOf(keys);
  const chosen = new Set(keys.map((c) => refKey(c.ref)));
  const at = rows.flatMap((row, i) => (row.kind === 'ribbon' && chosen.has(row.key) ? [i] : []));
  if (first === last || at.length === 0) return null;
  return { first, last, top: (at[0] ?? 0) * ROW, bottom: ((at.at(-1) ?? 0) + 1) * ROW };
};
