import type { PointerEvent } from 'react';
import { followPointer } from '../../../ui/drag';
import { useEditor, useSlice } from '../../store/context';
import { frameOfCompare, type Stage } from '../stage';
import { sceneOf } from '../../store/state';

/** Between the frame at the playhead, on the left, and the one it is compared with; dragged across. */
export const CompareLine = ({ view }: Pick<Stage, 'view'>) => {
  const editor = useEditor();
  const { compare, frame, width, height } = useSlice((s) => ({
    compare: s.compare,
    frame: frameOfCompare(s),
    width: sceneOf(s).width,
    height: sceneOf(s).height,
  }));
  if (!compare || frame === null) return null;
  const left = view.x + width * compare.split * view.zoom;
  const onDrag = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    followPointer(event, {
      onMove: ({ dx }) => {
        const split = Math.min(1, Math.max(0, compare.split + dx / (width * view.zoom)));
        editor.set({ compare: { ...compare, split } });
      },
    });
  };
  const label = 'absolute top-1 rounded-sm bg-ink px-1.5 py-0.5 text-xs whitespace-nowrap text-paper tabular';
  return (
    <div
      role="slider"
      aria-label="Between the compared frames"
      aria-valuenow={Math.round(compare.split * 100)}
      tabIndex={0}
      data-testid="compare-line"
      className="absolute z-10 w-3 -translate-x-1/2 cursor-ew-resize"
      style={{ left, top: view.y, height: height * view.zoom }}
      onPointerDown={onDrag}
      onKeyDown={(event) => {
        const by = event.key === 'ArrowLeft' ? -0.02 : event.key === 'ArrowRight' ? 0.02 : 0;
        if (by === 0) return;
        event.stopPropagation();
        event.preventDefault();
        editor.set({ compare: { ...compare, split: Math.min(1, Math.max(0, compare.split + by)) } });
      }}
    >
      <div className="mx-auto h-full w-0.5 bg-paper shadow-[0_0_0_1px_var(--ink)]" />
      <span className={`${label} right-3`}>frame {frame}</span>
      <span className={`${label} left-3`}>frame {compare.frame}</span>
    </div>
  );
};
