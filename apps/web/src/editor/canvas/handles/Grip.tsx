import type { Point } from '@kite/core/document/types';
import type { PointerEvent } from 'react';

interface GripProps {
  at: Point;
  /** Of a layer, or of a card within one. */
  of: 'layer' | 'card';
  cursor: string | undefined;
  testId: string;
  onPointerDown: (event: PointerEvent) => void;
}

/** A square handle that scales, or changes a size. */
export const Grip = ({ at: [x, y], of, cursor, testId, onPointerDown }: GripProps) => (
  <rect
    data-testid={testId}
    x={x - 4}
    y={y - 4}
    width={8}
    height={8}
    rx={1.5}
    fill="var(--paper)"
    stroke={of === 'layer' ? 'var(--sky)' : 'var(--tail)'}
    strokeWidth={1.5}
    style={{ pointerEvents: 'all', cursor }}
    onPointerDown={onPointerDown}
  />
);
