import { type Ease, isKeyed } from '@kite/core/document/types';
import { paramAt, propertyAt } from '@kite/core/edits/find';
import { type KeyChoice, setBeyond, setEase } from '@kite/core/edits/properties';
import { together } from '@kite/core/document/patches';
import { curveOf, easeOfStrength, SOFT, strengthOf } from '@kite/core/motion/eases/table';
import { Spline } from 'lucide-react';
import { type PointerEvent, useState } from 'react';
import { line } from 'd3-shape';
import { followPointer } from '../../ui/drag';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { useEditor, useSlice } from '../store/context';
import { Card } from './Card';

interface Span {
  readonly choice: KeyChoice;
  readonly ease: Ease;
  readonly from: number;
  readonly to: number;
}

const WIDTH = 252;
const HEIGHT = 140;
const px = (t: number) => 8 + t * (WIDTH - 16);

/** The values that a plot shows, from bottom to top: all of the curve and its handles. */
type Range = readonly [low: number, high: number];
const rangeFor = (heights: readonly number[]): Range => [
  Math.min(-0.2, ...heights) - 0.1,
  Math.max(1.2, ...heights) + 0.1,
];

const BEYOND = [
  { value: 'hold', label: 'Hold' },
  { value: 'cycle', label: 'Cycle' },
  { value: 'pingpong', label: 'Ping-pong' },
  { value: 'continue', label: 'Carry on' },
] as const;

const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
const tidy = (v: number) => Math.round(v * 1000) / 1000;

/** The curve of the selected spans, with a handle for each end. */
const Plot = ({
  ease,
  onStart,
  onChange,
  onEnd,
}: {
  ease: Ease;
  onStart: () => void;
  onChange: (ease: Ease) => void;
  onEnd: () => void;
}) => {
  // While a handle is dragged the plot keeps its scale, or the handle would run from the pointer.
  const [held, setHeld] = useState<Range | null>(null);
  const curve = curveOf(ease);
  const points = Array.from({ length: 101 }, (_, i) => [i / 100, curve(i / 100)] as const);
  const handles =
    ease.kind === 'bezier'
      ? ease
      : ease.kind === 'linear'
        ? { kind: 'bezier' as const, x1: 1 / 3, y1: 1 / 3, x2: 2 / 3, y2: 2 / 3 }
        : null;
  const range = held ?? rangeFor([...points.map((p) => p[1]), handles?.y1 ?? 0, handles?.y2 ?? 1]);
  const tall = HEIGHT / (range[1] - range[0]);
  const py = (v: number) => (range[1] - v) * tall;
  const path =
    line<readonly [number, number]>()
      .x((p) => px(p[0]))
      .y((p) => py(p[1]))(points) ?? '';
  const drag = (end: 1 | 2) => (event: PointerEvent<SVGCircleElement>) => {
    const svg = event.currentTarget.ownerSVGElement;
    if (!svg || !handles) return;
    event.stopPropagation();
    const box = svg.getBoundingClientRect();
    setHeld(range);
    onStart();
    const done = () => {
      setHeld(null);
      onEnd();
    };
    followPointer(event, {
      onMove: ({ event: now }) => {
        const x = tidy(clamp(((now.clientX - box.left) * (WIDTH / box.width) - 8) / (WIDTH - 16), 0, 1));
        let y = tidy(clamp(range[1] - ((now.clientY - box.top) * (HEIGHT / box.height)) / tall, -3, 4));
        // Flat handles are what most eases want, so they are easy to hit.
        const flat = end === 1 ? 0 : 1;
        if (Math.abs(y - flat) < 0.05) y = flat;
        onChange(end === 1 ? { ...handles, x1: x, y1: y } : { ...handles, x2: x, y2: y });
      },
      onEnd: done,
      onCancel: done,
    });
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full touch-none rounded-md bg-paper-2"
      role="img"
      aria-label="Ease curve"
    >
      <path d={`M8 ${py(0)}H${WIDTH - 8}M8 ${py(1)}H${WIDTH - 8}`} stroke="var(--line)" />
      <path d={path} fill="none" stroke="var(--tail)" strokeWidth={2} />
      {handles && (
        <>
          <path
            d={`M${px(0)} ${py(0)}L${px(handles.x1)} ${py(handles.y1)}M${px(1)} ${py(1)}L${px(handles.x2)} ${py(handles.y2)}`}
            stroke="var(--sky)"
          />
          {([1, 2] as const).map((end) => (
            <circle
              key={end}
              data-testid={`ease-handle-${end}`}
              cx={px(end === 1 ? handles.x1 : handles.x2)}
              cy={py(end === 1 ? handles.y1 : handles.y2)}
              r={5.5}
              fill="var(--paper)"
              stroke="var(--sky)"
              strokeWidth={2}
              style={{ cursor: 'grab' }}
              onPointerDown={drag(end)}
            />
          ))}
        </>
      )}
      {[0, 1].map((t) => (
        <circle key={t} cx={px(t)} cy={py(t)} r={3.5} fill="var(--tail)" />
      ))}
    </svg>
  );
};

const PRESETS = [
  { value: 'linear', label: 'Linear' },
  { value: 'hold', label: 'Hold' },
  { value: 'soft', label: 'Soft' },
  { value: 'back', label: 'Back' },
] as const;
type Preset = (typeof PRESETS)[number]['value'];
const EASE_OF: Record<Preset, Ease> = {
  linear: { kind: 'linear' },
  hold: { kind: 'hold' },
  soft: SOFT,
  // A common overshoot: past the end by a tenth, then back.
  back: { kind: 'bezier', x1: 0.34, y1: 1.56, x2: 0.64, y2: 1 },
};
const same = (a: Ease, b: Ease) => JSON.stringify(a) === JSON.stringify(b);

/** Shown while keyframes are selected: the ease of the spans that start at them. */
export const EaseCard = () => {
  const editor = useEditor();
  const { doc, keys } = useSlice((s) => ({ doc: s.doc, keys: s.selection.keys }));
  const spans: Span[] = keys.flatMap((choice) => {
    const property = propertyAt(doc, choice.ref);
    if (!isKeyed(property)) return [];
    return property.keys.flatMap((key, i) => {
      const next = property.keys[i + 1];
      return next && choice.frames.includes(key.frame)
        ? [{ choice: { ref: choice.ref, frames: [key.frame] }, ease: key.ease, from: key.frame, to: next.frame }]
        : [];
    });
  });
  const first = spans[0];
  const ends = keys.map((k) => k.ref);
  const property = ends[0] && propertyAt(doc, ends[0]);
  if (!isKeyed(property) || !ends[0]) return null;
  const label = paramAt(doc, ends[0])?.label ?? '';
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const set = (ease: Ease) =>
    editor.edit(
      setEase(
        spans.map((s) => s.choice),
        ease,
      ),
    );
  const strength = first ? strengthOf(first.ease) : null;
  const preset = first ? (PRESETS.find((p) => same(EASE_OF[p.value], first.ease))?.value ?? null) : null;
  return (
    <Card
      title="Ease"
      icon={<Spline size={15} />}
      aside={first ? (spans.length === 1 ? `${label}, ${first.from} → ${first.to}` : `${spans.length} spans`) : label}
    >
      {first && strength ? (
        <>
          <Segments label="Ease" value={preset} options={PRESETS} onChange={(p) => set(EASE_OF[p])} />
          <Plot ease={first.ease} onChange={set} {...gesture} />
          <div className="grid grid-cols-2 gap-2">
            {(['start', 'end'] as const).map((end) => (
              <label key={end} className="flex flex-col gap-0.5 text-sm text-ink-2">
                {end === 'start' ? 'Strength at the start' : 'Strength at the end'}
                <NumberField
                  label={end === 'start' ? 'Strength at the start' : 'Strength at the end'}
                  value={strength[end] * 100}
                  min={0}
                  max={100}
                  decimals={0}
                  unit="%"
                  onChange={(v) => set(easeOfStrength({ ...strength, [end]: tidy(v / 100) }))}
                  {...gesture}
                />
              </label>
            ))}
          </div>
        </>
      ) : (
        <p className="text-ink-2">The last keyframe has no span after it. Select one before it to shape the ease.</p>
      )}
      <div className="grid grid-cols-2 gap-2">
        {(['before', 'after'] as const).map((end) => (
          <label key={end} className="flex flex-col gap-0.5 text-sm text-ink-2">
            {end === 'before' ? 'Before the first key' : 'After the last key'}
            <Select
              value={property[end] ?? 'hold'}
              options={BEYOND}
              onChange={(value) =>
                editor.edit(
                  together(
                    end === 'before' ? 'Before the first key' : 'After the last key',
                    ends.map((ref) => setBeyond(ref, end, value as (typeof BEYOND)[number]['value'])),
                  ),
                )
              }
            />
          </label>
        ))}
      </div>
    </Card>
  );
};
