/** Keyframes that stand so close in the timeline that they cannot be told apart there. */
import type { TimeScale } from './scale';

/** Pixels to the one before it within which a keyframe is in a heap with it. */
const NEAR = 4;
/** So wide are heaps at most, in pixels: each can be taken hold of beside the next. */
const WIDE = 14;
/** How far a bead reaches around its frame, in pixels. */
export const BEAD_RADIUS = 4.5;

/** The frames of each bead, of frames in their order: one, or a heap of them that would lie on one another. Those out of sight are left out. */
export const heapsOf = (frames: readonly number[], scale: TimeScale): readonly (readonly number[])[] => {
  const [near, wide] = [scale.frames(NEAR), scale.frames(WIDE)];
  const heaps: number[][] = [];
  for (const frame of frames) {
    const heap = heaps.at(-1);
    if (heap && frame - (heap.at(-1) as number) < near && frame - (heap[0] as number) < wide) heap.push(frame);
    else heaps.push([frame]);
  }
  const [left, right] = [scale.frame(-6), scale.frame(scale.width + 6)];
  return heaps.filter((heap) => (heap.at(-1) as number) >= left && (heap[0] as number) <= right);
};

/** The frame at whose height the bead of a heap stands. */
export const middleOf = (heap: readonly number[]): number => heap[heap.length >> 1] as number;
