/** A press on the canvas, as tools take it. */
import type { Point } from '@kite/core/document/types';
import type { PointerEvent } from 'react';
import { followPointer } from '../../../ui/drag';
import type { Editor } from '../../store/editor';
import type { Stage } from '../stage';
import { toScene } from '../view';

/** A rectangle that is swept over the scene, by its corners in the scene's pixels. */
export interface Swept {
  readonly from: Point;
  readonly to: Point;
}

export interface Press {
  readonly editor: Editor;
  readonly event: PointerEvent;
  readonly stage: Stage;
  /** In the scene's pixels. */
  readonly start: Point;
  /** Shows what is being swept; null ends it. */
  readonly onSwept: (swept: Swept | null) => void;
}

/** Follows a press that sweeps a rectangle. */
export const sweep = (
  { event, stage: { view, pointOf }, start, onSwept }: Press,
  on: { readonly move?: (to: Point) => void; readonly end: (to: Point, moved: boolean) => void },
): void => {
  followPointer(event, {
    onMove: ({ event: now }) => {
      const to = toScene(view, pointOf(now));
      onSwept({ from: start, to });
      on.move?.(to);
    },
    onEnd: ({ event: now }, moved) => {
      onSwept(null);
      on.end(toScene(view, pointOf(now)), moved);
    },
    onCancel: () => onSwept(null),
  });
};
