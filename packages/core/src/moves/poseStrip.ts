/**
 * The keyframes that a strip of poses is made of. They are plain ones; a property follows its poses as long as it has exactly
 * those, which is found by making them once more.
 */
import { each, wholeWithin, withFields } from '../document/fitting';
import { isEqual } from '../document/is';
import { LIMITS, POSE_LIMITS } from '../document/limits';
import type { Param } from '../document/params';
import { type HeldPose, NO_POSES, type Poses, type PoseStrip, type ScenePose } from '../document/poses';
import { remembered } from '../document/remembered';
import {
  type CurveProperty,
  type Ease,
  type Id,
  isApart,
  isKeyed,
  type Keyframe,
  type Layer,
  type Property,
  type PropertyRef,
  type Scene,
  type Value,
} from '../document/types';
import { curveOf, fittedEase } from '../motion/eases/table';
import { fittedValue, kindOfValue } from '../motion/kinds/table';
import { propertyIn, refKey } from '../properties/find';
import { type PosedProperty, posedOf, valueIn } from './poses';

/** A strip within its limits. */
export const fittedStrip = (strip: PoseStrip): PoseStrip =>
  withFields(strip, {
    from: wholeWithin(strip.from, 0, LIMITS.length),
    ease: fittedEase(strip.ease),
    held: each(strip.held, (held) =>
      withFields(held, {
        hold: wholeWithin(held.hold, ...POSE_LIMITS.hold),
        between: wholeWithin(held.between, ...POSE_LIMITS.between),
        each: wholeWithin(held.each, ...POSE_LIMITS.each),
      }),
    ),
  });

export interface StripTimes {
  /** The frames at which the pictures begin. */
  readonly starts: readonly number[];
  /** The one at which the last of them ends. */
  readonly end: number;
}

/** When the pictures of a strip are shown. */
export const stripTimes = ({ from, held, loops }: PoseStrip): StripTimes => {
  let at = from;
  const starts = held.map(({ hold, between, each: own }, i) => {
    const start = at;
    at += hold + (i === held.length - 1 && !loops ? 0 : between * own);
    return start;
  });
  return { starts, end: at };
};

/** The picture of a strip that a frame shows, and whether it leads away from it already; null where there is none. */
export const heldAt = (
  strip: PoseStrip,
  frame: number,
): { readonly held: HeldPose; readonly leaves: boolean } | null => {
  const { starts, end } = stripTimes(strip);
  const length = end - strip.from;
  const within =
    strip.loops && length > 0 && frame >= end
      ? strip.from + ((frame - strip.from) % length)
      : Math.max(strip.from, frame);
  const at = starts.findLastIndex((start) => start <= within);
  const [held, start] = [strip.held[at], starts[at]];
  if (!held || start === undefined) return null;
  const last = at === starts.length - 1 && !strip.loops;
  return { held, leaves: !last && within >= start + held.hold };
};

const HOLD = { kind: 'hold' } as const;

/** Keyframes without those that change nothing: held as the one before them is. */
const needed = (keys: readonly Keyframe[]): Keyframe[] => {
  const kept: Keyframe[] = [];
  for (const key of keys) {
    const before = kept.at(-1);
    if (before && before.ease === HOLD && key.ease === HOLD && isEqual(before.value, key.value)) continue;
    kept.push(key);
  }
  return kept;
};

/**
 * The keyframes from one picture of a strip to before the next, of another value; null where it only stays. With `mix` each
 * picture in between is a keyframe, without it they are what an eased span shows.
 */
const keysOf = (
  { hold, between, each: own }: HeldPose,
  start: number,
  [value, next]: readonly [Value, Value | null],
  ease: Ease,
  mix: ((a: Value, b: Value, t: number) => Value) | null,
): Keyframe[] => {
  const stays: Keyframe = { frame: start, value, ease: HOLD };
  if (next === null || between === 0 || isEqual(value, next)) return [stays];
  if (!mix) {
    const leaves: Keyframe = { frame: start + hold - 1, value, ease };
    return hold === 1 ? [leaves] : [stays, leaves];
  }
  const curve = curveOf(ease);
  const pictures = Array.from({ length: between }, (_, i): Keyframe => {
    const share = curve((i + 1) / (between + 1));
    return { frame: start + hold + i * own, value: mix(value, next, share), ease: HOLD };
  });
  return [stays, ...pictures];
};

/** What a strip makes of a property that has these values in its pictures. */
const written = (
  param: Param,
  strip: PoseStrip,
  { starts, end }: StripTimes,
  values: readonly Value[],
): CurveProperty => {
  const [first] = values as [Value];
  if (values.every((value) => isEqual(value, first))) return { value: first };
  const kind = kindOfValue(param.kind);
  const mix = (a: Value, b: Value, t: number) => fittedValue(param, kind.mix(a, b, t));
  const keys = strip.held.flatMap((held, i) => {
    const next = i < values.length - 1 ? (values[i + 1] as Value) : strip.loops ? first : null;
    // Where the scene ends before the first one comes again, there is no keyframe to lead to.
    const apart = held.each > 1 || (strip.fits && i === values.length - 1);
    const ways = [values[i] as Value, next] as const;
    return keysOf(held, starts[i] as number, ways, strip.ease, apart ? mix : null);
  });
  if (!strip.loops || strip.fits) return { keys: needed(keys) };
  return { keys: [...needed(keys), { frame: end, value: first, ease: HOLD }], after: 'cycle' };
};

export interface WrittenPose extends PosedProperty {
  readonly property: CurveProperty;
}

/** What a strip makes of a layer's properties, those left out that none of its poses knows. */
const writtenOn = (
  scene: Id,
  layer: Layer,
  strip: PoseStrip,
  times: StripTimes,
  poses: readonly (ScenePose | undefined)[],
): WrittenPose[] => {
  if (!poses.some((pose) => pose?.layers[layer.id])) return [];
  return posedOf(scene, layer).flatMap(({ ref, param }) => {
    const known = poses.map((pose) => valueIn(pose, ref, param));
    const first = known.find((value) => value !== null);
    if (first === undefined || first === null) return [];
    // A pose that is older than a card has it as the one before does.
    let now = first;
    const values = known.map((value) => (now = value ?? now));
    return [{ ref, param, property: written(param, strip, times, values) }];
  });
};

/** All that a strip of poses makes in a scene, by the key of its reference. */
export const writtenBy = (scene: Scene, { kept, strip }: Poses): ReadonlyMap<string, WrittenPose> => {
  const byId = new Map(kept.map((pose) => [pose.id, pose]));
  const poses = strip.held.map(({ pose }) => byId.get(pose));
  const times = stripTimes(strip);
  const all = Object.values(scene.layers).flatMap((layer) => writtenOn(scene.id, layer, strip, times, poses));
  return new Map(all.map((one) => [refKey(one.ref), one]));
};

/** The same of the scene's own. */
export const writtenIn = remembered((scene: Scene) => writtenBy(scene, scene.poses ?? NO_POSES));

/** Whether a property is as a strip made it. One that it leaves at rest may rest anywhere: it is the same in all poses. */
export const followsStrip = ({ property }: WrittenPose, now: Property | undefined): boolean => {
  if (isApart(now)) return false;
  if (!isKeyed(property)) return !isKeyed(now);
  return isEqual(property, now);
};

/** The properties that move otherwise than the strip has them: they were edited by hand. */
export const editedByHand = remembered((scene: Scene): readonly PropertyRef[] =>
  [...writtenIn(scene).values()]
    .filter((one) => isKeyed(one.property) && !followsStrip(one, propertyIn(scene.layers[one.ref.layer], one.ref)))
    .map(({ ref }) => ref),
);
