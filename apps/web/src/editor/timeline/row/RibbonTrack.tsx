import { type ComponentProps, type MouseEvent, type PointerEvent, useMemo } from 'react';
import type { Param } from '@kite/core/document/params';
import type { Keyframe, Layer, PropertyRef } from '@kite/core/document/types';
import { addKey } from '@kite/core/edits/keyframes';
import { sameRef } from '@kite/core/properties/find';
import type { Sampler } from '@kite/core/motion/sampler';
import { useEditor, useSlice } from '../../store/context';
import { Bead } from '../Bead';
import { dragKeys } from '../dragKeys';
import { heapsOf, middleOf } from '../heaps';
import { ribbonColors, ribbonCurves } from '../ribbons';
import { ribbonName } from '../rows';
import { ROW, type TimeScale } from '../scale';
import { useScale } from '../scaleContext';

const COLORS = ['var(--sky)', 'var(--tail)'];

interface RibbonTrackProps extends ComponentProps<'svg'> {
  layer: Layer;
  refTo: PropertyRef;
  param: Param;
  /** The keyframes under a formula, if there is one. */
  keys: readonly Keyframe[];
  sampler: Sampler;
  /** The curve of a formula over the keyframes. */
  computed: Sampler | null;
}

/** The curve of a property with a bead for each keyframe: pressed, dragged, swept over, added by a double click. */
export const RibbonTrack = ({ layer, refTo, param, keys: beads, sampler, computed, ...rest }: RibbonTrackProps) => {
  const editor = useEditor();
  const scale = useScale();
  const selected = useSlice((s) => s.selection.keys.find((c) => sameRef(c.ref, refTo))?.frames ?? NONE);
  const chosen = useMemo(() => new Set(selected), [selected]);
  const frames = useMemo(() => beads.map((k) => k.frame), [beads]);
  const curves = useMemo(
    () => (beads.length > 0 ? ribbonCurves(param, sampler, frames, scale, ROW - 1) : []),
    [param, sampler, beads, frames, scale],
  );
  const formula = useMemo(
    () => (computed ? ribbonCurves(param, computed, frames, scale, ROW - 1) : []),
    [param, computed, frames, scale],
  );
  const name = ribbonName(layer, refTo);
  const strip = ribbonColors(param, computed ?? sampler, scale);
  const main = curves.toSorted((a, b) => b.reach - a.reach)[0];
  const beadY = (frame: number) => main?.y(frame) ?? ROW / 2;

  const selectKeys = (frames: readonly number[], event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    const { selection } = editor.state;
    const others = selection.keys.filter((c) => !sameRef(c.ref, refTo));
    const more = event.shiftKey || event.ctrlKey || event.metaKey;
    const mine = more ? toggled(selected, frames) : frames;
    const keys = [...(more ? others : []), ...(mine.length > 0 ? [{ ref: refTo, frames: mine }] : [])];
    const elsewhere = refTo.scene !== editor.state.sceneId;
    const layers = elsewhere || selection.layers.includes(layer.id) ? selection.layers : [layer.id];
    editor.select({ layers, keys });
  };

  const onBead = (heap: readonly number[]) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (!heap.every((frame) => chosen.has(frame)) || event.shiftKey) selectKeys(heap, event);
    if (layer.locked) return;
    dragKeys(editor, event, scale, () => {
      if (!event.shiftKey) selectKeys(heap, event);
    });
  };

  const frameAt = (event: MouseEvent<SVGSVGElement>) =>
    scale.frame(event.clientX - event.currentTarget.getBoundingClientRect().left);

  /** A click between two beads selects the span between them. */
  const onSpan = (event: MouseEvent<SVGSVGElement>) => {
    const start = spanAt(beads, frameAt(event));
    if (start !== null) selectKeys([start], event);
  };
  const onAdd = (event: MouseEvent<SVGSVGElement>) => {
    if (layer.locked || beads.length === 0) return;
    const frame = Math.max(0, Math.round(frameAt(event)));
    editor.edit(addKey(refTo, frame));
    selectKeys([frame], { shiftKey: false, ctrlKey: false, metaKey: false });
  };

  return (
    <svg {...rest} className="h-full min-w-0 flex-1" onClick={onSpan} onDoubleClick={onAdd}>
      {strip && (
        <foreignObject x={0} y={8} width={scale.width} height={ROW - 17}>
          <div className="h-full" style={{ background: strip }} />
        </foreignObject>
      )}
      {curves.length + formula.length === 0 && !strip && (
        <path d={`M0 ${ROW / 2}H${scale.width}`} stroke="var(--line)" />
      )}
      {curves.map((c, i) => (
        <path
          key={i}
          d={c.path}
          fill="none"
          stroke={COLORS[i]}
          strokeWidth={1.5}
          strokeLinejoin="round"
          pointerEvents="none"
          opacity={computed ? 0.35 : 1}
        />
      ))}
      {formula.map((c, i) => (
        <path
          key={`f${i}`}
          data-testid="formula-curve"
          d={c.path}
          fill="none"
          stroke="var(--tail)"
          strokeWidth={1.5}
          strokeDasharray="5 3"
          pointerEvents="none"
        />
      ))}
      {chosen.size > 0 && (
        <path
          d={spansOf(frames, chosen, scale)}
          stroke="var(--sky)"
          strokeWidth={3}
          opacity={0.5}
          pointerEvents="none"
        />
      )}
      {heapsOf(frames, scale).map((heap) => (
        <Bead
          key={heap[0]}
          frames={heap}
          y={beadY(middleOf(heap))}
          of={name}
          color="var(--sky)"
          testId="bead"
          {...{ chosen, scale }}
          onPointerDown={onBead(heap)}
          onClick={(event) => event.stopPropagation()}
          onDoubleClick={(event) => event.stopPropagation()}
        />
      ))}
    </svg>
  );
};

const NONE: readonly number[] = [];

/** With all of some frames, or without them where it had them all. */
const toggled = (before: readonly number[], frames: readonly number[]): readonly number[] => {
  const all = new Set([...before, ...frames]);
  if (all.size > before.length) return [...all];
  const gone = new Set(frames);
  return before.filter((frame) => !gone.has(frame));
};

/** A line under the spans that selected keyframes start, as SVG. */
const spansOf = (frames: readonly number[], chosen: ReadonlySet<number>, { x }: TimeScale): string =>
  frames
    .slice(0, -1)
    .flatMap((frame, i) => (chosen.has(frame) ? [`M${x(frame)} ${ROW - 2.5}H${x(frames[i + 1] as number)}`] : []))
    .join('');

/** The frame that starts the span around a frame; null outside. */
const spanAt = (keys: readonly Keyframe[], frame: number): number | null => {
  const next = keys.findIndex((k) => k.frame > frame);
  return next > 0 ? (keys[next - 1]?.frame ?? null) : null;
};
