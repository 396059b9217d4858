/** Frames to pixels of the timeline's track area. */
import { scaleLinear } from 'd3-scale';

export const NAMES_WIDTH = 232;
export const ROW = 26;
const PAD = 12;

export interface TimeScale {
  readonly width: number;
  /** Of the scene, in frames. */
  readonly length: number;
  readonly x: (frame: number) => number;
  /** The frame under a place, not rounded. */
  readonly frame: (x: number) => number;
  readonly ticks: readonly number[];
}

export const timeScale = (length: number, width: number): TimeScale => {
  const scale = scaleLinear()
    .domain([0, length])
    .range([PAD, Math.max(PAD + 1, width - PAD)]);
  return {
    width,
    length,
    x: (frame) => scale(frame),
    frame: (x) => scale.invert(x),
    ticks: scale.ticks(Math.max(2, width / 60)).filter(Number.isInteger),
  };
};
