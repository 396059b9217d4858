import { remembered } from '@kite/core/document/remembered';
import type { Layer } from '@kite/core/document/types';
import { keyFrames } from '@kite/core/motion/keys';
import { keyedCurvesOf, propertyIn } from '@kite/core/properties/find';
import type { PointerEvent } from 'react';
import { useEditor } from '../store/context';
import { dragBarEnd, slideBars } from './dragBars';
import { useScale } from './scaleContext';

/** Selects a row's layer, or adds it to or takes it from what is selected. */
export type Choose = (event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;

interface LayerBarProps {
  layer: Layer;
  selected: boolean;
  /** Whether its keyframes are marked: while its ribbons do not show. */
  ticks: boolean;
  choose: Choose;
}

/** Where a layer has keyframes. */
const keyFramesOf = remembered((layer: Layer): readonly number[] => [
  ...new Set(keyedCurvesOf('', layer).flatMap((ref) => keyFrames(propertyIn(layer, ref)))),
]);

/** When a layer shows: slid as a whole, trimmed or stretched at its ends. */
export const LayerBar = ({ layer, selected, ticks, choose }: LayerBarProps) => {
  const editor = useEditor();
  const scale = useScale();
  const { id, from, to } = layer;
  const tag = `var(--tag-${layer.tag})`;

  const onBar = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (!selected || event.shiftKey || event.ctrlKey) choose(event);
    if (!layer.locked) slideBars(editor, event, scale);
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
        {ticks &&
          keyFramesOf(layer).map((frame) => (
            <span
              key={frame}
              aria-hidden
              data-testid="key-tick"
              className="pointer-events-none absolute bottom-0.5 size-1 rounded-full"
              style={{ left: scale.x(frame) - scale.x(from) - 3, background: tag }}
            />
          ))}
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
