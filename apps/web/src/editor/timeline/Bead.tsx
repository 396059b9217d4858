import type { ComponentProps } from 'react';
import { BEAD_RADIUS } from './heaps';
import type { TimeScale } from './scale';

interface BeadProps extends Pick<ComponentProps<'rect'>, 'onPointerDown' | 'onClick' | 'onDoubleClick' | 'className'> {
  /** Of its keyframe, or of the heap of them that it stands for. */
  frames: readonly number[];
  chosen: ReadonlySet<number>;
  scale: TimeScale;
  y: number;
  /** The name of the property. */
  of: string;
  color: string;
  testId: string;
}

/** What is pressed and dragged for a keyframe, or for all of a heap. */
export const Bead = ({ frames, chosen, scale, y, of, color, testId, ...rest }: BeadProps) => {
  const [first, last] = [frames[0] as number, frames.at(-1) as number];
  const some = frames.some((frame) => chosen.has(frame));
  const every = some && frames.every((frame) => chosen.has(frame));
  // Those of heaps stand beside each other.
  const width = Math.max(2 * BEAD_RADIUS, scale.x(last) - scale.x(first) - 2);
  return (
    <rect
      {...rest}
      role="button"
      aria-label={
        first === last
          ? `Keyframe of ${of} at ${first}`
          : `${frames.length} keyframes of ${of} from ${first} to ${last}`
      }
      aria-pressed={some && !every ? 'mixed' : every}
      data-testid={testId}
      x={(scale.x(first) + scale.x(last) - width) / 2}
      y={y - BEAD_RADIUS}
      width={width}
      height={2 * BEAD_RADIUS}
      rx={BEAD_RADIUS}
      fill={some ? color : 'var(--paper)'}
      stroke={some ? 'var(--ink)' : color}
      strokeWidth={2}
    >
      {first !== last && <title>{`${frames.length} keyframes, ${first} to ${last}: zoom in to tell them apart`}</title>}
    </rect>
  );
};
