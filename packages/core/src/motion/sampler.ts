import { lastMade, remembered } from '../document/remembered';
import type { Param, PointParam } from '../document/params';
import {
  type ApartProperty,
  type Beyond,
  type Id,
  isApart,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type Property,
  type Value,
  type ValueKind,
} from '../document/types';
import { partParam } from './apart';
import { curveOf } from './eases/table';
import type { Curve } from './eases/types';
import { headingOf } from './heading';
import { acceptor, kindOfValue, movedBy } from './kinds/table';
import { step } from './kinds/types';
import { isCurved, tracksOf } from './track';

export type TextUnit = 'letters' | 'words' | 'lines';

/** A letter, a word or a line of a card's text; or all that is no text. */
export type TextPart = 'rest' | { readonly card: Id; readonly by: TextUnit; readonly index: number };

/** Which copy of a repeater asks, or which part of a text is asked for, from 0. */
export interface Copy {
  readonly order: number;
  readonly count: number;
  readonly part?: TextPart;
  /** What the part says. */
  readonly letter?: string;
}

/** What a value was worked out from; its sampler writes it anew with each. An object, since it is read for each of very many. */
export interface Cost {
  /** Moments of other samplers, itself counted. */
  readonly moments: number;
}

/** A property's value at any frame, whole or not. */
export interface Sampler {
  readonly at: (frame: number, copy?: Copy) => Value;
  /** Whether the value is the same at every frame. */
  readonly constant: boolean;
  /** The direction in which a point travels, in degrees clockwise from the right; null for what does not. */
  readonly heading: (frame: number) => number | null;
  /** Whether each copy of a repeater has a value of its own. */
  readonly perCopy?: boolean;
  /** Of the value that was asked last; a single moment where missing. */
  readonly cost?: Cost;
}

const noHeading = () => null;
const still = (value: Value): Sampler => ({ at: () => value, constant: true, heading: noHeading });

/** The index of the last key at or before a frame, -1 if there is none. */
const indexAt = (keys: readonly Keyframe[], frame: number): number => {
  let low = 0;
  let high = keys.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if ((keys[mid] as Keyframe).frame <= frame) low = mid + 1;
    else high = mid;
  }
  return low - 1;
};

/** A frame as one between the keys, and how many turns of theirs lie between the two. */
interface Folded {
  readonly frame: number;
  readonly turns: number;
}

const folded = (how: Beyond, frame: number, first: number, last: number): Folded => {
  const length = last - first;
  const clamped = Math.min(Math.max(frame, first), last);
  if (frame === clamped || length === 0 || how === 'hold' || how === 'continue') return { frame: clamped, turns: 0 };
  const turns = Math.floor((frame - first) / length);
  const rest = frame - first - turns * length;
  if (how === 'pingpong' && turns % 2 !== 0) return { frame: last - rest, turns };
  return { frame: first + rest, turns };
};

const keyed = (kind: ValueKind, property: KeyedProperty): Sampler => {
  const { keys, even } = property;
  const first = keys[0] as Keyframe;
  const last = keys.at(-1) as Keyframe;
  if (keys.length === 1) return still(first.value);
  const { mix } = kindOfValue(kind);
  const tracks = kind === 'point' ? tracksOf(property) : null;
  const curves = keys.map((key) => curveOf(key.ease));
  const bent = keys.map((key, i) =>
    keys[i + 1] && isCurved(key, keys[i + 1] as Keyframe) ? (tracks?.[i] ?? null) : null,
  );
  const spanAt = (frame: number) => Math.min(Math.max(indexAt(keys, frame), 0), keys.length - 2);

  const within = (frame: number): Value => {
    if (even && tracks?.[0]) {
      return tracks[0].at(curveOf(first.ease)((frame - first.frame) / (last.frame - first.frame)));
    }
    const i = spanAt(frame);
    const p = keys[i] as Keyframe;
    const q = keys[i + 1] as Keyframe;
    // A mix with what comes next may have another form, as a path with more vertices.
    if (frame === p.frame) return p.value;
    if (frame === q.frame) return q.value;
    const t = (curves[i] as Curve)((frame - p.frame) / (q.frame - p.frame));
    const track = bent[i];
    return track ? track.at(t) : mix(p.value, q.value, t);
  };

  const headingAt = (frame: number): number | null => {
    if (!tracks) return null;
    if (even && tracks[0]) {
      return tracks[0].heading(curveOf(first.ease)((frame - first.frame) / (last.frame - first.frame)));
    }
    const i = spanAt(frame);
    const p = keys[i] as Keyframe;
    const q = keys[i + 1] as Keyframe;
    const here = tracks[i]?.heading(curveOf(p.ease)((frame - p.frame) / (q.frame - p.frame))) ?? null;
    if (here !== null) return here;
    // While it waits it looks where it last went; before it first goes, where it will go.
    for (let n = i - 1; n >= 0; n--) if (tracks[n]?.length) return tracks[n]?.heading(1) ?? null;
    for (let n = i + 1; n < tracks.length; n++) if (tracks[n]?.length) return tracks[n]?.heading(0) ?? null;
    return null;
  };

  const carriedOn = (edge: Keyframe, out: 1 | -1, frame: number): Value => {
    // The tangent at the edge, from a hundredth of a frame within.
    const inner = within(edge.frame - out * 0.01);
    const slope = movedBy(kind, edge.value, inner, edge.value);
    return mix(edge.value, slope, Math.abs(frame - edge.frame) / 0.01);
  };

  const howAt = (frame: number): Beyond => (frame < first.frame ? property.before : property.after) ?? 'hold';
  return {
    constant: false,
    heading: (frame) => headingAt(folded(howAt(frame), frame, first.frame, last.frame).frame),
    at: (frame) => {
      if (frame >= first.frame && frame <= last.frame) return within(frame);
      const how = howAt(frame);
      if (how === 'hold' && !even) return (frame < first.frame ? first : last).value;
      if (how === 'continue') return carriedOn(frame < first.frame ? first : last, frame < first.frame ? -1 : 1, frame);
      const inside = folded(how, frame, first.frame, last.frame);
      const value = within(inside.frame);
      if (how !== 'offset') return value;
      let moved = value;
      const [from, to] = inside.turns > 0 ? [first.value, last.value] : [last.value, first.value];
      for (let n = Math.abs(inside.turns); n > 0; n--) moved = movedBy(kind, moved, from, to);
      return moved;
    },
  };
};

const apart = (param: PointParam, { parts }: ApartProperty): Sampler => {
  const [x, y] = [samplerOf(partParam(param, 0), parts[0]), samplerOf(partParam(param, 1), parts[1])];
  const at = (frame: number) => [x.at(frame) as number, y.at(frame) as number] as const;
  const constant = x.constant && y.constant;
  if (constant) return still(at(0));
  return {
    at,
    constant,
    heading: headingOf(at),
  };
};

/** The values of a sampler, stopped at the limits of their parameter: an ease that overshoots carries beyond them. */
const limited = (param: Param, sampler: Sampler): Sampler => {
  const { mix, accept: limits } = kindOfValue(param.kind);
  // Where there is nothing between two values nothing is beyond them either.
  if (!limits || mix === step || sampler.constant) return sampler;
  const accept = acceptor(param);
  return { ...sampler, at: (frame, copy) => accept(sampler.at(frame, copy)) ?? param.default };
};

const build = (param: Param, property: Property): Sampler => {
  if (isApart(property)) return param.kind === 'point' ? apart(param, property) : still(param.default);
  return isKeyed(property) ? limited(param, keyed(param.kind, property)) : still(property.value);
};

const samplers = lastMade<Property, Sampler>();
const ofDefault = remembered((param: Param) => still(param.default));

/** The sampler of a property, built once for each property object; a missing property has its default. */
export const samplerOf = (param: Param, property: Property | undefined): Sampler =>
  property ? samplers(property, [param], () => build(param, property)) : ofDefault(param);
