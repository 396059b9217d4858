/** Keyframes of one property, changed. All pure: properties in, properties out. */
import type { Param } from '../document/params';
import {
  type CurveProperty,
  type Ease,
  isApart,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type PathHandles,
  type Point,
  type Property,
  type Value,
} from '../document/types';
import { partParam } from './apart';
import { reversedEase } from './eases/table';
import { SOFT } from './eases/table';
import { movedBy } from './kinds/table';
import { samplerOf } from './sampler';

type Frames = ReadonlySet<number>;

const sorted = (keys: readonly Keyframe[]): Keyframe[] => [...keys].sort((a, b) => a.frame - b.frame);

/** Keyframes with others laid over them: one that lands on another takes its place. */
const laidOver = (under: readonly Keyframe[], over: readonly Keyframe[]): Keyframe[] =>
  sorted([...new Map([...under, ...over].map((k) => [k.frame, k])).values()]);

/** A property from keys; without any it keeps a value. */
const fromKeys = (property: Property | undefined, keys: readonly Keyframe[], rest: Value): CurveProperty =>
  keys.length === 0 ? { value: rest } : { ...(isKeyed(property) ? property : {}), keys };

/** Changes both parts of a point that are apart. */
const bothParts = (
  param: Param,
  property: Property,
  change: (param: Param, part: CurveProperty, axis: 0 | 1) => CurveProperty,
): Property | null =>
  isApart(property) && param.kind === 'point'
    ? {
        parts: [change(partParam(param, 0), property.parts[0], 0), change(partParam(param, 1), property.parts[1], 1)],
      }
    : null;

const keyedCurve = (property: CurveProperty | undefined, frame: number, value: Value): KeyedProperty => {
  if (!isKeyed(property)) return { keys: [{ frame, value, ease: SOFT }] };
  const before = property.keys.findLast((k) => k.frame <= frame);
  const here = before?.frame === frame ? before : undefined;
  const key = { ...here, frame, value, ease: before?.ease ?? SOFT };
  return { ...property, keys: laidOver(property.keys, [key]) };
};

/** Sets a keyframe; on both parts of a point that are apart. A new one's span takes the ease of the span it cuts. */
export const withKey = (param: Param, property: Property | undefined, frame: number, value: Value): Property => {
  if (!isApart(property)) return keyedCurve(property, frame, value);
  const both = bothParts(param, property, (_, part, axis) => keyedCurve(part, frame, (value as Point)[axis]));
  return both ?? property;
};

/** What a change of value means where there are keyframes. */
export type Writing =
  /** A keyframe at this frame. */
  | { readonly write: 'key'; readonly frame: number }
  /** The keyframe at this frame; where there is none the whole curve moves, so that it has the value there. */
  | { readonly write: 'curve'; readonly frame: number };

export const withValue = (param: Param, property: Property | undefined, value: Value, how: Writing): Property => {
  if (isApart(property)) {
    const both = bothParts(param, property, (of, part, axis) => {
      const now = samplerOf(of, part).at(how.frame);
      const next = (value as Point)[axis];
      // Nothing is keyed on the part that was not touched.
      return now === next ? part : (withValue(of, part, next, how) as CurveProperty);
    });
    return both ?? property;
  }
  if (how.write === 'key' && (isKeyed(property) || !param.still)) return keyedCurve(property, how.frame, value);
  if (!isKeyed(property)) return { value };
  if (property.keys.some((k) => k.frame === how.frame)) return keyedCurve(property, how.frame, value);
  const now = samplerOf(param, property).at(how.frame);
  return { ...property, keys: property.keys.map((k) => ({ ...k, value: movedBy(param.kind, k.value, now, value) })) };
};

/** Removes keyframes; the last one leaves its value behind. */
export const withoutKeys = (property: KeyedProperty, frames: Frames): CurveProperty =>
  fromKeys(
    property,
    property.keys.filter((k) => !frames.has(k.frame)),
    (property.keys[0] as Keyframe).value,
  );

const chosen = (property: KeyedProperty, frames: Frames) => property.keys.filter((k) => frames.has(k.frame));
const others = (property: KeyedProperty, frames: Frames) => property.keys.filter((k) => !frames.has(k.frame));

/** Moves the keyframes at these frames to where `to` sends them. One that lands on another takes its place. */
export const withKeysAt = (property: KeyedProperty, frames: Frames, to: (frame: number) => number): KeyedProperty => ({
  ...property,
  keys: laidOver(
    others(property, frames),
    chosen(property, frames).map((k) => ({ ...k, frame: to(k.frame) })),
  ),
});

/** Copies of the keyframes at these frames, so many frames later. */
export const withCopiedKeys = (property: KeyedProperty, frames: Frames, by: number): KeyedProperty => ({
  ...property,
  keys: laidOver(
    property.keys,
    chosen(property, frames).map((k) => ({ ...k, frame: k.frame + by })),
  ),
});

/**
 * The keyframes at these frames in the opposite order within `from` to `to`, with their motion backwards: each span
 * between two of them keeps its way and has its ease turned round.
 */
export const withReversedKeys = (property: KeyedProperty, frames: Frames, from: number, to: number): KeyedProperty => {
  const turned = chosen(property, frames).map((key) => {
    const i = property.keys.indexOf(key);
    const before = property.keys[i - 1];
    // The span that now starts here is the one that ended here.
    const inside = before && frames.has(before.frame);
    const handles = key.handles && ([key.handles[2], key.handles[3], key.handles[0], key.handles[1]] as const);
    return {
      ...key,
      frame: from + to - key.frame,
      ease: inside ? reversedEase(before.ease) : key.ease,
      ...(handles && { handles }),
    };
  });
  // What the run leads into goes on with the ease that led out of it.
  const last = chosen(property, frames).at(-1);
  const first = turned[0];
  if (last && first) turned[0] = { ...first, ease: last.ease };
  return { ...property, keys: laidOver(others(property, frames), turned) };
};

/** Keyframes of the same kind of value laid over a property's own. */
export const withPastedKeys = (property: Property | undefined, keys: readonly Keyframe[]): CurveProperty => ({
  ...(isKeyed(property) ? property : {}),
  keys: laidOver(isKeyed(property) ? property.keys : [], keys),
});

/** Another frame or value for one keyframe. */
export const withKeyMoved = (
  property: KeyedProperty,
  frame: number,
  to: { readonly frame?: number; readonly value?: Value },
): KeyedProperty => ({
  ...property,
  keys: laidOver(
    property.keys.filter((k) => k.frame !== frame),
    property.keys.filter((k) => k.frame === frame).map((k) => ({ ...k, ...to })),
  ),
});

/** Gives an ease to the spans that start at these frames. */
export const withEase = (property: KeyedProperty, frames: Frames, ease: Ease): KeyedProperty => ({
  ...property,
  keys: property.keys.map((k) => (frames.has(k.frame) ? { ...k, ease } : k)),
});

/** Motion-path handles for the keyframe at a frame; null makes its ways straight. */
export const withHandles = (property: KeyedProperty, frame: number, handles: PathHandles | null): KeyedProperty => ({
  ...property,
  keys: property.keys.map((k) => {
    if (k.frame !== frame) return k;
    const { handles: _before, ...plain } = k;
    return handles ? { ...plain, handles } : plain;
  }),
});

const onParts = (property: Property, change: (part: CurveProperty) => CurveProperty): Property =>
  isApart(property) ? { parts: [change(property.parts[0]), change(property.parts[1])] } : change(property);

/** Every keyframe where `to` sends its frame; of two that meet the later one stays. */
export const retimed = (property: Property, to: (frame: number) => number): Property =>
  onParts(property, (part) =>
    isKeyed(part)
      ? {
          ...part,
          keys: laidOver(
            [],
            part.keys.map((k) => ({ ...k, frame: to(k.frame) })),
          ),
        }
      : part,
  );

/** The whole property earlier or later. */
export const shifted = (property: Property, by: number): Property => retimed(property, (frame) => frame + by);

/** The motion of a whole property backwards within `from` to `to`. */
export const reversed = (property: Property, from: number, to: number): Property =>
  onParts(property, (part) => {
    if (!isKeyed(part)) return part;
    const { before, after, ...plain } = part;
    const keys = withReversedKeys(plain, new Set(part.keys.map((k) => k.frame)), from, to).keys;
    return { ...plain, keys, ...(after && { before: after }), ...(before && { after: before }) };
  });

/** Every value of a property, changed, and the handles of its motion path with them. */
export const mappedValues = (
  property: Property | undefined,
  fallback: Value,
  change: (value: Value) => Value,
  handles: (way: Point) => Point = (way) => way,
): Property => {
  if (isApart(property)) throw new RangeError('the parts of a point are to be brought together first');
  if (!isKeyed(property)) return { value: change(property?.value ?? fallback) };
  return {
    ...property,
    keys: property.keys.map((k) => ({
      ...k,
      value: change(k.value),
      ...(k.handles && {
        handles: [
          ...handles([k.handles[0], k.handles[1]]),
          ...handles([k.handles[2], k.handles[3]]),
        ] as unknown as PathHandles,
      }),
    })),
  };
};

const tidy = (n: number): number => Math.round(n * 1e4) / 1e4 + 0;

/** All of a point's values moved by a way, in its own units. */
export const displaced = (property: Property | undefined, fallback: Point, [dx, dy]: Point): Property => {
  if (isApart(property)) {
    const part = (axis: 0 | 1, by: number) =>
      mappedValues(property.parts[axis], 0, (v) => tidy((v as number) + by)) as CurveProperty;
    return { parts: [part(0, dx), part(1, dy)] };
  }
  return mappedValues(property, fallback, (v) => [tidy((v as Point)[0] + dx), tidy((v as Point)[1] + dy)]);
};

/** Every frame at which a property has a keyframe. */
export const keyFrames = (property: Property | undefined): readonly number[] => {
  if (isApart(property)) return [...new Set(property.parts.flatMap(keyFrames))].sort((a, b) => a - b);
  return isKeyed(property) ? property.keys.map((k) => k.frame) : [];
};

export const isAnimated = (property: Property | undefined): boolean => keyFrames(property).length > 0;
