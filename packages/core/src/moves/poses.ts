/**
 * Poses: what a scene shows at a frame, read off it, and the keyframes that a strip of poses is made of. They are plain
 * keyframes; a property follows its poses as long as it has exactly those, which is found by making them once more.
 */
import { each, wholeWithin, withFields } from '../document/fitting';
import { isEqual } from '../document/is';
import { LIMITS, POSE_LIMITS } from '../document/limits';
import type { Param } from '../document/params';
import {
  type HeldPose,
  type LayerPose,
  NO_POSES,
  type PosedValues,
  type Poses,
  type PoseStrip,
  type ScenePose,
} from '../document/poses';
import {
  type CurveProperty,
  type Ease,
  type Formulas,
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
import { samplerOf } from '../motion/sampler';
import { paramIn, partOf, propertiesOf, propertyIn, refKey } from '../properties/find';
import { isShown } from '../scene/groups';

/** Words are those of the scene in all of its poses; what a thing is is no matter of how it shows. */
const isPosed = (param: Param): boolean =>
  !param.still && !(param.kind === 'number' && param.clock) && param.kind !== 'text' && param.kind !== 'font';

const isComputed = (formulas: Formulas | undefined, key: string): boolean =>
  [key, `${key}.x`, `${key}.y`].some((own) => formulas?.[own]?.on === true);

/** The properties of a layer that poses are about, with their descriptions. */
const posedOf = (scene: Id, layer: Layer): { readonly ref: PropertyRef; readonly param: Param }[] =>
  propertiesOf(scene, layer).flatMap((ref) => {
    const param = paramIn(layer, ref);
    const { formulas } = (ref.item === undefined ? layer : partOf(layer, ref.item)) ?? {};
    return param && isPosed(param) && !isComputed(formulas, ref.key) ? [{ ref, param }] : [];
  });

/** What layers show at a frame; one that is not there, or hidden, has no opacity. */
export const posedAt = (scene: Scene, frame: number): ScenePose['layers'] =>
  Object.fromEntries(
    scene.order.flatMap((id): [Id, LayerPose][] => {
      const layer = scene.layers[id];
      if (!layer) return [];
      const own: Record<string, Value> = {};
      const parts: Record<Id, Record<string, Value>> = {};
      for (const { ref, param } of posedOf(scene.id, layer)) {
        const values = ref.item === undefined ? own : (parts[ref.item] ??= {});
        const property = propertyIn(layer, ref);
        const value = property ? samplerOf(param, property).at(frame) : param.default;
        if (!isEqual(value, param.default)) values[ref.key] = value;
      }
      if (!isShown(scene, layer, frame)) own.opacity = 0;
      return [[id, { own, parts }]];
    }),
  );

type ChangedValues = ReadonlyMap<string, Value | undefined>;
/** What is otherwise: of each layer, and of its parts, the values by key; undefined for what has its default. */
export type PoseChanges = ReadonlyMap<
  Id,
  { readonly own: ChangedValues; readonly parts: ReadonlyMap<Id, ChangedValues> }
>;

const UNKNOWN: LayerPose = { own: {}, parts: {} };

const changedValues = (from: PosedValues, to: PosedValues): ChangedValues =>
  new Map(
    [...new Set([...Object.keys(from), ...Object.keys(to)])]
      .filter((key) => !isEqual(from[key], to[key]))
      .map((key) => [key, to[key]]),
  );

/** What is shown otherwise than a pose has it, with what it does not know. */
export const changesOf = (pose: ScenePose, shown: ScenePose['layers']): PoseChanges =>
  new Map(
    Object.entries(shown).flatMap(([id, now]) => {
      const then = pose.layers[id] ?? UNKNOWN;
      const own = changedValues(then.own, now.own);
      const parts = Object.entries(now.parts)
        .map(([part, values]) => [part, changedValues(then.parts[part] ?? {}, values)] as const)
        .filter(([part, values]) => values.size > 0 || !then.parts[part]);
      const same = then !== UNKNOWN && own.size === 0 && parts.length === 0;
      return same ? [] : [[id, { own, parts: new Map(parts) }] as const];
    }),
  );

const changed = (values: PosedValues, changes: ChangedValues): PosedValues => {
  const next = new Map<string, Value | undefined>([...Object.entries(values), ...changes]);
  return Object.fromEntries([...next].filter((entry): entry is [string, Value] => entry[1] !== undefined));
};

/** A pose with changes, its own or another one's. */
export const withChanges = (pose: ScenePose, changes: PoseChanges): ScenePose => {
  const layers = [...changes].map(([id, change]): [Id, LayerPose] => {
    const then = pose.layers[id] ?? UNKNOWN;
    const parts = [...change.parts].map(([part, values]) => [part, changed(then.parts[part] ?? {}, values)] as const);
    return [id, { own: changed(then.own, change.own), parts: { ...then.parts, ...Object.fromEntries(parts) } }];
  });
  return { ...pose, layers: { ...pose.layers, ...Object.fromEntries(layers) } };
};

/** The value of a property in a pose; null where the pose does not know it, or not as this. */
const valueIn = (pose: ScenePose | undefined, ref: PropertyRef, param: Param): Value | null => {
  const layer = pose?.layers[ref.layer];
  const values = ref.item === undefined ? layer?.own : layer?.parts[ref.item];
  if (!values) return null;
  const value = values[ref.key] ?? param.default;
  const kind = kindOfValue(param.kind);
  return kind.is(param, value) ? value : null;
};

export const showsIn = (pose: ScenePose | undefined, layer: Id): boolean => {
  const own = pose?.layers[layer]?.own;
  return own !== undefined && own.opacity !== 0;
};

/** A scene as one of its poses has it, at rest: it shows so at the pose's frame. */
export const inPose = (scene: Scene, pose: ScenePose): Scene => ({
  ...scene,
  layers: Object.fromEntries(
    Object.entries(scene.layers).map(([id, layer]) => {
      const params = new Map<Id | undefined, Record<string, Property>>();
      for (const { ref, param } of posedOf(scene.id, layer)) {
        const value = valueIn(pose, ref, param);
        if (value === null) continue;
        const own = params.get(ref.item) ?? {};
        own[ref.key] = { value };
        params.set(ref.item, own);
      }
      const posed = <T extends { readonly params: Layer['params'] }>(holder: T, item?: Id): T => ({
        ...holder,
        params: { ...holder.params, ...params.get(item) },
      });
      const all = <T extends Layer['params'] | object>(map: { readonly [id: Id]: T }) =>
        Object.fromEntries(Object.entries(map).map(([part, one]) => [part, posed(one as never, part)]));
      const there = { hidden: false, from: Math.min(layer.from, pose.frame), to: Math.max(layer.to, pose.frame + 1) };
      const own = { ...posed(layer), ...(showsIn(pose, id) && there) };
      if (own.kind === 'controller') return [id, { ...own, knobs: all(own.knobs) }];
      return [id, { ...own, items: all(own.items) }];
    }),
  ) as Scene['layers'],
});

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

/** The frames at which the pictures of a strip begin, and the one at which the last of them ends. */
export const stripTimes = ({ from, held, loops }: PoseStrip): { readonly starts: readonly number[]; end: number } => {
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
    // Held until it leaves, from where it came to rest already.
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
const written = (param: Param, strip: PoseStrip, values: readonly Value[]): CurveProperty => {
  const [first] = values as [Value];
  if (values.every((value) => isEqual(value, first))) return { value: first };
  const kind = kindOfValue(param.kind);
  const mix = (a: Value, b: Value, t: number) => fittedValue(param, kind.mix(a, b, t));
  const { starts, end } = stripTimes(strip);
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

export interface WrittenPose {
  readonly ref: PropertyRef;
  readonly param: Param;
  readonly property: CurveProperty;
}

/** What a scene's strip makes of a layer's properties, those left out that none of its poses knows. */
export const writtenOn = (scene: Id, { kept, strip }: Poses, layer: Layer): WrittenPose[] => {
  const byId = new Map(kept.map((pose) => [pose.id, pose]));
  const poses = strip.held.map(({ pose }) => byId.get(pose));
  if (!poses.some((pose) => pose?.layers[layer.id])) return [];
  return posedOf(scene, layer).flatMap(({ ref, param }) => {
    const known = poses.map((pose) => valueIn(pose, ref, param));
    const first = known.find((value) => value !== null);
    if (first === undefined || first === null) return [];
    // A pose that is older than a card has it as the one before does.
    let now = first;
    const values = known.map((value) => (now = value ?? now));
    return [{ ref, param, property: written(param, strip, values) }];
  });
};

/** All that a scene's strip makes, by the key of its reference. */
export const writtenIn = (scene: Scene, poses: Poses = scene.poses ?? NO_POSES): ReadonlyMap<string, WrittenPose> =>
  new Map(
    poses.strip.held.length === 0
      ? []
      : Object.values(scene.layers).flatMap((layer) =>
          writtenOn(scene.id, poses, layer).map((one) => [refKey(one.ref), one] as const),
        ),
  );

/** Whether a property is as a strip made it. One that it leaves at rest may rest anywhere: it is the same in all poses. */
export const followsStrip = ({ property }: WrittenPose, now: Property | undefined): boolean => {
  if (isApart(now)) return false;
  if (!isKeyed(property)) return !isKeyed(now);
  return isEqual(property, now);
};

/** The properties that move otherwise than the strip has them: they were edited by hand. */
export const editedByHand = (scene: Scene): readonly PropertyRef[] =>
  [...writtenIn(scene).values()]
    .filter((one) => isKeyed(one.property) && !followsStrip(one, propertyIn(scene.layers[one.ref.layer], one.ref)))
    .map(({ ref }) => ref);

/** A layer of a pose for its copy, whose cards and knobs are others in the same order. */
export const posedLike = (pose: LayerPose, layer: Layer, copy: Layer): LayerPose => {
  const idsOf = (of: Layer) => (of.kind === 'drawing' ? Object.keys(of.items) : of.panel);
  const copies = idsOf(copy);
  const to = new Map(idsOf(layer).map((id, i) => [id, copies[i] ?? id]));
  const parts = Object.entries(pose.parts).map(([id, values]) => [to.get(id) ?? id, values] as const);
  return { ...pose, parts: Object.fromEntries(parts) };
};
