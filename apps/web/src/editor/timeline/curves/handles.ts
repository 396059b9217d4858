/** The handles of eases in the curves view: where they stand, and what ease a dragged one makes. */
import type { Ease, Keyframe, Point } from '@kite/core/document/types';
import { type EaseEnd, endsOf, wayOf, withEnd } from '@kite/core/motion/speed';
import { isCurved } from '@kite/core/motion/track';
import { factorOf } from '../../inspector/fields/units';
import type { CurveMode, ShownCurve } from './shown';

export interface Handle {
  readonly which: 'start' | 'end';
  /** The keyframe whose span's ease it belongs to. */
  readonly key: Keyframe;
  /** The keyframe that it stands at. */
  readonly at: readonly [frame: number, value: number];
  readonly tip: readonly [frame: number, value: number];
  /** The ease that it makes when its tip is put somewhere. */
  readonly moved: (frame: number, value: number) => Ease;
}

const component = (curve: ShownCurve, key: Keyframe): number =>
  (curve.component === null ? (key.value as number) : (key.value as Point)[curve.component]) *
  factorOf(curve.param.unit);

/** A handle of a span that goes `way` in its time; `base` is the value at its keyframe, or 0 where speeds show. */
const handle = (
  which: 'start' | 'end',
  from: Keyframe,
  to: Keyframe,
  end: EaseEnd,
  mode: CurveMode,
  way: number,
  base: number,
  rate: number,
): Handle => {
  const length = to.frame - from.frame;
  const key = which === 'start' ? from : to;
  const sign = which === 'start' ? 1 : -1;
  const speed = (slope: number) => (slope * way * rate) / length;
  const tipFrame = key.frame + sign * end.reach * length;
  const tip =
    mode === 'speed'
      ? ([tipFrame, speed(end.slope)] as const)
      : ([tipFrame, base + sign * end.slope * end.reach * way] as const);
  return {
    which,
    key: from,
    at: [key.frame, mode === 'speed' ? speed(end.slope) : base],
    tip,
    moved: (frame, value) => {
      const reach = Math.min(1, Math.max(0.001, (sign * (frame - key.frame)) / length));
      const slope =
        way === 0
          ? end.slope
          : mode === 'speed'
            ? (value * length) / (way * rate)
            : (sign * (value - base)) / (way * reach);
      return withEnd(from.ease, which, { reach, slope });
    },
  };
};

/** The handles of the spans of a curve whose eases have any: of all, or of those that are wanted; `rate` is in frames per second. */
export const handlesOf = (
  curve: ShownCurve,
  mode: CurveMode,
  rate: number,
  wanted: (from: number, to: number) => boolean = () => true,
): Handle[] => {
  const { keys, even } = curve.property;
  if (even) return [];
  const factor = factorOf(curve.param.unit);
  const ways = mode === 'speed' ? wayOf(curve.param, curve.property).map((w) => w * factor) : null;
  return keys.slice(1).flatMap((to, i) => {
    const from = keys[i] as Keyframe;
    if (!wanted(from.frame, to.frame)) return [];
    const ends = endsOf(from.ease);
    // Along a curved way the values of x and y are no longer the ease's own curve: its speed is edited instead.
    if (!ends || (mode === 'value' && curve.param.kind === 'point' && isCurved(from, to))) return [];
    const [a, b] = mode === 'value' ? [component(curve, from), component(curve, to)] : [0, 0];
    const way = ways ? (ways[i] ?? 0) : b - a;
    if (mode === 'speed' && way === 0) return [];
    return [
      handle('start', from, to, ends.start, mode, way, a, rate),
      handle('end', from, to, ends.end, mode, way, b, rate),
    ];
  });
};
