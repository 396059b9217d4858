/** Keyframes of one property, changed. All pure: properties in, properties out. */
import type { Param } from '../document/params';
import { type Ease, isKeyed, type KeyedProperty, type Keyframe, type Property, type Value } from '../document/types';
import { SOFT } from './eases/table';
import { movedBy } from './mix';
import { samplerOf } from './sampler';

const sorted = (keys: readonly Keyframe[]): Keyframe[] => [...keys].sort((a, b) => a.frame - b.frame);

/** A property from keys; without any it keeps a value. */
const fromKeys = (property: Property | undefined, keys: readonly Keyframe[], rest: Value): Property =>
  keys.length === 0 ? { value: rest } : { ...(isKeyed(property) ? property : {}), keys };

/** Sets a keyframe. A new one's span takes the ease of the span it cuts. */
export const withKey = (property: Property | undefined, frame: number, value: Value): KeyedProperty => {
  if (!isKeyed(property)) return { keys: [{ frame, value, ease: SOFT }] };
  const before = property.keys.findLast((k) => k.frame <= frame);
  const key = { frame, value, ease: before?.ease ?? SOFT };
  return { ...property, keys: sorted([...property.keys.filter((k) => k.frame !== frame), key]) };
};

/** What a change of value means where there are keyframes. */
export type Writing =
  /** A keyframe at this frame. */
  | { readonly write: 'key'; readonly frame: number }
  /** The whole curve moves so that it has the value at this frame. */
  | { readonly write: 'curve'; readonly frame: number };

export const withValue = (param: Param, property: Property | undefined, value: Value, how: Writing): Property => {
  if (how.write === 'key') return withKey(property, how.frame, value);
  if (!isKeyed(property)) return { value };
  const now = samplerOf(param, property).at(how.frame);
  return { ...property, keys: property.keys.map((k) => ({ ...k, value: movedBy(param.kind, k.value, now, value) })) };
};

/** Removes keyframes; the last one leaves its value behind. */
export const withoutKeys = (property: KeyedProperty, frames: ReadonlySet<number>): Property =>
  fromKeys(
    property,
    property.keys.filter((k) => !frames.has(k.frame)),
    (property.keys[0] as Keyframe).value,
  );

/** Moves the keyframes at these frames. One that lands on another takes its place. */
export const withMovedKeys = (property: KeyedProperty, frames: ReadonlySet<number>, by: number): KeyedProperty => {
  const moved = property.keys.filter((k) => frames.has(k.frame)).map((k) => ({ ...k, frame: k.frame + by }));
  const landed = new Set(moved.map((k) => k.frame));
  const kept = property.keys.filter((k) => !frames.has(k.frame) && !landed.has(k.frame));
  return { ...property, keys: sorted([...kept, ...moved]) };
};

/** Gives an ease to the spans that start at these frames. */
export const withEase = (property: KeyedProperty, frames: ReadonlySet<number>, ease: Ease): KeyedProperty => ({
  ...property,
  keys: property.keys.map((k) => (frames.has(k.frame) ? { ...k, ease } : k)),
});

/** The whole property earlier or later. */
export const shifted = (property: Property, by: number): Property =>
  isKeyed(property) ? { ...property, keys: property.keys.map((k) => ({ ...k, frame: k.frame + by })) } : property;
