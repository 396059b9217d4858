/** Frames to pixels of the timeline's track area. */
import { ticks } from 'd3-array';

export const NAMES_WIDTH = 312;
export const ROW = 26;
/** The look of a button in a row. */
export const rowButton = 'grid size-5 place-items-center rounded-sm hover:text-ink';
/** Beside the first frame and the last: as wide as half a bead and the bar that scrolls the rows. */
const PAD = 16;
/** Pixels of a frame when zoomed in as far as it goes. */
const WIDEST = 60;

/** The frames that the track area shows, from its left to its right. */
export type Reach = readonly [from: number, to: number];

export interface TimeScale {
  readonly width: number;
  /** Of the scene, in frames. */
  readonly length: number;
  readonly x: (frame: number) => number;
  /** The frame under a place, not rounded. */
  readonly frame: (x: number) => number;
  /** Frames that a number of pixels stands for. */
  readonly frames: (pixels: number) => number;
  readonly ticks: readonly number[];
  readonly reach: Reach;
}

/** A scale that shows `reach`, or the whole scene. */
export const timeScale = (length: number, width: number, reach: Reach | null = null): TimeScale => {
  const shown = reach ?? [0, length];
  const [from, to] = shown;
  const wide = (to - from) / Math.max(1, width - 2 * PAD);
  return {
    width,
    length,
    reach: shown,
    x: (frame) => PAD + (frame - from) / wide,
    frame: (x) => from + (x - PAD) * wide,
    frames: (pixels) => pixels * wide,
    ticks: ticks(from, to, Math.max(2, width / 60)).filter(Number.isInteger),
  };
};

/** What is shown after zooming by a factor (over 1 shows less) about a frame; null once all of the scene is shown. */
export const zoomed = (scale: TimeScale, factor: number, about: number): Reach | null => {
  const [from, to] = scale.reach;
  const least = (scale.width - 2 * PAD) / WIDEST;
  const size = Math.max((to - from) / factor, least);
  if (size >= scale.length) return null;
  const share = (about - from) / (to - from);
  return within([about - share * size, about + (1 - share) * size], scale.length);
};

/** What is shown after moving on by frames. */
export const panned = (scale: TimeScale, frames: number): Reach | null => {
  const [from, to] = scale.reach;
  return to - from >= scale.length ? null : within([from + frames, to + frames], scale.length);
};

const within = ([from, to]: Reach, length: number): Reach => {
  const size = to - from;
  const start = Math.min(Math.max(from, 0), Math.max(0, length - size));
  return [start, start + size];
};
