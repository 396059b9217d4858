import { type PointerEvent, useState } from 'react';
import type { Marker } from '@kite/core/document/types';
import { removeMarker, setMarker } from '@kite/core/edits/markers';
import { followPointer } from '../../ui/drag';
import { PressMenu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { NAMES_WIDTH, type TimeScale } from './scale';
import { snapFrames, snappedBy } from './snapFrames';
import { TimelineTools } from './TimelineTools';

/** A named frame: dragged along, renamed by a double click. */
const MarkerFlag = ({ marker, scale }: { marker: Marker; scale: TimeScale }) => {
  const editor = useEditor();
  const [renaming, setRenaming] = useState(false);
  const { id: scene } = editor.scene;
  const onDrag = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const targets = snapFrames(editor, []).filter((f) => f !== marker.frame);
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx, event: now }) => {
        const { by, at } = snappedBy([marker.frame], scale.frames(dx), targets, scale, now.ctrlKey);
        const frame = Math.min(Math.max(marker.frame + by, 0), editor.scene.length - 1);
        editor.edit(setMarker(scene, marker.id, { frame }));
        editor.set({ snappedFrame: at });
      },
      onEnd: (_drag, moved) => {
        editor.set({ snappedFrame: null });
        if (moved) editor.end();
        else editor.seek(marker.frame);
      },
      onCancel: () => {
        editor.set({ snappedFrame: null });
        editor.abandon();
      },
    });
  };
  const entries = () => [
    { label: 'Rename', onSelect: () => setTimeout(() => setRenaming(true), 0) },
    { label: 'Remove', danger: true, onSelect: () => editor.edit(removeMarker(scene, marker.id)) },
  ];
  return (
    <PressMenu entries={entries}>
      <div
        role="group"
        aria-label={`Marker ${marker.name} at ${marker.frame}`}
        data-testid="marker"
        className="absolute top-0 z-10 flex h-[15px] max-w-28 cursor-ew-resize items-center rounded-r-sm bg-sun px-1 text-xs text-paper"
        style={{ left: scale.x(marker.frame) }}
        onPointerDown={onDrag}
      >
        <RenameField
          label="Marker name"
          value={marker.name}
          editing={renaming}
          onDone={() => setRenaming(false)}
          onRename={(name) => editor.edit(setMarker(scene, marker.id, { name }))}
          className="text-xs"
        />
      </div>
    </PressMenu>
  );
};

/** Frames to scrub along, with the markers above and the play range below. */
export const Ruler = ({ scale }: { scale: TimeScale }) => {
  const editor = useEditor();
  const { frame, range, markers, cached } = useSlice((s) => ({
    cached: s.cached,
    frame: s.frame,
    range: s.range,
    markers: sceneOf(s).markers,
  }));

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

  const head = markers.length > 0 ? 15 : 0;
  return (
    <div className="flex shrink-0 border-b border-line" style={{ height: 24 + head }}>
      <div style={{ width: NAMES_WIDTH }} className="shrink-0 border-r border-line">
        <TimelineTools />
      </div>
      <div className="relative min-w-0 flex-1 overflow-hidden">
        {markers.map((marker) => (
          <MarkerFlag key={marker.id} marker={marker} scale={scale} />
        ))}
        <svg
          role="slider"
          aria-label="Playhead"
          aria-valuemin={0}
          aria-valuemax={editor.scene.length - 1}
          aria-valuenow={frame}
          tabIndex={0}
          className="absolute inset-x-0 bottom-0 h-6 w-full touch-none"
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
          {cached.map(([from, after]) => (
            <rect
              key={from}
              data-testid="cached"
              x={scale.x(from)}
              y={16}
              width={Math.max(1, scale.x(after) - scale.x(from))}
              height={2}
              fill="var(--tail)"
              pointerEvents="none"
            />
          ))}
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
    </div>
  );
};
