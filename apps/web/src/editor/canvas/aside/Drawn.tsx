/** What is drawn over the picture of the second view. */
import type { Point } from '@kite/core/document/types';
import type { Eye } from '@kite/core/geometry/space';
import { seenAside } from '@kite/core/scene/aside';
import type { PointerEvent } from 'react';
import type { Standing } from './standing';

const closed = (points: readonly Point[]): string => `M${points.map((p) => p.join()).join('L')}Z`;

interface PlanesProps {
  layer: Standing;
  planes: readonly (readonly Point[])[];
  chosen: boolean;
  onPointerDown: (event: PointerEvent) => void;
}

/** The planes of one layer, or the mark of one that draws nothing. */
export const Planes = ({ layer, planes, chosen, onPointerDown }: PlanesProps) => {
  const stroke = chosen ? 'var(--sky)' : layer.isCamera ? 'var(--kite)' : 'var(--ink-2)';
  const outlines = planes.filter((corners) => corners.length > 1).map(closed);
  const [[place] = []] = planes;
  return (
    <g
      data-testid={`aside-${layer.name}`}
      style={{ pointerEvents: 'all', cursor: layer.locked ? 'default' : 'move' }}
      onPointerDown={onPointerDown}
    >
      <title>{`${layer.name}: drag to move it along this view`}</title>
      {outlines.length > 0 ? (
        <>
          <path d={outlines.join('')} fill="transparent" stroke="transparent" strokeWidth={9} />
          <path d={outlines.join('')} fill="none" stroke={stroke} strokeWidth={chosen ? 2 : 1} strokeLinejoin="round" />
        </>
      ) : (
        place && (
          <path
            d={`M${place[0] - 8} ${place[1]}h16M${place[0]} ${place[1] - 8}v16M${place[0] - 5} ${place[1] - 5}h10v10h-10z`}
            fill="transparent"
            stroke={stroke}
            strokeWidth={1.5}
          />
        )
      )}
    </g>
  );
};

/** What the scene's eye sees where nothing is made larger or smaller, and from where. */
export const Sight = ({ corners, from }: { corners: readonly Point[]; from: Point | null }) => (
  <g fill="none" stroke="var(--kite)" data-testid="sight">
    <path d={closed(corners)} strokeWidth={1.25} />
    {from && (
      <>
        <path d={corners.map((corner) => `M${from.join()}L${corner.join()}`).join('')} strokeWidth={1} opacity={0.55} />
        <circle cx={from[0]} cy={from[1]} r={4} fill="var(--kite)" />
      </>
    )}
  </g>
);

/** The way of a layer. */
export const Way = ({ points }: { points: readonly Point[] }) =>
  points.length > 1 && (
    <path
      data-testid="aside-way"
      d={`M${points.map((p) => p.join()).join('L')}`}
      fill="none"
      stroke="var(--tail)"
      strokeWidth={2}
      strokeDasharray="0.1 5"
      strokeLinecap="round"
    />
  );

const AXES = [
  ['x', [1, 0, 0]],
  ['y', [0, 1, 0]],
  ['z', [0, 0, 1]],
] as const;

/** Which way x, y and z go. */
export const Axes = ({ eye, at: [x, y] }: { eye: Eye; at: Point }) => {
  const [ox, oy] = seenAside(eye, [0, 0, 0]);
  return (
    <g fontSize={11} fill="var(--ink-2)" stroke="var(--ink-2)" textAnchor="middle">
      {AXES.map(([name, axis]) => {
        const [ax, ay] = seenAside(eye, axis);
        const [dx, dy] = [ax - ox, ay - oy];
        return (
          Math.hypot(dx, dy) > 0.05 && (
            <g key={name}>
              <path d={`M${x} ${y}l${dx * 16} ${dy * 16}`} />
              <text x={x + dx * 23} y={y + dy * 23 + 4} stroke="none">
                {name}
              </text>
            </g>
          )
        );
      })}
    </g>
  );
};
