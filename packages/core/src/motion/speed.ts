/** The speed of properties: how much a number, or how far a point, changes in a frame; and eases made by their speed. */
import type { NumberParam, PointParam } from '../document/params';
import type { Ease, KeyedProperty, Keyframe, Point, Property } from '../document/types';
import { samplerOf } from './sampler';
import { tracksOf } from './track';

/** Half of the stretch, in frames, over which a slope is measured. */
const H = 1e-3;

/** A frame seen from before it or from after it: at keyframes speeds may jump. */
export type Side = 'before' | 'after';

/**
 * Units per frame at a frame, whole or not. Points travel along their path; a speed below 0 goes back along it.
 */
export const speedOf = (param: NumberParam | PointParam, property: Property | undefined) => {
  const sampler = samplerOf(param, property);
  return (frame: number, side: Side = 'after'): number => {
    const [a, b] = side === 'after' ? [frame, frame + 2 * H] : [frame - 2 * H, frame];
    const [p, q] = [sampler.at(a), sampler.at(b)];
    if (param.kind === 'number') return ((q as number) - (p as number)) / (2 * H);
    const [from, to] = [p as Point, q as Point];
    const [dx, dy] = [(to[0] - from[0]) / (2 * H), (to[1] - from[1]) / (2 * H)];
    const heading = sampler.heading(side === 'after' ? frame + H : frame - H);
    if (heading === null) return Math.hypot(dx, dy);
    const turn = (heading * Math.PI) / 180;
    return dx * Math.cos(turn) + dy * Math.sin(turn);
  };
};

/** How far each span goes: the change of a number, the length of a point's way. */
export const wayOf = (param: NumberParam | PointParam, property: KeyedProperty): number[] =>
  param.kind === 'point'
    ? (property.even ? [] : tracksOf(property)).map((track) => track.length)
    : property.keys.slice(1).map((key, i) => (key.value as number) - ((property.keys[i] as Keyframe).value as number));

/** An end of an ease's curve: how far its handle reaches, as a share of the span, and how steep it is. */
export interface EaseEnd {
  readonly reach: number;
  /** Share of the way per share of the time: 1 is the even pace. */
  readonly slope: number;
}

const EVEN: EaseEnd = { reach: 1 / 3, slope: 1 };

/** Both ends of an ease that has handles; null for the other kinds. */
export const endsOf = (ease: Ease): { readonly start: EaseEnd; readonly end: EaseEnd } | null => {
  if (ease.kind === 'linear') return { start: EVEN, end: EVEN };
  if (ease.kind !== 'bezier') return null;
  const { x1, y1, x2, y2 } = ease;
  return {
    start: { reach: x1, slope: x1 > 1e-6 ? y1 / x1 : y1 === 0 ? 0 : 100 },
    end: { reach: 1 - x2, slope: 1 - x2 > 1e-6 ? (1 - y2) / (1 - x2) : y2 === 1 ? 0 : 100 },
  };
};

const MOST = 100;
const within = (n: number) => Math.min(MOST, Math.max(-MOST, n));

/** The ease with one of its ends changed. Its values at both ends stay, so the area below its speed stays too. */
export const withEnd = (ease: Ease, which: 'start' | 'end', { reach, slope }: EaseEnd): Ease => {
  const ends = endsOf(ease) ?? { start: EVEN, end: EVEN };
  // What was meant to be flat is flat.
  const changed = { reach: Math.min(1, Math.max(0, reach)), slope: Math.abs(slope) < 1e-9 ? 0 : slope };
  const [start, end] = which === 'start' ? [changed, ends.end] : [ends.start, changed];
  return {
    kind: 'bezier',
    x1: start.reach,
    y1: within(start.slope * start.reach),
    x2: 1 - end.reach,
    y2: within(1 - end.slope * end.reach),
  };
};
