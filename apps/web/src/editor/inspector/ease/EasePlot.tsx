import type { DrawnPoint, Ease } from '@kite/core/document/types';
import { curveOf } from '@kite/core/motion/eases/table';
import { line } from 'd3-shape';
import { type MouseEvent, type PointerEvent, useState } from 'react';
import { followPointer } from '../../../ui/drag';

const WIDTH = 252;
const HEIGHT = 140;
const px = (t: number) => 8 + t * (WIDTH - 16);

/** The values that a plot shows, from bottom to top: all of the curve and its handles. */
type Range = readonly [low: number, high: number];
const rangeFor = (heights: readonly number[]): Range => [
  Math.min(-0.2, ...heights) - 0.1,
  Math.max(1.2, ...heights) + 0.1,
];

const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
const tidy = (v: number) => Math.round(v * 1000) / 1000;

/** The curve of the selected spans, with a handle for each end. */
export const EasePlot = ({
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
  const points = Array.from({ length: 201 }, (_, i) => [i / 200, curve(i / 200)] as const);
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
  /** The place on the plot under the pointer. */
  const placeOf = (box: DOMRect, now: { clientX: number; clientY: number }) => ({
    x: tidy(clamp(((now.clientX - box.left) * (WIDTH / box.width) - 8) / (WIDTH - 16), 0, 1)),
    y: tidy(clamp(range[1] - ((now.clientY - box.top) * (HEIGHT / box.height)) / tall, -3, 4)),
  });
  /** Follows a drag on the plot as one step. */
  const follow = (event: PointerEvent<SVGElement>, move: (place: { x: number; y: number }) => void) => {
    const box = event.currentTarget.closest('svg')?.getBoundingClientRect();
    if (!box || event.button !== 0) return;
    event.stopPropagation();
    setHeld(range);
    onStart();
    const done = () => {
      setHeld(null);
      onEnd();
    };
    followPointer(event, { onMove: ({ event: now }) => move(placeOf(box, now)), onEnd: done, onCancel: done });
  };
  const drawn = ease.kind === 'drawn' ? ease.points : [];
  const write = (list: readonly DrawnPoint[]) => onChange({ kind: 'drawn', points: list });
  const onPoint = (i: number) => (event: PointerEvent<SVGCircleElement>) => {
    if (event.altKey) {
      event.stopPropagation();
      write(drawn.filter((_, k) => k !== i));
      return;
    }
    // A point stays between its neighbours.
    const [least, most] = [(drawn[i - 1]?.x ?? 0) + 0.005, (drawn[i + 1]?.x ?? 1) - 0.005];
    follow(event, ({ x, y }) => write(drawn.map((p, k) => (k === i ? { ...p, x: clamp(x, least, most), y } : p))));
  };
  const onPlot = (event: MouseEvent<SVGSVGElement>) => {
    if (ease.kind !== 'drawn') return;
    const { x, y } = placeOf(event.currentTarget.getBoundingClientRect(), event);
    if (x <= 0.005 || x >= 0.995 || drawn.some((p) => Math.abs(p.x - x) < 0.005)) return;
    write([...drawn, { x, y, corner: false }].sort((a, b) => a.x - b.x));
  };
  const drag = (end: 1 | 2) => (event: PointerEvent<SVGCircleElement>) => {
    if (!handles) return;
    follow(event, ({ x, y: height }) => {
      let y = height;
      // Flat handles are what most eases want, so they are easy to hit.
      const flat = end === 1 ? 0 : 1;
      if (Math.abs(y - flat) < 0.05) y = flat;
      onChange(end === 1 ? { ...handles, x1: x, y1: y } : { ...handles, x2: x, y2: y });
    });
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full touch-none rounded-md bg-paper-2"
      role="img"
      aria-label="Ease curve"
      onDoubleClick={onPlot}
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
      {drawn.map((p, i) => (
        <circle
          key={i}
          data-testid="ease-point"
          cx={px(p.x)}
          cy={py(p.y)}
          r={p.corner ? 4.5 : 5.5}
          fill={p.corner ? 'var(--sky)' : 'var(--paper)'}
          stroke="var(--sky)"
          strokeWidth={2}
          style={{ cursor: 'grab' }}
          onPointerDown={onPoint(i)}
          onDoubleClick={(event) => {
            event.stopPropagation();
            write(drawn.map((q, k) => (k === i ? { ...q, corner: !q.corner } : q)));
          }}
        />
      ))}
      {[0, 1].map((t) => (
        <circle key={t} cx={px(t)} cy={py(t)} r={3.5} fill="var(--tail)" />
      ))}
    </svg>
  );
};
