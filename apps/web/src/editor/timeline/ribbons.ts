/** A property's real values over time, as lines for its ribbon. */
import type { Param } from '@kite/core/document/params';
import type { Value } from '@kite/core/document/types';
import { kindOfValue } from '@kite/core/motion/kinds/table';
import type { Sampler } from '@kite/core/motion/sampler';
import { line } from 'd3-shape';
import type { TimeScale } from './scale';

export interface RibbonCurve {
  readonly path: string;
  /** The height of the curve at a frame, in the ribbon's pixels. */
  readonly y: (frame: number) => number;
  /** How far the values reach: beads sit on the component that moves most. */
  readonly reach: number;
}

/** Numbers that stand for a value in its ribbon; none for kinds that have no height. */
const heights = (kind: Param['kind'], value: Value): readonly number[] => kindOfValue(kind).heights?.(value) ?? [];

/** Keyframes are frames that the curve has to be right at. One curve for each component, each filling the ribbon's height; for kinds without height, none. */
export const ribbonCurves = (
  param: Param,
  sampler: Sampler,
  keys: readonly number[],
  scale: TimeScale,
  height: number,
): RibbonCurve[] => {
  const count = heights(param.kind, sampler.at(0)).length;
  const step = Math.max(0.25, scale.frames(3));
  // What is out of sight is not drawn; keyframes there count for how high the curve reaches.
  const [first, last] = [Math.max(0, scale.frame(0)), Math.max(scale.length, keys.at(-1) ?? 0)];
  const end = Math.min(last, scale.frame(scale.width));
  const frames: number[] = [];
  for (let f = first; f <= end; f += step) frames.push(f);
  for (const key of keys) frames.push(key, key - 0.001);
  frames.sort((a, b) => a - b);
  const pad = 5;
  return Array.from({ length: count }, (_, c) => {
    const at = (frame: number) => heights(param.kind, sampler.at(frame))[c] ?? 0;
    const values = frames.map(at);
    const low = Math.min(...values);
    const high = Math.max(...values);
    const y = (v: number) =>
      high - low < 1e-9 ? height / 2 : height - pad - ((v - low) / (high - low)) * (height - 2 * pad);
    const path = line<number>()
      .x((f) => scale.x(f))
      .y((_f, i) => y(values[i] as number))(frames);
    return { path: path ?? '', y: (frame: number) => y(at(frame)), reach: high - low };
  });
};

/** The colours of a colour or gradient property along time, as a CSS gradient. */
export const ribbonColors = (param: Param, sampler: Sampler, scale: TimeScale): string | null => {
  const { color } = kindOfValue(param.kind);
  if (!color) return null;
  const stops = Array.from({ length: 33 }, (_, i) => {
    const x = (i / 32) * scale.width;
    return `${color(sampler.at(Math.max(0, scale.frame(x))))} ${x}px`;
  });
  return `linear-gradient(to right, ${stops.join(', ')})`;
};

/** A value as the ribbon's head shows it. */
export const shownValue = (param: Param, value: Value): string => kindOfValue(param.kind).says(param, value);
