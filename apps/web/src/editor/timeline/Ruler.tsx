import type { PointerEvent } from 'react';
import { followPointer } from '../../ui/drag';
import { useEditor, useSlice } from '../store/context';
import { NAMES_WIDTH, type TimeScale } from './scale';

/** Frames to scrub along; the strip below takes the play range. */
export const Ruler = ({ scale }: { scale: TimeScale }) => {
  const editor = useEditor();
  const { frame, range } = useSlice((s) => ({ frame: s.frame, range: s.range }));

  const frameAt = (event: { clientX: number }, element: Element) =>
    Math.round(scale.frame(event.clientX - element.getBoundingClientRect().left));

  const onScrub = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0) return;
    const element = event.currentTarget;
    editor.seek(frameAt(event, element));
    followPointer(event, { onMove: ({ event: now }) => editor.seek(frameAt(now, element)) });
  };
  const onRange = (event: PointerEvent<SVGRectElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const element = event.currentTarget.ownerSVGElement;
    if (!element) return;
    const clamp = (f: number) => Math.min(Math.max(f, 0), editor.scene.length);
    const start = clamp(frameAt(event, element));
    followPointer(event, {
      onMove: ({ event: now }) => {
        const end = clamp(frameAt(now, element));
        if (end !== start) editor.set({ range: [Math.min(start, end), Math.max(start, end)] });
      },
      onEnd: (_drag, moved) => {
        if (!moved) editor.set({ range: null });
      },
    });
  };

  return (
    <div className="flex h-6 shrink-0 border-b border-line">
      <div style={{ width: NAMES_WIDTH }} className="shrink-0 border-r border-line" />
      <svg
        role="slider"
        aria-label="Playhead"
        aria-valuemin={0}
        aria-valuemax={editor.scene.length - 1}
        aria-valuenow={frame}
        tabIndex={0}
        className="h-full flex-1 touch-none"
        onPointerDown={onScrub}
        onKeyDown={(event) => {
          const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
          if (by === 0) return;
          event.stopPropagation();
          editor.seek(frame + by * (event.shiftKey ? 10 : 1));
        }}
      >
        {scale.ticks.map((tick) => (
          <g key={tick}>
            <text
              x={scale.x(tick)}
              y={13}
              textAnchor="middle"
              fontSize={11}
              fill="var(--ink-2)"
              className="tabular select-none"
            >
              {tick}
            </text>
            <path d={`M${scale.x(tick)} 16v3`} stroke="var(--ink-2)" />
          </g>
        ))}
        <rect
          data-testid="range-strip"
          x={0}
          y={18}
          width={scale.width}
          height={6}
          fill="var(--paper-2)"
          onPointerDown={onRange}
        />
        {range && (
          <rect
            x={scale.x(range[0])}
            y={19}
            width={Math.max(1, scale.x(range[1]) - scale.x(range[0]))}
            height={4}
            rx={2}
            fill="var(--sky)"
            pointerEvents="none"
          />
        )}
        <path
          d={`M${scale.x(frame)} 24l-6 -9v-7a2 2 0 0 1 2 -2h8a2 2 0 0 1 2 2v7z`}
          fill="var(--kite)"
          pointerEvents="none"
        />
      </svg>
    </div>
  );
};
