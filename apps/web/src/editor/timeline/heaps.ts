/** Keyframes that stand so close in the timeline that they cannot be told apart there. */
import type { TimeScale } from './scale';

/** Pixels from the first of a heap within which others belong to it. */
const NEAR = 4;
/** How far a bead reaches around its frame, in pixels. */
export const BEAD_RADIUS = 4.5;

/** The frames of each bead, of frames in their order: one, or a heap of them that would lie on one another. Those out of sight are left out. */
export const heapsOf = (frames: readonly number[], scale: TimeScale): readonly (readonly number[])[] => {
  const near = scale.frames(NEAR);
  const heaps: number[][] = [];
  for (const frame of frames) {
    const heap = heaps.at(-1);
    if (heap && frame - (heap[0] as number) < near) heap.push(frame);
    else heaps.push([frame]);
  }
  const [left, right] = [scale.frame(-6), scale.frame(scale.width + 6)];
  return heaps.filter((heap) => (heap.at(-1) as number) >= left && (heap[0] as number) <= right);
};
