import type { Layer } from '@kite/core/document/types';
import { keyFramesOf } from '@kite/core/properties/find';
import type { PointerEvent } from 'react';
import { useEditor } from '../../store/context';
import { dragBarEnd, slideBars } from '../dragBars';
import type { TimeScale } from '../scale';
import { useScale } from '../scaleContext';

/** Selects a row's layer, or adds it to or takes it from what is selected. */
export type Choose = (event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;

/** A dot for each keyframe in sight; of those at one pixel the first. */
const ticksAt = (layer: Layer, scale: TimeScale): string => {
  const pixels = keyFramesOf(layer).map((frame) => Math.round(scale.x(frame)));
  const inSight = [...new Set(pixels)].filter((x) => x >= 0 && x <= scale.width);
  return inSight.map((x) => `M${x - scale.x(layer.from)} 2h0`).join('');
};

interface LayerBarProps {
  layer: Layer;
  selected: boolean;
  /** Whether its keyframes are marked: while its ribbons do not show. */
  ticks: boolean;
  choose: Choose;
}

/** When a layer shows: slid as a whole, trimmed or stretched at its ends. */
export const LayerBar = ({ layer, selected, ticks, choose }: LayerBarProps) => {
  const editor = useEditor();
  const scale = useScale();
  const { id, from, to } = layer;
  const tag = `var(--tag-${layer.tag})`;

  const onBar = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    // A press on one of several takes it alone; a drag slides them all.
    const keep = selected && !event.shiftKey && !event.ctrlKey && !event.metaKey;
    if (!keep) choose(event);
    if (!layer.locked) slideBars(editor, event, scale, keep ? () => choose(event) : undefined);
  };

  const onEnd = (end: 'from' | 'to') => (event: PointerEvent) => {
    if (event.button !== 0 || layer.locked) return;
    event.stopPropagation();
    if (!selected) editor.select({ layers: [id] });
    dragBarEnd(editor, event, scale, layer, end);
  };

  return (
    <div className="relative min-w-0 flex-1 overflow-hidden">
      <div
        data-testid="layer-bar"
        className={`absolute inset-y-[3px] flex items-center rounded-[5px] border text-sm ${layer.hidden ? 'opacity-40' : ''}`}
        style={{
          left: scale.x(from),
          width: Math.max(4, scale.x(to) - scale.x(from)),
          background: `color-mix(in srgb, ${tag} 20%, var(--paper))`,
          borderColor: `color-mix(in srgb, ${tag} 60%, var(--paper))`,
        }}
        onPointerDown={onBar}
      >
        <span className="pointer-events-none truncate px-2">{layer.name}</span>
        {ticks && keyFramesOf(layer).length > 0 && (
          <svg
            aria-hidden
            data-testid="key-ticks"
            data-frames={keyFramesOf(layer).length}
            className="pointer-events-none absolute bottom-0.5 -left-px h-1 w-full overflow-visible"
          >
            <path d={ticksAt(layer, scale)} stroke={tag} strokeWidth={4} strokeLinecap="round" />
          </svg>
        )}
        <span
          data-testid="bar-start"
          title="Drag to trim; with Alt to stretch, keyframes and all"
          className="absolute inset-y-0 left-0 w-1.5 cursor-ew-resize"
          onPointerDown={onEnd('from')}
        />
        <span
          data-testid="bar-end"
          title="Drag to trim; with Alt to stretch, keyframes and all"
          className="absolute inset-y-0 right-0 w-1.5 cursor-ew-resize"
          onPointerDown={onEnd('to')}
        />
      </div>
    </div>
  );
};
