import type { Stage } from '../stage';
import type { Point } from '@kite/core/document/types';
import { setGuides } from '@kite/core/edits/scenes';
import type { Snapped } from '@kite/core/geometry/snap';
import type { PointerEvent } from 'react';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import type { View } from '../../store/workspace';
import { useAids } from './aids';
import { editGesture } from '../handles/editGesture';
import { toArea, toScene } from '../view';

const short = (n: number) => String(Math.round(n * 10) / 10);

/** A small dark label. */
const Label = ({ at: [x, y], text }: { at: Point; text: string }) => (
  <g transform={`translate(${x} ${y})`} style={{ pointerEvents: 'none' }}>
    <rect width={text.length * 6.6 + 12} height={20} rx={4} fill="var(--ink)" />
    <text x={6} y={14} fill="var(--paper)" fontSize={12} className="tabular">
      {text}
    </text>
  </g>
);

/** Lines that something dragged has snapped to, gaps that have become equal, and its numbers. */
export const SnapMarks = ({ view }: { view: View }) => {
  const { snapped, readout } = useSlice((s) => ({ snapped: s.snapped, readout: s.readout }));
  return (
    <g style={{ pointerEvents: 'none' }}>
      {snapped && <Snaps snapped={snapped} view={view} />}
      {readout && <Label at={[readout.at[0] + 14, readout.at[1] + 14]} text={readout.text} />}
    </g>
  );
};

const Snaps = ({ snapped: { lines, gaps }, view }: { snapped: Snapped; view: View }) => (
  <>
    {lines.map((line, i) => {
      const [a, b] =
        line.axis === 0
          ? [toArea(view, [line.at, line.from]), toArea(view, [line.at, line.to])]
          : [toArea(view, [line.from, line.at]), toArea(view, [line.to, line.at])];
      return (
        <path
          key={`l${i}`}
          data-testid="snap-line"
          d={`M${a.join()}L${b.join()}`}
          stroke="var(--kite)"
          strokeWidth={1}
          strokeDasharray="4 2"
        />
      );
    })}
    {gaps.map((gap, i) => {
      const place = (along: number): Point => toArea(view, gap.axis === 0 ? [along, gap.at] : [gap.at, along]);
      const [a, b] = [place(gap.from), place(gap.to)];
      return (
        <g key={`g${i}`}>
          <path d={`M${a.join()}L${b.join()}`} stroke="var(--tail)" strokeWidth={2} />
          <Label at={[(a[0] + b[0]) / 2 - 14, (a[1] + b[1]) / 2 + 4]} text={short(gap.to - gap.from)} />
        </g>
      );
    })}
  </>
);

/** Shares of the frame that titles and action keep within (EBU R 95: 90 % and 93 %). */
const SAFE = [0.9, 0.93] as const;

/** Grid, thirds, safe areas and guides, over the picture. */
export const AidLines = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const aids = useAids();
  const { width, height, guides } = useSlice((s) => {
    const scene = sceneOf(s);
    return { width: scene.width, height: scene.height, guides: scene.guides };
  });
  const path = (from: Point, to: Point) => `M${toArea(view, from).join()}L${toArea(view, to).join()}`;
  const many = (step: number, whole: number) =>
    Array.from({ length: Math.max(0, Math.ceil(whole / step) - 1) }, (_, i) => (i + 1) * step);
  const onGuide = (axis: 'x' | 'y', index: number) => (event: PointerEvent) => {
    const before = guides;
    editGesture(editor, event, {
      move: ({ event: now }) => {
        const at = toScene(view, pointOf(now));
        const place = Math.round(axis === 'x' ? at[0] : at[1]);
        const whole = axis === 'x' ? width : height;
        // Dragged off the scene a guide is taken away.
        const list =
          place < 0 || place > whole ? before[axis].filter((_, i) => i !== index) : before[axis].with(index, place);
        editor.edit(setGuides(editor.scene.id, { ...before, [axis]: list }));
        editor.set({ readout: { at: pointOf(now), text: `${axis} ${place}` } });
      },
    });
  };
  return (
    <g>
      <g style={{ pointerEvents: 'none' }} stroke="var(--sky)" fill="none">
        {aids.grid && aids.gridSize * view.zoom >= 4 && (
          <path
            strokeOpacity={0.35}
            d={
              many(aids.gridSize, width)
                .map((x) => path([x, 0], [x, height]))
                .join('') +
              many(aids.gridSize, height)
                .map((y) => path([0, y], [width, y]))
                .join('')
            }
          />
        )}
        {aids.thirds && (
          <path
            strokeOpacity={0.7}
            d={[1, 2]
              .map(
                (n) =>
                  path([(width * n) / 3, 0], [(width * n) / 3, height]) +
                  path([0, (height * n) / 3], [width, (height * n) / 3]),
              )
              .join('')}
          />
        )}
        {aids.safe &&
          SAFE.map((share) => {
            const [x, y] = toArea(view, [(width * (1 - share)) / 2, (height * (1 - share)) / 2]);
            return (
              <rect
                key={share}
                x={x}
                y={y}
                width={width * share * view.zoom}
                height={height * share * view.zoom}
                stroke="var(--kite)"
                strokeOpacity={0.8}
              />
            );
          })}
      </g>
      {aids.guides &&
        (['x', 'y'] as const).map((axis) =>
          guides[axis].map((at, i) => {
            const d = axis === 'x' ? path([at, 0], [at, height]) : path([0, at], [width, at]);
            return (
              <g key={`${axis}${i}`}>
                <path d={d} stroke="var(--tail)" style={{ pointerEvents: 'none' }} />
                <path
                  data-testid={`guide-${axis}`}
                  d={d}
                  stroke="transparent"
                  strokeWidth={7}
                  style={{ pointerEvents: 'stroke', cursor: axis === 'x' ? 'ew-resize' : 'ns-resize' }}
                  onPointerDown={onGuide(axis, i)}
                />
              </g>
            );
          }),
        )}
    </g>
  );
};
