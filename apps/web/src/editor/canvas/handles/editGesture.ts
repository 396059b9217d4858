import type { PointerEvent as ReactPointerEvent } from 'react';
import { type Drag, followPointer } from '../../../ui/drag';
import type { Editor } from '../../store/editor';

interface EditGesture {
  /** Makes the edit that the drag means so far. */
  readonly move: (drag: Drag) => void;
  /** Once the pointer has moved enough to mean it, before the first edit. */
  readonly start?: () => void;
  /** Once it is let go after it was dragged: what it does is in the same step. */
  readonly drop?: () => void;
  /** However it ends. */
  readonly end?: () => void;
  /** The picture is what is looked at: the panels may follow a little later. */
  readonly first?: 'picture';
  /** Whether what lies around the pressed thing hears of the press too. */
  readonly bubbles?: boolean;
}

/** A press that is dragged is one undo step; Escape takes it back. Only the main button counts. */
export const editGesture = (
  editor: Editor,
  event: ReactPointerEvent,
  { move, start, drop, end, first, bubbles }: EditGesture,
): void => {
  if (event.button !== 0) return;
  if (!bubbles) event.stopPropagation();
  const over = () => {
    editor.set({ readout: null, snapped: null });
    end?.();
  };
  followPointer(event, {
    onStart: () => {
      start?.();
      editor.begin(first);
    },
    onMove: move,
    onEnd: (_drag, moved) => {
      if (moved) drop?.();
      over();
      if (moved) editor.end();
    },
    onCancel: () => {
      over();
      editor.abandon();
    },
  });
};
