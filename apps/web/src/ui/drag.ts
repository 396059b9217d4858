import type { PointerEvent as ReactPointerEvent } from 'react';

export interface Drag {
  /** From where the pointer went down, in CSS pixels. */
  readonly dx: number;
  readonly dy: number;
  readonly event: PointerEvent;
}
interface DragHandlers {
  /** Once the pointer has moved enough to mean it. */
  readonly onStart?: () => void;
  readonly onMove: (drag: Drag) => void;
  /** `moved` is false for a click. */
  readonly onEnd?: (drag: Drag, moved: boolean) => void;
  readonly onCancel?: () => void;
}

const SLACK = 3;

/** The click that ends a drag is not a click on what lies under it. */
const swallowClick = (): void => {
  const swallow = (event: MouseEvent) => event.stopPropagation();
  window.addEventListener('click', swallow, { capture: true });
  setTimeout(() => window.removeEventListener('click', swallow, { capture: true }), 0);
};

/** Follows a pointer from its going down to its coming up; Escape gives up. */
export const followPointer = (down: ReactPointerEvent | PointerEvent, handlers: DragHandlers): void => {
  const { clientX, clientY, pointerId } = down;
  let moved = false;
  const at = (event: PointerEvent): Drag => ({ dx: event.clientX - clientX, dy: event.clientY - clientY, event });
  const move = (event: PointerEvent) => {
    if (event.pointerId !== pointerId) return;
    const drag = at(event);
    if (!moved) {
      if (Math.hypot(drag.dx, drag.dy) < SLACK) return;
      moved = true;
      handlers.onStart?.();
    }
    handlers.onMove(drag);
  };
  const up = (event: PointerEvent) => {
    if (event.pointerId !== pointerId) return;
    stop();
    if (moved) swallowClick();
    handlers.onEnd?.(at(event), moved);
  };
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    stop();
    handlers.onCancel?.();
  };
  const stop = () => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', up);
    window.removeEventListener('pointercancel', up);
    window.removeEventListener('keydown', key, true);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', up);
  window.addEventListener('pointercancel', up);
  window.addEventListener('keydown', key, true);
};

/** Where the pointer was since the last move: a tablet has said so more often than the screen shows. */
export const allOf = (event: PointerEvent): readonly PointerEvent[] => {
  const all = event.getCoalescedEvents?.() ?? [];
  return all.length > 0 ? all : [event];
};
